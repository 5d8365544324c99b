#include "document/weigher.h"

#include "drawing/words.h"

namespace echappe {

void Weigher::stop() {
    if (!m_thread.joinable()) return;
    m_thread.request_stop();
    m_thread.join();
    m_thread = {};
    ++m_run;  // what it still had to report is of no interest
    emit moved();
}

void Weigher::start(const RestoreInput& question) {
    stop();
    m_done = 0;
    const std::uint64_t run = ++m_run;
    m_thread = std::jthread([this, run, question](const std::stop_token& token) {
        const auto tell = [this, run](auto what) {
            QMetaObject::invokeMethod(this, [this, run, what] {
                if (run == m_run) what();
            });
        };
        const auto report = [this, tell](double done) {
            tell([this, done] {
                constexpr double worth_painting = 0.004;
                if (done < m_done + worth_painting) return;
                m_done = done;
                emit moved();
            });
        };
        try {
            const WeighedTrain answer{question_of(question), restore_train(question, {token, report})};
            if (!answer.answer.complete) return;
            tell([this, answer] {
                m_answer = answer;
                emit answered();
            });
        } catch (const std::exception& error) {
            tell([this, why = fault_in_words(error)] {
                stop();
                emit failed(why);
            });
        }
    });
    emit moved();
}

}  // namespace echappe
