#include "shell/station.h"

#include <QCoreApplication>
#include <QKeyEvent>
#include <algorithm>

#include "drawing/words.h"

namespace echappe {

Station::Station(Document& document, QWidget* parent)
    : Canvas(parent),
      m_document(document),
      m_size_round([this] { return sizes(); },
                   [this] {
                       // Not while the line is still busy with what was kept.
                       QMetaObject::invokeMethod(
                           this, [this] { emit round_changed(); }, Qt::QueuedConnection);
                   }) {
    setFocusPolicy(Qt::StrongFocus);
}

const QList<Action>& Station::actions() const {
    // Made when they are first asked for: a constructor cannot ask the class that is built on it.
    if (m_actions.isEmpty()) m_actions = const_cast<Station*>(this)->make_actions() + const_cast<Station*>(this)->size_actions();
    return m_actions;
}

ReadingRound* Station::round() const {
    if (m_size_round.wanted()) return &m_size_round;
    if (ReadingRound* own = own_round()) return own;
    return m_size_round.open() ? &m_size_round : nullptr;
}

/// Made when it is first asked for: most stations' sizes are never typed in a session.
InPlaceEditor& Station::size_editor() {
    if (m_size_editor) return *m_size_editor;
    m_size_editor = new InPlaceEditor(this);
    connect(m_size_editor, &InPlaceEditor::refused, this, [this](const QString& sentence) { emit told(sentence, true); });
    connect(m_size_editor, &InPlaceEditor::closed, this, [this] { update(); });
    return *m_size_editor;
}

/// Back on the picture no size is asked any more; on the line (F2) the same one still is.
void Station::focusInEvent(QFocusEvent* event) {
    Canvas::focusInEvent(event);
    if (types_size() || !m_size_round.wanted()) return;
    m_size_round.go_to({});
    emit round_changed();
}

bool Station::types_size() const { return m_size_editor && m_size_editor->asking(); }

QString Station::asked_size() const {
    if (types_size()) return m_size_round.at();
    return round() == &m_size_round ? m_size_round.at() : QString();
}

QList<Action> Station::size_actions() {
    const auto drawn = [this] { return !sizes().empty(); };
    QList<Action> ways = {
        {"size.next",
         words("Type the next size on the drawing"),
         {Qt::Key_F4},
         [this] { walk_sizes(1); },
         {},
         words("type the sizes"),
         drawn},
        {"size.before", words("Type the size before"), {Qt::SHIFT | Qt::Key_F4}, [this] { walk_sizes(-1); }, {}, {}, drawn}};
    for (Action& way : ways) way.of_every_station = true;
    return ways;
}

/// Open ones first; where none is open, all of them in turn.
void Station::walk_sizes(int by) {
    const bool stands_on_one = stands_on().section(':', 0, 0) == "size";
    const QString from = types_size() ? m_size_round.at() : stands_on_one ? stands_on().section(':', 1) : QString();
    const QString to = m_size_round.after(from, by, m_size_round.open());
    if (!to.isEmpty()) ask_size(to);
}

void Station::lead_on(int by) {
    if (stands_on().section(':', 0, 0) != "size") return Canvas::lead_on(by);
    const QString to = m_size_round.after(stands_on().section(':', 1), by, false);
    repaint();
    if (!to.isEmpty()) ask_size(to);
}

/// Words to be chosen among: the next of them each time.
void Station::ask_choice(const DrawnSize& size) {
    const auto& all = size.line.choices;
    const auto now = std::find(all.begin(), all.end(), size.line.text);
    const std::string next = now == all.end() || now + 1 == all.end() ? all.front() : *(now + 1);
    size.take(words("Size: %1").arg(size.label), size.line.field, next);
    QStringList others;
    for (const std::string& one : all) others << QString::fromStdString(said(one));
    emit told(words("%1: %2. Click again for another of %3.").arg(size.label, QString::fromStdString(said(next)), others.join(", ")),
              false);
}

bool Station::ask_size(const QString& id) {
    const DrawnSizes all = sizes();
    const DrawnSize* size = size_by(all, id);
    // Where it was not painted yet since it came, it is now.
    if (place_of("size:" + id).isNull()) repaint();
    const QRectF at = place_of("size:" + id);
    if (!size || at.isNull()) return false;
    stand_on("size:" + id);
    if (!size->line.choices.empty()) {
        attempt([&] { ask_choice(*size); });
        return true;
    }
    size_editor().ask(size->label, QRectF(at.left() + 2, at.center().y() - 10, 96, 20), QString::fromStdString(size->line.text),
                      [this, id, stood = QString::fromStdString(size->line.text)](const QString& text) {
                          // What stands there is rounded: left as it is, it is not a new reading.
                          if (!stood.isEmpty() && text.trimmed() == stood) return;
                          const DrawnSizes now = sizes();
                          if (const DrawnSize* asked = size_by(now, id))
                              asked->take(words("Size: %1").arg(asked->label), asked->line.field, text.trimmed().toStdString());
                      });
    m_size_round.go_to(id);
    emit round_changed();
    update();
    return true;
}

void Station::place_sizes(QPainter& painter, const Dimensions& dimensions) {
    for (const Dimensions::Stood& one : dimensions.stood()) {
        const DrawnSize& size = *one.size;
        const QString how = QString::fromStdString(size.line.explained());
        const QString because =
            size.assumed() && !size.line.because.empty() ? words("\nassumed: ") + QString::fromStdString(size.line.because) : QString();
        place({"size:" + size.id,
               one.at,
               [this, id = size.id] { ask_size(id); },
               (how.isEmpty() ? size.label : size.label + ": " + how) + because,
               {},
               {},
               size.label});
    }
    if (!types_size()) return;
    const DrawnSizes all = sizes();
    const DrawnSize* asked = size_by(all, m_size_round.at());
    if (!asked) return;
    // The line lies over the picture; its frame is painted round it, with what is asked above and the keys below.
    const Theme& t = inks(painter);
    const double scale = interface_scale();
    const QRectF line(QPointF(m_size_editor->geometry().topLeft()) / scale, QSizeF(m_size_editor->size()) / scale);
    const QString unit = asked->line.unit == "deg" ? QString::fromUtf8("°") : QString::fromStdString(asked->line.unit);
    const double wide = std::max(line.width() + 14 + width_of(type(Type::text), unit), width_of(type(Type::note, true), asked->label) + 8);
    QRectF frame(line.left() - 8, line.top() - 22, wide + 12, line.height() + 46);
    painter.setPen(QPen(t.amber, 2));
    painter.setBrush(t.sheet);
    painter.drawRoundedRect(frame, 4, 4);
    write(painter, type(Type::note, true), t.amber, {line.left(), line.top() - 7}, asked->label);
    write(painter, type(Type::text), t.steel, {line.right() + 6, line.center().y() + 5}, unit);
    write(painter, type(Type::note), t.steel, {line.left(), line.bottom() + 16}, words("Enter · Tab next"));
}

void Station::list_sizes(QPainter& painter, const QRectF& room) {
    const DrawnSizes all = sizes();
    Dimensions column(painter, all, asked_size());
    column.rest();
    column.lay_out(room);
    place_sizes(painter, column);
}

bool Station::answers(const QKeyEvent& key) const {
    const auto is_figure = [](int one) { return one >= Qt::Key_0 && one <= Qt::Key_9; };
    const auto answered = [&](const QKeySequence& own) {
        return own.count() == 1 && own[0].keyboardModifiers() == Qt::NoModifier && is_figure(own[0].key()) && is_figure(key.key());
    };
    return std::any_of(actions().begin(), actions().end(), [&](const Action& action) {
        return (action.answers(key) || std::any_of(action.keys.begin(), action.keys.end(), answered)) && action.can();
    });
}

bool Station::act_on(const QString& id) {
    for (const Action& action : actions())
        if (action.id == id && action.can()) {
            attempt(action.go);
            return true;
        }
    return false;
}

void Station::come_for(const std::function<void()>& action) {
    m_just_come = true;
    attempt(action);
    m_just_come = false;
}

void Station::keyPressEvent(QKeyEvent* event) {
    for (const Action& action : actions())
        if (action.answers(*event) && action.can()) return attempt(action.go);
    bool taken = false;
    attempt([&] { taken = other_key(*event); });
    if (!taken) Canvas::keyPressEvent(event);
}

void Station::fill_menu(QMenu& menu, const Place* place, const QPointF& at) {
    Canvas::fill_menu(menu, place, at);
    menu.addSeparator();
    for (const Action& action : actions()) {
        if (action.of_every_station || (action.menu.isEmpty() && action.legend.isEmpty()) || !action.can()) continue;
        if (action.divides) menu.addSeparator();
        const QString key = action.key_words();
        menu.addAction(action.words + (key.isEmpty() ? "" : "\t" + key), this, [this, id = action.id] { act_on(id); });
    }
}

void Station::paint_on_paper(QPainter& painter) {
    painter.setRenderHint(QPainter::Antialiasing);
    paint(painter);
    paint_over(painter);
    // It was not painted here: places are to be as they stand.
    update();
}

Printout Station::printed() {
    // The card beside it is printed as tables.
    QSizeF size = rect().size();
    for (const auto* over : findChildren<Canvas*>())
        if (over->isVisible() && over->geometry().right() >= QWidget::width() - 1 && over->width() < width())
            size.setWidth(width() - over->width());
    return picture_sheet(
        accessibleName(), [this](QPainter& painter) { paint_on_paper(painter); }, size, print_tables());
}

QList<PrintTable> Station::print_tables() {
    PrintTable table{words("Figures"), {{words("what"), words("figure"), words("unit")}}};
    QList<const Canvas*> shown = {this};
    for (const auto* over : findChildren<Canvas*>())
        if (over->isVisible()) shown << over;
    for (const Canvas* canvas : shown)
        for (const Lettered& one : canvas->written())
            if (one.is_figure()) table.rows << QStringList{one.name, one.figure, one.unit};
    return {table};
}

QList<Action> Station::climbing() {
    QList<Action> ways = {{"ladder.up", words("Up the ladder"), {Qt::Key_Up}, [this] { m_document.selection().climb(1); }},
                          {"ladder.down", words("Down the ladder"), {Qt::Key_Down}, [this] { m_document.selection().climb(-1); }}};
    for (Action& way : ways) way.of_every_station = true;
    return ways;
}

}  // namespace echappe
