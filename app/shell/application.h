#pragma once

#include <QApplication>

namespace echappe {

/// The last net: what an action, a timer or an answer from beside the window throws is told and goes no further. What a canvas
/// does is caught in the canvas already.
class Application : public QApplication {
    Q_OBJECT
public:
    Application(int& argc, char** argv);
    bool notify(QObject* receiver, QEvent* event) override;

signals:
    void told(const QString& sentence);
};

}  // namespace echappe
