#include "stations/train/train_search.h"

#include "number/input_error.h"

namespace echappe {

TrainSearch::TrainSearch(Document& document, QObject* parent) : QObject(parent), m_document(document), m_held(document) {
    connect(&document, &Document::opened, this, &TrainSearch::close);
}

void TrainSearch::stop() { m_errand.call_back(); }

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
    m_held = JobHeld(m_document);
    m_done = 0;
    m_errand.send(
        [this, question = *m_question](const std::stop_token& stop, const Errand::Tell& tell) {
            const auto progress = [&](double done) {
                tell([this, done] {
                    m_done = done;
                    emit moved();
                });
            };
            const auto partial = [&](const FindResult& so_far) { tell([this, so_far] { show(so_far); }); };
            const FindResult found = answer_train_question(question, {stop, progress}, partial);
            tell([this, found] {
                m_errand.dismiss();
                show(found);
            });
        },
        [this](const QString& why) {
            m_fault = why;
            m_errand.dismiss();
            emit moved();
        });
    emit moved();
}

void TrainSearch::show(const FindResult& result) {
    m_result = result;
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
    m_held.document().edit(take_train(question, result, train));
    const std::string hand = question.to.empty() ? m_document.job().train.arbors.back().train.id : question.to;
    if (!question.find.hand) return close();
    close();
    m_document.selection().select(hand);
}

}  // namespace echappe
