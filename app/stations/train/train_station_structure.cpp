#include <QContextMenuEvent>
#include <QMenu>

#include "document/bench_hand.h"
#include "document/today.h"
#include "drawing/words.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "stations/train/train_station.h"
#include "teeth/edits.h"
#include "train/places.h"
#include "train/structure.h"

namespace echappe {
namespace {

/// The arbor that an edit brought.
std::string fresh_arbor(const TrainRecord& before, const TrainRecord& after) {
    for (const JobArbor& arbor : after.arbors)
        if (!before.arbor(arbor.train.id)) return arbor.train.id;
    return {};
}

}  // namespace

std::string TrainStation::train_id() const {
    const TrainList* train = m_document.selection().train();
    return train ? train->id : std::string();
}

/// Where the subject is drawn, for an editor.
QRectF TrainStation::at_subject() const {
    const QRectF place = place_of("arbor:" + words(m_document.selection().subject()));
    return place.isNull() ? QRectF(width() / 2.0 - 90, top() + 40, 180, 32) : QRectF(place.center() - QPointF(90, 44), QSizeF(180, 32));
}

void TrainStation::add(const Edit<TrainRecord>& edit) {
    const TrainRecord before = m_document.job().train;
    m_document.edit(edit);
    const std::string id = fresh_arbor(before, m_document.job().train);
    m_document.selection().select(id);
    emit told(words("%1: %2. Ctrl+T and Ctrl+L give its counts, F6 its name; Ctrl+Z takes it out again.")
                  .arg(words(edit.name), words(m_document.job().train.name_of_arbor(id))),
              false);
}

/// What hangs on it is told: it is joined to what drove it.
void TrainStation::take_subject_away() {
    const TrainRecord& train = m_document.job().train;
    const std::string& id = m_document.selection().subject();
    QStringList joined;
    for (const std::string& name : driven_by(train, id)) joined << words(name);
    const QString name = words(train.name_of_arbor(id));
    m_document.edit(take_away(train, id));
    emit told(words("%1 is taken away, its readings are kept%2. Ctrl+Z puts it back.")
                  .arg(name, joined.isEmpty() ? QString() : words("; %1 is joined to what drove it").arg(joined.join(words(" and ")))),
              false);
}

/// Asks one thing where the arbor is.
void TrainStation::ask_of_subject(
    const QString& what, const std::string& stands,
    const std::function<Edit<TrainRecord>(const TrainRecord&, const std::string& arbor, const std::string& text)>& edit) {
    const std::string id = m_document.selection().subject();
    if (id.empty()) return;
    m_editor->ask(words(m_document.job().train.name_of_arbor(id)) + ", " + what, at_subject(), words(stands),
                  [this, id, edit](const QString& text) {
                      const Edit<TrainRecord> kept = edit(m_document.job().train, id, text.toStdString());
                      m_document.edit(kept);
                      emit told(words("Kept: %1. Undo with Ctrl+Z.").arg(words(kept.name)), false);
                  });
}

void TrainStation::turn_lantern() {
    for (const DerivedMesh& mesh : m_document.derived().train.meshes) {
        if (mesh.pinion_of != m_document.selection().subject()) continue;
        const FormChoice form = mesh.form.school == "lantern" ? FormChoice() : FormChoice{"lantern"};
        return m_document.edit(set_form(mesh.wheel_of, mesh.pinion_of, mesh.geometry(), form));
    }
    throw InputError("pinion", "none that is counted here", "an arbor whose pinion and the wheel that drives it have their counts");
}

/// The place of its hole, typed; where two distances cross twice, the other crossing is told.
void TrainStation::ask_place() {
    const JobArbor* arbor = m_document.job().train.arbor(m_document.selection().subject());
    if (!arbor) return;
    const auto& at = arbor->position_mm;
    const QString stands = at.size() == 2 ? words(print_plain(at[0]) + " " + print_plain(at[1])) : QString();
    const std::string id = arbor->train.id;
    m_editor->ask(words("%1, place of its hole").arg(words(arbor->called())), at_subject(), stands, [this, id](const QString& text) {
        const TrainRecord& train = m_document.job().train;
        if (text.trimmed().isEmpty()) return m_document.edit(forget_place(train, id));
        if (echappe::lower(as_typed(text.toStdString())) == "opposite") return m_document.edit(set_opposite(train, id));
        const PlaceTyped typed = read_place(train, m_document.derived().train, id, text.toStdString());
        m_document.edit(typed.back ? set_back_place(train, id, typed.places[0]) : set_place(train, id, typed.places[0]));
        if (typed.places.size() < 2) return;
        emit told(words("They cross here and at %1 %2: “other” behind the distances takes that one.")
                      .arg(typed.places[1][0], 0, 'f', 2)
                      .arg(typed.places[1][1], 0, 'f', 2),
                  false);
    });
}

void TrainStation::ask_distance() {
    const auto keep = [](Document& document, const std::string& id, const QString& text) {
        document.edit(
            store_distance(document.job().train, document.derived().train, id, text.toStdString(), fresh_id(), taken_with("calliper")));
    };
    const std::string id = m_document.selection().subject();
    m_editor->ask(words("%1, distance to another hole").arg(words(m_document.job().train.name_of_arbor(id))), at_subject(), {},
                  [this, id, keep](const QString& text) { keep(m_document, id, text); });
}

void TrainStation::ask_plate() {
    const auto& plate = m_document.job().train.plate;
    if (!plate)
        emit told(
            words("The plate: arched 120 x 180, round 42, rectangle 100 x 140 oak 90, A 110 x 200, three-quarter 44, or corners; then ; "
                  "pillars 9 at …; cock balance …"),
            false);
    m_editor->ask(words("the plate"), QRectF(width() / 2.0 - 190, top() + 30, 380, 32), plate ? words(write_plate(*plate)) : QString(),
                  [this](const QString& text) {
                      m_document.edit(set_plate(m_document.job().train, text.toStdString()));
                      const auto& kept = m_document.job().train.plate;
                      emit told(kept ? words("Kept: the plate, %1. Undo with Ctrl+Z.").arg(words(write_plate(*kept)))
                                     : words("No plate. Undo with Ctrl+Z."),
                                false);
                  });
}

/// All measured distances together say where the holes are; the one that pulls most is named.
void TrainStation::place_by_distances() {
    const PlaceFit fit = fit_places(m_document.job().train, m_document.derived().train);
    m_document.edit(place_by(fit));
    const PlacedDistance& odd = fit.distances.front();
    const auto name = [&](const std::string& id) { return words(m_document.job().train.name_of_arbor(id)); };
    constexpr double strained = 3;
    if (odd.oddness() <= strained) return emit told(words("Placed: all measured distances agree."), false);
    const QString off = words("Placed, but %1 to %2 is off by %3 mm")
                            .arg(name(odd.wheel_of), name(odd.pinion_of))
                            .arg(std::abs(odd.measured_mm - odd.placed_mm), 0, 'f', 3);
    emit told(fit.told_apart ? words("%1, more than the others would have it: measure it again.").arg(off)
                             : words("%1; too few distances tell which one is wrong: measure one more.").arg(off),
              true);
}

Edit<TrainRecord> TrainStation::dragged_to(echappe::Place to_mm) const {
    const TrainRecord& train = m_document.job().train;
    const size_t colon = m_dragged.find(':');
    const std::string kind = m_dragged.substr(0, colon), which = m_dragged.substr(colon + 1);
    if (kind == "pillar") return move_pillar(train, std::stoul(which), to_mm);
    if (m_dragged == "plate:width") return resize_plate(train, 2 * std::abs(to_mm[0]), train.plate->height_mm);
    if (m_dragged == "plate:height") return resize_plate(train, train.plate->width_mm, to_mm[1]);
    return set_place(train, which, to_mm);
}

void TrainStation::drag_to(QPointF to) {
    if (!m_dragged_view) m_dragged_view = view_of_plate();
    m_document.edit(dragged_to(mm_at(*m_dragged_view, to)), {}, m_drag_session);
}

/// Above which arbor it goes, by its name: the way to another train, which the ladder does not show beside this one.
void TrainStation::ask_move() {
    emit told(words("Above which arbor it goes, of any train; or below and its name: centre, below strike pin."), false);
    ask_of_subject(words("goes above"), {}, [](const TrainRecord& train, const std::string& arbor, const std::string& text) {
        std::string name = as_typed(text);
        const bool below = echappe::lower(name).starts_with("below ");
        if (below) name = as_typed(name.substr(6));
        const JobArbor* beside = train.arbor_called(name);
        if (!beside) {
            std::vector<std::string> names;
            for (const JobArbor& one : train.arbors) names.push_back(one.called());
            throw InputError("arbor", in_quotes(text), listed(names));
        }
        return below ? move_below(train, arbor, beside->train.id) : move_above(train, arbor, beside->train.id);
    });
}

void TrainStation::ask_escapement() {
    emit told(words("What lets the escape wheel go: %1.").arg(words(listed(escapements()))), false);
    m_editor->ask(words("escapement"), at_subject(), words(m_document.job().train.escapement.value_or("")), [this](const QString& text) {
        m_document.edit(set_escapement(text.toStdString()));
        emit told(words("Kept. Undo with Ctrl+Z."), false);
    });
}

std::optional<size_t> TrainStation::pillar_at(QPointF at) const {
    const size_t there = m_document.job().train.plate ? m_document.job().train.plate->pillars.size() : 0;
    for (size_t i = 0; i < there; ++i)
        if (place_of("pillar:" + QString::number(i)).contains(at)) return i;
    return {};
}

QList<Action> TrainStation::structure_actions() {
    const QString menu = words("&Arbor");
    const auto some = [this] { return !m_document.selection().subject().empty(); };
    const auto now = [this]() -> const TrainRecord& { return m_document.job().train; };
    const auto subject = [this]() -> const std::string& { return m_document.selection().subject(); };
    const auto name = [this, now, subject] { ask_of_subject(words("name"), now().name_of_arbor(subject()), rename_arbor); };
    const auto hand = [this, now, subject] {
        const JobArbor* arbor = now().arbor(subject());
        ask_of_subject(words("what its hand shows"), arbor ? arbor->hand.value_or("") : "", set_hand);
    };
    const auto turn = [this] {
        emit told(words("How long it turns once: 1 h, 90 min, 60 s; left behind it where it turns left."), false);
        ask_of_subject(words("turns once in"), {}, set_period);
    };
    const auto another = [this] {
        m_editor->ask(words("name of the new train"), at_subject(), {},
                      [this](const QString& text) { add(add_train(m_document.job().train, text.toStdString())); });
    };
    const auto call = [this] {
        const TrainList* train = m_document.selection().train();
        if (!train) return;
        m_editor->ask(words("name of the train"), at_subject(), words(train->name), [this, id = train->id](const QString& text) {
            m_document.edit(rename_train(m_document.job().train, id, text.toStdString()));
        });
    };
    const auto winding = [this, now] {
        m_editor->ask(words("turns of winding"), at_subject(), now().winding_turns ? words(print_short(*now().winding_turns)) : QString(),
                      [this](const QString& text) { m_document.edit(set_winding(text.toStdString())); });
    };
    return {
        {"arbor.above",
         words("An arbor above it"),
         {Qt::Key_Insert},
         [=, this] { add(add_above(now(), train_id(), subject())); },
         menu,
         {},
         some},
        {"arbor.below",
         words("An arbor below it"),
         {words("Shift+Ins")},
         [=, this] { add(add_below(now(), train_id(), subject())); },
         menu,
         {},
         some},
        {"arbor.branch", words("A branch from it"), {words("Ctrl+Ins")}, [=, this] { add(add_branch(now(), subject())); }, menu, {}, some},
        {"arbor.away", words("Take it away"), {Qt::Key_Delete}, [this] { take_subject_away(); }, menu, {}, some},
        {"arbor.name", words("Call it…"), {Qt::Key_F6}, name, menu, {}, some, true},
        {"arbor.hand", words("What its hand shows…"), {Qt::Key_F7}, hand, menu, {}, some},
        {"arbor.turn", words("It turns once in…"), {Qt::Key_F8}, turn, menu, {}, some},
        {"arbor.move", words("It goes above…"), {words("Ctrl+Shift+M")}, [this] { ask_move(); }, menu, {}, some},
        {"arbor.escape",
         words("It carries the escape wheel"),
         {},
         [=, this] { m_document.edit(set_escape(now(), subject())); },
         menu,
         {},
         some},
        {"arbor.escapement", words("Escapement…"), {}, [this] { ask_escapement(); }, menu, {}, some},
        {"arbor.wheel", words("Another wheel on it"), {}, [=, this] { m_document.edit(add_wheel(now(), subject())); }, menu, {}, some},
        {"arbor.lantern", words("Trundles or leaves on its pinion"), {}, [this] { turn_lantern(); }, menu, {}, some},
        {"arbor.place", words("Place of its hole…"), {Qt::Key_F9}, [this] { ask_place(); }, menu, {}, some, true},
        {"arbor.distance", words("Distance to another hole…"), {Qt::SHIFT | Qt::Key_F9}, [this] { ask_distance(); }, menu, {}, some},
        {"train.plate", words("The plate…"), {Qt::Key_F12}, [this] { ask_plate(); }, menu},
        {"train.fit", words("Place the holes by the measured distances"), {}, [this] { place_by_distances(); }, menu, {}, some},
        {"train.another", words("Another train…"), {}, another, menu, {}, {}, true},
        {"train.call", words("Call the train…"), {}, call, menu, {}, some},
        {"train.winding", words("Turns of winding…"), {}, winding, menu, {}, some}};
}

const DerivedArbor* TrainStation::arbor_under(QPointF at) const {
    const View view = view_of_plate();
    const DerivedArbor* nearest = nullptr;
    double least = INFINITY;
    for (const DerivedArbor& arbor : m_document.derived().train.arbors) {
        const double away = QLineF(view.at(arbor.x_mm, arbor.y_mm), at).length();
        const double reach = std::max(14.0, arbor.wheel_radius_mm * view.px_per_mm);
        if (away < reach && away < least) nearest = &arbor, least = away;
    }
    return nearest;
}

void TrainStation::fill_menu(QMenu& menu, const Place* place, const QPointF& at) {
    if (at.x() < left_column) return Canvas::fill_menu(menu, place, at);
    const DerivedArbor* nearest = arbor_under(at);
    if (!nearest) return fill_plate_menu(menu, at);
    m_document.selection().select(nearest->id);
    Canvas::fill_menu(menu, place, at);
    if (!place) menu.addSection(words(nearest->name));
    menu.addSeparator();
    fill_subject_menu(menu);
}

void TrainStation::fill_subject_menu(QMenu& menu) {
    for (const Action& action : actions()) {
        if (action.menu != words("&Arbor")) continue;
        if (action.divides) menu.addSeparator();
        menu.addAction(action.words, this, [this, id = action.id] { act_on(id); })->setEnabled(action.can());
    }
}

/// On the plate where no wheel is: its pillars.
void TrainStation::fill_plate_menu(QMenu& menu, QPointF at) {
    if (!m_document.job().train.plate) return;
    const echappe::Place here = mm_at(view_of_plate(), at);
    if (const auto pillar = pillar_at(at))
        menu.addAction(words("Take this pillar away"), this,
                       [this, pillar] { attempt([&] { m_document.edit(take_pillar_away(m_document.job().train, *pillar)); }); });
    else
        menu.addAction(words("A pillar here"), this,
                       [this, here] { attempt([&] { m_document.edit(add_pillar(m_document.job().train, here)); }); });
    menu.addAction(words("The plate…"), this, [this] { act_on("train.plate"); });
}

}  // namespace echappe
