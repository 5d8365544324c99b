#pragma once

#include <QLockFile>
#include <QString>
#include <memory>
#include <optional>
#include <vector>

namespace echappe {

/// What survives a crash: while there are unsaved edits, the job lies in the state folder, whole once and then edit by edit, a
/// line each, beside a lock that names the running process. A journal whose process is gone is work to be put back.
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

    /// Writes the job whole.
    void keep(const QString& job_path, const QString& job_text);
    /// Adds to what was kept; it is with the system when this returns, so that no kill can take it back.
    void add(const std::vector<std::string>& changes);
    bool begun() const { return m_begun; }
    size_t changes_kept() const { return m_changes; }
    void clear();
    static QString folder();

private:
    QString m_file;
    bool m_begun = false;
    size_t m_changes = 0;
    std::unique_ptr<QLockFile> m_lock;
};

}  // namespace echappe
