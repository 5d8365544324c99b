#pragma once

#include <QFileInfo>
#include <QStringList>

#include "document/settings.h"

namespace echappe {

/// Where jobs lie: as it is set, else where the last one was; empty: where the program was started.
inline QString jobs_folder() {
    const Settings kept;
    if (const QString set = kept.value("folder").toString(); !set.isEmpty()) return set;
    const QString last = kept.value("recent").toStringList().value(0);
    return last.isEmpty() ? QString() : QFileInfo(last).absolutePath();
}

/// The job files opened or saved last that are still there, the newest first.
inline QStringList recent_jobs() {
    QStringList jobs = Settings().value("recent").toStringList();
    jobs.removeIf([](const QString& path) { return !QFileInfo::exists(path); });
    return jobs;
}

}  // namespace echappe
