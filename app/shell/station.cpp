#include "shell/station.h"

#include <QCoreApplication>
#include <QKeyEvent>
#include <algorithm>

namespace echappe {

Station::Station(Document& document, QWidget* parent) : Canvas(parent), m_document(document) { setFocusPolicy(Qt::StrongFocus); }

const QList<Action>& Station::actions() const {
    // Made when they are first asked for: a constructor cannot ask the class that is built on it.
    if (m_actions.isEmpty()) m_actions = const_cast<Station*>(this)->make_actions();
    return m_actions;
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
    PrintTable table{tr("Figures"), {{tr("what"), tr("figure"), tr("unit")}}};
    QList<const Canvas*> shown = {this};
    for (const auto* over : findChildren<Canvas*>())
        if (over->isVisible()) shown << over;
    for (const Canvas* canvas : shown)
        for (const Lettered& one : canvas->written())
            if (one.is_figure()) table.rows << QStringList{one.name, one.figure, one.unit};
    return {table};
}

QList<Action> Station::climbing() {
    QList<Action> ways = {{"ladder.up", tr("Up the ladder"), {Qt::Key_Up}, [this] { m_document.selection().climb(1); }},
                          {"ladder.down", tr("Down the ladder"), {Qt::Key_Down}, [this] { m_document.selection().climb(-1); }}};
    for (Action& way : ways) way.of_every_station = true;
    return ways;
}

}  // namespace echappe
