#include "shell/menus.h"

#include <QMenuBar>

#include "drawing/words.h"
#include "shell/main_window.h"

namespace echappe {
namespace {

QMenu& menu_named(MainWindow& window, const QString& title) {
    if (auto* there = window.menuBar()->findChild<QMenu*>(title)) return *there;
    QMenu* made = window.menuBar()->addMenu(title);
    made->setObjectName(title);
    return *made;
}

void add_history(MainWindow& window) {
    QUndoStack* history = window.document().undo_stack();
    QAction* undo = history->createUndoAction(&window, words("Undo"));
    QAction* redo = history->createRedoAction(&window, words("Redo"));
    undo->setObjectName("edit.undo");
    redo->setObjectName("edit.redo");
    undo->setShortcut(QKeySequence::Undo);
    redo->setShortcuts({QKeySequence(words("Ctrl+Shift+Z")), QKeySequence(words("Ctrl+Y"))});
    menu_named(window, words("&Edit")).addActions({undo, redo});
    window.addActions({undo, redo});
}

void add_action(MainWindow& window, const Action& action, Station* station) {
    QMenu& menu = menu_named(window, action.menu);
    if (action.divides) menu.addSeparator();
    if (!action.go) {
        menu.addMenu(window.jobs().recent());
        return;
    }
    const QList<QKeySequence> anywhere = station ? action.keys_anywhere() : action.keys;
    // A station's own plain key stands behind the name: it is told, and not bound for the whole window.
    const bool told_only = anywhere.isEmpty() && !action.keys.isEmpty();
    QAction* made = menu.addAction(action.words + (told_only ? "\t" + action.keys.front().toString() : QString()));
    made->setObjectName(action.id);
    made->setShortcuts(anywhere);
    QObject::connect(made, &QAction::triggered, &window, [&window, action, station] { window.do_at(station, action); });
    // Grey in an open menu only: by its key it is done, or said why not.
    if (action.possible) {
        QObject::connect(&menu, &QMenu::aboutToShow, made, [made, action] { made->setEnabled(action.possible()); });
        QObject::connect(&menu, &QMenu::aboutToHide, made, [made] { made->setEnabled(true); });
    }
    window.addAction(made);
}

}  // namespace

/// A letter of its own for each entry: the first of its words that no other has.
void give_letters(const QMenu& menu) {
    QString taken;
    for (QAction* entry : menu.actions()) {
        const QString words = entry->text();
        const qsizetype end = words.contains('\t') ? words.indexOf('\t') : words.size();
        qsizetype at = -1;
        // The first letters of words first, then any letter.
        for (const bool first_only : {true, false})
            for (qsizetype i = 0; i < end && at < 0; ++i) {
                const bool first = i == 0 || words[i - 1] == ' ';
                if (words[i].isLetter() && words[i].unicode() < 128 && (first || !first_only) && !taken.contains(words[i].toLower()))
                    at = i;
            }
        if (at < 0 || words.contains('&')) continue;
        taken += words[at].toLower();
        entry->setText(QString(words).insert(at, '&'));
    }
}

void build_menus(MainWindow& window, const QList<Action>& of_the_window) {
    for (const QString& title : {words("&Job"), words("&Edit"), words("&View"), words("&Findings"), words("&Measure")})
        menu_named(window, title);
    add_history(window);
    for (const Action& action : of_the_window) add_action(window, action, nullptr);
    for (Station* station : window.stations())
        for (const Action& action : station->actions())
            if (!action.menu.isEmpty()) add_action(window, action, station);
    // Help stands last, whatever the stations brought.
    if (auto* help = window.menuBar()->findChild<QMenu*>(words("H&elp"))) window.menuBar()->addMenu(help);
    for (const auto* menu : window.menuBar()->findChildren<QMenu*>()) give_letters(*menu);
}

}  // namespace echappe
