#pragma once

#include <QIODevice>
#include <QString>
#include <condition_variable>
#include <mutex>
#include <span>
#include <vector>

namespace echappe {

/// Between a device that writes samples (32-bit floats) as they come and a thread that takes them. Once it has ended nothing more is
/// taken, and nobody waits for what will not come.
class SoundQueue final : public QIODevice {
public:
    SoundQueue() { open(QIODevice::WriteOnly); }
    /// Waits until so many samples are there; false once it has ended.
    bool take(std::span<float> out);
    /// Why, where that is a fault. What was written and not taken yet is given up. The first reason stands.
    void end(const QString& fault);
    QString fault() const;

protected:
    qint64 readData(char*, qint64) override { return -1; }
    qint64 writeData(const char* data, qint64 bytes) override;

private:
    mutable std::mutex m_lock;
    std::condition_variable m_more;
    std::vector<float> m_samples;
    bool m_ended = false;
    QString m_fault;
};

}  // namespace echappe
