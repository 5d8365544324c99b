#include "shell/tour.h"
#include "shell/fitting.h"

#include <QApplication>
#include <QDir>
#include <QElapsedTimer>
#include <QEventLoop>
#include <QKeyEvent>
#include <QTextStream>
#include <QTimer>

#include "number/input_error.h"
#include "shell/main_window.h"
#include "theme/theme.h"
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
    while (!done() && waited.elapsed() < longest_wait_ms) {
        constexpr int look_ms = 10;
        QEventLoop loop;
        QTimer::singleShot(look_ms, &loop, &QEventLoop::quit);
        loop.exec();
    }
}

/// The stations in the tour's own order.
std::vector<StationRow> rows_in_order() {
    std::vector<StationRow> rows = station_rows();
    std::stable_sort(rows.begin(), rows.end(), [](const StationRow& a, const StationRow& b) { return a.in_tour < b.in_tour; });
    return rows;
}

void take(MainWindow& window, const StationRow& row, const QDir& to) {
    window.show_station(row.id);
    for (const Scene& scene : window.station(row.id)->scenes()) {
        if (!scene.demo.isEmpty()) window.open_demo(scene.demo);
        if (scene.set) scene.set();
        if (!scene.unfold.isEmpty()) window.workings().sheet().unfold(scene.unfold.toStdString());
        if (scene.done) finish(window, scene.done);
        shoot(window, to, scene.name);
        if (scene.leave) scene.leave();
    }
}

QDir made(const QString& folder) {
    const QDir to(folder);
    if (!to.mkpath(".")) throw InputError("tour", "\"" + folder.toStdString() + "\", which cannot be made", "a folder that can be written");
    return to;
}

}  // namespace

QSize read_window_size(const QString& text) {
    constexpr int least = 320, most = 16384;
    bool wide = false, high = false;
    const QSize size(text.section('x', 0, 0).toInt(&wide), text.section('x', 1).toInt(&high));
    if (!wide || !high || size != size.expandedTo({least, least}).boundedTo({most, most}))
        throw InputError("size", "\"" + text.toStdString() + "\"", "a width and a height in pixels, 320 to 16384: 1280x800");
    return size;
}

int show_round(MainWindow& window, const QString& folder, QSize size) {
    const QDir to = made(folder);
    window.resize(size);
    window.show();
    for (const StationRow& row : station_rows()) {
        if (!window.station(row.id)->shows_something()) continue;
        window.show_station(row.id);
        shoot(window, to, row.id);
    }
    window.document().undo_stack()->setClean();
    return 0;
}

int take_tour(MainWindow& window, const QString& folder, QSize size) {
    const QDir to = made(folder);
    window.open_demo("tide-house");
    window.resize(size);
    window.show();
    for (const StationRow& row : rows_in_order()) take(window, row, to);
    window.open_demo("tide-house");
    const bool dark = theme().dark;
    window.fitting().set_dark(!dark);
    window.show_station("train");
    shoot(window, to, dark ? "train-light" : "train-dark");
    window.document().undo_stack()->setClean();
    return 0;
}

}  // namespace echappe
