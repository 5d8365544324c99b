#include "shell/key_table.h"

#include "drawing/words.h"
#include "shell/main_window.h"

namespace echappe {
namespace {

QString rows_of(const QList<Action>& actions) {
    QString rows;
    for (const Action& action : actions) {
        if (action.keys.isEmpty()) continue;
        QStringList keys;
        for (const QKeySequence& key : action.keys) keys << QStringLiteral("`%1`").arg(key.toString(QKeySequence::PortableText));
        rows += QStringLiteral("| %1 | %2 |\n").arg(keys.join(", "), action.words);
    }
    return rows;
}

QString table(const QString& title, const QList<Action>& actions) {
    const QString rows = rows_of(actions);
    return rows.isEmpty() ? QString() : QStringLiteral("\n**%1**\n\n| key | what it does |\n|---|---|\n").arg(title) + rows;
}

}  // namespace

QString key_table(const MainWindow& window) {
    QString text = table(words("Everywhere"), window.own_actions());
    for (const StationRow& row : station_rows()) {
        const Station* station = window.station(row.id);
        text += table(row.title, station->actions());
        for (const auto* sheet : station->findChildren<Station*>())
            text += table(row.title + ", " + sheet->accessibleName().toLower(), sheet->actions());
    }
    return text;
}

}  // namespace echappe
