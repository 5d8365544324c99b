#include "document/journal.h"

#include <fcntl.h>
#include <sys/file.h>
#include <sys/stat.h>
#include <unistd.h>

#include <QDir>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QLockFile>
#include <QStandardPaths>
#include <QUuid>
#include <cerrno>
#include <cstring>

#include "document/folders.h"
#include "drawing/words.h"
#include "exchange/write_all.h"
#include "job/file.h"
#include "number/input_error.h"
#include "workings/record_json.h"

namespace echappe {
namespace {

constexpr int discarded_kept = 20;

InputError cannot_be_kept(const QString& file) {
    return {"journal", std::string(std::strerror(errno)) + " for \"" + file.toStdString() + "\"", "a place with room that can be written"};
}

/// The name still leads to the file that is open: a living journal is renamed over the old one when it is kept whole again.
bool is_still(int fd, const QString& file) {
    struct stat open_file {};
    struct stat named {};
    return fstat(fd, &open_file) == 0 && stat(QFile::encodeName(file).constData(), &named) == 0 && open_file.st_ino == named.st_ino &&
           open_file.st_dev == named.st_dev;
}

/// A journal's file, locked as asked; −1 when a living process holds it or it is gone.
int open_locked(const QString& file, int lock) {
    const int fd = open(QFile::encodeName(file).constData(), O_RDONLY | O_CLOEXEC);
    if (fd < 0) return -1;
    if (flock(fd, lock | LOCK_NB) == 0 && is_still(fd, file)) return fd;
    close(fd);
    return -1;
}

QJsonObject told(const Journal::About& about) {
    return {{"path", about.job_path},
            {"demo", about.demo},
            {"pictures", about.pictures},
            {"base_there", about.base.there},
            {"base_modified", static_cast<qint64>(about.base.modified_s)},
            {"base_content", QString::number(about.base.content, 16)}};
}

Journal::Entry read_entry(const QFileInfo& info) {
    Journal::Entry entry{info.filePath(), {}, {}, info.lastModified(), {}};
    QFile file(info.filePath());
    const QJsonObject head = file.open(QIODevice::ReadOnly) ? QJsonDocument::fromJson(file.readLine()).object() : QJsonObject();
    if (!head.contains("job")) {
        entry.fault = words("it does not begin as a journal does");
        return entry;
    }
    entry.about = {
        head["path"].toString(),
        head["demo"].toString(),
        head["pictures"].toString(),
        {head["base_there"].toBool(), head["base_modified"].toInteger(), head["base_content"].toString().toULongLong(nullptr, 16)}};
    std::vector<std::string> changes;
    while (!file.atEnd()) changes.push_back(file.readLine().trimmed().toStdString());
    const std::string whole = head["job"].toString().toStdString();
    entry.job_text = QString::fromStdString(whole);
    // As far as its lines can be read.
    for (size_t all = changes.size();; --all) try {
            entry.job_text = QString::fromStdString(with_patches(whole, {changes.begin(), changes.begin() + static_cast<long>(all)}));
            break;
        } catch (const InputError& error) {
            entry.fault = QString::fromUtf8(error.what());
            if (all == 0) break;
        }
    return entry;
}

/// Killed between the saving and the end of the journal: the file has it all, there is nothing to put back.
bool is_saved(const Journal::Entry& entry) {
    if (entry.about.job_path.isEmpty() || !entry.fault.isEmpty()) return false;
    const std::string kept = job_to_text(job_from_text(entry.job_text.toStdString()).job);
    const FileStamp now = stamp_of(entry.about.job_path.toStdString());
    return now.there && now.content == content_hash(kept);
}

/// Where journals lay before they went to the state folder.
QString former_folder() { return QStandardPaths::writableLocation(QStandardPaths::GenericDataLocation) + "/echappe/echappe/journal"; }

/// Locks beside journals are of the time before the journal itself was locked; one whose process is gone is swept away.
bool held_by_old_lock(const QString& journal) {
    if (!QFile::exists(journal + ".lock")) return false;
    QLockFile lock(journal + ".lock");
    lock.setStaleLockTime(0);
    return !lock.tryLock(0);
}

}  // namespace

QString Journal::folder() { return state_folder() + "/journal"; }

Journal::Journal() : m_file(folder() + "/" + QUuid::createUuid().toString(QUuid::WithoutBraces) + ".json") {
    m_syncer = std::jthread([this](const std::stop_token& stop) { sync_for_ever(stop); });
}

Journal::~Journal() {
    m_syncer.request_stop();
    m_wake.notify_all();
    m_syncer.join();
    // What is not saved lies there: only saving or saying so takes it away.
    let_go();
}

std::vector<Journal::Entry> Journal::left_behind(const QString& job_path) {
    const QString wanted = job_path.isEmpty() ? QString() : QString::fromStdString(behind_links(job_path.toStdString()).string());
    std::vector<Entry> entries;
    QFileInfoList files = QDir(folder()).entryInfoList({"*.json"}, QDir::Files, QDir::Time);
    if (former_folder() != folder()) files += QDir(former_folder()).entryInfoList({"*.json"}, QDir::Files, QDir::Time);
    for (const QFileInfo& info : files) {
        if (held_by_old_lock(info.filePath())) continue;
        const int fd = open_locked(info.filePath(), LOCK_SH);
        if (fd < 0) continue;
        Entry entry = read_entry(info);
        close(fd);
        if (is_saved(entry)) {
            QFile::remove(entry.file);
            continue;
        }
        if (wanted.isEmpty() || entry.about.job_path == wanted) entries.push_back(std::move(entry));
    }
    return entries;
}

void Journal::discard(const Entry& entry) {
    const QDir aside(QFileInfo(entry.file).path() + "/discarded");
    aside.mkpath(".");
    const QFileInfoList old = aside.entryInfoList({"*.json"}, QDir::Files, QDir::Time);
    for (int i = discarded_kept - 1; i < old.size(); ++i) QFile::remove(old[i].filePath());
    if (!QFile::rename(entry.file, aside.filePath(QFileInfo(entry.file).fileName()))) QFile::remove(entry.file);
}

void Journal::keep(const About& about, const QString& job_text) {
    QDir().mkpath(folder());
    QJsonObject head = told(about);
    head["job"] = job_text;
    const std::string line = QJsonDocument(head).toJson(QJsonDocument::Compact).toStdString() + "\n";
    const QByteArray beside = QFile::encodeName(m_file + ".part");
    const int fd = open(beside.constData(), O_CREAT | O_TRUNC | O_RDWR | O_APPEND | O_CLOEXEC, 0600);
    // Locked before it has its name: nobody ever sees it without its holder.
    const bool written = fd >= 0 && flock(fd, LOCK_EX | LOCK_NB) == 0 && write_all(fd, line);
    if (!written || rename(beside.constData(), QFile::encodeName(m_file).constData()) != 0) {
        const InputError fault = cannot_be_kept(m_file);
        if (fd >= 0) close(fd);
        unlink(beside.constData());
        throw fault;
    }
    let_go();
    m_fd = fd;
    m_size = static_cast<long long>(line.size());
    m_changes = 0;
    sync_soon();
}

void Journal::add(const std::string& patch) {
    if (patch.empty()) return;
    const std::string line = patch + "\n";
    if (!write_all(m_fd, line)) {
        const InputError fault = cannot_be_kept(m_file);
        // Half a line would spoil those after it.
        if (ftruncate(m_fd, m_size) != 0) let_go();
        throw fault;
    }
    m_size += static_cast<long long>(line.size());
    ++m_changes;
    sync_soon();
}

void Journal::clear() {
    if (m_fd < 0) return;
    QFile::remove(m_file);
    let_go();
}

void Journal::let_go() {
    if (m_fd >= 0) close(std::exchange(m_fd, -1));
    m_changes = 0;
}

void Journal::sync_soon() {
    const std::lock_guard guard(m_mutex);
    if (m_to_sync < 0) m_to_sync = dup(m_fd);
    m_wake.notify_all();
    if (std::exchange(m_sync_failed, false))
        throw InputError("journal", "\"" + m_file.toStdString() + "\", which does not get to the disk", "a disk in order");
}

/// Off the interface's thread: a disk may take longer than an edit.
void Journal::sync_for_ever(const std::stop_token& stop) {
    std::unique_lock lock(m_mutex);
    while (m_wake.wait(lock, stop, [&] { return m_to_sync >= 0; })) {
        const int fd = std::exchange(m_to_sync, -1);
        lock.unlock();
        const bool synced = fdatasync(fd) == 0;
        close(fd);
        const int names = open(QFile::encodeName(folder()).constData(), O_RDONLY | O_DIRECTORY | O_CLOEXEC);
        if (names >= 0) {
            fsync(names);
            close(names);
        }
        lock.lock();
        m_sync_failed = m_sync_failed || !synced;
    }
    if (m_to_sync >= 0) close(m_to_sync);
}

Journal::Claim::Claim(const Entry& entry) : m_fd(open_locked(entry.file, LOCK_EX)) {}

Journal::Claim::~Claim() {
    if (m_fd >= 0) close(m_fd);
}

}  // namespace echappe
