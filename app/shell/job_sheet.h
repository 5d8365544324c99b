#pragma once

#include <QDialog>
#include <QLabel>
#include <QLineEdit>
#include <QPlainTextEdit>
#include <map>

#include "document/document.h"

namespace echappe {

/// Whose clock it is, who made it, where it stands, what was agreed, and how it looks: asked when wanted, kept as one edit.
class JobSheet : public QDialog {
    Q_OBJECT
public:
    JobSheet(Document& document, QWidget* parent);
    /// The entry of a field of the job, "owner"; "hand" is whose hand works at this bench, and of no job.
    QLineEdit* entry(const QString& field) const { return findChild<QLineEdit*>(field); }
    QPlainTextEdit& scope() const { return *m_scope; }
    /// A picture of the whole movement; it is kept when the sheet is. Throws InputError for what is no picture.
    void choose_photo(const QString& path);
    void accept() override;

private:
    void show_photo(const QString& file);
    Document& m_document;
    JobHeld m_held;  ///< what is written here is this job's
    QPlainTextEdit* m_scope;
    QLabel* m_photo;
    std::map<QString, QString> m_stood;  ///< what stood in each entry when it was opened
    QString m_chosen;                    ///< picture, not kept yet
};

}  // namespace echappe
