#include "document/errand.h"

#include <QCoreApplication>
#include <QEvent>
#include <utility>

#include "drawing/words.h"

namespace echappe {

void Errand::dismiss() {
    m_thread.request_stop();
    m_mail.reset();
}

void Errand::call_back() {
    dismiss();
    if (m_thread.joinable()) m_thread.join();
}

void Errand::send(Work work, std::function<void(const QString&)> failed) {
    call_back();
    const auto mail = m_mail = std::make_shared<Mail>();
    m_thread = std::jthread([this, mail, work = std::move(work), failed = std::move(failed)](const std::stop_token& stop) {
        const Tell tell = [this, &mail](std::function<void()> what) {
            {
                const std::lock_guard guard(mail->lock);
                mail->told.push_back(std::move(what));
            }
            // An empty event: what it is about lies in the mail, under its lock.
            QCoreApplication::postEvent(this, new QEvent(QEvent::User));
        };
        try {
            work(stop, tell);
        } catch (const std::exception& error) {
            tell([failed, why = fault_in_words(error)] { failed(why); });
        }
        tell([this] { m_mail.reset(); });
    });
}

void Errand::hear() {
    const auto mail = m_mail;
    if (!mail) return;
    std::vector<std::function<void()>> told;
    {
        const std::lock_guard guard(mail->lock);
        told.swap(mail->told);
    }
    // What is heard may call it back, or send another.
    for (const auto& what : told)
        if (mail == m_mail) what();
}

}  // namespace echappe
