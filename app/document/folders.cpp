#include "document/folders.h"

#include <QDir>
#include <QStandardPaths>

namespace echappe {

QString state_folder() {
    if (const QString given = qEnvironmentVariable("ECHAPPE_STATE"); !given.isEmpty()) return given;
    // Qt 6.4 does not name the state folder of the desktop's base directories.
    const QString base = qEnvironmentVariable("XDG_STATE_HOME", QDir::homePath() + "/.local/state");
    return base + "/echappe";
}

QString data_folder() {
    const QString given = qEnvironmentVariable("ECHAPPE_STATE");
    return given.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation) : given;
}

}  // namespace echappe
