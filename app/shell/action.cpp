#include "shell/action.h"

#include <QKeyEvent>
#include <algorithm>

namespace echappe {

bool Action::answers(const QKeyEvent& event) const {
    const Qt::KeyboardModifiers with = event.modifiers() & ~Qt::KeypadModifier;
    const int key = event.key() == Qt::Key_Enter ? static_cast<int>(Qt::Key_Return) : event.key();
    const QKeySequence pressed(QKeyCombination(with, static_cast<Qt::Key>(key)));
    // A sign may need Shift on one keyboard and not on another: it is the sign that counts.
    const bool sign = key < Qt::Key_Escape && !(key >= Qt::Key_A && key <= Qt::Key_Z);
    const QKeySequence plain(QKeyCombination(with & ~Qt::ShiftModifier, static_cast<Qt::Key>(key)));
    return std::any_of(keys.begin(), keys.end(), [&](const QKeySequence& own) { return own == pressed || (sign && own == plain); });
}

QList<QKeySequence> Action::keys_anywhere() const {
    QList<QKeySequence> anywhere;
    std::copy_if(keys.begin(), keys.end(), std::back_inserter(anywhere), [](const QKeySequence& key) {
        return key.count() > 0 && (key[0].keyboardModifiers() & (Qt::ControlModifier | Qt::AltModifier));
    });
    return anywhere;
}

QString Action::key_words() const {
    if (keys.isEmpty()) return {};
    QString told = keys.front().toString();
    for (const auto& [from, to] : {std::pair("Left", "←"), std::pair("Right", "→"), std::pair("Up", "↑"), std::pair("Down", "↓"),
                                   std::pair("Return", "Enter"), std::pair("Backspace", "⌫")})
        if (told.section('+', -1) == QLatin1String(from))
            told.replace(told.size() - qsizetype(strlen(from)), qsizetype(strlen(from)), QString::fromUtf8(to));
    if (told.startsWith("Shift+") && told.size() == 7) told.replace("Shift+", QString::fromUtf8("⇧"));
    return told;
}

QString legend_of(const QList<Action>& actions, const QStringList& ids, const QString& between) {
    const auto named = [&](const QString& id) {
        return std::find_if(actions.begin(), actions.end(), [&](const Action& action) { return action.id == id; });
    };
    QStringList parts;
    for (const QString& pair : ids) {
        QStringList keys;
        QString words;
        for (const QString& id : pair.split('|')) {
            const auto action = named(id);
            if (action == actions.end()) continue;
            keys << action->key_words();
            if (words.isEmpty()) words = action->legend;
        }
        if (!keys.isEmpty()) parts << (keys.join(' ') + (words.isEmpty() ? "" : " " + words));
    }
    return parts.join(between);
}

}  // namespace echappe
