#pragma once

#include <QDateTime>
#include <QString>
#include <condition_variable>
#include <mutex>
#include <optional>
#include <thread>
#include <vector>

#include "exchange/whole_file.h"

namespace echappe {

/// What survives a crash: while there are unsaved edits, the job lies in the state folder, whole once and then edit by edit, a
/// JSON patch (RFC 6902) a line. The running process holds the file locked; the system lets go of that when the process ends, however it
/// ends, so that no lock is ever stale. A journal that nobody holds is work to be put back.
///
/// An edit is with the system before it is told, so that no crash of Echappe can take it; it is on the disk within about a second,
/// which is what a power cut can take.
class Journal {
public:
    /// Whose work it is.
    struct About {
        QString job_path;  ///< links followed; empty: never saved
        QString demo;      ///< the demo it was begun on: its instruments belong to it
        QString pictures;  ///< the folder in which its pictures lie
        FileStamp base;    ///< the file the edits were made on
    };
    /// The unsaved work of an earlier run.
    struct Entry {
        QString file;  ///< the journal's own
        About about;
        QString job_text;
        QDateTime last;  ///< when the last edit was kept
        QString fault;   ///< what could not be read of it, else empty
    };

    Journal();
    ~Journal();
    Journal(const Journal&) = delete;
    Journal& operator=(const Journal&) = delete;

    /// Each journal that no process holds, once, newest first; with a path those of that file only, whatever links lead to it.
    static std::vector<Entry> left_behind(const QString& job_path = {});
    /// The same journal held for this process, or nothing when another has taken it meanwhile.
    class Claim;
    /// Puts it aside: it is listed no more, and lies in the folder "discarded" with the last few others.
    static void discard(const Entry& entry);

    /// Writes the job whole. Throws InputError when it cannot; what was kept before then still lies there.
    void keep(const About& about, const QString& job_text);
    /// Adds a patch to what was kept; an empty one is nothing. Throws InputError; then nothing was added.
    void add(const std::string& patch);
    bool begun() const { return m_fd >= 0; }
    size_t changes_kept() const { return m_changes; }
    /// What was kept is saved or not wanted.
    void clear();
    static QString folder();

private:
    void let_go();
    void sync_soon();
    void sync_for_ever(const std::stop_token& stop);

    QString m_file;
    int m_fd = -1;
    long long m_size = 0;
    size_t m_changes = 0;
    std::mutex m_mutex;
    std::condition_variable_any m_wake;
    int m_to_sync = -1;  ///< another handle of the file that is to be synced; the thread closes it
    bool m_sync_failed = false;
    std::jthread m_syncer;  ///< last: it must end before what it works on
};

/// Holds a journal that was left behind while it is put back.
class Journal::Claim {
public:
    explicit Claim(const Entry& entry);
    ~Claim();
    Claim(const Claim&) = delete;
    Claim& operator=(const Claim&) = delete;
    bool held() const { return m_fd >= 0; }

private:
    int m_fd = -1;
};

}  // namespace echappe
