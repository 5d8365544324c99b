#pragma once

#include <QScrollArea>

#include "document/document.h"
#include "drawing/canvas.h"
#include "sheet/column.h"

namespace echappe {

/// The subject's figures and why; under them the findings.
class WorkingsSheet : public Canvas {
    Q_OBJECT
public:
    explicit WorkingsSheet(Document& document, QWidget* parent = nullptr);
    /// Opens or folds the working of a quantity by its name.
    void unfold(const std::string& name);
    /// The finding that the keyboard stands on, else the first open one of the subject, else the first open one; nullptr: none is open.
    const Finding* finding_at_hand() const;
    /// To the next open finding; round from the last to the first.
    void next_finding();

signals:
    void overrule_wanted(const std::string& finding);

protected:
    void paint(QPainter& painter) override;
    void show_place(const QRectF& at) override;

private:
    void write_quantity(Column& page, QPainter& painter, const Quantity& quantity);
    void write_working(Column& page, QPainter& painter, const Quantity& quantity);
    void write_finding(Column& page, QPainter& painter, const Finding& finding);
    Document& m_document;
    std::string m_unfolded;
};

class WorkingsPanel : public QScrollArea {
    Q_OBJECT
public:
    explicit WorkingsPanel(Document& document, QWidget* parent = nullptr);
    WorkingsSheet& sheet() { return *m_sheet; }

protected:
    void changeEvent(QEvent* event) override;

private:
    void follow_scale();
    WorkingsSheet* m_sheet;
};

}  // namespace echappe
