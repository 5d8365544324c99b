#pragma once

#include <QDate>
#include <QUuid>
#include <string>

namespace echappe {

/// As it stands in the records: 2026-11-28.
inline std::string today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }

/// Of a reading, a picture: eight letters that nothing else has.
inline std::string fresh_id() { return QUuid::createUuid().toString(QUuid::Id128).left(8).toStdString(); }

}  // namespace echappe
