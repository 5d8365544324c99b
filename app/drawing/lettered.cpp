#include "drawing/lettered.h"

#include <QPainter>
#include <QStringList>
#include <algorithm>
#include <utility>

namespace echappe {
namespace {

std::vector<Lettered>* taking = nullptr;  ///< painting is done by one thread
double taking_scale = 1;

void take_down(const QPainter& painter, Lettered what) {
    if (!taking || what.words.trimmed().isEmpty()) return;
    if (painter.hasClipping()) what.at &= painter.clipBoundingRect();
    if (what.at.isEmpty()) return;
    what.at = painter.worldTransform().mapRect(what.at);
    what.at = {what.at.topLeft() / taking_scale, what.at.size() / taking_scale};
    taking->push_back(std::move(what));
}

}  // namespace

TakingDown::TakingDown(std::vector<Lettered>& into, double scale)
    : m_before(std::exchange(taking, &into)), m_scale_before(std::exchange(taking_scale, scale)) {
    into.clear();
}

TakingDown::~TakingDown() {
    taking = m_before;
    taking_scale = m_scale_before;
}

void TakingDown::words(const QPainter& painter, const QString& words, const QRectF& at) { take_down(painter, {words, at}); }
void TakingDown::figure(const QPainter& painter, Lettered line) { take_down(painter, std::move(line)); }

void sort_for_reading(std::vector<Lettered>& written) {
    // "On the same line" is no order of many: the lines are told first, and each is then read from the left.
    std::stable_sort(written.begin(), written.end(),
                     [](const Lettered& a, const Lettered& b) { return a.at.center().y() < b.at.center().y(); });
    for (auto line = written.begin(); line != written.end();) {
        const auto end = std::find_if(line, written.end(), [&](const Lettered& one) {
            return one.at.center().y() - line->at.center().y() >= std::min(one.at.height(), line->at.height()) / 2;
        });
        std::stable_sort(line, end, [](const Lettered& a, const Lettered& b) { return a.at.left() < b.at.left(); });
        line = end;
    }
}

QString words_in(const std::vector<Lettered>& written, const QRectF& place) {
    std::vector<Lettered> here;
    for (const Lettered& one : written)
        if (!one.is_figure() && place.contains(one.at.center())) here.push_back(one);
    sort_for_reading(here);
    QStringList words;
    for (const Lettered& one : here) words << one.words;
    return words.join(' ');
}

}  // namespace echappe
