// The card under the mesh: what to cut the selected part with, in which form; and how it leaves the house.
#include <QCursor>
#include <QFileDialog>

#include "drawing/words.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"
#include "number/numeral.h"
#include "number/units.h"
#include "print/tooth_sheet.h"
#include "stations/teeth/teeth_station.h"
#include "stock/stock.h"
#include "teeth/edits.h"
#include "theme/theme.h"

namespace echappe {

const CutterResult& TeethStation::cutters() {
    CutterInput wanted;
    const DerivedMesh* shown = mesh();
    const bool trundles = shown && !m_wheel && shown->form.school == "lantern";
    if (!shown || trundles) return m_cutters.emplace();
    wanted.mesh = shown->geometry();
    wanted.part = m_wheel ? "wheel" : "pinion";
    const auto same = [](const GeometryInput& a, const GeometryInput& b) {
        return a.wheel == b.wheel && a.pinion == b.pinion && a.module_mm == b.module_mm && a.form == b.form;
    };
    if (m_cutters && same(m_cutters_for.mesh, wanted.mesh) && m_cutters_for.part == wanted.part) return *m_cutters;
    m_cutters_for = wanted;
    wanted.stock = m_workshop.stock().cutters;
    return m_cutters.emplace(nearest_cutters(wanted));
}

void TeethStation::paint_card(QPainter& painter, const DerivedMesh& mesh) {
    const Theme& t = inks(painter);
    const QRectF card(0, height() - card_height, width(), card_height);
    painter.fillRect(card, t.sheet);
    painter.fillRect(QRectF(0, card.top(), width(), 1), t.rule);
    const bool wheels = mesh.pinion >= driven_wheel_leaves;
    const bool narrow = width() < roomy;
    Flow line(painter, card.adjusted(24, 0, -20, 0), card.top() + 24, 20);
    line.say(m_wheel  ? words("TO CUT THE WHEEL OF %1").arg(mesh.wheel)
             : wheels ? words("TO CUT THE DRIVEN WHEEL OF %1").arg(mesh.pinion)
                      : words("TO MAKE THE PINION OF %1").arg(mesh.pinion),
             t.steel, Type::note, true);
    place({"part",
           line.say(!m_wheel ? words("wheel instead")
                    : wheels ? words("driven wheel instead")
                             : words("pinion instead"),
                    t.blued),
           [this] { select_part(!m_wheel); },
           {},
           {}});
    place({"blank",
           line.say(narrow ? words("blank") : words("whole blank"), t.blued),
           [this] { show_blank(true); },
           words("Crossings, bore, weight"),
           {}});
    place({"form",
           line.say(words("teeth: %1").arg(school_of(mesh.form.school).words), t.blued),
           [this] {
               QMenu* menu = form_menu();
               menu->setAttribute(Qt::WA_DeleteOnClose);
               menu->popup(QCursor::pos());
           },
           words(school_of(mesh.form.school).about) + "\n" + words("Click for another form of tooth"),
           {}});
    const bool lantern = !m_wheel && mesh.sizes.drill_circle_mm;
    paint_items(painter, lantern ? items_of_lantern(mesh) : items_to_cut(mesh), card.top());
    const QString quiet =
        words(mesh.sizes.remark) + (mesh.sizes.remark.empty() ? "" : "  ") + words("Check one tooth in the mate before cutting the rest.");
    const auto& cautions = m_document.derived().making.of(mesh).cautions;
    Column foot(painter, card.adjusted(24, card.height() - (narrow ? 38 : 26), -20, 0));
    foot.says(cautions.empty() ? quiet : words(cautions.front()), cautions.empty() ? t.steel : t.ruby, Type::note, !cautions.empty());
}

QString TeethStation::dividing_of(const DerivedMesh& mesh, const QString& otherwise) const {
    const MadeMesh& made = m_document.derived().making.of(mesh);
    const QString dividing = words(m_wheel ? made.wheel_dividing : made.pinion_dividing);
    return dividing.isEmpty() ? otherwise : dividing;
}

std::vector<TeethStation::Item> TeethStation::items_of_lantern(const DerivedMesh& mesh) {
    const LengthUnit& unit = m_document.job().length;
    const auto length = [&](double mm) { return words(unit.write(mm, unit.toothed(), false)); };
    const QString symbol = words(unit.symbol);
    return {{words("drill circle"), length(*mesh.sizes.drill_circle_mm), symbol + words(" diameter"), {}},
            {words("trundles"), length(*mesh.sizes.trundle_diameter_mm), symbol + words(" diameter"), [this] { ask_trundle(); }},
            {words("divide in"), QString::number(mesh.pinion), dividing_of(mesh, words("holes")), {}},
            {words("over the trundles"), length(mesh.sizes.pinion.outside_diameter_mm), symbol, {}}};
}

std::vector<TeethStation::Item> TeethStation::items_to_cut(const DerivedMesh& mesh) {
    const LengthUnit& unit = m_document.job().length;
    const auto length = [&](double mm) { return words(unit.write(mm, unit.toothed(), false)); };
    const QString symbol = words(unit.symbol);
    const PartSizes& part = m_wheel ? mesh.sizes.wheel : mesh.sizes.pinion;
    const CutterResult& stock = cutters();
    const CutterFit* best = stock.cutters.empty() ? nullptr : &stock.cutters.front();
    const QString off = !best                        ? words("none in the drawer")
                        : !best->suits               ? words(best->note)
                        : best->shape_error_um < 0.5 ? words("as drawn")
                                                     : words("flanks %1 µm off").arg(best->shape_error_um, 0, 'f', 0);
    return {{words("blank, turn to"), length(part.outside_diameter_mm), symbol + words(" diameter"), [this] { show_blank(true); }},
            {words("depth of cut"), length(part.depth_of_cut_mm), symbol + words(" from the tip"), {}},
            {words("divide in"),
             QString::number(m_wheel ? mesh.wheel : mesh.pinion),
             dividing_of(mesh, m_wheel ? words("teeth") : words("leaves")),
             {}},
            {words("gap at pitch circle"), length(part.gap_mm), symbol + words(" wide there"), {}},
            {words("cutter, m %1").arg(mesh.module_mm.value, 0, 'f', 3),
             best ? words(best->id) : "m " + QString::number(mesh.module_mm.value, 'f', 3), off, [this] { emit drawers_wanted(); }}};
}

void TeethStation::paint_items(QPainter& painter, const std::vector<Item>& items, double top) {
    const Theme& t = inks(painter);
    const bool narrow = width() < roomy;
    const double step = (width() - 48.0) / static_cast<double>(items.size());
    double x = 24;
    for (const Item& item : items) {
        const QString name = narrow ? item.name.section(',', 0, 0).section(" at ", 0, 0) : item.name;
        write(painter, type(Type::note), t.steel, {x, top + 54}, elided(type(Type::note), name, step - 6));
        write(painter, type_to_fit(narrow ? Type::figure : Type::great, true, item.value, step - 10), item.click ? t.blued : t.ink,
              {x, top + 82}, item.value);
        write(painter, type(Type::note), t.steel, {x, top + 100}, elided(type(Type::note), item.note, step - 6));
        if (item.click) place({item.name.section(',', 0, 0), QRectF(x - 4, top + 42, step - 8, 62), item.click, {}, {}});
        x += step;
    }
}

void TeethStation::set_form(const FormChoice& form) {
    try {
        m_document.edit(echappe::set_form(mesh()->wheel_of, mesh()->pinion_of, mesh()->geometry(), form));
    } catch (const InputError& error) {
        emit m_document.told(fault_in_words(error), true);
    }
}

QMenu* TeethStation::form_menu() {
    auto* menu = new QMenu(this);
    const DerivedMesh* shown = mesh();
    if (!shown) return menu;
    menu->setToolTipsVisible(true);
    for (const School& school : schools()) {
        const QString id = school.id;
        if (id == "traced") continue;
        QAction* action = menu->addAction(words(school.words), this, [this, id] { set_form({id.toStdString()}); });
        action->setToolTip(words(school.about));
        action->setCheckable(true);
        action->setChecked(shown->form.school == school.id);
    }
    menu->addSeparator();
    QMenu* leaves = menu->addMenu(words("watch leaf"));
    for (const StockLeaf& leaf : m_workshop.stock().leaves)
        leaves->addAction(QString::fromStdString(leaf.id), this, [this, leaf] {
            FormChoice form{"cycloidal-watch"};
            form.leaf = leaf.shape;
            set_form(form);
        });
    if (shown->form.school == "lantern") menu->addAction(words("diameter of the trundles…"), this, [this] { ask_trundle(); });
    if (shown->form.school == "involute-20") menu->addAction(words("profile shift…"), this, [this] { ask_shift(); });
    menu->addAction(words("trace the wheel from DXF or CSV…"), this, [this] { ask_trace(true); });
    menu->addAction(words("trace the pinion from DXF or CSV…"), this, [this] { ask_trace(false); });
    return menu;
}

QMenu* TeethStation::fault_menu() {
    auto* menu = new QMenu(this);
    for (const MeshTrial::Fault& fault : MeshTrial::faults()) {
        const double now = m_trial.fault(fault);
        const bool length = fault.size != &MeshSimulationInput::friction;
        menu->addAction(now == 0 ? words(fault.words) : words("%1: %2%3").arg(words(fault.words)).arg(now).arg(length ? " mm" : ""), this,
                        [this, fault] { ask_fault(fault); });
    }
    menu->addSeparator();
    menu->addAction(words("as good as new"), this, [this] {
        m_trial.clear_faults();
        update();
    });
    return menu;
}

const DerivedMesh& TeethStation::the_mesh() const {
    if (const DerivedMesh* shown = mesh()) return *shown;
    throw InputError("teeth", "an arbor without a mesh", "an arbor whose teeth are drawn");
}

void TeethStation::ask_fault(const MeshTrial::Fault& fault) {
    const bool length = fault.size != &MeshSimulationInput::friction;
    const Unit& unit = *find_unit(m_document.job().length.symbol, Dimension::length);
    const Unit& read_in = length ? unit : base_unit(Dimension::number);
    const QString stands = words(print_short(m_trial.fault(fault) / read_in.base_per_unit));
    m_editor->ask(QString::fromStdString(the_mesh().name()) + ", " + fault.words, place_of("faults"), stands,
                  [this, fault, length, &read_in](const QString& text) {
                      const double size = parse_reading(text.toStdString(), read_in, fault.words).value;
                      if (!(size >= fault.least && size <= fault.most))
                          throw InputError(fault.words, in_quotes(text.toStdString()),
                                           print_short(fault.least) + " to " + print_short(fault.most) + (length ? " mm" : ""));
                      m_trial.set_fault(fault, size);
                      update();
                  });
}

void TeethStation::ask_trundle() {
    const LengthUnit& unit = m_document.job().length;
    const QRectF at = place_of("trundles").isNull() ? QRectF(width() / 2.0, height() - 70.0, 0, 0) : place_of("trundles");
    m_editor->ask(QString::fromStdString(the_mesh().name()) + words(", trundles"), at,
                  words(unit.write(the_mesh().sizes.trundle_diameter_mm.value_or(0), unit.toothed(), false)), [this](const QString& text) {
                      FormChoice form = the_mesh().form;
                      form.trundle_diameter_mm.reset();
                      if (!text.trimmed().isEmpty())
                          form.trundle_diameter_mm = parse_reading(text.toStdString(), m_document.job().length.unit(), "trundle").value;
                      m_document.edit(echappe::set_form(the_mesh().wheel_of, the_mesh().pinion_of, the_mesh().geometry(), form));
                  });
}

void TeethStation::ask_shift() {
    m_editor->ask(QString::fromStdString(the_mesh().name()) + words(", profile shift"), QRectF(width() / 2.0, height() - 70.0, 0, 0),
                  QString::number(the_mesh().sizes.pinion_profile_shift, 'f', 3), [this](const QString& text) {
                      FormChoice form = the_mesh().form;
                      form.pinion_profile_shift.reset();
                      if (!text.trimmed().isEmpty()) {
                          const auto shift = read_number(text.toStdString());
                          if (!shift || std::abs(*shift) > 1)
                              throw InputError("profile shift", in_quotes(text.toStdString()),
                                               "−1 to 1 modules, or nothing for what avoids undercut");
                          form.pinion_profile_shift = shift;
                      }
                      m_document.edit(echappe::set_form(the_mesh().wheel_of, the_mesh().pinion_of, the_mesh().geometry(), form));
                  });
}

void TeethStation::ask_trace(bool wheel) {
    const QString path = QFileDialog::getOpenFileName(
        this, wheel ? words("Outline of the wheel, arbor at 0, 0") : words("Outline of the pinion, arbor at 0, 0"), {},
        words("Outlines (*.dxf *.csv)"));
    if (path.isEmpty()) return;
    try {
        trace_part(wheel, path);
    } catch (const InputError& error) {
        emit m_document.told(fault_in_words(error), true);
    }
}

void TeethStation::trace_part(bool wheel, const QString& path) {
    const DerivedMesh& shown = the_mesh();
    TraceInput input;
    input.file = path.toStdString();
    input.teeth = wheel ? shown.wheel : shown.pinion;
    input.module_mm = shown.module_mm.value;
    const auto traced = std::static_pointer_cast<TraceResult>(trace_calculation().run(&input));
    FormChoice form = shown.form.school == "traced" ? shown.form : FormChoice{"traced"};
    (wheel ? form.wheel_half : form.pinion_half) = traced->half;
    m_document.edit(echappe::set_form(shown.wheel_of, shown.pinion_of, shown.geometry(), form));
    const QString read = words("%1 teeth traced; they differ by %2 µm.").arg(traced->teeth_seen).arg(traced->scatter_um, 0, 'f', 0);
    emit m_document.told(traced->warnings.empty() ? read : QString::fromStdString(traced->warnings.front()), !traced->warnings.empty());
}

FlatPart TeethStation::solid_part() const {
    const DerivedMesh* shown = mesh();
    if (!shown) throw InputError("export", "an arbor without a mesh", "an arbor whose teeth are drawn");
    const BlankInput input{shown->geometry(), m_wheel ? "wheel" : "pinion",
                           m_document.job().making.blank_of(m_wheel ? shown->wheel_part : shown->pinion_part)};
    const MadeMesh& made = m_document.derived().making.of(*shown);
    const std::optional<BlankResult>& blank = m_wheel ? made.wheel_blank : made.pinion_blank;
    return blank_part(input, blank ? *blank : plan_blank(input));
}

void TeethStation::export_part(const QString& path) const {
    const DerivedMesh* shown = mesh();
    if (!shown) throw InputError("export", "an arbor without a mesh", "an arbor whose teeth are drawn");
    const BlankInput blank_input{shown->geometry(), m_wheel ? "wheel" : "pinion"};
    const MadeMesh& made = m_document.derived().making.of(*shown);
    const std::optional<BlankResult>& blank = m_wheel ? made.wheel_blank : made.pinion_blank;
    const Drawing drawing = blank ? blank_drawing(blank_input, *blank) : profile_drawing({blank_input.mesh, blank_input.part});
    save_drawing(path.toStdString(), drawing);
}

Printout TeethStation::printed() {
    const DerivedMesh* shown = mesh();
    if (!shown) return Station::printed();
    return tooth_sheet(m_document.job(), *shown, m_document.derived().making.of(*shown), m_wheel);
}

}  // namespace echappe
