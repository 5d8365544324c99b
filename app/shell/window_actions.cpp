#include "shell/window_actions.h"

#include "document/today.h"
#include "drawing/words.h"
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

QList<Action> of_the_job(MainWindow& window) {
    const QString menu = words("&Job");
    const auto demo = [&window](const char* name) { return [&window, name] { window.jobs().demo_instead(name); }; };
    const auto out = [&window](const char* ending) { return [&window, ending] { window.out().ask_export(ending); }; };
    const auto left_work = [&window] {
        if (!window.offer_left_work()) window.calliper().tell(words("No earlier run left anything unsaved."), false);
    };
    const auto fresh = [&window] {
        window.jobs().new_job();
        window.show_station("train");
    };
    return {
        {"job.new", words("New"), {words("Ctrl+N")}, fresh, menu},
        {"job.open", words("Open…"), {words("Ctrl+O")}, [&window] { window.jobs().ask_open(); }, menu},
        {"job.recent", words("Open again"), {}, {}, menu},
        {"job.demo-tide-house", words("Demo: Tide-house regulator"), {words("Ctrl+D")}, demo("tide-house"), menu},
        {"job.demo-waiting-room", words("Demo: Waiting-room clock of Merrow Pier"), {}, demo("waiting-room"), menu},
        {"job.demo-watch", words("Demo: Lamplighter's watch"), {}, demo("watch"), menu},
        {"job.demo-granary", words("Demo: Granary bell-clock of Low Marren"), {}, demo("granary"), menu},
        {"job.title", words("Title, owner, maker…"), {words("Ctrl+I")}, [&window] { window.jobs().ask_title(); }, menu},
        {"job.save", words("Save"), {words("Ctrl+S")}, [&window] { window.jobs().save(); }, menu, {}, {}, true},
        {"job.save-as", words("Save as…"), {words("Ctrl+Shift+S")}, [&window] { window.jobs().save_as(); }, menu},
        {"job.revert", words("Revert to the file"), {}, [&window] { window.jobs().revert(); }, menu},
        {"job.left-work", words("Unsaved work of earlier runs…"), {}, left_work, menu},
        {"job.svg", words("Export the drawn part as SVG…"), {words("Ctrl+E")}, out("svg"), menu, {}, {}, true},
        {"job.dxf", words("Export the drawn part as DXF…"), {words("Ctrl+Shift+E")}, out("dxf"), menu},
        {"job.step", words("Export the drawn part as a STEP solid…"), {words("Ctrl+Alt+E")}, out("step"), menu, {}, step_available},
        // What the station shows: a part at 1:1, the plan of the holes, the survey, or the picture with its figures.
        {"job.print", words("Print what is shown…"), {words("Ctrl+P")}, [&window] { window.out().print(false); }, menu, {}, {}, true},
        {"job.print-all", words("Print the whole job…"), {}, [&window] { window.out().print(true); }, menu},
        {"job.pdf", words("What is shown as PDF…"), {words("Ctrl+Alt+P")}, [&window] { window.out().ask_pdf(false); }, menu},
        {"job.pdf-all", words("The whole job as PDF…"), {}, [&window] { window.out().ask_pdf(true); }, menu},
        {"job.picture", words("The picture as PNG or SVG…"), {}, [&window] { window.out().ask_picture(); }, menu},
        {"job.copy-picture", words("Copy the picture"), {words("Ctrl+Shift+C")}, [&window] { window.out().copy_picture(); }, menu},
        {"job.preferences",
         words("Preferences…"),
         {words("Ctrl+,")},
         [&window] { window.sheets().open_preferences(); },
         menu,
         {},
         {},
         true},
        {"job.close", words("Close"), {words("Ctrl+F4")}, [&window] { window.close(); }, menu, {}, {}, true},
        {"job.quit", words("Quit"), {words("Ctrl+Q")}, [] { quit(); }, menu},
    };
}

QList<Action> of_edits(MainWindow& window) {
    const QString menu = words("&Edit");
    Document& document = window.document();
    return {
        {"edit.choose",
         words("Choose the likeliest counts"),
         {words("Ctrl+Return")},
         [&document] { document.edit(choose(document.derived().train, 0, today())); },
         menu,
         {},
         {},
         true},
        {"edit.stop", words("Stop weighing what is lost"), {words("Ctrl+Esc")}, [&document] { document.weigher().stop(); }, menu},
        {"edit.withdraw",
         words("Withdraw the choice"),
         {words("Ctrl+Shift+Return")},
         [&document] { document.edit(withdraw_choice()); },
         menu},
        {"edit.unit",
         words("Show lengths in inches or millimetres"),
         {words("Ctrl+U")},
         [&document] { document.edit(show_other_unit()); },
         menu,
         {},
         {},
         true},
    };
}

QList<Action> of_the_view(MainWindow& window) {
    const QString menu = words("&View");
    Document& document = window.document();
    Motion& motion = window.motion();
    QList<Action> list;
    int number = 0;
    for (const StationRow& row : station_rows())
        list << Action{"view." + row.id,
                       row.title,
                       {QKeySequence(words("Ctrl+%1").arg(++number))},
                       [&window, id = row.id] { window.show_station(id); },
                       menu};
    const auto beat_on = [&document, &motion] {
        if (const auto beats = document.derived().train.beats_per_hour) motion.step(3600 / *beats);
    };
    return list +
           QList<Action>{
               {"view.drawers",
                words("The workshop's drawers: cutters, plates, leaves…"),
                {words("Ctrl+Shift+W")},
                [&window] { window.sheets().open_stock(); },
                menu,
                {},
                {},
                true},
               {"view.find", words("Find…"), {words("Ctrl+K")}, [&window] { window.sheets().open_finder(); }, menu},
               {"view.up", words("Up the ladder"), {words("Ctrl+Up")}, [&document] { document.selection().climb(1); }, menu},
               {"view.down", words("Down the ladder"), {words("Ctrl+Down")}, [&document] { document.selection().climb(-1); }, menu},
               {"view.other-train",
                words("The other train"),
                {words("Ctrl+Right")},
                [&document] { document.selection().next_train(); },
                menu},
               {"view.full-screen",
                words("Full screen"),
                {Qt::Key_F11},
                [&window] { window.setWindowState(window.windowState() ^ Qt::WindowFullScreen); },
                menu},
               {"view.fold", words("Fold the workings"), {words("Ctrl+F11")}, [&window] { window.fitting().fold_workings(); }, menu},
               {"view.larger",
                words("All of it larger"),
                {words("Ctrl++"), words("Ctrl+=")},
                [&window] { window.fitting().step_scale(1); },
                menu,
                {},
                [] { return interface_scale() < most_scale; },
                true},
               {"view.smaller",
                words("All of it smaller"),
                {words("Ctrl+-")},
                [&window] { window.fitting().step_scale(-1); },
                menu,
                {},
                [] { return interface_scale() > least_scale; }},
               {"view.usual", words("The usual size"), {words("Ctrl+0")}, [&window] { window.fitting().step_scale(0); }, menu},
               {"view.dark",
                words("Light or dark"),
                {words("Ctrl+Shift+D")},
                [&window] { window.fitting().choose_look(theme().dark ? "light" : "dark"); },
                menu},
               {"motion.run", words("Run or pause the movement"), {Qt::Key_Space}, [&motion] { motion.toggle(); }, menu, {}, {}, true},
               {"motion.slower", words("Slower"), {QKeySequence("[")}, [&motion] { motion.slower(); }, menu},
               {"motion.faster", words("Faster"), {QKeySequence("]")}, [&motion] { motion.faster(); }, menu},
               {"motion.beat", words("One beat on"), {words("Shift+Space")}, beat_on, menu},
           };
}

QList<Action> of_findings(MainWindow& window) {
    const QString menu = words("&Findings");
    WorkingsSheet& sheet = window.workings().sheet();
    const auto open = [&sheet] { return sheet.finding_at_hand() != nullptr; };
    const auto next = [&window, &sheet] {
        window.fitting().unfold_workings();
        sheet.next_finding();
    };
    const auto accept = [&window, &sheet] { window.document().judge(sheet.finding_at_hand()->id, "accepted", {}); };
    const auto overrule = [&sheet] { emit sheet.overrule_wanted(sheet.finding_at_hand()->id); };
    return {{"finding.next", words("To the next open finding"), {words("Ctrl+J")}, next, menu},
            {"finding.accept", words("Accept it"), {words("Ctrl+Alt+A")}, accept, menu, {}, open},
            {"finding.overrule", words("Overrule it because…"), {words("Ctrl+Alt+O")}, overrule, menu, {}, open}};
}

QList<Action> of_help(MainWindow& window) {
    const QString menu = words("H&elp");
    const auto page = [&window](HelpSheet::Page one) { return [&window, one] { window.sheets().help().show_page(one); }; };
    return {{"help.guide", words("Guide"), {words("Ctrl+F1")}, page(HelpSheet::Page::guide), menu},
            {"help.keys", words("Every key"), {words("Shift+F1")}, page(HelpSheet::Page::keys), menu},
            {"help.terms", words("Terms of the trade"), {}, page(HelpSheet::Page::terms), menu},
            {"help.limits", words("What the figures are good for"), {}, page(HelpSheet::Page::limits), menu},
            {"help.about", words("About Echappe, and its licences"), {}, page(HelpSheet::Page::about), menu, {}, {}, true}};
}

QList<Action> of_measuring(MainWindow& window) {
    const QString menu = words("&Measure");
    CalliperLine& line = window.calliper();
    const auto to_the_line = [&line] {
        line.line().setFocus();
        line.line().selectAll();
    };
    return {
        {"measure.line", words("To the calliper line"), {Qt::Key_F2}, to_the_line, menu},
        {"measure.unkept", words("Back to what was typed and not kept"), {words("Shift+F2")}, [&line] { line.back_to_unkept(); }, menu},
        {"measure.simulated", words("Read the simulated calliper"), {Qt::Key_F3}, [&line] { line.send_simulated(); }, menu},
        {"measure.how", words("How to take this reading"), {Qt::Key_F1}, [&line] { line.explain(); }, menu},
        {"measure.another", words("Another quantity"), {words("Ctrl+Tab")}, [&line] { line.ask_next(1); }, menu},
        {"measure.table", words("Read measurements from CSV…"), {}, [&window] { window.out().ask_readings(&window); }, menu, {}, {}, true},
    };
}

}  // namespace

QList<Action> window_actions(MainWindow& window) {
    return of_the_job(window) + of_edits(window) + of_the_view(window) + of_findings(window) + of_measuring(window) + of_help(window);
}

}  // namespace echappe
