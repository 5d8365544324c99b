#pragma once

#include <QLockFile>
#include <QString>
#include <memory>
#include <optional>
#include <vector>

namespace echappe {

/// What survives a crash: while there are unsaved edits, the job as it stands lies in the state folder beside
/// a lock that names the running process. A journal whose process is gone is work to be put back.
class Journal {
public:
    struct Entry {
        QString file;      ///< the journal's own file
        QString job_path;  ///< the job it belongs to; empty: never saved
        QString job_text;
        QString when;
    };

    Journal();
    ~Journal();

    /// Journals of processes that are gone, newest first.
    static std::vector<Entry> left_behind();
    static void discard(const Entry& entry);

    void keep(const QString& job_path, const QString& job_text);
    void clear();
    static QString folder();

private:
    QString m_file;
    std::unique_ptr<QLockFile> m_lock;
};

}  // namespace echappe
