#include "shell/finder.h"

#include <QKeyEvent>
#include <QPointer>
#include <QVBoxLayout>

#include "drawing/words.h"
#include "shell/main_window.h"
#include "theme/theme.h"

namespace echappe {

Finder::Finder(std::vector<Entry> entries, QWidget* parent)
    : QDialog(parent, Qt::Dialog | Qt::FramelessWindowHint),
      m_entries(std::move(entries)),
      m_line(new QLineEdit(this)),
      m_list(new QListWidget(this)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(words("Find"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(14, 12, 14, 14);
    wear(*m_line, Type::head);
    m_line->setPlaceholderText(words("an action, an arbor, a reading"));
    m_line->installEventFilter(this);
    wear(*m_list, Type::text);
    m_list->setFocusPolicy(Qt::NoFocus);
    column->addWidget(m_line);
    column->addWidget(m_list);
    connect(m_line, &QLineEdit::textChanged, this, &Finder::refill);
    connect(m_list, &QListWidget::itemClicked, this, &Finder::go);
    resize(560, 380);
    refill();
}

void Finder::refill() {
    m_list->clear();
    const QString typed = m_line->text().toLower().simplified();
    const QStringList letters = typed.split(' ', Qt::SkipEmptyParts);
    const auto whole = [&](size_t i) { return m_entries[i].name + "   " + m_entries[i].kind; };
    const auto offer = [&](size_t i) { (new QListWidgetItem(whole(i), m_list))->setData(Qt::UserRole, static_cast<int>(i)); };
    // What begins with the very words comes before what has them somewhere.
    const auto begins = [&](size_t i) { return m_entries[i].name.toLower().startsWith(typed); };
    const auto fits = [&](size_t i) {
        return std::all_of(letters.begin(), letters.end(), [&](const QString& word) { return whole(i).toLower().contains(word); });
    };
    for (size_t i = 0; i < m_entries.size(); ++i)
        if (begins(i)) offer(i);
    for (size_t i = 0; i < m_entries.size(); ++i)
        if (!begins(i) && fits(i)) offer(i);
    if (m_list->count() == 0) {
        auto* none = new QListWidgetItem(words("Nothing by that name. Try fewer letters."), m_list);
        none->setFlags(Qt::NoItemFlags);
        return;
    }
    m_list->setCurrentRow(0);
}

void Finder::go() {
    const QListWidgetItem* item = m_list->currentItem();
    if (!item || !(item->flags() & Qt::ItemIsEnabled)) return;
    const auto action = m_entries[static_cast<size_t>(item->data(Qt::UserRole).toInt())].go;
    accept();
    action();
}

bool Finder::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) return go(), true;
        if (key == Qt::Key_Down || key == Qt::Key_Up) {
            const int row = m_list->currentRow() + (key == Qt::Key_Down ? 1 : -1);
            m_list->setCurrentRow(std::clamp(row, 0, std::max(0, m_list->count() - 1)));
            return true;
        }
    }
    return QDialog::eventFilter(watched, event);
}

std::vector<Finder::Entry> entries_of(MainWindow& window) {
    std::vector<Finder::Entry> entries;
    const auto offer = [&](const Action& action, Station* station, const QString& where) {
        if (!action.go || !action.can()) return;
        const QString key = action.keys.isEmpty() ? QString() : action.keys.front().toString();
        const QString kind = QStringList({key, where}).join(key.isEmpty() || where.isEmpty() ? "" : ", ");
        entries.push_back({action.words, kind, [&window, action, station] { window.do_at(station, action); }});
    };
    for (const Action& action : window.own_actions()) offer(action, nullptr, {});
    for (const char* id : {"edit.undo", "edit.redo"})
        if (auto* history = window.findChild<QAction*>(id); history && history->isEnabled())
            entries.push_back({history->text(), history->shortcut().toString(), [history] { history->trigger(); }});
    for (const StationRow& row : station_rows()) {
        Station* station = window.station(row.id);
        for (const Action& action : station->actions())
            if (!action.of_every_station) offer(action, station, row.title);
    }
    // Whatever can be clicked now, in the words that stand there.
    for (QPointer<Canvas> canvas : window.findChildren<Canvas*>()) {
        if (!canvas->isVisible()) continue;
        for (const Canvas::Readable& one : canvas->readables())
            if (one.acts && !one.selects)
                entries.push_back({QString(one.name + " " + one.value).simplified(), canvas->accessibleName(), [canvas, tag = one.tag] {
                                       if (canvas) canvas->setFocus(), canvas->stand_on(tag), canvas->act(tag);
                                   }});
    }
    Document& document = window.document();
    for (const DerivedArbor& arbor : document.derived().train.arbors)
        entries.push_back(
            {QString::fromStdString(arbor.name), words("arbor"), [&document, id = arbor.id] { document.selection().select(id); }});
    for (const Measurable& m : document.derived().train.measurables)
        entries.push_back({QString::fromStdString(m.name), words("reading"), [&window, key = m.key] { window.calliper().ask(key); }});
    return entries;
}

}  // namespace echappe
