#include "document/selection.h"

#include <algorithm>

namespace echappe {

void Selection::follow(const TrainRecord& train) {
    m_record = &train;
    if (!train.arbor(m_subject)) m_subject = train.arbors.empty() ? "" : train.arbors.front().train.id;
}

void Selection::begin(const TrainRecord& train) {
    m_subject.clear();
    m_train = 0;
    for (const JobArbor& arbor : train.arbors)
        if (arbor.train.wheel.is == Count::Is::lost || arbor.train.pinion.is == Count::Is::lost) m_subject = arbor.train.id;
    follow(train);
}

void Selection::select(const std::string& arbor) { select_hole(arbor, m_plate); }

void Selection::select_hole(const std::string& arbor, const std::string& plate) {
    if (!m_record || !m_record->arbor(arbor) || (arbor == m_subject && plate == m_plate)) return;
    m_plate = plate;
    m_subject = arbor;
    show_its_train();
    emit changed();
}

const TrainList* Selection::train() const {
    return !m_record || m_record->trains.empty() ? nullptr : &m_record->trains[std::min(m_train, m_record->trains.size() - 1)];
}

/// The ladder stays where it is while the subject is on it, else goes to the first train that has it.
void Selection::show_its_train() {
    const auto has = [&](const TrainList& list) {
        return std::find(list.arbors.begin(), list.arbors.end(), m_subject) != list.arbors.end();
    };
    if (const TrainList* shown = train(); !shown || has(*shown)) return;
    const auto at = std::find_if(m_record->trains.begin(), m_record->trains.end(), has);
    if (at != m_record->trains.end()) m_train = static_cast<size_t>(at - m_record->trains.begin());
}

void Selection::next_train() {
    if (!m_record || m_record->trains.size() < 2) return;
    m_train = (m_train + 1) % m_record->trains.size();
    if (train()->arbors.empty()) return;
    m_subject = train()->arbors.back();
    emit changed();
}

void Selection::climb(int rungs) {
    if (!train() || train()->arbors.empty()) return;
    const auto& rungs_of = train()->arbors;
    const auto at = std::find(rungs_of.begin(), rungs_of.end(), m_subject) - rungs_of.begin();
    const auto last = static_cast<std::ptrdiff_t>(rungs_of.size()) - 1;
    select(rungs_of[static_cast<size_t>(std::clamp<std::ptrdiff_t>(at + rungs, 0, last))]);
}

}  // namespace echappe
