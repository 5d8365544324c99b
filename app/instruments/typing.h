#pragma once

#include <QObject>

namespace echappe {

class CalliperLine;

/// What is typed anywhere in a window, and not into an entry, goes to its calliper line whole: a figure from its first sign on, and
/// everything while something stands there. No key of a station or of the window can take it before that.
class Typing : public QObject {
public:
    /// Watches the window that the line is in.
    explicit Typing(CalliperLine& line);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    bool is_typed(QObject* watched, const QEvent& event) const;
    CalliperLine& m_line;
};

}  // namespace echappe
