#include "shell/preferences_sheet.h"

#include <QComboBox>
#include <QDialogButtonBox>
#include <QFileDialog>
#include <QFormLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <cmath>

#include "document/bench_hand.h"
#include "drawing/words.h"
#include "theme/theme.h"

namespace echappe {

PreferencesSheet::PreferencesSheet(QWidget* parent)
    : QDialog(parent),
      m_look(new QComboBox),
      m_scale(new QComboBox),
      m_unit(new QComboBox),
      m_workshop(new QLineEdit(Settings().value("workshop").toString())),
      m_hand(new QLineEdit(words(bench_hand()))),
      m_folder(new QLineEdit(Settings().value("folder").toString())) {
    setWindowTitle(words("Preferences"));
    const Settings kept;
    for (const auto& [look, name] :
         {std::pair{"", words("as the desktop")}, std::pair{"light", words("light")}, std::pair{"dark", words("dark")}})
        m_look->addItem(name, QString(look));
    m_look->setCurrentIndex(m_look->findData(kept.value("theme").toString()));
    for (int percent = 80; percent <= 200; percent += 10) m_scale->addItem(words("%1 %").arg(percent), percent / 100.0);
    m_scale->setCurrentIndex(static_cast<int>(std::lround(interface_scale() * 10)) - 8);
    for (const auto& [unit, name] : {std::pair{"mm", words("millimetres")}, std::pair{"in", words("inches")}})
        m_unit->addItem(name, QString(unit));
    m_unit->setCurrentIndex(std::max(0, m_unit->findData(kept.value("unit").toString())));
    m_folder->setPlaceholderText(words("where a file was opened last"));
    auto* choose = new QPushButton(words("Choose…"));
    connect(choose, &QPushButton::clicked, this, [this] {
        const QString folder = QFileDialog::getExistingDirectory(this, words("Where jobs lie"), m_folder->text());
        if (!folder.isEmpty()) m_folder->setText(folder);
    });
    auto* folder = new QHBoxLayout;
    folder->addWidget(m_folder, 1);
    folder->addWidget(choose);
    auto* form = new QFormLayout(this);
    form->setContentsMargins(24, 20, 24, 16);
    form->setVerticalSpacing(10);
    form->addRow(words("Look"), m_look);
    form->addRow(words("Size of all of it"), m_scale);
    form->addRow(words("Lengths of a new job"), m_unit);
    form->addRow(words("Workshop of a new job"), m_workshop);
    form->addRow(words("Your hand"), m_hand);
    form->addRow(words("Jobs lie in"), folder);
    auto* numbers = new QLabel(words("Figures are shown with a point, 38.42, and taken with a point or a comma."));
    numbers->setWordWrap(true);
    form->addRow(words("Figures"), numbers);
    for (int row = 0; row < form->rowCount(); ++row)
        if (auto* label = qobject_cast<QLabel*>(form->itemAt(row, QFormLayout::LabelRole)->widget()))
            if (auto* field = form->itemAt(row, QFormLayout::FieldRole)->widget()) field->setAccessibleName(label->text());
    m_folder->setAccessibleName(words("Jobs lie in"));
    auto* buttons = new QDialogButtonBox;
    buttons->addButton(words("Keep"), QDialogButtonBox::AcceptRole);
    buttons->addButton(words("Cancel"), QDialogButtonBox::RejectRole);
    form->addRow(buttons);
    connect(buttons, &QDialogButtonBox::accepted, this, [this] {
        keep();
        accept();
    });
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::reject);
}

void PreferencesSheet::keep() {
    Settings kept;
    kept.setValue("unit", m_unit->currentData());
    kept.setValue("workshop", m_workshop->text().trimmed());
    kept.setValue("folder", m_folder->text().trimmed());
    set_bench_hand(m_hand->text().trimmed().toStdString());
    emit look_chosen(m_look->currentData().toString());
    emit scale_chosen(m_scale->currentData().toDouble());
}

}  // namespace echappe
