#pragma once

#include <QRectF>
#include <QString>
#include <vector>

class QPainter;

namespace echappe {

/// What stands on a picture in words, as it was painted: for who reads by ear, for the clipboard and for the tests.
struct Lettered {
    QString words;
    QRectF at;
    /// Of a line of figures: what it is of, and the figure apart. Words alone have neither.
    QString name = {};
    QString figure = {};
    QString unit = {};

    bool is_figure() const { return !figure.isEmpty(); }
};

/// While it stands, all that is written on a picture is taken down.
class TakingDown {
public:
    /// `scale` is how large the house's pixels are painted.
    TakingDown(std::vector<Lettered>& into, double scale);
    ~TakingDown();
    TakingDown(const TakingDown&) = delete;
    TakingDown& operator=(const TakingDown&) = delete;

    /// What lies outside the part that is painted is not seen, and not taken down.
    static void words(const QPainter& painter, const QString& words, const QRectF& at);
    /// A line of figures; its words were written one by one before.
    static void figure(const QPainter& painter, Lettered line);

private:
    std::vector<Lettered>* m_before;
    double m_scale_before;
};

/// In the order of reading: line by line, from the left.
void sort_for_reading(std::vector<Lettered>& written);
/// All words that stand in a place, in the order of reading.
QString words_in(const std::vector<Lettered>& written, const QRectF& place);

}  // namespace echappe
