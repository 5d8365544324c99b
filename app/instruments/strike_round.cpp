#include "instruments/strike_round.h"

#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/input_error.h"
#include "sound/blows.h"
#include "strike/edits.h"

namespace echappe {
std::vector<Strike> StrikeRound::hours() const {
    const auto& strike = m_document.job().strike;
    if (!strike || (strike->scheme == "custom" && strike->blows.empty())) return {};
    return strikes_from(strike->scheme, strike->blows, 1, hours_on_dial(strike->scheme, strike->blows));
}

size_t StrikeRound::at() const {
    const auto all = hours();
    if (m_at && *m_at < all.size()) return *m_at;
    const auto& heard = m_document.job().strike->heard;
    if (heard.empty()) return 0;
    const auto last =
        std::find_if(all.begin(), all.end(), [&](const Strike& one) { return std::abs(one.hour - heard.back().hour) < 1e-6; });
    return last == all.end() ? 0 : static_cast<size_t>(last - all.begin() + 1) % all.size();
}

std::optional<ReadingRound::Asked> StrikeRound::asked() const {
    const auto all = hours();
    if (all.empty()) return {};
    Asked asked;
    asked.name = words("%1, blows counted").arg(words(words_of_time(all[at()].hour)));
    asked.id = asked.name;
    asked.typed_as = words("blows");
    asked.whole = true;
    asked.how = words(
        "Lead the hands to the hour, let it strike to its end and count; 0 where it does not stop. Never turn hands back "
        "past a strike that was not let off.");
    return asked;
}

std::function<void()> StrikeRound::hold() {
    if (hours().empty()) return {};
    m_at = at();
    return [this, at = m_at] { m_at = at; };
}

void StrikeRound::step(int by) {
    const auto count = static_cast<std::ptrdiff_t>(hours().size());
    if (count == 0) return;
    m_at = static_cast<size_t>((static_cast<std::ptrdiff_t>(at()) + by + count) % count);
}

QString StrikeRound::keep(const QString& text, bool simulated) {
    const Strike now = hours()[at()];
    const HeardStrike heard = heard_blows(now.hour, text.toStdString());
    const bool sounded = simulated && m_sounded && m_sounded->hour == now.hour;
    m_document.edit(hear_strike(heard, sounded ? m_sounded->as->seconds_per_blow : std::nullopt));
    m_at.reset();
    return words("Kept: %1, %2. Undo with Ctrl+Z.").arg(words(words_of_time(now.hour)), words(blows_in_words(heard)));
}

QString StrikeRound::simulated() {
    const auto& strike = m_document.job().strike;
    if (!strike || hours().empty() || !m_document.calliper())
        throw InputError("instrument", "none here", "the demo's, or your own ear: type what it strikes");
    const Strike now = hours()[at()];
    const auto sound = m_document.calliper()->striking(*strike, now, strike->heard.size());
    if (!sound) {
        const Struck struck = m_document.calliper()->strikes(*strike, now);
        return words(blows_in_words({0, struck.strikes, struck.early}));
    }
    StrikingSound made = striking_sound(*sound);
    KeptSound kept(made.rate_Hz, std::move(made.samples));
    BlowsInput in = to_listen();
    in.hammers = static_cast<long long>(sound->bells_Hz.size());
    m_sounded = {now.hour, std::make_shared<BlowsResult>(heard_blows_of(kept, in))};
    return words(blows_in_words({0, m_sounded->as->strikes, m_sounded->as->early}));
}

const StrikeRound::Sounded* StrikeRound::sounded() const {
    const auto& strike = m_document.job().strike;
    if (!m_sounded || !strike) return nullptr;
    const bool kept = std::any_of(strike->heard.begin(), strike->heard.end(), [this](const HeardStrike& one) {
        return std::abs(one.hour - m_sounded->hour) < 1e-6 && one.strikes == m_sounded->as->strikes;
    });
    return kept ? &*m_sounded : nullptr;
}

BlowsInput StrikeRound::to_listen() const {
    const auto& strike = m_document.job().strike;
    if (!strike || hours().empty()) throw InputError("recording", "no strike yet", "a job that says what counts its hours");
    BlowsInput in;
    in.hammers = strike->hammers;
    const auto blows = blows_of(strike->scheme, strike->blows);
    in.most = *std::max_element(blows.begin(), blows.end());
    return in;
}

QString StrikeRound::take(double hour, const BlowsResult& heard) {
    if (heard.blows.empty()) throw InputError("recording", "no blow", "one strike, from before its warning to its end");
    if (!heard.strikes && !heard.runs_on)
        throw InputError("recording", std::to_string(heard.blows.size()) + " blows and no end", "one strike, to its end");
    const HeardStrike counted{hour, heard.strikes, heard.early};
    m_sounded = {hour, std::make_shared<BlowsResult>(heard)};
    m_document.edit(hear_strike(counted, heard.seconds_per_blow));
    m_at.reset();
    return words("Kept: %1, %2").arg(words(words_of_time(hour)), words(heard.verdict));
}

}  // namespace echappe
