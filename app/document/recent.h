#pragma once

#include <QFileInfo>
#include <QStringList>

#include "document/settings.h"

namespace echappe {

/// The job files opened or saved last that are still there, the newest first.
inline QStringList recent_jobs() {
    QStringList jobs = Settings().value("recent").toStringList();
    jobs.removeIf([](const QString& path) { return !QFileInfo::exists(path); });
    return jobs;
}

}  // namespace echappe
