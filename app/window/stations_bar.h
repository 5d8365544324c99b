#pragma once

#include "document/document.h"
#include "drawing/canvas.h"

namespace echappe {

/// The band along the top: which job, and the stations in the order of the work.
class StationsBar : public Canvas {
    Q_OBJECT
public:
    StationsBar(Document& document, QStringList stations, QWidget* parent = nullptr);
    void show_station(int index);

signals:
    void chosen(int index);
    void finder_wanted();

protected:
    void paint(QPainter& painter) override;

private:
    Document& m_document;
    QStringList m_stations;
    int m_shown = 0;
};

}  // namespace echappe
