#include "escapement/cause.h"

#include <Eigen/LU>
#include <algorithm>
#include <array>
#include <cmath>

#include "number/constants.h"
#include "number/input_error.h"
#include "number/units.h"

namespace echappe {
namespace {

constexpr const char* cause_source = "least squares (Gauss and Newton) on the closed action of wheel and pallets";

/// Entry lock, exit lock, entry drop, exit drop, least swing; deg.
constexpr size_t kinds = 5;
using Figures = std::array<double, kinds>;

/// One that was read, with where the pallets stood then.
struct SeenFigure {
    size_t kind = 0;
    double deg = 0, u_deg = 0, moved_mm = 0;
    bool figure = true;  ///< and not a word
};

void add_readings(const PalletsSeen& seen, double moved_mm, double u_deg, std::vector<SeenFigure>& all) {
    const std::optional<double> read[kinds] = {seen.entry_lock_deg, seen.exit_lock_deg, seen.entry_drop_deg, seen.exit_drop_deg,
                                               seen.least_deg};
    for (size_t kind = 0; kind < kinds; ++kind)
        if (read[kind]) all.push_back({kind, *read[kind], u_deg, moved_mm});
    for (const bool exit : {false, true})
        for (const SeenWord& one : seen_words()) {
            const size_t kind = (one.lock ? 0 : 2) + (exit ? 1 : 0);
            // A figure says it better.
            if ((exit ? seen.exit_word : seen.entry_word) == one.word && !read[kind])
                all.push_back({kind, one.deg, one.u_deg, moved_mm, false});
        }
}

std::vector<SeenFigure> readings_of(const EscapementCauseInput& in) {
    std::vector<SeenFigure> all;
    add_readings(in.seen, 0, in.reading_u_deg, all);
    for (const PalletsSeenLater& later : in.later) add_readings(later.seen, later.moved_mm, in.reading_u_deg, all);
    return all;
}

/// All as this depth and opening have them; they run on below 0, where a tooth would trip or be caught.
std::optional<Figures> figures_of(const AnyAction& layout, double depth, double opened) {
    const AnyAction action = nearer(apart(layout, opened), depth);
    const EscapementBeat beat = beat_of(action);
    if (!beat.entry || !beat.exit) return {};
    const double least = needed_swing_rad(action, beat).value_or(0);
    return Figures{beat.entry->lock / rad_per_deg, beat.exit->lock / rad_per_deg, beat.entry->drop / rad_per_deg,
                   beat.exit->drop / rad_per_deg, least / rad_per_deg};
}

/// One step of the fit: the curvature and the change that it wants.
struct Step {
    Eigen::Matrix2d curvature = Eigen::Matrix2d::Zero();
    Eigen::Vector2d change = Eigen::Vector2d::Zero();
    double misfit = 0;
};

std::optional<Step> step_at(const AnyAction& layout, const EscapementCauseInput& in, const std::vector<SeenFigure>& readings,
                            const Eigen::Vector2d& at) {
    constexpr double h = 1e-6;
    Step step;
    Eigen::Vector2d slope = Eigen::Vector2d::Zero();
    for (const SeenFigure& read : readings) {
        const auto here = figures_of(layout, at[0] + read.moved_mm, at[1]);
        const auto deeper = figures_of(layout, at[0] + read.moved_mm + h, at[1]);
        const auto opener = figures_of(layout, at[0] + read.moved_mm, at[1] + h);
        if (!here || !deeper || !opener) return {};
        const double is = (*here)[read.kind], off = (read.deg - is) / read.u_deg;
        const Eigen::Vector2d by((*deeper)[read.kind] - is, (*opener)[read.kind] - is);
        const Eigen::Vector2d weighed = by / (h * read.u_deg);
        step.curvature += weighed * weighed.transpose();
        slope += weighed * off;
        step.misfit += off * off;
    }
    // Pallets are mostly as far apart as they were made.
    step.curvature(1, 1) += 1 / (in.apart_u_mm * in.apart_u_mm);
    slope[1] -= at[1] / (in.apart_u_mm * in.apart_u_mm);
    step.change = step.curvature.inverse() * slope;
    return step;
}

std::string mm(double value, double u) { return print_measured(std::abs(value), u) + " mm"; }

std::string in_words(const EscapementCauseResult& out) {
    std::string words = out.depth_mm > 0 ? "Stands " + mm(out.depth_mm, out.depth_u_mm) + " deeper than its layout."
                                         : "Stands " + mm(out.depth_mm, out.depth_u_mm) + " shallower than its layout.";
    constexpr double sure = 2;  // standard uncertainties
    if (std::abs(out.apart_mm) > sure * out.apart_u_mm)
        words += " Its pallets are " + mm(out.apart_mm, out.apart_u_mm) +
                 (out.apart_mm > 0 ? " too far apart: close them" : " too near to each other: open them") +
                 " first, where they are soft enough to bend; hard ones crack, and stones are set with shellac and heat. Else new pallets.";
    if (!out.away_mm) return words + " At no depth would it run with this swing.";
    if (std::abs(*out.away_mm) <= out.depth_u_mm) return words + " They stand where they should, as far as the readings tell.";
    return words + (*out.away_mm > 0 ? " Take the pallets away by " : " Bring the pallets nearer by ") + mm(*out.away_mm, out.depth_u_mm) +
           ", both bridges alike. That should leave " + print_fixed(out.entry_drop_deg, 1) + "° of drop after the entry lets off and " +
           print_fixed(out.exit_drop_deg, 1) + "° after the exit. Count them again then.";
}

/// The least of what must be left, deg; below 0 where a lock or a drop is not safe.
class Safety {
public:
    Safety(const AnyAction& layout, double opened_mm, const std::optional<EscapementWindow>& window)
        : m_layout(layout), m_opened(apart(layout, opened_mm)), m_window(window) {
        // A layout that leaves less is what it is.
        if (const auto own = figures_of(layout, 0, 0)) {
            m_lock = std::min(m_lock, std::min((*own)[0], (*own)[1]));
            m_drop = std::min(m_drop, std::min((*own)[2], (*own)[3]));
        }
    }
    double left(double depth) const {
        if (m_window && (depth < m_window->low_mm || depth > m_window->high_mm)) return -90;
        const auto here = figures_of(m_opened, depth, 0);
        if (!here) return -90;
        const double drop = std::min((*here)[2], (*here)[3]) - m_drop;
        return locks(m_layout) ? std::min(drop, std::min((*here)[0], (*here)[1]) - m_lock) : drop;
    }

private:
    const AnyAction& m_layout;
    AnyAction m_opened;
    const std::optional<EscapementWindow>& m_window;
    double m_lock = 0.5, m_drop = 0.5;  ///< that are safe with teeth as they mostly are
};

}  // namespace

std::optional<double> depth_to_aim_at(const AnyAction& layout, double opened_mm, const std::optional<EscapementWindow>& window,
                                      std::optional<double> from_mm) {
    if (!window) return {};
    const Safety safety(layout, opened_mm, window);
    constexpr double rounding = 1e-9;
    const double wished = from_mm.value_or(0);
    if (safety.left(wished) >= -rounding) return wished;
    // Nearest to what is wished, else where the least is most; closed in on by halves.
    constexpr int looks = 400;
    const double step = (window->high_mm - window->low_mm) / looks;
    std::optional<double> nearest;
    double best = window->low_mm, most = -90;
    for (int i = 0; i <= looks; ++i) {
        const double depth = window->low_mm + i * step, left = safety.left(depth);
        if (left > most) most = left, best = depth;
        if (left >= 0 && (!nearest || std::abs(depth - wished) < std::abs(*nearest - wished))) nearest = depth;
    }
    if (!nearest) return best;
    double safe = *nearest, unsafe = safe + (wished > safe ? step : -step);
    for (int i = 0; i < 30; ++i) {
        const double middle = (safe + unsafe) / 2;
        (safety.left(middle) >= 0 ? safe : unsafe) = middle;
    }
    return safe;
}

EscapementCauseResult cause_of(const AnyAction& layout, const EscapementCauseInput& in) {
    const std::vector<SeenFigure> readings = readings_of(in);
    if (readings.empty()) throw InputError("entry_lock_deg", "nothing", "a lock or a drop that was read or seen, of one pallet at least");
    if (!locks(layout))
        for (const SeenFigure& read : readings)
            if (read.kind < 2)
                throw InputError(read.kind == 0 ? "entry_lock_deg" : "exit_lock_deg", "a lock", "drops: recoil pallets do not lock");
    Eigen::Vector2d at = Eigen::Vector2d::Zero();
    std::optional<Step> step;
    constexpr int rounds = 60;
    for (int i = 0; i < rounds; ++i) {
        step = step_at(layout, in, readings, at);
        if (!step) break;
        // Never so far at once that a corner leaves the tips.
        const double most = tip_radius_mm(layout) / 100;
        const double size = step->change.norm();
        at += size > most ? Eigen::Vector2d(step->change * (most / size)) : step->change;
        if (size < 1e-12 * tip_radius_mm(layout)) break;
    }
    if (!step) throw InputError("entry_lock_deg", "these locks and drops", "ones that this layout has at some depth");
    const Eigen::Matrix2d spread = step->curvature.inverse();
    EscapementCauseResult out;
    out.depth_mm = at[0] + in.moved_since_mm;
    out.apart_mm = at[1];
    out.depth_u_mm = std::sqrt(spread(0, 0));
    out.apart_u_mm = std::sqrt(spread(1, 1));
    out.misfit = step->misfit;
    const auto window =
        depth_window(apart(layout, out.apart_mm), in.semi_arc_deg ? std::optional(*in.semi_arc_deg * rad_per_deg) : std::nullopt);
    if (window) out.depth_window_mm = {window->low_mm, window->high_mm};
    const bool words_alone = std::none_of(readings.begin(), readings.end(), [](const SeenFigure& read) { return read.figure; });
    out.aim_mm = depth_to_aim_at(layout, out.apart_mm, window, words_alone ? std::optional(out.depth_mm) : std::nullopt);
    if (out.aim_mm) {
        out.away_mm = out.depth_mm - *out.aim_mm;
        if (const auto there = figures_of(layout, *out.aim_mm, out.apart_mm))
            out.entry_drop_deg = (*there)[2], out.exit_drop_deg = (*there)[3];
    }
    out.verdict = in_words(out);
    return out;
}

EscapementCauseResult cause_of(const EscapementCauseInput& in) { return cause_of(lay_out(in.escapement), in); }

bool PalletsSeen::empty() const {
    return !entry_lock_deg && !exit_lock_deg && !entry_drop_deg && !exit_drop_deg && !least_deg && entry_word.empty() && exit_word.empty();
}

const std::vector<SeenWord>& seen_words() {
    static const std::vector<SeenWord> all = {{"lands on the slope", true, -0.4, 0.4},
                                              {"hardly locks", true, 0.3, 0.3},
                                              {"hardly drops", false, 0.3, 0.3},
                                              {"caught", false, -0.3, 0.3}};
    return all;
}

const Record& PalletsSeen::record() {
    using In = PalletsSeen;
    static const Record record = [] {
        std::vector<std::string> words = {""};
        for (const SeenWord& one : seen_words()) words.push_back(one.word);
        Fields<In> fields;
        fields.add("entry_lock_deg", &In::entry_lock_deg, "deg", "lock as it was read: pallets' turn until it unlocks", between(-5, 30))
            .label("entry lock as read")
            .add("exit_lock_deg", &In::exit_lock_deg, "deg", "the same of the exit", between(-5, 30))
            .label("exit lock as read")
            .add("entry_drop_deg", &In::entry_drop_deg, "deg",
                 "drop after the entry lets off: the wheel's free turn until a tooth lands on the exit", between(-5, 30))
            .label("drop after entry, as read")
            .add("exit_drop_deg", &In::exit_drop_deg, "deg", "drop after the exit lets off: until a tooth lands on the entry",
                 between(-5, 30))
            .label("drop after exit, as read")
            .add("least_deg", &In::least_deg, "deg", "swing with which it just still lets off, dying away", between(0, 350))
            .label("least swing that lets off")
            .add("entry_word", &In::entry_word, "", "or in words: caught, hardly drops, hardly locks, lands on the slope")
            .choices(words)
            .add("exit_word", &In::exit_word, "", "the same of the exit")
            .choices(words);
        return Record(fields);
    }();
    return record;
}

const Record& PalletsSeenLater::record() {
    using In = PalletsSeenLater;
    static const Record record =
        Fields<In>().add("moved_mm", &In::moved_mm, "mm", "pallets nearer since the first readings", between(-50, 50)).include(&In::seen);
    return record;
}

const Record& EscapementCauseInput::record() {
    using In = EscapementCauseInput;
    static const Record record =
        Fields<In>()
            .add("escapement", &In::escapement, "", "by its layout")
            .required()
            .include(&In::seen)
            .add("later", &In::later, "", "the same after the pallets were moved")
            .add("reading_u_deg", &In::reading_u_deg, "deg", "standard uncertainty of each", above(0, 10))
            .because("a protractor read by eye over a tooth that just falls")
            .add("apart_u_mm", &In::apart_u_mm, "mm", "how far pallets are off their layout, one from the other", above(0, 10))
            .because("what a file and an earlier bending leave")
            .add("moved_since_mm", &In::moved_since_mm, "mm", "pallets moved nearer after the readings; negative: away", between(-50, 50))
            .add("semi_arc_deg", &In::semi_arc_deg, "deg", "swing to each side that there is", between(0, 90));
    return record;
}

const Record& EscapementCauseResult::record() {
    using Out = EscapementCauseResult;
    static const Record record = Fields<Out>()
                                     .add("depth_mm", &Out::depth_mm, "mm", "nearer to the wheel than the layout; negative: shallower")
                                     .add("depth_u_mm", &Out::depth_u_mm, "mm", "its standard uncertainty")
                                     .add("apart_mm", &Out::apart_mm, "mm", "pallets farther from each other than in the layout")
                                     .add("apart_u_mm", &Out::apart_u_mm, "mm", "its standard uncertainty")
                                     .add("misfit", &Out::misfit, "", "sum of squares over their uncertainties")
                                     .add("depth_window_mm", &Out::depth_window_mm, "mm", "depths between which it runs, from the layout")
                                     .add("aim_mm", &Out::aim_mm, "mm", "depth at which they should stand, from the layout")
                                     .add("away_mm", &Out::away_mm, "mm", "to that; negative: nearer")
                                     .add("entry_drop_deg", &Out::entry_drop_deg, "deg", "drop after the entry lets off, there")
                                     .add("exit_drop_deg", &Out::exit_drop_deg, "deg", "drop after the exit lets off, there")
                                     .add("verdict", &Out::verdict, "", "in words");
    return record;
}

std::vector<Working> explain_escapement_cause(const EscapementCauseInput&, const EscapementCauseResult& out) {
    if (!out.away_mm) return {};
    const auto given = [](const char* symbol, const char* meaning, double value, double u) {
        return Term{symbol, meaning, {value, u}, "mm", 0};
    };
    Working move = work_out("away, to where they should stand", "m = d − a",
                            {given("d", "depth that explains the readings", out.depth_mm, out.depth_u_mm),
                             given("a", "depth at which every lock and drop is safe, nearest to the layout", *out.aim_mm, 0)},
                            "mm", cause_source, [](auto x) { return x[0] - x[1]; });
    move.notes = {out.verdict};
    return {move};
}

const Calculation& escapement_cause_calculation() {
    static const Calculation calculation = declare<EscapementCauseInput, EscapementCauseResult>(
        "escapement.cause", "From locks and drops as they are seen back to depth and opening of the pallets, and what to do.", cause_source,
        cause_of, explain_escapement_cause);
    return calculation;
}

}  // namespace echappe
