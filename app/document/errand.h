#pragma once

#include <QObject>
#include <QString>
#include <functional>
#include <memory>
#include <mutex>
#include <thread>
#include <vector>

namespace echappe {

/// A piece of work beside the window, in a thread of its own. What it tells is done in the window's thread, in the order in which it
/// was told, and only while it is wanted: of one that was called back, or that another took the place of, nothing is heard any more.
class Errand : public QObject {
    Q_OBJECT
public:
    /// Hands something over to be done in the window's thread.
    using Tell = std::function<void(std::function<void()>)>;
    /// Looks at the token now and then; may throw.
    using Work = std::function<void(const std::stop_token& stop, const Tell& tell)>;

    explicit Errand(QObject* parent = nullptr) : QObject(parent) {}
    ~Errand() override { call_back(); }

    /// Begins it; what was out before is called back. `failed` gets in words what it throws.
    void send(Work work, std::function<void(const QString&)> failed);
    /// Gives up what is out, and waits until it has.
    void call_back();
    /// Asks what is out to come to its end: what it has by then is heard.
    void hasten() { m_thread.request_stop(); }
    /// Asks what is out to give up; it is not waited for, and nothing more is heard of it.
    void dismiss();
    bool out() const { return m_mail != nullptr; }

protected:
    /// There is mail; the event itself says nothing, and is not looked at.
    void customEvent(QEvent*) override { hear(); }

private:
    struct Mail {
        std::mutex lock;
        std::vector<std::function<void()>> told;
    };
    void hear();

    std::shared_ptr<Mail> m_mail;  ///< of the one that is wanted
    std::jthread m_thread;         ///< last: it must end before what it reports to
};

}  // namespace echappe
