#pragma once

#include <QPlainTextEdit>

#include "document/document.h"
#include "drawing/canvas.h"
#include "drawing/unkept.h"
#include "job/edits.h"
#include "train/written.h"

namespace echappe {

/// The movement as text, over the top of the plan: the ladder and the plan grow as it is typed. All that is typed while it is open
/// is one step of undo. A text with a fault leaves the movement as the last one without made it.
class WritingSheet : public Canvas, public Unkept {
    Q_OBJECT
public:
    WritingSheet(Document& document, QWidget* parent);

    /// Opens with the text of the job, or what was typed over it last and could not be read.
    void open();
    /// Closes; a text with a fault stays for the next time.
    void finish();
    /// Puts a text there, as if it were typed.
    void write(const QString& text);
    QString text() const { return m_text->toPlainText(); }
    const std::vector<WrittenFault>& faults() const { return m_faults; }
    /// To the next count that is lost, or the one before; round from the last to the first. False where none is.
    bool next_lost(bool back);
    void first_lost();
    /// How high it stands for its text.
    double wanted_height() const;

    /// Away, whatever stands in it: another job lies on the bench.
    void drop();

    QStringList unkept() const override;
    void forget_unkept() override { m_unread.clear(); }

signals:
    void closed();
    void resized();
    /// Tab, and no count is lost: to what else is there.
    void led_on(bool back);

protected:
    void paint(QPainter& painter) override;
    void lay_out() override;
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void begin_on_job();
    void follow_job();
    void read();
    void mark_faults();
    QString what_it_takes() const;
    bool key(const QKeyEvent& event);

    Document& m_document;
    QPlainTextEdit* m_text;
    TrainRecord m_train;  ///< what the text is read over: as it was when the sheet was opened
    TeethRecord m_teeth;
    WrittenDown m_written;  ///< what was read last: an edit is what leads from it to what is read next
    std::string m_left;     ///< the text of the job as this sheet left it: another one was changed elsewhere
    bool m_reading = false;
    std::vector<WrittenFault> m_faults;
    QString m_unread;  ///< closed with a fault in it
    int m_session = 0;
    bool m_opening = false;
};

}  // namespace echappe
