#include "document/journal.h"

#include <QDateTime>
#include <QDir>
#include <QFile>
#include <QJsonDocument>
#include <QJsonObject>
#include <QStandardPaths>
#include <QUuid>

#include "job/file.h"
#include "number/input_error.h"
#include "workings/record_json.h"

namespace echappe {

QString Journal::folder() {
    const QString given = qEnvironmentVariable("ECHAPPE_STATE");
    const QString base = given.isEmpty() ? QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation) : given;
    return base + "/journal";
}

Journal::Journal() {
    QDir().mkpath(folder());
    m_file = folder() + "/" + QUuid::createUuid().toString(QUuid::WithoutBraces) + ".json";
    m_lock = std::make_unique<QLockFile>(m_file + ".lock");
    // A lock is stale only when its process is gone, however long that process has been running.
    m_lock->setStaleLockTime(0);
    m_lock->tryLock(0);
}

Journal::~Journal() { clear(); }

std::vector<Journal::Entry> Journal::left_behind() {
    std::vector<Entry> entries;
    for (const QFileInfo& info : QDir(folder()).entryInfoList({"*.json"}, QDir::Files, QDir::Time)) {
        QLockFile lock(info.filePath() + ".lock");
        lock.setStaleLockTime(0);
        if (!lock.tryLock(0)) continue;
        QFile file(info.filePath());
        if (!file.open(QIODevice::ReadOnly)) continue;
        const QJsonObject kept = QJsonDocument::fromJson(file.readLine()).object();
        if (!kept.contains("job")) continue;
        std::vector<std::string> changes;
        while (!file.atEnd()) changes.push_back(file.readLine().trimmed().toStdString());
        try {
            const std::string text = with_changes(kept["job"].toString().toStdString(), changes);
            entries.push_back({info.filePath(), kept["path"].toString(), QString::fromStdString(text), kept["when"].toString()});
        } catch (const InputError&) {
            // The job as it was first kept is better than nothing.
            entries.push_back({info.filePath(), kept["path"].toString(), kept["job"].toString(), kept["when"].toString()});
        }
    }
    return entries;
}

void Journal::discard(const Entry& entry) {
    QFile::remove(entry.file);
    QFile::remove(entry.file + ".lock");
}

void Journal::keep(const QString& job_path, const QString& job_text) {
    const QJsonObject kept{{"path", job_path}, {"job", job_text}, {"when", QDateTime::currentDateTime().toString(Qt::ISODate)}};
    // No sync: the system keeps what a killed process wrote; saving the job itself syncs.
    save_text(m_file.toStdString(), QJsonDocument(kept).toJson(QJsonDocument::Compact).toStdString() + "\n", false);
    m_begun = true;
    m_changes = 0;
}

void Journal::add(const std::vector<std::string>& changes) {
    if (changes.empty()) return;
    std::string lines;
    for (const std::string& change : changes) lines += change + "\n";
    QFile file(m_file);
    if (!file.open(QIODevice::WriteOnly | QIODevice::Append | QIODevice::Unbuffered) ||
        file.write(lines.c_str()) != static_cast<qint64>(lines.size()))
        throw InputError("journal", m_file.toStdString(), "a place with room that can be written");
    m_changes += changes.size();
}

void Journal::clear() {
    QFile::remove(m_file);
    m_begun = false;
    m_changes = 0;
}

}  // namespace echappe
