#pragma once

#include <QKeySequence>
#include <QList>
#include <QString>
#include <functional>

class QKeyEvent;

namespace echappe {

/// Something that can be done, declared once: menus, keys, the legends painted beside a picture, the finder and the guide's table of
/// keys all come from it.
struct Action {
    QString id;     ///< "pivots.ream"
    QString words;  ///< as menus and the finder say it
    /// With Ctrl or Alt, or of the window itself: anywhere in the window. A plain one of a station: while that has the focus.
    QList<QKeySequence> keys;
    std::function<void()> go;
    QString menu = {};    ///< of the window, "&Holes"; empty: the finder and its keys only
    QString legend = {};  ///< painted beside its key, in a word or two; empty: not painted
    std::function<bool()> possible = {};
    bool divides = false;           ///< a line goes before it in its menu
    bool of_every_station = false;  ///< the ladder, the sheets: not told for each anew

    bool can() const { return !possible || possible(); }
    /// Those of its keys that hold wherever in the window the focus is, though it is a station's.
    QList<QKeySequence> keys_anywhere() const;
    /// Whether this key, as it was pressed, is one of its own.
    bool answers(const QKeyEvent& event) const;
    /// "⇧F", "Enter", "←": its first key as it is painted.
    QString key_words() const;
};

/// The legend of these actions, as painted: "R reamed · T take bush"; "a|b" puts two keys before the words of the first.
QString legend_of(const QList<Action>& actions, const QStringList& ids, const QString& between = QStringLiteral("  ·  "));

}  // namespace echappe
