#include "shell/sheet_desk.h"

#include <QInputDialog>

#include "drawing/words.h"
#include "shell/finder.h"
#include "shell/fitting.h"
#include "shell/help_sheet.h"
#include "shell/key_table.h"
#include "shell/main_window.h"
#include "shell/preferences_sheet.h"
#include "stations/teeth/stock_sheet.h"

namespace echappe {

SheetDesk::SheetDesk(MainWindow& window) : QObject(&window), m_window(window) {}

Finder* SheetDesk::open_finder() {
    auto* finder = new Finder(entries_of(m_window), &m_window);
    finder->move(m_window.mapToGlobal(QPoint((m_window.width() - finder->width()) / 2, 110)));
    // What it offers is of this job.
    connect(&m_window.document(), &Document::opened, finder, &QDialog::reject);
    finder->open();
    return finder;
}

HelpSheet& SheetDesk::help() {
    if (!m_help) m_help = new HelpSheet(key_table(m_window), &m_window);
    return *m_help;
}

void SheetDesk::open_preferences() {
    auto* sheet = new PreferencesSheet(&m_window);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    connect(sheet, &PreferencesSheet::look_chosen, &m_window.fitting(), &Fitting::choose_look);
    connect(sheet, &PreferencesSheet::scale_chosen, &m_window.fitting(), &Fitting::take_scale);
    sheet->open();
}

StockSheet* SheetDesk::open_stock() {
    auto* sheet = new StockSheet(m_window.workshop(), &m_window);
    sheet->setAttribute(Qt::WA_DeleteOnClose);
    sheet->open();
    return sheet;
}

void SheetDesk::ask_overrule(const std::string& finding) {
    Document& document = m_window.document();
    const JobHeld held(document);
    bool said = false;
    QString stands;
    for (const Judgement& judgement : document.job().judgements)
        if (judgement.finding == finding) stands = QString::fromStdString(judgement.reason);
    const QString reason =
        QInputDialog::getText(&m_window, words("Overrule"), words("Because (kept with the job):"), QLineEdit::Normal, stands, &said);
    if (said && reason.trimmed().isEmpty())
        m_window.calliper().tell(words("reason: got nothing, takes a few words: they are what you will want to read in a year"), true);
    else if (said) m_window.jobs().guarded([&] { held.document().judge(finding, "overruled", reason.trimmed()); });
}

}  // namespace echappe
