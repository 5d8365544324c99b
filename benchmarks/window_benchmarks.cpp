#include <benchmark/benchmark.h>

#include <QApplication>
#include <QElapsedTimer>

#include "instruments/calliper_line.h"
#include "ladder/ladder.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"
#include "theme/theme.h"
#include "window/main_window.h"
#include "workings/workings_panel.h"

// The figures the issue of this slice names: an edit painted in 16 ms, start to first paint under 500 ms.

namespace {

using namespace echappe;

void edit_to_painted(benchmark::State& state) {
    MainWindow window;
    window.show();
    window.open_demo("tide-house");
    window.show_station(state.range(0) == 0 ? Station::train : Station::teeth);
    QImage screen(window.size(), QImage::Format_ARGB32_Premultiplied);
    double reading = 35.0;
    for (auto _ : state) {
        window.document().store_reading({{"centre_distance_mm", {}, "centre", "third"}, reading += 0.001, 0.05}, "calliper");
        window.render(&screen);
    }
    window.document().undo_stack()->setClean();
}
BENCHMARK(edit_to_painted)->Arg(0)->Arg(1)->Unit(benchmark::kMillisecond);

template <class Panel>
void paint(benchmark::State& state, MainWindow& window, Panel& panel) {
    QImage screen(panel.size(), QImage::Format_ARGB32_Premultiplied);
    for (auto _ : state) panel.render(&screen);
    window.document().undo_stack()->setClean();
}

void paint_a_panel(benchmark::State& state) {
    MainWindow window;
    window.show();
    window.open_demo("tide-house");
    const std::vector<QWidget*> panels = {&window.ladder(), &window.train(), &window.workings(), &window.calliper(), &window.teeth()};
    if (state.range(0) == 4) window.show_station(Station::teeth);
    paint(state, window, *panels[static_cast<size_t>(state.range(0))]);
}
BENCHMARK(paint_a_panel)->DenseRange(0, 4)->Unit(benchmark::kMillisecond);

void frame_of_the_turning_train(benchmark::State& state) {
    MainWindow window;
    window.show();
    window.open_demo("tide-house");
    QImage screen(window.train().size(), QImage::Format_ARGB32_Premultiplied);
    window.motion().toggle();
    for (auto _ : state) {
        window.motion().step(0.016);
        window.train().render(&screen);
    }
}
BENCHMARK(frame_of_the_turning_train)->Unit(benchmark::kMillisecond);

/// Two wheels of 100 teeth, both wholly in view with their true outlines, turning in contact.
void frame_of_two_wheels_of_100(benchmark::State& state) {
    MainWindow window;
    window.resize(1280, 800);
    window.show();
    window.open_demo("tide-house");
    window.document().edit("wheels of 100", [](Job& job) {
        job.arbors[0].train.wheels.front().teeth = 100;
        job.arbors[4].train.pinion = 100;
    });
    window.document().select("tide-1");
    window.show_station(Station::teeth);
    window.teeth().other_mesh();
    window.teeth().zoom(0.45, QPointF(window.teeth().width() * 0.4, window.teeth().height() * 0.4));
    QImage screen(window.teeth().size(), QImage::Format_ARGB32_Premultiplied);
    window.motion().toggle();
    for (auto _ : state) {
        window.motion().step(0.016);
        window.teeth().render(&screen);
    }
    if (qEnvironmentVariableIsSet("ECHAPPE_SHOW")) screen.save(qEnvironmentVariable("ECHAPPE_SHOW"));
    window.document().undo_stack()->setClean();
}
BENCHMARK(frame_of_two_wheels_of_100)->Unit(benchmark::kMillisecond);

void window_to_first_paint(benchmark::State& state) {
    for (auto _ : state) {
        MainWindow window;
        window.open_demo("tide-house");
        window.show();
        benchmark::DoNotOptimize(window.grab());
    }
}
BENCHMARK(window_to_first_paint)->Unit(benchmark::kMillisecond);

}  // namespace

int main(int argc, char** argv) {
    if (!qEnvironmentVariableIsSet("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    load_fonts();
    apply_theme(false);
    benchmark::Initialize(&argc, argv);
    benchmark::RunSpecifiedBenchmarks();
}
