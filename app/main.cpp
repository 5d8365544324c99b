#include <QApplication>
#include <QCommandLineParser>
#include <QFileInfo>
#include <QTextStream>
#include <algorithm>
#include <string_view>

#include "number/input_error.h"
#include "theme/theme.h"
#include "window/main_window.h"
#include "window/tour.h"

int main(int argc, char** argv) {
    // The tour needs no screen: it renders without one when there is none.
    const bool tour = std::any_of(argv, argv + argc, [](const char* word) { return std::string_view(word).starts_with("--tour"); });
    // Set but empty is no screen either.
    const bool screen = !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY") ||
                        !qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM");
    if (tour && !screen) qputenv("QT_QPA_PLATFORM", "offscreen");
    QApplication application(argc, argv);
    QApplication::setApplicationName("echappe");
    QApplication::setOrganizationName("echappe");
    QApplication::setApplicationVersion(ECHAPPE_VERSION);
    QCommandLineParser words;
    words.setApplicationDescription("Echappe: the bench companion for clock and watch work.");
    words.addHelpOption();
    words.addVersionOption();
    words.addOptions({{"demo", "Start on a demo job: tide-house, saloon or watch.", "name"},
                      {"tour", "Render every main view of the demo into a folder and end.", "folder"},
                      {"dark", "Start dark."}});
    words.addPositionalArgument("file", "A job file to open.");
    words.process(application);
    QTextStream err(stderr);
    if (!echappe::load_fonts()) err << "fonts: the fonts that ship with Echappe could not be loaded; the system's are used\n";
    echappe::apply_theme(words.isSet("dark"));
    echappe::MainWindow window;
    try {
        if (words.isSet("tour")) return echappe::take_tour(window, words.value("tour"));
        if (!words.positionalArguments().isEmpty()) window.open_file(QFileInfo(words.positionalArguments().front()).absoluteFilePath());
        else if (words.isSet("demo")) window.open_demo(words.value("demo"));
        window.recover(window.document().path());
    } catch (const std::exception& error) {
        err << error.what() << "\n";
        return 2;
    }
    window.show();
    return QApplication::exec();
}
