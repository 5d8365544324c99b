#include "stations/make/make_station.h"

#include <QApplication>
#include <QKeyEvent>
#include <QPicture>
#include <QTimer>
#include <QWheelEvent>
#include <algorithm>

#include "cards/hole_done.h"
#include "cards/sheets.h"
#include "document/today.h"
#include "drawing/words.h"
#include "exchange/whole_file.h"
#include "job/edits.h"
#include "number/input_error.h"
#include "number/units.h"
#include "parts/joint.h"
#include "parts/thread.h"

namespace echappe {
MakeStation::MakeStation(const Workbench& bench)
    : CardStation(bench.document, {}, nullptr),
      m_workshop(bench.workshop),
      m_line(bench.line),
      m_round(
          bench.document, [this] { return card(); },
          [this](const DerivedCard& of, const CardStep& step, double read_mm) { end(of, step, read_mm); }) {
    setAccessibleName(words("Make"));
    m_card->set_tabs(tabs());
    m_card->hide();
    connect(&m_document, &Document::changed, this, &MakeStation::refresh);
}

std::string MakeStation::id_shown() const {
    const DerivedCard* now = card();
    return now ? now->id : m_chosen;
}

SumCard::Take MakeStation::typed_into_card() const {
    return SumCard::typed_into_part<CardsRecord>(m_document, [this](CardsRecord& cards, const std::string& field, const std::string& word) {
        type_into_card(cards, id_shown(), field, word, today());
    });
}

/// The lengths of a part that was begun by hand; what a plan made is worked out and not typed.
DrawnSizes MakeStation::own_sizes() const {
    if (begun_of(record(), id_shown()).empty() || m_show == Show::beginning || m_large) return {};
    DrawnSizes drawn;
    const bool planned = card() != nullptr;
    const std::vector<SumLine> lines = card_sizes_sheet(record(), derived(), id_shown()).asked;
    std::vector<std::string> fields;
    for (const SumLine& line : lines)
        if (!line.unit.empty()) fields.push_back(line.field);
    drawn = drawn_from(lines, fields, typed_into_card());
    for (DrawnSize& size : drawn) size.may_stay = planned;
    return drawn;
}

/// The reading that ends the step; of a part that wants a size first its sizes.
ReadingRound* MakeStation::own_round() const { return !m_round.asked() && sizes_open() ? nullptr : &m_round; }

std::vector<SumCard::Tab> MakeStation::tabs() {
    const auto id = [this] { return id_shown(); };
    const auto take = typed_into_card();
    return {
        {words("sizes"), words("Sizes of a part that was begun by hand; of others what is known."),
         [this, id] { return card_sizes_sheet(record(), derived(), id()); }, take,
         [this] {
             std::vector<std::string> drawn;
             for (const DrawnSize& size : sizes()) drawn.push_back(size.line.field);
             return drawn;
         }},
        {words("metal"),
         words("What it is cut from, how long it takes, what it costs."),
         [this, id] { return card_stock_sheet(derived(), id()); },
         {}},
        {words("to buy"), words("What the cards want and the drawers have not."), [this] { return card_shopping_sheet(derived()); }, {}},
        SumCard::of_sum(m_document, words("joint"), joint_calculation(), id, [] { return std::map<std::string, double>(); }),
        SumCard::of_sum(m_document, words("thread"), thread_calculation(), id, [] { return std::map<std::string, double>(); })};
}

std::vector<std::string> MakeStation::chosen_of() const {
    std::vector<std::string> ids;
    for (const DerivedCard& one : cards()) ids.push_back(one.id);
    for (const BegunPart& part : record().begun)
        if (derived().faults.contains(part.id)) ids.push_back("begun:" + part.id);
    return ids;
}

const DerivedCard* MakeStation::card() const {
    if (const DerivedCard* chosen = derived().card(m_chosen)) return chosen;
    const std::string begun = begun_of(record(), m_chosen);
    if (!begun.empty() && derived().faults.contains(begun)) return nullptr;
    // A begun part's card may stand under another kind's name now that its sizes are known.
    for (const DerivedCard& one : cards())
        if (!begun.empty() && begun_of(record(), one.id) == begun) return &one;
    return cards().empty() ? nullptr : &cards().front();
}

void MakeStation::choose_card(const std::string& id) {
    m_chosen = id;
    m_skipped_to = 1;
    if (m_show == Show::beginning) m_show = Show::steps;
    m_clock.restart();
    refresh();
    lay_out();
    // The same round asks something else now.
    if (isVisible()) m_line.take(m_round);
}

void MakeStation::refresh() {
    const DerivedCard* now = card();
    m_card->show_part(now ? words(now->name) : words("a part"));
    update();
}

void MakeStation::go(int by) {
    const std::vector<std::string> ids = chosen_of();
    if (ids.empty()) return;
    const DerivedCard* now = card();
    const auto at = std::find(ids.begin(), ids.end(), now ? now->id : m_chosen);
    const auto count = static_cast<std::ptrdiff_t>(ids.size()), from = at == ids.end() ? 0 : at - ids.begin();
    choose_card(ids[static_cast<size_t>((from + by + count) % count)]);
}

void MakeStation::go_on() {
    const DerivedCard* now = card();
    const CardStep* next = now ? now->next() : nullptr;
    if (!next) return;
    if (next->divides) {
        const auto tooth = tooth_now();
        if (!tooth) return;
        m_document.edit(tick_tooth(now->id, *tooth));
        if (m_beeps)
            if (const DerivedCard* after = card(); after)
                if (const auto to = tooth_now()) beep(after->table->rows[static_cast<size_t>(*to - 1)]);
        return;
    }
    if (next->reads) return emit told(words("This step ends with a reading: type it into the line."), true);
    if (next->forbids)
        return emit told(words("Nothing is cut before this is settled. S opens its sheet: type there why it is cut all the same."), true);
    end(DerivedCard(*now), CardStep(*next), {});
}

/// The step is done, with what was read; what it took from the drawers and how long it took goes with it, and comes back when it is
/// undone.
void MakeStation::end(const DerivedCard& card, const CardStep& step, const std::optional<double>& read_mm) {
    const std::string id = card.id, what = step.id, kind = card.kind;
    const std::optional<double> minutes = m_clock.minutes();
    std::optional<Bar> bar;
    BarWanted wanted;
    if (what == "take" && card.stock && !card.stock->from.empty())
        for (const Bar& one : m_workshop.stock().metal)
            if (one.id == card.stock->from) bar = one, wanted = card.stock->wanted();
    const auto beside = [&workshop = m_workshop, bar, wanted,
                         took = minutes ? std::optional(TimeTaken{kind, what, *minutes}) : std::nullopt](bool done) {
        // Minutes alone are no reason to keep a step from being done: drawers that cannot be written are told where they are opened.
        if (!bar && !workshop.fault().isEmpty()) return;
        workshop.change([&](Stock& stock) {
            if (bar) stock.metal = done ? taken_from(stock.metal, bar->id, wanted) : given_back(stock.metal, *bar, wanted);
            if (took) learn(stock.times, *took, done);
        });
    };
    const StepDone done{id, what, read_mm, today(), minutes, bar ? std::optional(bar->id) : std::nullopt};
    if (bar || minutes) m_document.edit(card_step_done(card, step, done), beside);
    else m_document.edit(card_step_done(card, step, done));
    if (bar) emit told(words("Taken from %1 in the drawer.").arg(words(bar->id)), false);
}

void MakeStation::go_back() {
    const DerivedCard* now = card();
    if (!now) return;
    const CardStep* next = now->next();
    // Within the table the last tooth, else the last step.
    const bool in_table = next && next->divides && !now->ticks.empty();
    if (in_table) return m_document.edit(untick_tooth(now->id));
    m_document.edit(card_step_open_again(*now));
}

std::optional<long long> MakeStation::tooth_now() const {
    const DerivedCard* now = card();
    return now ? now->next_tooth(m_skipped_to) : std::nullopt;
}

void MakeStation::skip() {
    const DerivedCard* now = card();
    const auto tooth = tooth_now();
    if (!now || !tooth) return;
    m_skipped_to = *tooth + 1;
    emit told(words("Tooth %1 is skipped: it comes again when the others are cut.").arg(*tooth), false);
    update();
}

void MakeStation::spoil() {
    const DerivedCard* now = card();
    const CardStep* next = now ? now->next() : nullptr;
    if (!next || !next->divides) return;
    const long long tooth = *tooth_now();
    m_document.edit(tick_tooth(now->id, tooth, true));
    emit told(
        words("Cut in the wrong place, beside tooth %1: fill it with a let-in piece if it stands alone, or take the next blank. Go back to "
              "the first hole and count up before the next cut.")
            .arg(tooth),
        true);
}

/// A beep for each whole turn of the crank.
void MakeStation::beep(const DividingRow& row) const {
    constexpr int between_ms = 350;
    for (int i = 0; i < row.turns; ++i) QTimer::singleShot(i * between_ms, this, [] { QApplication::beep(); });
}

void MakeStation::show(Show what) {
    m_show = m_show == what ? Show::steps : what;
    lay_out();
    update();
}

void MakeStation::begin(const PartToBegin& part) {
    const std::string id = next_part_id(record());
    m_document.edit(begin_part(part, id));
    m_show = Show::sheets;
    choose_card("begun:" + id);
    if (const DerivedCard* now = card(); now && begun_of(record(), now->id) == id) choose_card(now->id);
    m_card->show_sum(0);
}

void MakeStation::drop() {
    const DerivedCard* now = card();
    const std::string id = begun_of(record(), now ? now->id : m_chosen);
    if (id.empty()) return emit told(words("This part follows from a decision: undo that, where it was made."), true);
    m_document.edit(drop_part(id));
    m_chosen.clear();
    update();
}

void MakeStation::next_way() {
    const DerivedCard* now = card();
    if (!now || now->ways.empty()) return;
    const auto at = std::find_if(now->ways.begin(), now->ways.end(), [&](const TeethWay& way) { return way.way == now->way; });
    for (size_t i = 1; i <= now->ways.size(); ++i) {
        const TeethWay& way = now->ways[(static_cast<size_t>(at - now->ways.begin()) + i) % now->ways.size()];
        if (way.possible) return choose(now->id.substr(now->id.find(':') + 1), way.way);
    }
}

/// Its reason is typed on the sheet “sizes”.
void MakeStation::choose(const std::string& wheel, const std::string& way) {
    m_document.edit(choose_way(wheel, way, {}, today()));
    for (const DerivedCard& one : cards())
        if (!one.ways.empty() && one.id.ends_with(":" + wheel)) return choose_card(one.id);
}

QList<Action> MakeStation::make_actions() {
    const auto some = [this] { return card() != nullptr; };
    const auto cutting = [this] { return card() && card()->next() && card()->next()->divides; };
    const auto several = [this] { return card() && !card()->ways.empty(); };
    QList<Action> list;
    for (const Action& action : CardStation::make_actions())
        if (action.id.startsWith("sheet.")) list << action;
    return list +
           QList<Action>{
               {"make.done",
                words("On: the step is done, or the tooth is cut"),
                {Qt::Key_Return, Qt::Key_Enter},
                [this] { go_on(); },
                {},
                words("on"),
                some},
               {"make.back",
                words("Back: the last step or tooth is open again"),
                {Qt::Key_B},
                [this] { go_back(); },
                {},
                words("back"),
                some},
               {"make.spoilt",
                words("Cut in the wrong place"),
                {Qt::Key_X},
                [this] { spoil(); },
                {},
                words("cut in the wrong place"),
                cutting},
               {"make.skip", words("Skip this tooth for now"), {Qt::Key_K}, [this] { skip(); }, {}, words("skip"), cutting},
               {"make.next", words("The next part"), {Qt::Key_Down, Qt::Key_Right}, [this] { go(1); }, {}, {}, some},
               {"make.before", words("The part before"), {Qt::Key_Up, Qt::Key_Left}, [this] { go(-1); }, {}, {}, some},
               {"make.begin", words("Begin a part"), {Qt::Key_N}, [this] { show(Show::beginning); }, {}, words("begin a part")},
               {"make.sheets", words("Sizes, metal and money"), {Qt::Key_S}, [this] { show(Show::sheets); }, {}, words("sizes and metal")},
               {"make.way", words("Another way to mend its teeth"), {Qt::Key_W}, [this] { next_way(); }, {}, words("another way"), several},
               {"make.drop", words("Take a begun part off the list"), {}, [this] { drop(); }},
               {"make.beeps", words("A beep for each turn of the crank"), {}, [this] { m_beeps = !m_beeps; }},
               {"make.cards", words("All cards as PDF, one a page…"), {}, [this] { emit pdf_wanted(all_cards()); }},
               {"make.templates", words("Templates of the flat parts as PDF at 1:1…"), {}, [this] { emit pdf_wanted(templates()); }},
               {"make.paper", words("Paper of the templates: the next"), {}, [this] { next_paper(); }},
               {"make.large",
                words("One step fills the picture, to be read from afar"),
                {Qt::Key_F},
                [this] {
                    m_large = !m_large;
                    lay_out();
                    update();
                },
                {},
                words("large"),
                some}};
}

bool MakeStation::other_key(QKeyEvent& event) {
    if (m_show != Show::beginning) return false;
    if (event.key() == Qt::Key_Escape) {
        show(Show::beginning);
        return true;
    }
    const int at = event.key() - Qt::Key_A;
    if (at < 0 || at >= static_cast<int>(parts_to_begin().size())) return false;
    begin(parts_to_begin()[static_cast<size_t>(at)]);
    return true;
}

void MakeStation::wheelEvent(QWheelEvent* event) {
    m_scrolled = std::clamp(m_scrolled - event->angleDelta().y() / 2.0, 0.0, std::max(0.0, m_long - height()));
    update();
}

std::vector<Scene> MakeStation::scenes() {
    const auto cut = [this] {
        const std::string id = "ring:tide-1.wheel";
        constexpr long long cut_so_far = 27;
        for (int guard = 0; guard < 20; ++guard) {
            const DerivedCard* now = derived().card(id);
            const CardStep* next = now ? now->next() : nullptr;
            if (!next || next->divides) break;
            if (next->asks) {
                m_chosen = id;
                m_round.keep(m_round.simulated(), true);
                continue;
            }
            m_document.edit(end_step(id, next->id, next->reads ? std::optional(next->size->nominal_mm) : std::nullopt, today()));
        }
        for (long long tooth = 1; tooth <= cut_so_far; ++tooth) m_document.edit(tick_tooth(id, tooth));
        choose_card(id);
    };
    const auto door = [this] {
        for (const PartToBegin& part : parts_to_begin())
            if (part.id == "cock") begin(part);
    };
    // A ring on a wheel whose module nobody read: what is asked before metal is taken.
    const auto first = [this] { choose_card("ring:tide-1.wheel"); };
    return {{"make-first", "tide-house", first}, {"make-dividing", "tide-house", cut}, {"make-begun", "granary", door, {}, [this] {
                                                                                            show(Show::sheets);
                                                                                        }}};
}

QString MakeStation::length(double mm) const {
    const LengthUnit& unit = m_document.job().length;
    return words(unit.write(mm, unit.toothed(), false));
}

QString MakeStation::writes(const QString& ending) const {
    const DerivedCard* now = card();
    if (!now || !(now->flat || now->turned) || (ending != "svg" && ending != "dxf" && ending != "step")) return {};
    return words(now->name).toLower().replace(' ', '-').remove(',');
}

void MakeStation::write_to(const QString& path) {
    const DerivedCard& now = *card();
    Drawing drawing;
    if (now.flat) {
        drawing = drawing_of(*now.flat);
    } else {
        TurnedInput in;
        in.shape = *now.turned;
        drawing = drawing_of(in, turn_part(in));
    }
    // What is typed on the part's drawing stands beside it in the file.
    if (const DrawnSizes drawn = sizes(); !drawn.empty()) {
        QPicture nowhere;
        QPainter painter(&nowhere);
        Dimensions dimensions(painter, drawn, {});
        constexpr double wide = 900, high = 600, column = 200;
        paint_large(painter, {0, 0, wide, high}, now, m_document.job().length, &dimensions);
        dimensions.rest();
        dimensions.lay_out({wide + 20, 0, column, high});
        drawing.layers.push_back(dimensions.layer("sizes"));
    }
    save_drawing(path.toStdString(), drawing);
}

Solid MakeStation::solid() const {
    const DerivedCard& now = *card();
    if (now.flat) return *now.flat;
    return TurnedSolid{now.name, half_section(*now.turned)};
}

}  // namespace echappe
