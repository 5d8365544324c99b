#pragma once

#include <QSettings>
#include <QStringList>

namespace echappe {

/// The job files opened or saved last, the newest first.
inline QStringList recent_jobs() { return QSettings().value("recent").toStringList(); }

}  // namespace echappe
