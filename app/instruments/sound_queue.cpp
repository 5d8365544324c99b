#include "instruments/sound_queue.h"

#include <algorithm>

namespace echappe {

bool SoundQueue::take(std::span<float> out) {
    std::unique_lock lock(m_lock);
    m_more.wait(lock, [&] { return m_ended || m_samples.size() >= out.size(); });
    if (m_ended) return false;
    std::copy_n(m_samples.begin(), out.size(), out.begin());
    m_samples.erase(m_samples.begin(), m_samples.begin() + static_cast<std::ptrdiff_t>(out.size()));
    return true;
}

void SoundQueue::end(const QString& fault) {
    {
        // Under the lock: whoever looked just before goes to sleep before it is woken, not after.
        const std::lock_guard lock(m_lock);
        if (std::exchange(m_ended, true)) return;
        m_fault = fault;
        m_samples.clear();
    }
    m_more.notify_all();
}

QString SoundQueue::fault() const {
    const std::lock_guard lock(m_lock);
    return m_fault;
}

qint64 SoundQueue::writeData(const char* data, qint64 bytes) {
    const auto count = static_cast<size_t>(bytes) / sizeof(float);
    {
        const std::lock_guard lock(m_lock);
        if (m_ended) return bytes;
        const auto* samples = reinterpret_cast<const float*>(data);
        m_samples.insert(m_samples.end(), samples, samples + count);
        // Nobody has listened for a minute: the oldest goes.
        constexpr size_t most = 60 * 48000;
        if (m_samples.size() > most) m_samples.erase(m_samples.begin(), m_samples.end() - most);
    }
    m_more.notify_all();
    return bytes;
}

}  // namespace echappe
