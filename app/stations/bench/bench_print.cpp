// The order of work on paper: what is done, what is next, oil and parts; to be ticked by hand.
#include "drawing/words.h"
#include "number/units.h"
#include "print/part_sheet.h"
#include "report/known.h"
#include "stations/bench/bench_station.h"

namespace echappe {
namespace {

constexpr double left_mm = 20, top_mm = 24, last_mm = 276;

class Page {
public:
    explicit Page(Sheet& sheet) : m_sheet(sheet) {}

    void head(const QString& words) {
        room_for(16);
        m_y += 4;
        m_sheet.text(left_mm, m_y, 12, words, true);
        m_y += 7;
    }
    void line(const QString& words, bool ticked, const QString& small = {}) {
        room_for(12);
        const double y = m_y;
        m_sheet.line(left_mm, y - 3, left_mm + 3, y - 3), m_sheet.line(left_mm + 3, y - 3, left_mm + 3, y);
        m_sheet.line(left_mm + 3, y, left_mm, y), m_sheet.line(left_mm, y, left_mm, y - 3);
        if (ticked)
            m_sheet.line(left_mm + 0.6, y - 1.4, left_mm + 1.4, y - 0.5, 0.3),
                m_sheet.line(left_mm + 1.4, y - 0.5, left_mm + 3.4, y - 3.6, 0.3);
        m_y += m_sheet.wrapped(left_mm + 7, m_y, 160, 9.5, words, !ticked);
        if (!small.isEmpty()) m_y += m_sheet.wrapped(left_mm + 7, m_y + 0.4, 160, 8, small);
        m_y += 1.6;
    }
    void from(double y) { m_y = y; }

private:
    void room_for(double mm) {
        if (m_y + mm <= last_mm) return;
        m_sheet.next_page();
        m_y = top_mm;
    }
    Sheet& m_sheet;
    double m_y = top_mm;
};

}  // namespace

Printout BenchStation::printed() {
    return {words("order of work"), QPageSize::A4, QPageLayout::Portrait, [job = m_document.job(), order = order()](Sheet& sheet) {
                write_head(sheet, job);
                Page page(sheet);
                page.from(38);
                page.head(words("Order of work: %1 h to go").arg(words(print_fixed(order.minutes_left / 60, 1))));
                for (const JobStep& step : order.steps)
                    page.line(words(step.words), step.over(),
                              step.state == "waits"    ? words("waits for %1 %2").arg(words(step.waits_for), words(step.until))
                              : step.state == "passed" ? words("passed over")
                              : step.over()            ? QString()
                                            : words(step.because) + words(" About %1 min.").arg(words(print_fixed(step.minutes, 0))));
                page.head(words("Oil and grease"));
                for (const OilPlace& place : order.oil) page.line(words(place.words + ": " + place.what), place.done, words(place.how));
                page.head(words("Parts, in the order in which they go back"));
                for (const PartMove& move : order.putting_back) page.line(words(move.part), move.back, words(move.words));
            }};
}

}  // namespace echappe
