#include "workings/workings_panel.h"

#include <QEvent>
#include <algorithm>
#include <cmath>

#include "drawing/words.h"
#include "number/units.h"
#include "theme/theme.h"

namespace echappe {
namespace {

constexpr double margin = 18;
constexpr double panel_width = 310;

/// Measured: ink. Follows: blued. Assumed: steel, in italics. Missing: brass with a question mark.
QColor ink_of(Known known, const Theme& t) {
    return known == Known::measured ? t.ink : known == Known::derived ? t.blued : known == Known::assumed ? t.steel : t.brass_ink;
}

QString state_sign(Known known) {
    return known == Known::measured ? "●" : known == Known::derived ? "→" : known == Known::assumed ? "~" : "?";
}

}  // namespace

WorkingsSheet::WorkingsSheet(Document& document, QWidget* parent) : Canvas(parent), m_document(document) {
    setAccessibleName(words("Workings"));
    setFocusPolicy(Qt::TabFocus);
    connect(&document, &Document::changed, this, qOverload<>(&QWidget::update));
    connect(&document.selection(), &Selection::changed, this, [this] {
        m_unfolded.clear();
        update();
    });
}

const Finding* WorkingsSheet::finding_at_hand() const {
    const std::string stands = stands_on().section(':', 1).toStdString();
    const Finding* best = nullptr;
    for (const Finding& finding : m_document.derived().findings) {
        if (finding.id == stands) return &finding;
        if (!finding.verdict.empty()) continue;
        const bool of_subject = finding.arbor == m_document.selection().subject();
        if (!best || (of_subject && best->arbor != finding.arbor)) best = &finding;
    }
    return best;
}

void WorkingsSheet::next_finding() {
    const auto& all = m_document.derived().findings;
    const std::string stands = stands_on().section(':', 1).toStdString();
    const auto now = std::find_if(all.begin(), all.end(), [&](const Finding& finding) { return finding.id == stands; });
    const auto from = now == all.end() ? 0 : static_cast<size_t>(now - all.begin()) + 1;
    for (size_t i = 0; i < all.size(); ++i) {
        const Finding& finding = all[(from + i) % all.size()];
        if (!finding.verdict.empty()) continue;
        setFocus();
        return stand_on("accept:" + words(finding.id));
    }
    emit told(words("No finding is open."), false);
}

void WorkingsSheet::show_place(const QRectF& at) {
    if (auto* panel = qobject_cast<QScrollArea*>(parentWidget()->parentWidget()))
        panel->ensureVisible(static_cast<int>(on_widget(at).center().x()), static_cast<int>(on_widget(at).center().y()), 0,
                             static_cast<int>(on_widget(at).height()));
}

void WorkingsSheet::unfold(const std::string& name) {
    m_unfolded = m_unfolded == name ? "" : name;
    update();
}

void WorkingsSheet::paint(QPainter& painter) {
    const Theme& t = inks(painter);
    painter.fillRect(rect(), t.sheet);
    const DerivedArbor* subject = m_document.derived().train.arbor(m_document.selection().subject());
    Column page(painter, QRectF(margin, 16, panel_width - 2 * margin, height()));
    if (!subject) {
        page.says(words("The figures of the selected arbor stand here, each with its reason."), t.steel, Type::text);
        return;
    }
    const QRectF named = page.head(words(subject->name) + words(" arbor"), t.blued);
    const double wide = width_of(type(Type::head, true), words(subject->name) + words(" arbor"));
    if (wide < named.width() - 120)
        write(painter, type(Type::note), t.steel, {named.right(), named.top() + 18}, words("click a figure: why"), 1);
    for (const Quantity& quantity : m_document.derived().train.quantities)
        if (quantity.arbor == subject->id) write_quantity(page, painter, quantity);
    page.gap(2);
    page.says(words("● measured  → follows  ~ assumed  ? missing"), t.steel);
    page.gap(8);
    page.section(words("FINDINGS"));
    if (m_document.derived().findings.empty())
        page.says(words("Nothing to object to: every reading agrees with the train."), t.verdigris, Type::text);
    for (const Finding& finding : m_document.derived().findings) write_finding(page, painter, finding);
    const int wanted = static_cast<int>((page.y() + 20) * interface_scale());
    if (minimumHeight() != wanted) setMinimumHeight(wanted);
}

void WorkingsSheet::write_quantity(Column& page, QPainter& painter, const Quantity& quantity) {
    const Theme& t = inks(painter);
    constexpr double high = 29, base = 20;
    const double y = page.y();
    double x = page.right();
    if (!quantity.u_text.empty()) x -= write(painter, type(Type::note), t.steel, {x, y + base}, words(quantity.u_text), 1) + 8;
    if (!quantity.unit.empty()) x -= write(painter, type(Type::note), t.steel, {x, y + base}, words(quantity.unit), 1) + 5;
    x -= write(painter, type(Type::figure, true), ink_of(quantity.known, t), {x, y + base}, words(quantity.text), 1) + 8;
    const QString name = state_sign(quantity.known) + "  " + words(quantity.name);
    write(painter, type(Type::note), t.steel, {page.left(), y + base}, elided(type(Type::note), name, x - page.left()));
    page.gap(high + 1);
    page.rule();
    place({"quantity:" + words(quantity.name),
           QRectF(0, y, panel_width, high),
           [this, n = quantity.name] { unfold(n); },
           words(quantity.state) + (quantity.working ? words("; click for the workings") : ""),
           {}});
    if (m_unfolded == quantity.name) write_working(page, painter, quantity);
}

void WorkingsSheet::write_working(Column& page, QPainter& painter, const Quantity& quantity) {
    const Theme& t = inks(painter);
    Column inner(painter, page.room().adjusted(12, page.y() - page.room().top() + 8, -4, 0));
    if (!quantity.working) {
        for (const std::string& taken : quantity.taken) inner.says(words(taken), t.ink);
        inner.says(quantity.known == Known::measured ? words("Counted or read at the bench; nothing was worked out.")
                   : quantity.known == Known::missing
                       ? words("The likeliest of the solver's candidates; see the Train station for the others.")
                       : words("Decided at the bench from the solver's candidates."),
                   t.steel);
    } else {
        const Working& w = *quantity.working;
        inner.says(words(w.formula), t.ink, Type::text);
        inner.says(words(w.substituted()), t.blued, Type::text);
        inner.says("= " + words(print_measured(w.result.value, w.result.u) + " " + w.unit), t.ink, Type::text, true);
        for (const Term& term : w.terms) {
            inner.says(words(term.symbol + "  " + print_short(term.value.value, 7) + " " + term.unit + "  " + term.meaning), t.steel);
            inner.gap(-3);
        }
        inner.gap(4);
        if (const Term* most = w.largest_contributor()) inner.says(words("most of the ±: ") + words(most->meaning), t.amber);
        for (const std::string& note : w.notes) inner.says(words(note), t.steel);
        inner.says(words("source: ") + words(w.source), t.steel);
    }
    painter.fillRect(QRectF(page.left(), page.y() + 6, 2, inner.y() - page.y()), t.blued);
    page.go_to(inner.y() + 12);
}

void WorkingsSheet::write_finding(Column& page, QPainter& painter, const Finding& finding) {
    const Theme& t = inks(painter);
    const bool judged = !finding.verdict.empty();
    const QColor colour = judged ? t.steel : t.severity(finding.severity);
    Column inner(painter, page.room().adjusted(12, page.y() - page.room().top() + 4, 0, 0));
    // Told apart by word as well as by colour.
    inner.line(words(judged ? finding.verdict : finding.severity), colour, Type::note, true);
    const double head = inner.y();
    inner.gap(-2);
    inner.says(words(finding.sentence), judged ? t.steel : t.ink, Type::text, true);
    inner.gap(-2);
    inner.says(words(finding.reason), t.steel);
    place({"finding:" + words(finding.id),
           QRectF(QPointF(inner.left(), head), QPointF(inner.right(), inner.y())),
           [this, arbor = finding.arbor] { m_document.selection().select(arbor); },
           words("Goes to the arbor"),
           {}});
    Flow ways(painter, inner.room(), inner.y() + 12, 18);
    const auto way = [&](const QString& tag, const QString& say, std::function<void()> go) {
        place({tag + words(finding.id), ways.say(say, t.blued), std::move(go), {}, {}, {}, say + ": " + words(finding.sentence)});
    };
    if (judged) {
        way("reopen:", words("open again"), [this, id = finding.id] { m_document.judge(id, {}, {}); });
    } else {
        way("accept:", words("accept"), [this, id = finding.id] { m_document.judge(id, "accepted", {}); });
        way("overrule:", words("overrule because…"), [this, id = finding.id] { emit overrule_wanted(id); });
    }
    painter.fillRect(QRectF(page.left(), page.y() + 4, 3, ways.baseline() + 6 - page.y() - 4), colour);
    page.go_to(ways.baseline() + 16);
}

WorkingsPanel::WorkingsPanel(Document& document, QWidget* parent) : QScrollArea(parent), m_sheet(new WorkingsSheet(document)) {
    follow_scale();
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setWidgetResizable(true);
    setFocusPolicy(Qt::NoFocus);
    setWidget(m_sheet);
}

void WorkingsPanel::follow_scale() { setFixedWidth(static_cast<int>(std::lround((panel_width + 10) * interface_scale()))); }

void WorkingsPanel::changeEvent(QEvent* event) {
    QScrollArea::changeEvent(event);
    if (event->type() == QEvent::StyleChange) follow_scale();
}

}  // namespace echappe
