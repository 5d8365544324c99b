#pragma once

#include <QDateTime>
#include <QUuid>
#include <string>

namespace echappe {

/// As it stands in the records: 2026-11-28.
inline std::string today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }

/// "2026-11-28 10:42": as the diary and waits are timed.
inline std::string now_in_words() { return QDateTime::currentDateTime().toString("yyyy-MM-dd HH:mm").toStdString(); }

/// Now, as looks and what was done are timed: seconds from 1970 by the wall clock, as if there were no zones.
inline double wall_clock_s() {
    const QDateTime now = QDateTime::currentDateTime();
    return static_cast<double>(QDateTime(now.date(), now.time(), Qt::UTC).toSecsSinceEpoch());
}

/// Of a reading, a picture: eight letters that nothing else has.
inline std::string fresh_id() { return QUuid::createUuid().toString(QUuid::Id128).left(8).toStdString(); }

}  // namespace echappe
