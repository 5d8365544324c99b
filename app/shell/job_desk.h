#pragma once

#include <QMenu>
#include <QObject>

#include "document/document.h"
#include "instruments/calliper_line.h"

namespace echappe {

class JobSheet;
class LeftWorkSheet;

/// The job's file: opening and saving it, what is asked before edits are dropped, and the unsaved work of earlier runs.
class JobDesk : public QObject {
    Q_OBJECT
public:
    JobDesk(Document& document, CalliperLine& line, QWidget& window);

    /// Opens it, and asks about what an earlier run left of it unsaved. Throws InputError.
    void open_file(const QString& path);
    void open_demo(const QString& name);
    void ask_open();
    // The same, after what may be lost by it was asked about.
    void open_instead(const QString& path);
    void demo_instead(const QString& name);
    /// Title, owner, maker, place and note.
    JobSheet* ask_title();
    /// The file as it was saved, after a question.
    void revert();
    /// An empty bench, in the units and for the workshop that are set.
    void new_job();
    /// A job without a file.
    void begin(const Job& job);
    /// The unsaved work of earlier runs, of one file or all, for the user to take up or leave; nullptr when there is none.
    LeftWorkSheet* offer_left_work(const QString& only_path = {});
    void take_up(const Journal::Entry& entry);
    /// Asks where the file is not the one that was opened; offers another place where it cannot be written. True when it is saved.
    bool save_to(const QString& path);
    bool save();
    bool save_as();
    /// True when nothing is unsaved or unkept, or it may be dropped; what was typed and not kept then is.
    bool may_drop_edits();
    /// The same question; nothing is dropped yet.
    bool ask_before_dropping();
    /// Whether the window may be closed: asked, or let go already. Nothing is dropped yet.
    bool may_leave();
    /// The window is to be closed and not asked about again.
    void let_go() { m_let_go = true; }
    /// One question with its answers; which was given. The first does nothing, and Escape is always that one; Enter gives the usual.
    int ask(const QString& title, const QString& sentence, const QStringList& answers, int usual = 0);
    /// Where a thing of this title may be written: in the folder of the jobs, under a name that is free.
    static QString free_path(const QString& title, const QString& ending);
    /// What was typed anywhere and not kept, each with what for.
    QStringList unkept() const;
    /// The files opened last.
    QMenu* recent() { return &m_recent; }
    /// What cannot be done is said in one sentence; nothing else changes.
    void guarded(const std::function<void()>& action);
    /// Where to write, with the ending that belongs there. A name that gets its ending here is another name than the one that was
    /// asked about: where that is taken the question is put again.
    QString ask_path(const QString& title, const QString& name, const QString& ending, const QString& kinds);

private:
    bool save_elsewhere_after(const QString& sentence);
    void forget_unkept();
    void remember(const QString& path);
    void refill_recent();

    Document& m_document;
    CalliperLine& m_line;
    QWidget& m_window;
    QMenu m_recent;
    bool m_let_go = false;
};

}  // namespace echappe
