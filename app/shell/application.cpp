#include "shell/application.h"

#include <clocale>
#include <exception>

#include "drawing/words.h"

namespace echappe {

Application::Application(int& argc, char** argv) : QApplication(argc, argv) {
    // The toolkit takes over the system's language, and with it the decimal comma of every library that prints by it.
    std::setlocale(LC_NUMERIC, "C");
    QLocale::setDefault(QLocale::c());
}

bool Application::notify(QObject* receiver, QEvent* event) {
    try {
        return QApplication::notify(receiver, event);
    } catch (const std::exception& error) {
        emit told(fault_in_words(error));
    }
    return true;
}

}  // namespace echappe
