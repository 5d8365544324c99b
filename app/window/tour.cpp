#include "window/tour.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QKeyEvent>
#include <QTextStream>

#include "instruments/calliper_line.h"
#include "number/input_error.h"
#include "stations/beat/beat_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/survey/survey_station.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"
#include "window/main_window.h"
#include "workings/workings_panel.h"

namespace echappe {
namespace {

constexpr qint64 longest_wait_ms = 10000;

void shoot(MainWindow& window, const QDir& folder, const QString& name) {
    QApplication::processEvents();
    QApplication::processEvents();
    const QString path = folder.filePath(name + ".png");
    if (!window.grab().toImage().save(path))
        throw InputError("tour", "\"" + path.toStdString() + "\", which cannot be written", "a folder with room that can be written");
    QTextStream(stdout) << path << "\n";
}

/// Lets work beside the window come to its end, as one would wait for it.
void finish(MainWindow& window, const std::function<bool()>& done) {
    window.grab();
    QElapsedTimer waited;
    waited.start();
    while (!done() && waited.elapsed() < longest_wait_ms) QApplication::processEvents(QEventLoop::AllEvents, 20);
}

/// Takes the reading the line asks for with the simulated instrument and keeps it.
void read_one(MainWindow& window) {
    window.calliper().send_simulated();
    QKeyEvent enter(QEvent::KeyPress, Qt::Key_Return, Qt::NoModifier);
    QApplication::sendEvent(&window.calliper().line(), &enter);
}

}  // namespace

int take_tour(MainWindow& window, const QString& folder) {
    const QDir to(folder);
    if (!to.mkpath(".")) throw InputError("tour", "\"" + folder.toStdString() + "\", which cannot be made", "a folder that can be written");
    window.open_demo("tide-house");
    window.resize(1280, 800);
    window.show();
    window.show_station(Station::train);
    shoot(window, to, "train-before");
    read_one(window);
    shoot(window, to, "train-one-reading");
    for (int i = 0; i < 3; ++i) read_one(window);
    window.workings().sheet().unfold("module, Centre");
    shoot(window, to, "train-measured");
    window.document().choose_candidate(0);
    window.workings().sheet().unfold("module, Centre");
    shoot(window, to, "train-chosen");
    window.train().show_depthing(true);
    window.train().move_hole({-18.5, 159.4});
    shoot(window, to, "train-depthing");
    window.train().show_depthing(false);
    window.show_station(Station::teeth);
    finish(window, [&] { return !window.teeth().trial().looking(); });
    shoot(window, to, "teeth-wheel");
    window.teeth().show_blank(true);
    shoot(window, to, "teeth-blank");
    window.teeth().show_blank(false);
    if (const DerivedMesh* mesh = window.teeth().mesh()) {
        window.document().set_form(*mesh, {"lantern"});
        finish(window, [&] { return !window.teeth().trial().looking(); });
        shoot(window, to, "teeth-lantern");
        window.document().undo_stack()->undo();
    }
    window.teeth().select_part(false);
    window.teeth().other_mesh();
    window.grab();
    window.teeth().trial().set_depth(-0.3);
    finish(window, [&] { return !window.teeth().trial().looking(); });
    shoot(window, to, "teeth-pinion");
    window.show_station(Station::train);
    window.document().select("tide");
    window.train().ask_for_trains("tide");
    finish(window, [&] { return !window.train().search().running(); });
    window.train().search().pick(3);
    shoot(window, to, "train-finder");
    window.train().search().take();
    window.train().close_search();
    shoot(window, to, "train-tide");
    window.document().undo_stack()->undo();
    window.document().select_hole("centre", "front");
    window.show_station(Station::survey);
    window.survey().go_to("centre.wheel");
    shoot(window, to, "survey");
    window.survey().show_earlier(true);
    shoot(window, to, "survey-earlier");
    window.survey().show_earlier(false);
    window.survey().show_parts(true);
    shoot(window, to, "survey-parts");
    window.survey().show_parts(false);
    window.show_station(Station::pivots);
    window.document().select_hole("centre", "front");
    for (int i = 0; i < 2; ++i) window.pivots().tick();
    finish(window, [waited = 0]() mutable { return ++waited > 6; });
    shoot(window, to, "pivots");
    for (int i = 0; i < 2; ++i) window.document().undo_stack()->undo();
    window.document().select_hole("escape", "front");
    window.pivots().show_between(true);
    shoot(window, to, "pivots-between");
    window.pivots().show_between(false);
    window.open_demo("watch");
    window.document().select_hole("third", "front");
    finish(window, [waited = 0]() mutable { return ++waited > 6; });
    shoot(window, to, "pivots-watch");
    window.open_demo("saloon");
    window.show_station(Station::power);
    window.power().card().show_sum(1);
    window.power().wind_to(0.6);
    shoot(window, to, "power-fusee");
    window.open_demo("tide-house");
    shoot(window, to, "power-weight");
    window.show_station(Station::beat);
    window.beat().try_amount(-0.125);
    shoot(window, to, "beat-pendulum");
    window.open_demo("watch");
    window.beat().try_advised();
    window.beat().card().show_sum(4);
    shoot(window, to, "beat-balance");
    window.open_demo("tide-house");
    window.set_dark(true);
    window.show_station(Station::train);
    shoot(window, to, "train-dark");
    window.document().undo_stack()->setClean();
    return 0;
}

}  // namespace echappe
