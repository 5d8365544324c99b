#include <QApplication>
#include <QTemporaryDir>

#include "shell/application.h"
#include "support/run_tests.h"
#include "theme/theme.h"

// One application for all tests of the window; its state and settings go to a folder of their own.
int main(int argc, char** argv) {
    const QTemporaryDir state;
    qputenv("ECHAPPE_STATE", state.path().toUtf8());
    qputenv("XDG_CONFIG_HOME", state.path().toUtf8());
    if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
    echappe::Application application(argc, argv);
    QApplication::setApplicationName("echappe-tests");
    QApplication::setOrganizationName("echappe-tests");
    echappe::load_fonts();
    echappe::apply_theme(false);
    return run_tests(argc, argv);
}
