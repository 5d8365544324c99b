#pragma once

#include <QString>

#include "job/job.h"

namespace echappe {

/// Where a job's pictures lie: beside its file, or in the state folder while it has none.
QString pictures_folder(const QString& job_path);
/// Copies a picture there under a name of its own and returns it. Throws InputError.
QString keep_picture(const QString& folder, const QString& path, const QString& name);
/// A job saved elsewhere takes its pictures along; what lies at the old place stays there.
void copy_pictures(const Job& job, const QString& from, const QString& to);

}  // namespace echappe
