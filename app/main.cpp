#include <QCommandLineParser>
#include <QFileInfo>
#include <QTextStream>
#include <algorithm>
#include <memory>
#include <string_view>
#include <vector>

#include "document/settings.h"
#include "job/new_job.h"
#include "number/input_error.h"
#include "shell/application.h"
#include "shell/fitting.h"
#include "shell/main_window.h"
#include "shell/tour.h"
#include "theme/theme.h"

namespace {

using namespace echappe;

void describe(QCommandLineParser& words) {
    QCoreApplication::setApplicationName("echappe");
    QCoreApplication::setOrganizationName("echappe");
    QCoreApplication::setApplicationVersion(ECHAPPE_VERSION);
    words.setApplicationDescription("Echappe: the bench companion for clock and watch work.");
    words.addHelpOption();
    words.addVersionOption();
    words.addOptions({{"demo", "Start on a demo job: tide-house, waiting-room, watch or granary.", "name"},
                      {"new", "Start on a movement written down: \"144, 12/96, 10/75, 12/30\".", "text"},
                      {"tour", "Render every main view of the demo, or of the job that is named, into a folder and end.", "folder"},
                      {"size", "With --tour: the window's size.", "pixels", "1280x800"},
                      {"scale", "All of the interface larger or smaller, 80 to 200 %; kept when it is set in the window.", "percent"},
                      {"dark", "Dark, whatever the desktop is."},
                      {"light", "Light, whatever the desktop is."}});
    words.addPositionalArgument("file", "Job files to open, each in a window of its own.", "[file…]");
}

/// One window for each file that can be opened; the others are told. Throws what the first window cannot start on.
std::vector<std::unique_ptr<MainWindow>> open_windows(const QCommandLineParser& words, QTextStream& err) {
    std::vector<std::unique_ptr<MainWindow>> windows;
    const QStringList files = words.positionalArguments();
    for (const QString& file : files) try {
            auto window = std::make_unique<MainWindow>();
            window->open_file(QFileInfo(file).absoluteFilePath());
            windows.push_back(std::move(window));
        } catch (const InputError& error) {
            err << error.what() << "\n";
        }
    if (!files.isEmpty()) return windows;
    windows.push_back(std::make_unique<MainWindow>());
    if (words.isSet("new")) windows.back()->jobs().begin(new_job(words.value("new").toStdString()));
    if (words.isSet("demo")) windows.back()->open_demo(words.value("demo"));
    return windows;
}

/// What the tour is to show, where something is named: one job, one demo or one movement. False: nothing is. Throws InputError.
bool lay_on_bench(MainWindow& window, const QCommandLineParser& words) {
    const QStringList files = words.positionalArguments();
    const auto named = files.size() + (words.isSet("new") ? 1 : 0) + (words.isSet("demo") ? 1 : 0);
    if (named > 1) throw InputError("tour", std::to_string(named) + " jobs to show", "one: a file, --demo or --new");
    if (!files.isEmpty()) window.open_file(QFileInfo(files.front()).absoluteFilePath());
    if (words.isSet("new")) window.jobs().begin(new_job(words.value("new").toStdString()));
    if (words.isSet("demo")) window.open_demo(words.value("demo"));
    return named > 0;
}

/// As it was asked for, else as it was set the last time, else as the desktop is. Throws InputError.
void set_up_look(const QCommandLineParser& words) {
    const Settings kept;
    double scale = kept.value("scale", 1).toDouble();
    if (words.isSet("scale")) {
        bool read = false;
        scale = words.value("scale").toDouble(&read) / 100;
        if (!read || scale < least_scale || scale > most_scale)
            throw InputError("scale", "\"" + words.value("scale").toStdString() + "\"", "80 to 200, in per cent");
    }
    const QString set = words.isSet("dark") ? "dark" : words.isSet("light") ? "light" : kept.value("theme").toString();
    apply_theme(set.isEmpty() ? desktop_is_dark() : set == "dark");
    set_interface_scale(scale);
}

}  // namespace

int main(int argc, char** argv) {
    const auto given = [&](std::initializer_list<std::string_view> names) {
        return std::any_of(argv + 1, argv + argc, [&](const char* word) {
            return std::any_of(names.begin(), names.end(), [&](std::string_view name) { return std::string_view(word).starts_with(name); });
        });
    };
    QCommandLineParser words;
    // What is only told needs no screen.
    if (given({"--help", "-h", "--version", "-v", "-?"})) {
        QCoreApplication told(argc, argv);
        describe(words);
        words.process(told);
    }
    QTextStream err(stderr);
    // The tour renders without a screen when there is none. Set but empty is no screen either.
    const bool screen = !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY") ||
                        !qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM");
    if (!screen && !given({"--tour"})) {
        err << "display: got none, takes a desktop to open a window on; --tour FOLDER renders the views without one\n";
        return 2;
    }
    if (!screen) qputenv("QT_QPA_PLATFORM", "offscreen");
    Application application(argc, argv);
    describe(words);
    words.process(application);
    QGuiApplication::setDesktopFileName("org.echappe.Echappe");
    QGuiApplication::setWindowIcon(QIcon(":/icons/echappe.svg"));
    if (!load_fonts()) err << "fonts: the fonts that ship with Echappe could not be loaded; the system's are used\n";
    try {
        set_up_look(words);
        const QSize size = read_window_size(words.value("size"));
        if (words.isSet("tour")) {
            MainWindow window;
            if (!lay_on_bench(window, words)) return take_tour(window, words.value("tour"), size);
            return show_round(window, words.value("tour"), size);
        }
        const auto windows = open_windows(words, err);
        err.flush();
        if (windows.empty()) return 2;
        for (const auto& window : windows) {
            window->show_station(window->fitting().come_back());
            window->show();
        }
        windows.front()->offer_left_work();
        return QApplication::exec();
    } catch (const std::exception& error) {
        err << error.what() << "\n";
        return 2;
    }
}
