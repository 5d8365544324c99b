#pragma once

#include <QApplication>
#include <QLineEdit>
#include <QTest>
#include <algorithm>
#include <stdexcept>

#include "drawing/in_place_editor.h"
#include "instruments/calliper_line.h"
#include "ladder/ladder.h"
#include "shell/finder.h"
#include "shell/main_window.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"
#include "workings/sum_card.h"
#include "workings/workings_panel.h"

/// An edit of the job that no station knows of.
inline void note(echappe::Document& document, const std::string& words) {
    document.edit("Note", [&](echappe::Job& job) { job.note = words; });
}

/// The real window with the demo open, driven as a person would.
struct Bench {
    echappe::MainWindow window;

    Bench() {
        window.resize(1280, 800);
        window.show();
        window.open_demo("tide-house");
        settle();
    }
    ~Bench() { window.document().undo_stack()->setClean(); }

    static void settle() { QTest::qWait(20); }

    echappe::Document& document() { return window.document(); }
    const echappe::Job& job() { return window.document().job(); }
    const echappe::Derived& derived() { return window.document().derived(); }

    /// Types into the calliper line and presses Enter.
    void read(const QString& text) {
        QTest::keyClicks(&window.calliper().line(), text);
        QTest::keyClick(&window.calliper().line(), Qt::Key_Return);
        settle();
    }
    void read_simulated() {
        QTest::keyClick(&window, Qt::Key_F3);
        QTest::keyClick(&window.calliper().line(), Qt::Key_Return);
        settle();
    }
    /// The picture or sheet on which this place is painted now.
    echappe::Canvas& canvas_with(const QString& tag) {
        unfold_for(tag);
        for (echappe::Canvas* canvas : window.findChildren<echappe::Canvas*>())
            if (canvas->isVisible() && !canvas->place_of(tag).isNull()) return *canvas;
        throw std::logic_error("no place " + tag.toStdString());
    }
    /// A row of a sheet may stand behind its "more": as one would, it is unfolded then.
    void unfold_for(const QString& tag) {
        window.grab();
        if (!tag.startsWith("sum:")) return;
        for (auto* card : window.findChildren<echappe::SumCard*>())
            if (card->isVisible() && card->place_of(tag).isNull() && !card->place_of("more").isNull()) card->show_more(true);
        window.grab();
    }
    void click(const QString& tag) { click(canvas_with(tag), tag); }
    /// The line that has come up where something is typed in place.
    echappe::InPlaceEditor& editor() {
        for (auto* line : window.findChildren<echappe::InPlaceEditor*>())
            if (line->isVisible()) return *line;
        throw std::logic_error("nothing is typed in place");
    }
    bool typing_in_place() {
        const auto lines = window.findChildren<echappe::InPlaceEditor*>();
        return std::any_of(lines.begin(), lines.end(), [](const auto* line) { return line->isVisible(); });
    }
    /// Types over what stands in the line that has come up.
    void answer(const QString& text) {
        if (!typing_in_place() && choose_word(text)) return;
        editor().selectAll();
        QTest::keyClicks(&editor(), text);
        if (text.isEmpty()) editor().clear();
        QTest::keyClick(&editor(), Qt::Key_Return);
        settle();
    }
    /// Words that stand open to be chosen: this one is clicked.
    bool choose_word(const QString& text) {
        for (auto* card : window.findChildren<echappe::SumCard*>()) {
            if (!card->isVisible()) continue;
            card->grab();
            for (const QString& tag : card->tags())
                if (tag.startsWith("choice:") && tag.section(':', 2) == text) {
                    click(*card, tag);
                    return true;
                }
        }
        return false;
    }
    /// A click on the place, and what is typed there.
    void type(const QString& tag, const QString& text) {
        click(tag);
        answer(text);
    }
    void click(echappe::Canvas& canvas, const QString& tag) {
        unfold_for(tag);
        canvas.grab();
        QTest::mouseClick(&canvas, Qt::LeftButton, {}, canvas.place_of(tag).center().toPoint());
        settle();
    }
    /// The line of text with this accessible name.
    static QLineEdit& line_named(const QWidget& in, const QString& name) {
        for (QLineEdit* line : in.findChildren<QLineEdit*>())
            if (line->accessibleName() == name) return *line;
        throw std::logic_error(name.toStdString());
    }
    long long shown(const std::string& arbor) { return derived().train.arbor(arbor)->wheel.count.value; }
    size_t in_the_running() {
        size_t count = 0;
        for (const auto& candidate : derived().train.restore->candidates) count += candidate.weight > 0.05 ? 1 : 0;
        return count;
    }
};
