#include <algorithm>
#include <map>

#include "cards/plan.h"
#include "number/numeral.h"
#include "number/units.h"

namespace echappe {
namespace {

/// Minutes that a step mostly takes, by what it begins with; workshop practice, until one's own are kept.
double usual_minutes(const CardStep& step) {
    static const std::map<std::string, double> usual = {
        {"take", 5},    {"blank", 12},    {"bore", 15},      {"outside", 20}, {"depth", 12}, {"trial", 15},  {"teeth", 60},
        {"deburr", 10}, {"cross", 60},    {"polish", 25},    {"collet", 20},  {"true", 15},  {"stock", 5},   {"harden", 15},
        {"temper", 15}, {"rim", 4},       {"seat", 25},      {"hammer", 15},  {"ring", 25},  {"join", 30},   {"clean", 10},
        {"try", 10},    {"mark", 10},     {"dovetail", 25},  {"fit", 25},     {"faces", 12}, {"form", 25},   {"tip", 3},
        {"draw", 8},    {"ream", 8},      {"press", 5},      {"broach", 15},  {"free", 8},   {"plates", 3},  {"body", 35},
        {"stages", 15}, {"bent", 8},      {"shoulders", 15}, {"hole", 4},     {"turn", 15},  {"pivot", 10},  {"before", 4},
        {"place", 6},   {"peen", 25},     {"after", 4},      {"burnish", 10}, {"runout", 5}, {"land", 12},   {"drill", 8},
        {"length", 8},  {"template", 10}, {"openings", 25},  {"saw", 20},     {"file", 30},  {"width", 2},   {"height", 2},
        {"finish", 20}, {"bend", 10},     {"leg", 2},        {"hinges", 15},  {"tap", 10},   {"chord", 4},   {"piece", 3},
        {"shorten", 6}, {"stand", 3},     {"again", 5},      {"cut", 10},     {"end", 12},   {"wind", 15},   {"chops", 20},
        {"set", 10},    {"decide", 5},    {"rough", 12},     {"hone", 15},    {"flux", 10},  {"flush", 15},  {"leaves", 25},
        {"inner", 12},  {"stiles", 25},   {"rails", 25},     {"joints", 60},  {"glue", 20},  {"rebate", 30}, {"blue", 20},
        {"slit", 10},   {"slot", 8},      {"pin", 8},        {"ends", 10},    {"centre", 5}, {"sink", 5},    {"on", 1},
        {"face", 15},   {"first", 4},     {"arbor", 3}};
    const auto at = usual.find(step.id.substr(0, step.id.find('-')));
    constexpr double any = 10;
    return at == usual.end() ? any : at->second;
}

/// A drill, tap, die or reamer that a step names with its size, and the drawers have not.
std::string short_of(const CardStep& step, const Stores& stores) {
    if (stores.tools.empty()) return {};
    const auto has = [&](const std::string& kind, const auto& fits) {
        return std::any_of(stores.tools.begin(), stores.tools.end(),
                           [&](const ToolInDrawer& tool) { return tool.kind == kind && tool.quantity > 0 && fits(tool); });
    };
    if (step.id == "drill" && step.size) {
        const double want = step.size->nominal_mm;
        const auto near = [want](const ToolInDrawer& tool) {
            const auto size = read_number(tool.size);
            constexpr double close = 0.051;
            return size && std::abs(*size - want) <= close;
        };
        if (!has("drill", near)) return "drill " + print_fixed(want, 2) + " mm";
    }
    const auto named = [&](const char* verb, const char* kind) -> std::string {
        const size_t at = step.words.find(verb);
        if (at == std::string::npos) return {};
        std::string thread = step.words.substr(at + std::string(verb).size());
        thread = thread.substr(0, thread.find(','));
        return has(kind, [&](const ToolInDrawer& tool) { return tool.size == thread; }) ? std::string() : std::string(kind) + " " + thread;
    };
    if (step.id == "tap") return named("Tap ", "tap");
    if (step.id.ends_with("-thread")) return named("Cut the thread ", "die");
    for (const char* supply : {"silver-solder", "soft-solder", "retainer"})
        if (step.id == "join" && step.tool == supply && !has(supply, [](const ToolInDrawer&) { return true; })) return supply;
    return {};
}

}  // namespace

void learn(std::vector<TimeTaken>& times, const TimeTaken& took, bool done) {
    if (done) return times.push_back(took);
    if (const auto at = std::find(times.rbegin(), times.rend(), took); at != times.rend()) times.erase(std::next(at).base());
}

std::optional<double> learnt_minutes(const std::string& kind, const std::string& step, const std::vector<TimeTaken>& times) {
    std::vector<double> took;
    for (const TimeTaken& one : times)
        if (one.kind == kind && one.step == step) took.push_back(one.minutes);
    if (took.empty()) return {};
    std::sort(took.begin(), took.end());
    const size_t half = took.size() / 2;
    return took.size() % 2 ? took[half] : (took[half - 1] + took[half]) / 2;
}

namespace {

/// The fastest of the lathe's own steps that is not over it by more than a tenth; the slowest where all are. Written among the tools, of
/// the kind "speed".
double own_speed(double rpm, const Stores& stores) {
    constexpr double a_little_over = 1.1;
    std::optional<double> best, slowest;
    for (const ToolInDrawer& tool : stores.tools) {
        const auto speed = tool.kind == "speed" ? read_number(tool.size) : std::nullopt;
        if (!speed || *speed <= 0) continue;
        if (!slowest || *speed < *slowest) slowest = speed;
        if (*speed <= a_little_over * rpm && (!best || *speed > *best)) best = speed;
    }
    return best ? *best : slowest.value_or(rpm);
}

}  // namespace

void reckon_time(DerivedCard& card, const PartCard* kept, const Stores& stores) {
    card.minutes = card.minutes_left = 0;
    for (CardStep& step : card.steps) {
        if (step.rpm) step.rpm = own_speed(*step.rpm, stores);
        // By what is cut, where the plan knows it; else by what such steps mostly take.
        step.minutes = learnt_minutes(card.kind, step.id, stores.times).value_or(step.minutes > 0 ? step.minutes : usual_minutes(step));
        if (kept)
            for (const CardTime& time : kept->times)
                if (time.step == step.id) step.took_min = time.minutes;
        card.minutes += step.took_min.value_or(step.minutes);
        if (!step.done) card.minutes_left += step.minutes;
        if (!step.done) step.short_of = short_of(step, stores);
    }
    constexpr double hour = 60;
    if (stores.hour_price)
        card.cost = card.minutes / hour * *stores.hour_price + (card.stock && card.stock->price ? *card.stock->price : 0);
}

namespace {

/// Sheet that is thicker than the part is faced down, before anything is drilled.
void face_down(DerivedCard& card, const PartCard* kept, double taken_mm) {
    constexpr double as_it_comes = 0.05;
    const CardStock& stock = *card.stock;
    const bool sheet = stock.form == "sheet" || stock.form == "bar";
    const auto faced = [](const CardStep& step) { return step.id == "flush" || step.id == "faces" || step.id == "hammer"; };
    if (!sheet || stock.as_it_is || taken_mm <= stock.size_mm + as_it_comes || std::any_of(card.steps.begin(), card.steps.end(), faced))
        return;
    Plan plan(card, kept);
    const double thick = stock.size_mm;
    plan.read("face", "Bring it from " + mm(taken_mm) + " to its thickness, both faces flat", "file and stone, or lathe",
              {thick, thick + 0.02, thick - 0.03, "of the drawing"}, out_of("it is that much weaker; another piece."));
    const auto take = std::find_if(card.steps.begin(), card.steps.end(), [](const CardStep& step) { return step.id == "take"; });
    std::rotate(take + 1, card.steps.end() - 1, card.steps.end());
}

}  // namespace

void find_stock(DerivedCard& card, const PartCard* kept, const Stores& stores) {
    if (!card.stock) return;
    const auto thickness = [&](const std::string& id) {
        for (const Bar& one : stores.metal)
            if (one.id == id) return one.size_mm;
        return card.stock->sold_mm;
    };
    CardStock& stock = *card.stock;
    if (kept && !kept->taken_from.empty()) {
        stock.from = kept->taken_from;
        stock.verdict = "Taken from " + kept->taken_from + ".";
        face_down(card, kept, thickness(kept->taken_from));
        return;
    }
    const Bar* bar = bar_for(stock.wanted(), stores.metal);
    if (!bar) {
        stock.verdict = stores.metal.empty() ? "Nothing is written down of the drawers' metal (Ctrl+Shift+W)."
                                             : "The drawers have none: it is on the shopping list.";
        face_down(card, kept, stock.sold_mm);
        return;
    }
    stock.from = bar->id;
    const double left = bar->length_mm - (bar->width_mm > 0 && bar->width_mm < stock.width_mm ? stock.width_mm : stock.length_mm);
    if (bar->price && bar->length_mm > 0) stock.price = *bar->price * (bar->length_mm - left) / bar->length_mm;
    stock.verdict = "From " + bar->id + ", " + print_short(bar->size_mm, 4) + " mm: " + print_fixed(left, 0) + " mm of it are left then.";
    face_down(card, kept, bar->size_mm);
}

}  // namespace echappe
