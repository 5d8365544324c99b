#include "shell/job_sheet.h"

#include <QDialogButtonBox>
#include <QFormLayout>

#include "theme/theme.h"
#include "workings/record_json.h"
#include "workings/sum.h"

namespace echappe {
namespace {

const std::vector<std::string> fields = {"title", "number", "owner", "maker", "place", "workshop", "note"};

}  // namespace

JobSheet::JobSheet(Document& document, QWidget* parent) : QDialog(parent), m_document(document) {
    setWindowTitle(tr("This job"));
    auto* form = new QFormLayout(this);
    form->setContentsMargins(24, 20, 24, 16);
    form->setVerticalSpacing(10);
    for (const SumLine& line : lines_of(Job::record(), &m_document.job(), fields)) {
        auto* entry = new QLineEdit(words(line.text));
        entry->setObjectName(words(line.field));
        entry->setFont(type(Type::text));
        entry->setMinimumWidth(420);
        const QString name = words(line.field);
        entry->setAccessibleName(name);
        entry->setPlaceholderText(words(Job::record().find(line.field)->meaning));
        form->addRow(name.left(1).toUpper() + name.mid(1), entry);
    }
    auto* buttons = new QDialogButtonBox;
    buttons->addButton(tr("Keep it"), QDialogButtonBox::AcceptRole);
    buttons->addButton(tr("Leave it"), QDialogButtonBox::RejectRole);
    connect(buttons, &QDialogButtonBox::accepted, this, &JobSheet::accept);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
    form->addRow(buttons);
}

void JobSheet::accept() {
    m_document.edit(tr("Title, owner and maker"), [this](Job& job) {
        for (const std::string& field : fields)
            read_word(*Job::record().find(field), entry(words(field))->text().trimmed().toStdString(), &job);
    });
    QDialog::accept();
}

}  // namespace echappe
