#include "stations/train/train_search.h"

#include "number/input_error.h"

namespace echappe {

void TrainSearch::stop() {
    ++m_run;  // what is still to be reported is of no interest
    m_worker = {};
    m_running = false;
}

void TrainSearch::close() {
    stop();
    m_question.reset();
    m_fault.clear();
    m_result = {};
    m_preview.reset();
    emit moved();
}

TrainMeans TrainSearch::means() const {
    TrainMeans means{m_cutter_modules_mm, {}};
    if (const auto& head = m_document.job().making.dividing_head)
        means.divides = [&head](long long count) { return divides_exactly(*head, count); };
    return means;
}

void TrainSearch::ask(const QString& text) {
    stop();
    m_fault.clear();
    m_question.reset();
    m_preview.reset();
    m_result = {};
    try {
        m_question = read_train_question(m_document.job().train, text.toStdString(), means());
    } catch (const std::exception& error) {
        m_fault = fault_in_words(error);
        emit moved();
        return;
    }
    const std::uint64_t run = m_run;
    m_running = true;
    m_done = 0;
    m_worker = std::jthread([this, run, question = *m_question](const std::stop_token& stop) {
        const auto report = [this, run](const std::function<void()>& tell) {
            QMetaObject::invokeMethod(this, [this, run, tell] {
                if (run == m_run) tell();
            });
        };
        const auto progress = [&](double done) {
            report([this, done] {
                m_done = done;
                emit moved();
            });
        };
        const auto partial = [&](const FindResult& so_far) { report([this, so_far] { show(so_far, true); }); };
        try {
            const FindResult found = answer_train_question(question, {stop, progress}, partial);
            report([this, found] { show(found, false); });
        } catch (const std::exception& error) {
            report([this, why = fault_in_words(error)] {
                m_fault = why;
                m_running = false;
                emit moved();
            });
        }
    });
    emit moved();
}

void TrainSearch::show(const FindResult& result, bool running) {
    m_result = result;
    m_running = running;
    pick(0);
}

void TrainSearch::pick(size_t index) {
    m_preview.reset();
    if (m_question && index < m_result.solutions.size()) {
        m_picked = index;
        const Job& job = m_document.job();
        DerivedTrain preview =
            derive_train(with_train(job.train, *m_question, m_result, m_result.solutions[index]), job.teeth, job.length, {}, nullptr);
        if (preview.problem.empty()) m_preview = std::move(preview);
    }
    emit moved();
}

void TrainSearch::take() {
    if (!m_question || m_picked >= m_result.solutions.size()) return;
    const FoundTrain train = m_result.solutions[m_picked];
    const TrainQuestion question = *m_question;
    const FindResult result = m_result;
    m_document.edit(tr("Take the train %1").arg(QString::fromStdString(train_in_words(train, result.pinions_drive))),
                    [&](Job& job) { job.train = with_train(job.train, question, result, train); });
    const std::string hand = question.to.empty() ? m_document.job().train.arbors.back().train.id : question.to;
    if (!question.find.hand) return close();
    close();
    m_document.selection().select(hand);
}

}  // namespace echappe
