#include "workings/workings_panel.h"

#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double margin = 18;
constexpr double panel_width = 310;

/// Measured: ink. Follows: blued. Assumed: steel, in italics. Missing: brass with a question mark.
QColor ink_of(Known known) {
    const Theme& t = theme();
    return known == Known::measured ? t.ink : known == Known::derived ? t.blued : known == Known::assumed ? t.steel : t.brass_ink;
}

QString state_sign(Known known) {
    return known == Known::measured ? "●" : known == Known::derived ? "→" : known == Known::assumed ? "○" : "?";
}

}  // namespace

WorkingsSheet::WorkingsSheet(Document& document, QWidget* parent) : Canvas(parent), m_document(document) {
    setAccessibleName(tr("Workings"));
    connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&document.selection(), &Selection::changed, this, [this] {
        m_unfolded.clear();
        update();
    });
}

void WorkingsSheet::unfold(const std::string& name) {
    m_unfolded = m_unfolded == name ? "" : name;
    update();
}

void WorkingsSheet::paint(QPainter& painter) {
    const Theme& t = theme();
    painter.fillRect(rect(), t.sheet);
    const DerivedArbor* subject = m_document.derived().train.arbor(m_document.selection().subject());
    double y = 34;
    if (!subject) {
        write_wrapped(painter, word_font(10), t.steel, {margin, 20}, panel_width - 2 * margin,
                      tr("The figures of the selected arbor stand here, each with its reason."));
        return;
    }
    const double named = write(painter, figure_font(17), t.blued, {margin, y}, words(subject->name) + tr(" arbor"));
    if (named < panel_width - 2 * margin - 110)
        write(painter, word_font(8.5), t.steel, {panel_width - margin, y}, tr("click a figure: why"), 1);
    y += 16;
    for (const Quantity& quantity : m_document.derived().train.quantities)
        if (quantity.arbor == subject->id) y = paint_quantity(painter, quantity, y);
    write(painter, word_font(8), t.steel, {margin, y + 14}, tr("● measured   → follows   ○ assumed   ? missing"));
    y += 42;
    write(painter, word_font(8.5, true), t.steel, {margin, y}, tr("FINDINGS"));
    y += 12;
    if (m_document.derived().findings.empty())
        y += 10 + write_wrapped(painter, word_font(9.5), t.verdigris, {margin, y + 2}, panel_width - 2 * margin,
                                tr("Nothing to object to: every reading agrees with the train."));
    for (const Finding& finding : m_document.derived().findings) y = paint_finding(painter, finding, y);
    const int wanted = static_cast<int>(y) + 20;
    if (minimumHeight() != wanted) setMinimumHeight(wanted);
}

double WorkingsSheet::paint_quantity(QPainter& painter, const Quantity& quantity, double y) {
    const Theme& t = theme();
    constexpr double height = 29;
    const double base = y + 20;
    write(painter, word_font(9), t.steel, {margin, base}, state_sign(quantity.known) + "  " + words(quantity.name));
    const double u_width =
        quantity.u_text.empty() ? 0 : write(painter, word_font(8), t.steel, {panel_width - margin, base}, words(quantity.u_text), 1) + 8;
    const double unit_width =
        quantity.unit.empty()
            ? 0
            : write(painter, word_font(8.5), t.steel, {panel_width - margin - u_width, base}, words(quantity.unit), 1) + 5;
    write(painter, figure_font(13), ink_of(quantity.known), {panel_width - margin - u_width - unit_width, base}, words(quantity.text), 1);
    painter.fillRect(QRectF(margin, y + height, panel_width - 2 * margin, 1), t.rule);
    place({"quantity:" + words(quantity.name),
           QRectF(0, y, panel_width, height),
           [this, n = quantity.name] { unfold(n); },
           words(quantity.state) + (quantity.working ? tr("; click for the workings") : ""),
           {}});
    y += height + 1;
    return m_unfolded == quantity.name ? paint_working(painter, quantity, y) : y;
}

double WorkingsSheet::paint_working(QPainter& painter, const Quantity& quantity, double y) {
    const Theme& t = theme();
    const double width = panel_width - 2 * margin - 16;
    const double from = y;
    const double x = margin + 12;
    y += 8;
    if (!quantity.working) {
        const QString why = quantity.known == Known::measured ? tr("Counted or read at the bench; nothing was worked out.")
                            : quantity.known == Known::missing
                                ? tr("The likeliest of the solver's candidates; see the Train station for the others.")
                                : tr("Decided at the bench from the solver's candidates.");
        y += write_wrapped(painter, word_font(9), t.steel, {x, y}, width, why);
    } else {
        const Working& w = *quantity.working;
        y += write_wrapped(painter, word_font(10.5), t.ink, {x, y}, width, words(w.formula)) + 4;
        y += write_wrapped(painter, word_font(10), t.blued, {x, y}, width, words(w.substituted())) + 4;
        const QString result = "= " +
                               words(w.result.u > 0 ? print_fixed(w.result.value, decimals_for(w.result.u)) + " ± " +
                                                          print_fixed(w.result.u, decimals_for(w.result.u))
                                                    : print_short(w.result.value, 8)) +
                               " " + words(w.unit);
        y += write_wrapped(painter, word_font(10.5, true), t.ink, {x, y}, width, result) + 6;
        for (const Term& term : w.terms)
            y += write_wrapped(painter, word_font(8.5), t.steel, {x, y}, width,
                               words(term.symbol + "  " + print_short(term.value.value, 7) + " " + term.unit + "  " + term.meaning)) +
                 1;
        if (const Term* most = w.largest_contributor())
            y += write_wrapped(painter, word_font(8.5), t.amber, {x, y + 3}, width, tr("most of the ±: ") + words(most->meaning)) + 4;
        for (const std::string& note : w.notes) y += write_wrapped(painter, word_font(8.5), t.steel, {x, y + 2}, width, words(note)) + 2;
        y += write_wrapped(painter, word_font(8), t.steel, {x, y + 4}, width, tr("source: ") + words(w.source)) + 4;
    }
    painter.fillRect(QRectF(margin, from + 6, 2, y - from), t.blued);
    return y + 12;
}

double WorkingsSheet::paint_finding(QPainter& painter, const Finding& finding, double y) {
    const Theme& t = theme();
    const bool judged = !finding.verdict.empty();
    const QColor colour = judged ? t.steel : t.severity(finding.severity);
    const double x = margin + 12;
    const double width = panel_width - x - margin;
    const double from = y + 4;
    y += 8;
    // Told apart by word as well as by colour.
    write(painter, word_font(8, true), colour, {x, y + 10}, judged ? words(finding.verdict) : words(finding.severity));
    y += 15;
    const double head = y;
    y += write_wrapped(painter, word_font(10, true), judged ? t.steel : t.ink, {x, y}, width, words(finding.sentence)) + 2;
    y += write_wrapped(painter, word_font(9), t.steel, {x, y}, width, words(finding.reason)) + 4;
    place({"finding:" + words(finding.id),
           QRectF(x, head, width, y - head),
           [this, arbor = finding.arbor] { m_document.selection().select(arbor); },
           tr("Goes to the arbor"),
           {}});
    if (judged) {
        const double w = write(painter, word_font(8.5), t.blued, {x, y + 12}, tr("open again"));
        place({"reopen:" + words(finding.id), QRectF(x, y, w, 18), [this, id = finding.id] { m_document.judge(id, {}, {}); }, {}, {}});
    } else {
        const double a = write(painter, word_font(8.5), t.blued, {x, y + 12}, tr("accept"));
        place({"accept:" + words(finding.id),
               QRectF(x, y, a, 18),
               [this, id = finding.id] { m_document.judge(id, "accepted", {}); },
               {},
               {}});
        const double o = write(painter, word_font(8.5), t.blued, {x + a + 18, y + 12}, tr("overrule because…"));
        place(
            {"overrule:" + words(finding.id), QRectF(x + a + 18, y, o, 18), [this, id = finding.id] { emit overrule_wanted(id); }, {}, {}});
    }
    y += 20;
    painter.fillRect(QRectF(margin, from, 3, y - from), colour);
    return y + 8;
}

WorkingsPanel::WorkingsPanel(Document& document, QWidget* parent) : QScrollArea(parent), m_sheet(new WorkingsSheet(document)) {
    setFixedWidth(static_cast<int>(panel_width) + 10);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setWidgetResizable(true);
    setFocusPolicy(Qt::NoFocus);
    setWidget(m_sheet);
}

}  // namespace echappe
