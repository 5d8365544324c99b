#pragma once

#include "document/document.h"
#include "drawing/canvas.h"
#include "drawing/in_place_editor.h"
#include "sheet/column.h"
#include "sheet/drawn_size.h"
#include "survey/hole_sums.h"

namespace echappe {

/// Sheets of figures beside a picture: what goes in, from the job or typed in place, and what comes out with its workings on hover.
class SumCard : public Canvas {
    Q_OBJECT
public:
    static constexpr int wide = 306;
    using Take = TakeFigure;
    /// A sheet says little: so many rows, the rest behind a word.
    static constexpr size_t most_rows = 8;
    /// What is typed goes into this part of the job, by the part's own way of taking it.
    template <class Part, class Type>
    static Take typed_into_part(Document& document, Type type) {
        return [&document, type](const QString& name, const std::string& field, const std::string& word) {
            document.edit(Edit<Part>{name.toStdString(), [&](Part& part) { type(part, field, word); }});
        };
    }
    struct Tab {
        QString words;
        QString sentence;
        std::function<SumAnswer()> answer;
        /// A figure typed in place. Throws InputError; none: nothing can be typed.
        Take take;
        /// Fields that stand on the drawing and are typed there: here only behind the word.
        std::function<std::vector<std::string>()> drawn = {};
        /// Rows that are read as a list, all of them in their own order.
        bool listed = false;
    };
    /// A sum of the bench, with what is known of the part it is for.
    static Tab of_sum(Document& document, const QString& words, const Calculation& sum, std::function<std::string()> part,
                      std::function<std::map<std::string, double>()> facts);
    SumCard(Document& document, std::vector<Tab> tabs, QWidget* parent);

    /// Whose figures these are; everything anew.
    void show_part(const QString& title);
    /// Other sheets, the first of them shown.
    void set_tabs(std::vector<Tab> tabs);
    /// Counted round.
    void show_sum(int which);
    int shown() const { return m_sum; }
    /// All rows of the sheet, in the order of the record; or what is asked, known and assumed.
    void show_more(bool more);
    bool shows_more() const { return m_more; }
    const SumAnswer& answer() const { return m_answer; }
    InPlaceEditor& editor() { return *m_editor; }

protected:
    void paint(QPainter& painter) override;
    void wheelEvent(QWheelEvent* event) override;
    void show_place(const QRectF& at) override;

private:
    void refresh();
    void ask(const SumLine& line);
    double paint_tabs(QPainter& painter, const QRectF& room);
    void write_asked(Column& page);
    void write_row(Column& page, const SumLine& line);
    void write_choices(Column& page, const SumLine& line);
    void choose(const SumLine& line, const std::string& word);
    void write_step(Column& page, const SumLine& line);
    void write_found(Column& page);
    /// The workings of a figure that was found, where there are some.
    QString why(const SumLine& line) const;
    static QString hint_of(const SumLine& line);

    Document& m_document;
    std::vector<Tab> m_tabs;
    InPlaceEditor* m_editor;
    int m_sum = 0;
    bool m_more = false;
    std::string m_choosing;  ///< the field whose words stand open to be clicked
    double m_scrolled = 0;
    double m_long = 0;  ///< of what was painted last
    const Tab& tab() const { return m_tabs[static_cast<size_t>(m_sum)]; }
    QString m_title;
    SumAnswer m_answer;
};

}  // namespace echappe
