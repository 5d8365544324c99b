#pragma once

#include <QDialog>

class QComboBox;
class QLineEdit;

namespace echappe {

/// What a person sets once: look and size, units, the workshop, who is at the bench, where jobs lie.
class PreferencesSheet : public QDialog {
    Q_OBJECT
public:
    explicit PreferencesSheet(QWidget* parent);

signals:
    void look_chosen(const QString& look);
    void scale_chosen(double scale);

private:
    void keep();
    QComboBox* m_look;
    QComboBox* m_scale;
    QComboBox* m_unit;
    QLineEdit* m_workshop;
    QLineEdit* m_hand;
    QLineEdit* m_folder;
};

}  // namespace echappe
