#pragma once

#include <QFile>
#include <QSettings>
#include <QStandardPaths>

namespace echappe {

/// What a person has set and the window remembers: one file, in the desktop's folder for settings.
class Settings : public QSettings {
public:
    Settings() : QSettings(file(), QSettings::IniFormat) {}

private:
    static QString file() {
        const QString config = QStandardPaths::writableLocation(QStandardPaths::GenericConfigLocation);
        const QString file = config + "/echappe/settings.ini";
        // Earlier versions kept it under another name.
        static const bool carried = QFile::exists(file) || QFile::copy(config + "/echappe/echappe.conf", file);
        static_cast<void>(carried);
        return file;
    }
};

}  // namespace echappe
