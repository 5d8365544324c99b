#pragma once

#include "document/document.h"
#include "drawing/canvas.h"

namespace echappe {

/// The band along the top: which job, and the stations in the order of the work.
class StationsBar : public Canvas {
    Q_OBJECT
public:
    explicit StationsBar(Document& document, QWidget* parent = nullptr);
    void show_station(const QString& id);

signals:
    void chosen(const QString& id);
    void finder_wanted();
    void title_wanted();

protected:
    QSize fixed_size() const override { return {0, 52}; }
    void paint(QPainter& painter) override;

private:
    Document& m_document;
    QString m_shown;
};

}  // namespace echappe
