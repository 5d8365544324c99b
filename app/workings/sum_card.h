#pragma once

#include "document/document.h"
#include "drawing/canvas.h"
#include "drawing/in_place_editor.h"
#include "job/bench_sum.h"

namespace echappe {

/// Sums of the bench beside a picture: what goes in, from the job or typed in place, and what comes out with its workings on hover.
class SumCard : public Canvas {
    Q_OBJECT
public:
    static constexpr int wide = 306;
    struct Tab {
        QString words;
        const Calculation* sum;
    };
    SumCard(Document& document, std::vector<Tab> tabs, QWidget* parent);

    /// Whose sums these are, and what is known of it.
    void show_part(const std::string& part, const QString& title, std::map<std::string, double> facts);
    /// Counted round.
    void show_sum(int which);
    int shown() const { return m_sum; }
    const Calculation& sum() const { return *m_tabs[static_cast<size_t>(m_sum)].sum; }
    const SumAnswer& answer() const { return m_answer; }
    InPlaceEditor& editor() { return *m_editor; }

protected:
    void paint(QPainter& painter) override;

private:
    void refresh();
    void ask(const SumLine& line);
    double paint_tabs(QPainter& painter, const QRectF& room, double y);
    double paint_asked(QPainter& painter, const QRectF& room, double y);
    double paint_found(QPainter& painter, const QRectF& room, double y);

    Document& m_document;
    std::vector<Tab> m_tabs;
    InPlaceEditor* m_editor;
    int m_sum = 0;
    std::string m_part;
    QString m_title;
    std::map<std::string, double> m_facts;
    SumAnswer m_answer;
};

}  // namespace echappe
