#pragma once

#include <QApplication>
#include <QLineEdit>
#include <QTest>
#include <stdexcept>

#include "instruments/calliper_line.h"
#include "ladder/ladder.h"
#include "shell/finder.h"
#include "shell/main_window.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"
#include "workings/workings_panel.h"

/// The real window with the demo open, driven as a person would.
struct Bench {
    echappe::MainWindow window;

    Bench() {
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
    void click(echappe::Canvas& canvas, const QString& tag) {
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
