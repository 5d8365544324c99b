#pragma once

#include <QDir>
#include <QTemporaryDir>

/// State of its own for one test: what it leaves behind is nobody else's.
struct OwnState {
    QTemporaryDir folder;
    QByteArray before = qgetenv("ECHAPPE_STATE");
    OwnState() { qputenv("ECHAPPE_STATE", folder.path().toUtf8()); }
    ~OwnState() { qputenv("ECHAPPE_STATE", before); }
    QString path(const QString& name) const { return folder.filePath(name); }
    QStringList in(const QString& name) const { return QDir(folder.filePath(name)).entryList(QDir::Files | QDir::Hidden); }
};
