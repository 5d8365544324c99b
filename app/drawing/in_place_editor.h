#pragma once

#include <QLineEdit>
#include <functional>
#include <map>

#include "drawing/unkept.h"

namespace echappe {

/// Longest text of an entry; what is pasted beyond it is cut, and that is told.
constexpr int longest_entry = 400;

/// A line that lies over the picture where the figure is, asks one thing and hides again. What is typed belongs to what was asked:
/// Enter and Tab keep it, Escape drops it, and going elsewhere leaves it for the next time the same is asked.
class InPlaceEditor : public QLineEdit, public Unkept {
    Q_OBJECT
public:
    explicit InPlaceEditor(QWidget* parent);

    /// `what` names what is asked, once in the job: "Centre, note". It opens with `text`, what stands there now, or with what was
    /// typed for it and not kept. `take` gets what was typed; an InputError from it leaves the line open.
    void ask(const QString& what, const QRectF& at, const QString& text, std::function<void(const QString&)> take);
    bool asking() const { return m_asking; }
    /// Away from it; what was typed and not kept stays for what it was typed for.
    void leave();
    QStringList unkept() const override;
    void forget_unkept() override;

signals:
    void refused(const QString& sentence);
    /// It asks no more.
    void closed();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void focusOutEvent(QFocusEvent* event) override;
    bool event(QEvent* event) override;

private:
    bool pending() const { return m_asking && text() != m_stood; }
    void keep();
    void close_line();
    bool m_asking = false;
    QString m_what;
    QString m_stood;  ///< the text that stood there
    std::map<QString, QString> m_unkept;
    std::function<void(const QString&)> m_take;
};

}  // namespace echappe
