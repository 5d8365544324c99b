#pragma once

#include <QString>
#include <memory>
#include <optional>

#include "document/job_lock.h"
#include "document/journal.h"
#include "job/job.h"
#include "simulate/practice.h"

namespace echappe {

struct LoadedJob;

/// The job that lies on the bench with all that belongs to it and to no other: one value, swapped whole. Nothing else remembers its
/// path, its stamp or where its pictures lie.
struct OpenJob {
    std::shared_ptr<const Job> job = std::make_shared<Job>();
    QString path;                               ///< of its file; empty: it has none
    FileStamp stamp;                            ///< of the file as it was opened or saved
    JobLock lock;                               ///< on the file
    QString read_only;                          ///< why nothing can be changed or saved here, else empty
    QString first_fault;                        ///< of a damaged file; it then has no path
    QString pictures;                           ///< the folder in which its pictures lie
    QString demo;                               ///< the demo it was begun on
    std::optional<SimulatedCalliper> calliper;  ///< that reads a demo's hidden movement
    std::unique_ptr<Journal> journal = std::make_unique<Journal>();
    QString journal_fault;  ///< why edits are not safe from a crash, else empty

    /// A job without a file; its pictures wait in a folder of its own.
    static OpenJob nameless(const Job& job = {});
    /// What was read of a file. What is damaged has no path: saving can never overwrite what is left of it; its pictures are found.
    static OpenJob of_file(const QString& path, const LoadedJob& loaded, const FileStamp& stamp);
    /// Throws InputError when there is no such demo.
    static OpenJob of_demo(const QString& name);
    /// The instruments that read the hidden movement of this demo; none where it has none.
    void take_instruments(const QString& demo_name);
    Journal::About about() const;
};

}  // namespace echappe
