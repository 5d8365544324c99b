#pragma once

#include <QString>
#include <QStringList>

#include "job/job.h"

namespace echappe {

/// Where the pictures of a job that is no file yet lie: a folder of its own in the state folder, made when one is kept.
QString fresh_pictures_folder();
/// Copies a picture there under a name of its own and returns it. Throws InputError.
QString keep_picture(const QString& folder, const QString& path, const QString& name);
/// A job saved elsewhere takes its pictures along; what lies at the old place stays there. Those that the job names and that are in
/// neither place: nobody is to believe that they were saved. Throws InputError when one cannot be copied.
QStringList copy_pictures(const Job& job, const QString& from, const QString& to);

}  // namespace echappe
