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
    window.show_station(static_cast<int>(state.range(0)));
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
    if (state.range(0) == 4) window.show_station(1);
    paint(state, window, *panels[static_cast<size_t>(state.range(0))]);
}
BENCHMARK(paint_a_panel)->DenseRange(0, 4)->Unit(benchmark::kMillisecond);

void frame_of_the_turning_train(benchmark::State& state) {
    MainWindow window;
    window.show();
    window.open_demo("tide-house");
    QImage screen(window.train().size(), QImage::Format_ARGB32_Premultiplied);
    for (auto _ : state) {
        window.motion().step(0.016);
        window.train().render(&screen);
    }
}
BENCHMARK(frame_of_the_turning_train)->Unit(benchmark::kMillisecond);

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
