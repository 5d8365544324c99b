#pragma once

#include <QMenu>
#include <vector>

#include "document/document.h"
#include "document/workshop.h"
#include "drawing/canvas.h"
#include "drawing/in_place_editor.h"
#include "drawing/motion.h"
#include "exchange/step.h"
#include "instruments/calliper_line.h"
#include "instruments/size_round.h"
#include "print/picture_sheet.h"
#include "sheet/dimensions.h"
#include "shell/action.h"

namespace echappe {

/// What the stations of a window share.
struct Workbench {
    Document& document;
    Workshop& workshop;
    Motion& motion;
    CalliperLine& line;
};

/// One picture of the tour: how to come to it, and when it is done.
struct Scene {
    QString name;
    QString demo = {};  ///< opened before; empty: as the scene before left it
    std::function<void()> set = {};
    std::function<bool()> done = {};
    std::function<void()> leave = {};
    QString unfold = {};  ///< of the workings beside it
};

/// A place of work: its picture, and all that can be done there. A row in stations.cpp and a folder.
class Station : public Canvas {
    Q_OBJECT
public:
    Station(Document& document, QWidget* parent);

    /// All that can be done here, made once. Sheets that lie over the picture bring theirs.
    const QList<Action>& actions() const;
    /// Does it as a key or a menu would; false where there is no such action, or it is not possible now.
    bool act_on(const QString& id);
    /// Whether the window came here just for what is done now: then it is not put away again.
    bool just_come() const { return m_just_come; }
    void come_for(const std::function<void()>& action);
    /// Whether this key, pressed on the picture, is one of its own now. Figures belong together: where one of them is an answer all are.
    bool answers(const QKeyEvent& key) const;
    /// The readings that the line asks for here; nullptr: as the solver says. A size that was asked for on the drawing goes first.
    ReadingRound* round() const;
    /// The sizes of its drawing, and the one that is asked.
    SizeRound& size_round() { return m_size_round; }
    /// Types into the size of this id where it stands on the drawing; false where it is not drawn.
    bool ask_size(const QString& id);
    void lead_on(int by) override;
    InPlaceEditor& size_editor();
    /// Whether the line asks for these here.
    bool asks_for(const ReadingRound& what, const ReadingRound& solver) const { return (round() ? round() : &solver) == &what; }
    /// Whether this job has something to be seen here, besides an invitation.
    virtual bool shows_something() const { return true; }
    /// Whether the workings stand beside it.
    virtual bool beside_workings() const { return true; }
    virtual std::vector<Scene> scenes() { return {}; }

    /// What is printed of it: the picture as it stands, on white, and its figures in tables.
    virtual Printout printed();
    /// The picture in the inks of paper.
    void paint_on_paper(QPainter& painter);

    /// What it writes for this ending ("svg", "dxf", "step"), as a name without it; empty: not by this station.
    virtual QString writes(const QString& /*ending*/) const { return {}; }
    /// Whether it writes while another station is shown that has nothing to write: the part that is drawn.
    virtual bool writes_from_anywhere() const { return false; }
    /// Throws InputError.
    virtual void write_to(const QString& /*path*/) {}
    /// The part to be made solid, for STEP. Throws InputError.
    virtual Solid solid() const { return FlatPart(); }
    /// Whether a table with these columns is read here.
    virtual bool reads(const std::string& /*header*/) const { return false; }
    /// Keeps its readings; how many. Throws InputError.
    virtual size_t read_table(Job& /*job*/, const std::string& /*csv*/) { return 0; }
    /// Whether a drawing (DXF) is read here.
    virtual bool reads_drawings() const { return false; }
    /// Keeps what it tells; how many of it. Throws InputError.
    virtual size_t read_drawing(Job& /*job*/, const QString& /*path*/) { return 0; }
    /// What can be done here with the selected arbor, wherever that is drawn.
    virtual void fill_subject_menu(QMenu& /*menu*/) {}
    /// Where a picture that is dropped on the window would be kept by this station: "the whole movement"; empty: nowhere.
    virtual QString place_for_pictures() const { return {}; }
    /// Keeps it there, and says so.
    virtual void take_picture(const QString& /*path*/) {}
    /// What a recording would be listened to for here: "rate and beat error"; empty: not at all.
    virtual QString listens_for() const { return {}; }
    virtual void take_sound(const QString& /*path*/) {}

signals:
    void drawers_wanted();
    /// The line is to ask for other readings here.
    void round_changed();
    void quantity_wanted(const QuantityKey& key);
    /// A table is to be written to a file that the user names.
    void csv_wanted(const QString& name, const std::string& csv);
    /// The window is to go to another station: "pivots".
    void station_wanted(const QString& id);
    /// It is to be written as pages, to a file that the user names.
    void pdf_wanted(const Printout& what);
    /// A job is to be opened instead of this one; an empty path: to be asked for.
    void file_wanted(const QString& path);
    void demo_wanted(const QString& name);

protected:
    /// What goes under the printed picture: all lines of figures that stand on it and beside it.
    virtual QList<PrintTable> print_tables();
    /// What lies over the picture and is part of it, for paper: plots.
    virtual void paint_over(QPainter& /*painter*/) {}
    virtual QList<Action> make_actions() { return {}; }
    /// What the line asks for here but for the sizes of the drawing; nullptr: the solver's, or what is open on the drawing.
    virtual ReadingRound* own_round() const { return nullptr; }
    /// The sizes of its drawing, in the order of the work; lengths in millimetres, as the record has them.
    virtual DrawnSizes own_sizes() const { return {}; }
    /// The same as they are told and typed in this job: lengths in its unit.
    DrawnSizes sizes() const { return sizes_in(m_document.job().length, own_sizes()); }
    /// While it is painted, at the end: each size becomes a place to type in; what is asked gets its frame.
    void place_sizes(QPainter& painter, const Dimensions& dimensions);
    /// All sizes in a column, where nothing can be drawn yet.
    void list_sizes(QPainter& painter, const QRectF& room);
    /// Whether a size of the drawing waits for a reading.
    bool sizes_open() const { return m_size_round.open(); }
    /// The id of the size that is asked: its dimension is painted so.
    QString asked_size() const;
    /// A key that none of its actions answers; false leaves it to the window.
    virtual bool other_key(QKeyEvent& /*event*/) { return false; }
    void keyPressEvent(QKeyEvent* event) override;
    void focusInEvent(QFocusEvent* event) override;
    /// The place's own, and below it all that its station does with the subject.
    void fill_menu(QMenu& menu, const Place* place, const QPointF& at) override;
    QString legend(const QStringList& ids, const QString& between = QStringLiteral("  ·  ")) const {
        return legend_of(actions(), ids, between);
    }
    /// Up and down the ladder by the arrows, as most stations have it.
    QList<Action> climbing();

    Document& m_document;

private:
    QList<Action> size_actions();
    void walk_sizes(int by);
    bool types_size() const;
    void ask_choice(const DrawnSize& size);
    mutable QList<Action> m_actions;
    bool m_just_come = false;
    mutable SizeRound m_size_round;
    InPlaceEditor* m_size_editor = nullptr;
};

/// What the shell knows of a station before it stands.
struct StationRow {
    QString id;     ///< "pivots"
    QString title;  ///< on the bar
    std::function<Station*(const Workbench&)> make;
    int in_tour = 0;  ///< the tour goes by rising numbers: what it reads at one is looked at in the next
};

/// In the order of the work, as along the top.
const std::vector<StationRow>& station_rows();
void register_station(StationRow row);

}  // namespace echappe
