#include "document/folders.h"

#include <QDir>
#include <QFile>
#include <QStandardPaths>

namespace echappe {

QString state_folder() {
    if (const QString given = qEnvironmentVariable("ECHAPPE_STATE"); !given.isEmpty()) return given;
    // Qt 6.4 does not name the state folder of the desktop's base directories.
    // What is empty or not absolute is to be taken as not set (XDG Base Directory Specification).
    const QString given_base = qEnvironmentVariable("XDG_STATE_HOME");
    return (QDir::isAbsolutePath(given_base) ? given_base : QDir::homePath() + "/.local/state") + "/echappe";
}

QString data_folder() {
    const QString given = qEnvironmentVariable("ECHAPPE_STATE");
    if (!given.isEmpty()) return given;
    const QString base = QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/echappe";
    // Earlier versions kept the drawers a folder deeper.
    static const bool carried = [&base] {
        QDir deeper(base + "/echappe");
        for (const QString& name : deeper.entryList(QDir::Files))
            if (!QFile::exists(base + "/" + name)) QFile::rename(deeper.filePath(name), base + "/" + name);
        return true;
    }();
    static_cast<void>(carried);
    return base;
}

}  // namespace echappe
