#pragma once

#include <QDialog>
#include <QLineEdit>

#include "document/document.h"

namespace echappe {

/// Whose clock it is, who made it, where it stands: asked when wanted, kept as one edit.
class JobSheet : public QDialog {
    Q_OBJECT
public:
    JobSheet(Document& document, QWidget* parent);
    /// The entry of a field of the job, "owner".
    QLineEdit* entry(const QString& field) const { return findChild<QLineEdit*>(field); }
    void accept() override;

private:
    Document& m_document;
};

}  // namespace echappe
