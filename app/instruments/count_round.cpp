#include "instruments/count_round.h"

#include <algorithm>

#include "document/bench_hand.h"
#include "drawing/words.h"
#include "number/input_error.h"

namespace echappe {

void CountRound::set_again(bool again) {
    m_again = again;
    m_at.clear();
    if (const auto first = question(); first && again) go_to(*first);
}

std::optional<CountQuestion> CountRound::question() const {
    const auto all = round();
    const auto at = std::find_if(all.begin(), all.end(), [&](const CountQuestion& q) { return q.part == m_at; });
    if (at != all.end()) return *at;
    const auto open = std::find_if(all.begin(), all.end(), [&](const CountQuestion& q) { return m_again || q.open(); });
    if (open != all.end()) return *open;
    return all.empty() ? std::nullopt : std::optional(all.front());
}

bool CountRound::some_open() const {
    const auto all = round();
    return std::any_of(all.begin(), all.end(), [](const CountQuestion& q) { return q.open(); });
}

std::optional<ReadingRound::Asked> CountRound::asked() const {
    const auto now = question();
    if (!now) return {};
    Asked asked{words(now->words), words(how_to_count(*now)), now->words.ends_with("leaves") ? words("leaves") : words("teeth"), {}};
    asked.id = "count:" + words(now->part);
    const auto before = m_document.job().train.counts_of(now->part);
    if (now->count.known() && m_again && !before.empty() && !now->doubted)
        asked.note = words("before: %1; type what you count now").arg(words(TrainRecord::told_of_count(*before.back())));
    else if (now->count.known())
        asked.note = now->doubted ? words("%1 was counted, and doubted: count it once more").arg(now->count.value)
                     : m_again    ? words("counted once; type what you count now")
                                  : words("counted already: %1").arg(now->count.value);
    return asked;
}

std::function<void()> CountRound::hold() {
    const auto now = question();
    if (!now) return {};
    m_at = now->part;
    return [this, part = now->part] { m_at = part; };
}

void CountRound::go_to(const CountQuestion& question) {
    m_at = question.part;
    m_showing = true;
    m_document.selection().select(question.arbor);
    m_showing = false;
}

void CountRound::step(int by) {
    const auto all = round();
    const auto now = question();
    if (!now) return;
    const auto count = static_cast<std::ptrdiff_t>(all.size());
    auto at = std::find_if(all.begin(), all.end(), [&](const CountQuestion& q) { return q.part == now->part; }) - all.begin();
    // Those that are open first; when none is, one after the other.
    const bool some_open =
        !m_again && std::any_of(all.begin(), all.end(), [&](const CountQuestion& q) { return q.open() && q.part != now->part; });
    do at = (at + by + count) % count;
    while (some_open && !all[static_cast<size_t>(at)].open());
    go_to(all[static_cast<size_t>(at)]);
}

QString CountRound::keep(const QString& text, bool) {
    const CountQuestion now = *question();
    const Recount recount = count_again(now, text.trimmed().toStdString(), taken_with("by eye"));
    m_document.edit(recount.edit);
    const bool last = m_again && round().back().part == now.part;
    m_at = now.part;
    step(1);
    if (recount.agrees)
        return words("%1: %2, counted twice alike.").arg(words(now.words), text.trimmed()) +
               (last ? words(" That was the last.") : QString());
    if (recount.doubted && now.count.known())
        return words("%1: %2 before, %3 now. Doubted until it is counted once more. Undo with Ctrl+Z.")
            .arg(words(now.words))
            .arg(now.count.value)
            .arg(text.trimmed());
    return words("Kept: %1 %2. Undo with Ctrl+Z.").arg(words(now.words), text.trimmed());
}

QString CountRound::simulated() { throw InputError("instrument", "none that counts", "your own eyes: type the count"); }

void CountRound::follow_subject() {
    if (m_showing) return;
    const auto all = round();
    const std::string& subject = m_document.selection().subject();
    const auto of_it = [&](bool open) {
        return std::find_if(all.begin(), all.end(), [&](const CountQuestion& q) { return q.arbor == subject && (!open || q.open()); });
    };
    const auto open = of_it(!m_again);
    const auto any = open != all.end() ? open : of_it(false);
    if (any != all.end()) m_at = any->part;
}

}  // namespace echappe
