#include "shell/window_actions.h"

#include "document/today.h"
#include "exchange/step.h"
#include "job/edits.h"
#include "shell/fitting.h"
#include "shell/help_sheet.h"
#include "shell/main_window.h"
#include "shell/quit.h"
#include "theme/theme.h"
#include "train/edits.h"
#include "workings/workings_panel.h"

namespace echappe {
namespace {

QString tr(const char* words) { return MainWindow::tr(words); }

QList<Action> of_the_job(MainWindow& window) {
    const QString menu = tr("&Job");
    const auto demo = [&window](const char* name) { return [&window, name] { window.jobs().demo_instead(name); }; };
    const auto out = [&window](const char* ending) { return [&window, ending] { window.out().ask_export(ending); }; };
    const auto left_work = [&window] {
        if (!window.offer_left_work()) window.calliper().tell(tr("No earlier run left anything unsaved."), false);
    };
    const auto fresh = [&window] {
        window.jobs().new_job();
        window.show_station("train");
    };
    return {
        {"job.new", tr("New"), {tr("Ctrl+N")}, fresh, menu},
        {"job.open", tr("Open…"), {tr("Ctrl+O")}, [&window] { window.jobs().ask_open(); }, menu},
        {"job.recent", tr("Open again"), {}, {}, menu},
        {"job.demo-tide-house", tr("Demo: Tide-house regulator"), {tr("Ctrl+D")}, demo("tide-house"), menu},
        {"job.demo-waiting-room", tr("Demo: Waiting-room clock of Merrow Pier"), {}, demo("waiting-room"), menu},
        {"job.demo-watch", tr("Demo: Lamplighter's watch"), {}, demo("watch"), menu},
        {"job.demo-granary", tr("Demo: Granary bell-clock of Low Marren"), {}, demo("granary"), menu},
        {"job.title", tr("Title, owner, maker…"), {tr("Ctrl+I")}, [&window] { window.jobs().ask_title(); }, menu},
        {"job.save", tr("Save"), {tr("Ctrl+S")}, [&window] { window.jobs().save(); }, menu, {}, {}, true},
        {"job.save-as", tr("Save as…"), {tr("Ctrl+Shift+S")}, [&window] { window.jobs().save_as(); }, menu},
        {"job.revert", tr("Revert to the file"), {}, [&window] { window.jobs().revert(); }, menu},
        {"job.left-work", tr("Unsaved work of earlier runs…"), {}, left_work, menu},
        {"job.svg", tr("Export the drawn part as SVG…"), {tr("Ctrl+E")}, out("svg"), menu, {}, {}, true},
        {"job.dxf", tr("Export the drawn part as DXF…"), {tr("Ctrl+Shift+E")}, out("dxf"), menu},
        {"job.step", tr("Export the drawn part as a STEP solid…"), {tr("Ctrl+Alt+E")}, out("step"), menu, {}, step_available},
        // What the station shows: a part at 1:1, the plan of the holes, the survey, or the picture with its figures.
        {"job.print", tr("Print what is shown…"), {tr("Ctrl+P")}, [&window] { window.out().print(false); }, menu, {}, {}, true},
        {"job.print-all", tr("Print the whole job…"), {}, [&window] { window.out().print(true); }, menu},
        {"job.pdf", tr("What is shown as PDF…"), {tr("Ctrl+Alt+P")}, [&window] { window.out().ask_pdf(false); }, menu},
        {"job.pdf-all", tr("The whole job as PDF…"), {}, [&window] { window.out().ask_pdf(true); }, menu},
        {"job.picture", tr("The picture as PNG or SVG…"), {}, [&window] { window.out().ask_picture(); }, menu},
        {"job.copy-picture", tr("Copy the picture"), {tr("Ctrl+Shift+C")}, [&window] { window.out().copy_picture(); }, menu},
        {"job.preferences", tr("Preferences…"), {tr("Ctrl+,")}, [&window] { window.sheets().open_preferences(); }, menu, {}, {}, true},
        {"job.close", tr("Close"), {tr("Ctrl+F4")}, [&window] { window.close(); }, menu, {}, {}, true},
        {"job.quit", tr("Quit"), {tr("Ctrl+Q")}, [] { quit(); }, menu},
    };
}

QList<Action> of_edits(MainWindow& window) {
    const QString menu = tr("&Edit");
    Document& document = window.document();
    return {
        {"edit.choose",
         tr("Choose the likeliest counts"),
         {tr("Ctrl+Return")},
         [&document] { document.edit(choose(document.derived().train, 0, today())); },
         menu,
         {},
         {},
         true},
        {"edit.stop", tr("Stop weighing what is lost"), {tr("Ctrl+Esc")}, [&document] { document.weigher().stop(); }, menu},
        {"edit.withdraw", tr("Withdraw the choice"), {tr("Ctrl+Shift+Return")}, [&document] { document.edit(withdraw_choice()); }, menu},
        {"edit.unit",
         tr("Show lengths in inches or millimetres"),
         {tr("Ctrl+U")},
         [&document] { document.edit(show_other_unit()); },
         menu,
         {},
         {},
         true},
    };
}

QList<Action> of_the_view(MainWindow& window) {
    const QString menu = tr("&View");
    Document& document = window.document();
    Motion& motion = window.motion();
    QList<Action> list;
    int number = 0;
    for (const StationRow& row : station_rows())
        list << Action{"view." + row.id,
                       row.title,
                       {QKeySequence(tr("Ctrl+%1").arg(++number))},
                       [&window, id = row.id] { window.show_station(id); },
                       menu};
    const auto beat_on = [&document, &motion] {
        if (const auto beats = document.derived().train.beats_per_hour) motion.step(3600 / *beats);
    };
    return list +
           QList<Action>{
               {"view.drawers",
                tr("The workshop's drawers: cutters, plates, leaves…"),
                {tr("Ctrl+Shift+W")},
                [&window] { window.sheets().open_stock(); },
                menu,
                {},
                {},
                true},
               {"view.find", tr("Find…"), {tr("Ctrl+K")}, [&window] { window.sheets().open_finder(); }, menu},
               {"view.up", tr("Up the ladder"), {tr("Ctrl+Up")}, [&document] { document.selection().climb(1); }, menu},
               {"view.down", tr("Down the ladder"), {tr("Ctrl+Down")}, [&document] { document.selection().climb(-1); }, menu},
               {"view.other-train", tr("The other train"), {tr("Ctrl+Right")}, [&document] { document.selection().next_train(); }, menu},
               {"view.full-screen",
                tr("Full screen"),
                {Qt::Key_F11},
                [&window] { window.setWindowState(window.windowState() ^ Qt::WindowFullScreen); },
                menu},
               {"view.fold", tr("Fold the workings"), {tr("Ctrl+F11")}, [&window] { window.fitting().fold_workings(); }, menu},
               {"view.larger",
                tr("All of it larger"),
                {tr("Ctrl++"), tr("Ctrl+=")},
                [&window] { window.fitting().step_scale(1); },
                menu,
                {},
                [] { return interface_scale() < most_scale; },
                true},
               {"view.smaller",
                tr("All of it smaller"),
                {tr("Ctrl+-")},
                [&window] { window.fitting().step_scale(-1); },
                menu,
                {},
                [] { return interface_scale() > least_scale; }},
               {"view.usual", tr("The usual size"), {tr("Ctrl+0")}, [&window] { window.fitting().step_scale(0); }, menu},
               {"view.dark",
                tr("Light or dark"),
                {tr("Ctrl+Shift+D")},
                [&window] { window.fitting().choose_look(theme().dark ? "light" : "dark"); },
                menu},
               {"motion.run", tr("Run or pause the movement"), {Qt::Key_Space}, [&motion] { motion.toggle(); }, menu, {}, {}, true},
               {"motion.slower", tr("Slower"), {QKeySequence("[")}, [&motion] { motion.slower(); }, menu},
               {"motion.faster", tr("Faster"), {QKeySequence("]")}, [&motion] { motion.faster(); }, menu},
               {"motion.beat", tr("One beat on"), {tr("Shift+Space")}, beat_on, menu},
           };
}

QList<Action> of_findings(MainWindow& window) {
    const QString menu = tr("&Findings");
    WorkingsSheet& sheet = window.workings().sheet();
    const auto open = [&sheet] { return sheet.finding_at_hand() != nullptr; };
    const auto next = [&window, &sheet] {
        window.fitting().unfold_workings();
        sheet.next_finding();
    };
    const auto accept = [&window, &sheet] { window.document().judge(sheet.finding_at_hand()->id, "accepted", {}); };
    const auto overrule = [&sheet] { emit sheet.overrule_wanted(sheet.finding_at_hand()->id); };
    return {{"finding.next", tr("To the next open finding"), {tr("Ctrl+J")}, next, menu},
            {"finding.accept", tr("Accept it"), {tr("Ctrl+Alt+A")}, accept, menu, {}, open},
            {"finding.overrule", tr("Overrule it because…"), {tr("Ctrl+Alt+O")}, overrule, menu, {}, open}};
}

QList<Action> of_help(MainWindow& window) {
    const QString menu = tr("H&elp");
    const auto page = [&window](HelpSheet::Page one) { return [&window, one] { window.sheets().help().show_page(one); }; };
    return {{"help.guide", tr("Guide"), {tr("Ctrl+F1")}, page(HelpSheet::Page::guide), menu},
            {"help.keys", tr("Every key"), {tr("Shift+F1")}, page(HelpSheet::Page::keys), menu},
            {"help.terms", tr("Terms of the trade"), {}, page(HelpSheet::Page::terms), menu},
            {"help.limits", tr("What the figures are good for"), {}, page(HelpSheet::Page::limits), menu},
            {"help.about", tr("About Echappe, and its licences"), {}, page(HelpSheet::Page::about), menu, {}, {}, true}};
}

QList<Action> of_measuring(MainWindow& window) {
    const QString menu = tr("&Measure");
    CalliperLine& line = window.calliper();
    const auto to_the_line = [&line] {
        line.line().setFocus();
        line.line().selectAll();
    };
    return {
        {"measure.line", tr("To the calliper line"), {Qt::Key_F2}, to_the_line, menu},
        {"measure.unkept", tr("Back to what was typed and not kept"), {tr("Shift+F2")}, [&line] { line.back_to_unkept(); }, menu},
        {"measure.simulated", tr("Read the simulated calliper"), {Qt::Key_F3}, [&line] { line.send_simulated(); }, menu},
        {"measure.how", tr("How to take this reading"), {Qt::Key_F1}, [&line] { line.explain(); }, menu},
        {"measure.another", tr("Another quantity"), {tr("Ctrl+Tab")}, [&line] { line.ask_next(1); }, menu},
        {"measure.table", tr("Read measurements from CSV…"), {}, [&window] { window.out().ask_readings(&window); }, menu, {}, {}, true},
    };
}

}  // namespace

QList<Action> window_actions(MainWindow& window) {
    return of_the_job(window) + of_edits(window) + of_the_view(window) + of_findings(window) + of_measuring(window) + of_help(window);
}

}  // namespace echappe
