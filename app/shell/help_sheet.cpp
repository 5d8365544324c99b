#include "shell/help_sheet.h"

#include <QCoreApplication>
#include <QFile>
#include <QShortcut>
#include <QVBoxLayout>

#include "drawing/glossary.h"
#include "drawing/words.h"
#include "theme/theme.h"

namespace echappe {
namespace {

QString text_of(const QString& name) {
    QFile file(":/help/" + name);
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

QString about() {
    return words(
               "# Echappe %1\n\nThe bench companion for clock and watch work. It works on this machine alone and sends nothing "
               "anywhere.\n\nEchappe is free software under the GNU General Public License, version 3 or later. It comes with no "
               "warranty: a figure that a part depends on is to be checked at the bench.\n\n")
               .arg(QCoreApplication::applicationVersion()) +
           text_of("licences.md");
}

}  // namespace

HelpSheet::HelpSheet(const QString& keys, QWidget* parent)
    : QDialog(parent), m_search(new QLineEdit), m_pages(new QTabWidget), m_said(new QLabel) {
    setWindowTitle(words("Help"));
    m_search->setPlaceholderText(words("search; Enter goes to the next place"));
    m_search->setAccessibleName(words("search"));
    m_search->setClearButtonEnabled(true);
    m_pages->setDocumentMode(true);
    add(words("Guide"), text_of("guide.md"));
    add(words("Keys"), "# " + words("Every key") + "\n" + keys);
    add(words("Terms"), terms_of_the_trade());
    add(words("Limits"), text_of("limits.md"));
    add(words("About"), about());
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(16, 14, 16, 12);
    column->addWidget(m_search);
    column->addWidget(m_said);
    m_said->hide();
    column->addWidget(m_pages);
    connect(m_search, &QLineEdit::textChanged, this, [this] {
        page().moveCursor(QTextCursor::Start);
        find(false);
    });
    connect(m_search, &QLineEdit::returnPressed, this, [this] { find(false); });
    auto* back = new QShortcut(QKeySequence(Qt::SHIFT | Qt::Key_Return), m_search, nullptr, nullptr, Qt::WidgetShortcut);
    connect(back, &QShortcut::activated, this, [this] { find(true); });
    auto* seek = new QShortcut(QKeySequence::Find, this);
    connect(seek, &QShortcut::activated, m_search, qOverload<>(&QWidget::setFocus));
    resize((QSizeF(860, 680) * interface_scale()).toSize());
}

void HelpSheet::add(const QString& title, const QString& markdown) {
    auto* text = new QTextBrowser;
    text->setFrameShape(QFrame::NoFrame);
    text->setHorizontalScrollBarPolicy(Qt::ScrollBarAsNeeded);
    text->setAccessibleName(title);
    text->setOpenLinks(false);
    wear(*text, Type::text);
    text->setMarkdown(markdown);
    m_pages->addTab(text, title);
}

void HelpSheet::show_page(Page page) {
    m_pages->setCurrentIndex(static_cast<int>(page));
    show();
    raise();
    m_search->setFocus();
}

QTextBrowser& HelpSheet::page() const { return *static_cast<QTextBrowser*>(m_pages->currentWidget()); }

/// On to the next page that has it, and round from the last place to the first.
void HelpSheet::find(bool back) {
    const QString what = m_search->text();
    m_said->clear();
    m_said->hide();
    if (what.isEmpty()) return;
    const auto way = back ? QTextDocument::FindBackward : QTextDocument::FindFlags();
    const int count = m_pages->count(), from = m_pages->currentIndex();
    for (int i = 0; i <= count; ++i) {
        auto& text = *static_cast<QTextBrowser*>(m_pages->widget((from + (back ? count - i % count : i)) % count));
        if (i > 0) text.moveCursor(back ? QTextCursor::End : QTextCursor::Start);
        if (text.find(what, way)) return m_pages->setCurrentWidget(&text);
    }
    m_said->setText(words("“%1” is not in the help. Try fewer letters.").arg(what));
    m_said->show();
}

}  // namespace echappe
