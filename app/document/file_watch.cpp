#include "document/file_watch.h"

#include <QDir>
#include <QFileInfo>

namespace echappe {

FileWatch::FileWatch(QObject* parent) : QObject(parent) {
    constexpr int settled_ms = 150;
    m_settle.setSingleShot(true);
    m_settle.setInterval(settled_ms);
    connect(&m_watcher, &QFileSystemWatcher::fileChanged, &m_settle, qOverload<>(&QTimer::start));
    // A file that is replaced is another one by the same name: only its folder tells.
    connect(&m_watcher, &QFileSystemWatcher::directoryChanged, &m_settle, qOverload<>(&QTimer::start));
    connect(&m_settle, &QTimer::timeout, this, [this] {
        watch_again();
        emit moved();
    });
}

/// A file that came to its place anew is not the one that was watched.
void FileWatch::watch_again() {
    QStringList files;
    if (!m_file.isEmpty() && QFileInfo::exists(m_file)) files << m_file;
    if (!m_folder.isEmpty())
        for (const QFileInfo& file : QDir(m_folder).entryInfoList(QDir::Files)) files << file.filePath();
    for (const QString& watched : m_watcher.files()) files.removeAll(watched);
    if (!files.isEmpty()) m_watcher.addPaths(files);
}

void FileWatch::follow(const QString& path) {
    const QStringList watched = m_watcher.files() + m_watcher.directories();
    if (!watched.isEmpty()) m_watcher.removePaths(watched);
    m_settle.stop();
    m_file = path;
    m_folder.clear();
    if (path.isEmpty()) return;
    m_watcher.addPath(QFileInfo(path).absolutePath());
    watch_again();
}

void FileWatch::follow_folder(const QString& path) {
    if (m_folder != path) follow({});
    m_folder = path;
    if (path.isEmpty()) return;
    m_watcher.addPath(path);
    watch_again();
}

}  // namespace echappe
