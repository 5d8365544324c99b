#pragma once

#include <QFileSystemWatcher>
#include <QTimer>

namespace echappe {

/// Tells that something may have happened to a file: it was written, replaced, taken away, protected. What it was its owner looks for.
class FileWatch : public QObject {
    Q_OBJECT
public:
    explicit FileWatch(QObject* parent = nullptr);
    /// This file from now on, and no other; empty: none. A file that is replaced by another of its name is followed too.
    void follow(const QString& path);
    /// Every file of a folder, in the same way.
    void follow_folder(const QString& path);

signals:
    void moved();

private:
    QFileSystemWatcher m_watcher;
    QTimer m_settle;  ///< a file is replaced in several steps: it is looked at when they are over
    QString m_file;
    QString m_folder;
    void watch_again();
};

}  // namespace echappe
