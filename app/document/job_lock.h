#pragma once

#include <QLockFile>
#include <QString>
#include <memory>

namespace echappe {

/// One job file, one window that writes it: a lock beside the file, seen by other users and machines too. One that a killed
/// process left on this machine is taken over.
class JobLock {
public:
    /// False when another window has the file. True too where no lock can be made: nothing can be saved there either.
    bool take(const QString& path);
    void let_go() { m_lock.reset(); }
    bool held() const { return m_lock != nullptr; }
    /// Who has the file, in words: "process 4711 of anna on bench-2, since 14:02".
    static QString holder(const QString& path);

private:
    static QString beside(const QString& path);
    QString m_path;
    std::unique_ptr<QLockFile> m_lock;
};

}  // namespace echappe
