#pragma once

#include "document/document.h"
#include "drawing/canvas.h"

namespace echappe {

/// What stands wrong until it is put right, under the stations: there only while there is such a thing.
class NoticeStrip : public Canvas {
    Q_OBJECT
public:
    explicit NoticeStrip(Document& document, QWidget* parent = nullptr);

signals:
    void save_elsewhere_wanted();

protected:
    QSize fixed_size() const override;
    void paint(QPainter& painter) override;

private:
    void refresh();
    Document& m_document;
};

}  // namespace echappe
