#include "document/weigher.h"

namespace echappe {

void Weigher::stop() {
    if (!running()) return;
    m_errand.call_back();
    emit moved();
}

void Weigher::start(const RestoreInput& question) {
    m_done = 0;
    m_errand.send(
        [this, question](const std::stop_token& stop, const Errand::Tell& tell) {
            const auto report = [this, &tell](double done) {
                tell([this, done] {
                    constexpr double worth_painting = 0.004;
                    if (done < m_done + worth_painting) return;
                    m_done = done;
                    emit moved();
                });
            };
            const auto answer =
                std::make_shared<const WeighedTrain>(WeighedTrain{question_of(question), restore_train(question, {stop, report})});
            if (!answer->answer.complete) return;
            tell([this, answer] {
                m_errand.dismiss();
                m_answer = *answer;
                emit answered();
            });
        },
        [this](const QString& why) {
            stop();
            emit failed(why);
        });
    emit moved();
}

}  // namespace echappe
