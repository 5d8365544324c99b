#pragma once

#include <QDate>
#include <QSettings>
#include <QUuid>
#include <string>

#include "train/record.h"

namespace echappe {

/// As it stands in the records: 2026-11-28.
inline std::string today() { return QDate::currentDate().toString(Qt::ISODate).toStdString(); }

/// Whose hand works at this bench, as it was said once; empty: not said.
inline std::string bench_hand() { return QSettings().value("hand").toString().toStdString(); }
inline void set_bench_hand(const std::string& name) { QSettings().setValue("hand", QString::fromStdString(name)); }
/// What is kept with a count or a reading.
inline Taken taken_with(const std::string& what) { return {bench_hand(), today(), what}; }

/// Of a reading, a picture: eight letters that nothing else has.
inline std::string fresh_id() { return QUuid::createUuid().toString(QUuid::Id128).left(8).toStdString(); }

}  // namespace echappe
