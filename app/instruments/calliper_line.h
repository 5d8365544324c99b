#pragma once

#include <QLabel>
#include <QLineEdit>
#include <map>

#include "document/document.h"
#include "drawing/canvas.h"

namespace echappe {

/// The line that takes readings: always there. It asks for the most useful one, and Enter stores it and goes on.
class CalliperLine : public Canvas {
    Q_OBJECT
public:
    explicit CalliperLine(Document& document, QWidget* parent = nullptr);

    QLineEdit& line() { return *m_line; }
    /// What is asked for now; nullptr when nothing can be measured.
    const Measurable* asked() const;
    void ask(const QuantityKey& key);
    void ask_next(int step);
    /// Types the simulated instrument's reading into the line, as its cable would.
    void send_simulated();
    bool has_simulated() const;
    void explain();
    void tell(const QString& sentence, bool fault);

protected:
    void paint(QPainter& painter) override;
    bool eventFilter(QObject* watched, QEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void store();
    void refresh();

    Document& m_document;
    QLineEdit* m_line;
    std::optional<QuantityKey> m_wanted;
    QString m_message;
    bool m_fault = false;
    bool m_simulated = false;                     ///< what stands in the line came from the stand-in and was not touched since
    std::map<QuantityKey, std::uint64_t> m_turn;  ///< how often each has been read by the simulated instrument
};

}  // namespace echappe
