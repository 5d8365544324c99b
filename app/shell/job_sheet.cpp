#include "shell/job_sheet.h"

#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QPushButton>

#include "document/bench_hand.h"
#include "document/pictures.h"
#include "drawing/words.h"
#include "job/edits.h"
#include "number/input_error.h"
#include "theme/theme.h"
#include "workings/record_json.h"
#include "workings/sum.h"

namespace echappe {
namespace {

const std::vector<std::string> fields = {"title", "number", "owner", "maker", "place", "workshop", "note"};
constexpr QSize photo_room(420, 150);

QString capital(const QString& word) { return word.left(1).toUpper() + word.mid(1); }

QLineEdit* line_of(const QString& name, const QString& text, const QString& meaning) {
    auto* entry = new QLineEdit(text);
    entry->setObjectName(name);
    wear(*entry, Type::text);
    entry->setMinimumWidth(photo_room.width());
    entry->setAccessibleName(name);
    entry->setPlaceholderText(meaning);
    return entry;
}

}  // namespace

JobSheet::JobSheet(Document& document, QWidget* parent)
    : QDialog(parent),
      m_document(document),
      m_held(document),
      m_scope(new QPlainTextEdit(words(document.job().scope))),
      m_photo(new QLabel) {
    setWindowTitle(words("This job"));
    auto* form = new QFormLayout(this);
    form->setContentsMargins(24, 20, 24, 16);
    form->setVerticalSpacing(10);
    for (const SumLine& line : lines_of(Job::record(), &m_document.job(), fields)) {
        const QString name = words(line.field);
        m_stood[name] = words(line.text);
        form->addRow(capital(name), line_of(name, words(line.text), words(Job::record().find(line.field)->meaning)));
    }
    m_stood["scope"] = m_scope->toPlainText();
    constexpr int scope_lines = 3;
    wear(*m_scope, Type::text);
    m_scope->setAccessibleName(words("agreed"));
    m_scope->setTabChangesFocus(true);
    m_scope->setFixedHeight(scope_lines * m_scope->fontMetrics().lineSpacing() + 12);
    m_scope->setPlaceholderText(words(Job::record().find("scope")->meaning));
    form->addRow(words("Agreed"), m_scope);
    auto* choose = new QPushButton(words("Choose a picture…"));
    connect(choose, &QPushButton::clicked, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, words("The whole movement"), {}, words("Pictures (*.png *.jpg *.jpeg)"));
        if (path.isEmpty()) return;
        try {
            choose_photo(path);
        } catch (const InputError& error) {
            m_photo->setText(fault_in_words(error));
            m_photo->show();
        }
    });
    auto* photo = new QVBoxLayout;
    photo->addWidget(m_photo);
    photo->addWidget(choose, 0, Qt::AlignLeft);
    form->addRow(words("The whole"), photo);
    show_photo(m_document.job().photo.empty() ? QString() : m_document.pictures() + "/" + words(m_document.job().photo));
    form->addRow(words("Your hand"),
                 line_of("hand", words(bench_hand()), words("who counts and measures at this bench: kept with every reading")));
    auto* buttons = new QDialogButtonBox;
    buttons->addButton(words("Keep it"), QDialogButtonBox::AcceptRole);
    buttons->addButton(words("Leave it"), QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, this, &JobSheet::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    form->addRow(buttons);
}

void JobSheet::show_photo(const QString& file) {
    const QPixmap picture = file.isEmpty() ? QPixmap() : QPixmap(file);
    m_photo->setVisible(!file.isEmpty());
    if (picture.isNull()) m_photo->setText(words("%1 is not there").arg(file));
    else m_photo->setPixmap(picture.scaled(photo_room, Qt::KeepAspectRatio, Qt::SmoothTransformation));
}

void JobSheet::choose_photo(const QString& path) {
    if (QPixmap(path).isNull()) throw InputError("photo", "\"" + path.toStdString() + "\"", "a picture, PNG or JPEG");
    m_chosen = path;
    show_photo(path);
}

void JobSheet::accept() {
    Document& document = m_held.document();
    // What was not touched here is left as it is by now.
    std::map<std::string, std::string> changed;
    for (const std::string& field : fields)
        if (const QString typed = entry(words(field))->text(); typed != m_stood[words(field)]) changed[field] = typed.toStdString();
    if (const QString typed = m_scope->toPlainText(); typed != m_stood["scope"]) changed["scope"] = typed.trimmed().toStdString();
    if (!m_chosen.isEmpty()) changed["photo"] = keep_picture(document.pictures(), m_chosen, "whole").toStdString();
    document.edit(retitle(changed));
    set_bench_hand(entry("hand")->text().trimmed().toStdString());
    QDialog::accept();
}

}  // namespace echappe
