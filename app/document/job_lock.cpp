#include "document/job_lock.h"

#include <QDateTime>
#include <QFileInfo>

#include "drawing/words.h"
#include "exchange/whole_file.h"

namespace echappe {

QString JobLock::beside(const QString& path) {
    const QFileInfo file(QString::fromStdString(behind_links(path.toStdString()).string()));
    return file.absolutePath() + "/." + file.fileName() + ".lock";
}

bool JobLock::take(const QString& path) {
    const QString name = beside(path);
    if (m_lock && m_path == name) return true;
    auto lock = std::make_unique<QLockFile>(name);
    // Stale only when its process is gone, however long it has been open.
    lock->setStaleLockTime(0);
    if (!lock->tryLock(0) && lock->error() == QLockFile::LockFailedError) return false;
    m_path = name;
    m_lock = std::move(lock);
    return true;
}

QString JobLock::holder(const QString& path) {
    const QString name = beside(path);
    qint64 process = 0;
    QString machine;
    QString program;
    if (!QLockFile(name).getLockInfo(&process, &machine, &program)) return words("another window");
    const QFileInfo lock(name);
    return words("process %1 of %2 on %3, since %4")
        .arg(process)
        .arg(lock.owner().isEmpty() ? words("another user") : lock.owner(), machine, lock.lastModified().toString("yyyy-MM-dd HH:mm"));
}

}  // namespace echappe
