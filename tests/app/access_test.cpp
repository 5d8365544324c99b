#include <QAccessible>
#include <QClipboard>
#include <QMenu>
#include <QRawFont>
#include <QTemporaryDir>
#include <catch2/catch.hpp>
#include <set>

#include "app/bench.h"
#include "drawing/glossary.h"
#include "number/input_error.h"
#include "shell/help_sheet.h"
#include "theme/theme.h"
#include "train/written.h"

using namespace echappe;

namespace {

/// The tree of one widget as a screen reader walks it.
void walk(QAccessibleInterface* node, const std::function<void(QAccessibleInterface&)>& visit, int deep = 0) {
    REQUIRE(node);
    REQUIRE(deep < 30);
    visit(*node);
    for (int i = 0; i < node->childCount(); ++i) walk(node->child(i), visit, deep + 1);
}

QAccessibleInterface* found(QAccessibleInterface* in, const QString& begins) {
    QAccessibleInterface* result = nullptr;
    walk(in, [&](QAccessibleInterface& node) {
        if (!result && node.text(QAccessible::Name).startsWith(begins)) result = &node;
    });
    return result;
}

/// The usual size again, whatever a test did.
struct UsualSize {
    ~UsualSize() { set_interface_scale(1); }
};

}  // namespace

TEST_CASE("at every station each thing has a name, a role, a place on the screen, and what can be clicked can be pressed by name") {
    Bench bench;
    for (const StationRow& row : station_rows()) {
        bench.window.show_station(row.id);
        bench.window.grab();
        int places = 0, texts = 0;
        walk(QAccessible::queryAccessibleInterface(bench.window.station(row.id)), [&](QAccessibleInterface& node) {
            if (node.object()) return;
            INFO(row.id.toStdString() << ": " << node.text(QAccessible::Name).toStdString());
            CHECK_FALSE(node.text(QAccessible::Name).trimmed().isEmpty());
            CHECK(node.rect().isValid());
            REQUIRE(node.parent());
            CHECK(node.parent()->indexOfChild(&node) >= 0);
            const bool button = node.role() == QAccessible::Button;
            REQUIRE(button ==
                    (node.actionInterface() && node.actionInterface()->actionNames().contains(QAccessibleActionInterface::pressAction())));
            ++(button ? places : texts);
        });
        CHECK(places > 3);
        CHECK(texts > 3);
    }
}

TEST_CASE("an arbor is chosen, a finding accepted and a figure read by name alone") {
    Bench bench;
    bench.window.grab();
    QAccessibleInterface* ladder = QAccessible::queryAccessibleInterface(&bench.window.ladder());
    found(ladder, "Escape")->actionInterface()->doAction(QAccessibleActionInterface::pressAction());
    CHECK(bench.document().selection().subject() == "escape");
    bench.window.grab();
    CHECK(found(ladder, "Escape")->state().selected);
    QAccessibleInterface* workings = QAccessible::queryAccessibleInterface(&bench.window.workings().sheet());
    const auto open = [&] {
        const auto& all = bench.derived().findings;
        return std::count_if(all.begin(), all.end(), [](const Finding& finding) { return finding.verdict.empty(); });
    };
    const auto before = open();
    REQUIRE(before > 0);
    found(workings, "accept: ")->actionInterface()->doAction(QAccessibleActionInterface::pressAction());
    CHECK(open() == before - 1);
    const QString asked = QAccessible::queryAccessibleInterface(&bench.window.calliper().line())->text(QAccessible::Name);
    CHECK(asked.startsWith(QString::fromStdString(bench.window.calliper().asked()->name)));
}

TEST_CASE("Tab leads to every place that can be clicked, Enter clicks it, Escape lets go, and a figure typed goes to the line") {
    Bench bench;
    Station& train = bench.window.shown();
    train.grab();
    QStringList stops;
    for (const auto& one : train.readables())
        if (one.acts && !stops.contains(one.tag)) stops << one.tag;
    REQUIRE(stops.size() > 5);
    train.setFocus();
    for (const QString& tag : stops) {
        QTest::keyClick(&train, Qt::Key_Tab);
        CHECK(train.stands_on() == tag);
    }
    QTest::keyClick(&train, Qt::Key_Backtab);
    CHECK(train.stands_on() == stops[stops.size() - 2]);
    const QImage standing = train.grab().toImage();
    QTest::keyClick(&train, Qt::Key_Escape);
    CHECK(train.stands_on().isEmpty());
    CHECK(train.grab().toImage() != standing);
    train.stand_on("arbor:escape");
    QTest::keyClick(&train, Qt::Key_Return);
    CHECK(bench.document().selection().subject() == "escape");
    QTest::keyClick(&train, Qt::Key_F10, Qt::ShiftModifier);
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    REQUIRE(menu);
    CHECK(menu->actions().size() > 5);
    menu->close();
    QTest::keyClicks(&train, "3");
    CHECK(bench.window.calliper().line().text() == "3");
    QTest::keyClick(&bench.window.calliper().line(), Qt::Key_Escape);
    CHECK(bench.window.calliper().line().hasFocus());
    QTest::keyClick(&bench.window.calliper().line(), Qt::Key_Escape);
    CHECK(train.hasFocus());
    CHECK(bench.window.calliper().message().startsWith("Tab leads through the picture"));
}

TEST_CASE("what has the focus looks otherwise than what has not, at every station and on the ladder") {
    Bench bench;
    for (const StationRow& row : station_rows()) {
        bench.window.show_station(row.id);
        for (QWidget* one : {static_cast<QWidget*>(bench.window.station(row.id)), static_cast<QWidget*>(&bench.window.ladder())}) {
            one->setFocus();
            const QImage with = one->grab().toImage();
            one->clearFocus();
            INFO(row.id.toStdString());
            CHECK(one->grab().toImage() != with);
        }
    }
}

TEST_CASE("a figure is copied with what it is of and its unit, in columns, and a sheet as a table") {
    Bench bench;
    bench.window.show_station("pivots");
    bench.document().selection().select_hole("centre", "front");
    Station& pivots = bench.window.shown();
    pivots.grab();
    pivots.setFocus();
    QTest::keySequence(&pivots, QKeySequence::Copy);
    const QStringList rows = QApplication::clipboard()->text().split('\n');
    REQUIRE(rows.size() > 2);
    for (const QString& row : rows) CHECK(row.count('\t') == 2);
    CHECK(rows.filter("pivot\t").size() >= 1);
    CHECK(rows.filter("\tmm").size() >= 1);
}

TEST_CASE("at every scale the house's pixels stay the same: a click meets the place that is painted there") {
    const UsualSize after;
    Bench bench;
    for (const double scale : {0.8, 1.0, 1.5, 2.0}) {
        set_interface_scale(scale);
        bench.window.resize((QSizeF(1280, 800) * scale).toSize());
        Bench::settle();
        CHECK(bench.window.ladder().width() == Approx(bench.window.width() / scale * 0.13).margin(2));
        for (const char* arbor : {"great", "escape", "centre"}) {
            bench.window.ladder().grab();
            const QRectF at = bench.window.ladder().place_of(QString("rung:") + arbor);
            QTest::mouseClick(&bench.window.ladder(), Qt::LeftButton, {}, bench.window.ladder().on_widget(at).center().toPoint());
            CHECK(bench.document().selection().subject() == arbor);
        }
        bench.window.show_station("train");
        Station& train = bench.window.shown();
        train.grab();
        const QRectF count = train.place_of("centre.wheel");
        QTest::mouseDClick(&train, Qt::LeftButton, {}, train.on_widget(count).center().toPoint());
        CHECK(QRectF(bench.editor().geometry()).center().x() == Approx(train.on_widget(count).center().x()).margin(3 * scale));
        CHECK(bench.editor().text() == "96");
        CHECK(bench.editor().font().pixelSize() == std::lround(20 * scale));
        QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    }
}

TEST_CASE("the scale is kept within its limits, goes by tenths, and comes back to the usual size") {
    const UsualSize after;
    Bench bench;
    for (int i = 0; i < 20; ++i) QTest::keyClick(&bench.window, Qt::Key_Minus, Qt::ControlModifier);
    CHECK(interface_scale() == 0.8);
    for (int i = 0; i < 20; ++i) QTest::keyClick(&bench.window, Qt::Key_Plus, Qt::ControlModifier);
    CHECK(interface_scale() == 2);
    QTest::keyClick(&bench.window, Qt::Key_0, Qt::ControlModifier);
    CHECK(interface_scale() == 1);
}

TEST_CASE("in a narrow window the picture is the largest thing: the workings fold till they are wanted, the ladder says less") {
    Bench bench;
    const auto picture = [&] { return bench.window.shown().width(); };
    bench.window.resize(1024, 700);
    Bench::settle();
    CHECK_FALSE(bench.window.workings().isVisible());
    CHECK(picture() > 0.8 * bench.window.width());
    QTest::keyClick(&bench.window, Qt::Key_F11, Qt::ControlModifier);
    CHECK(bench.window.workings().isVisible());
    QTest::keyClick(&bench.window, Qt::Key_F11, Qt::ControlModifier);
    bench.window.resize(1280, 800);
    Bench::settle();
    CHECK_FALSE(bench.window.workings().isVisible());
    QTest::keyClick(&bench.window, Qt::Key_F11, Qt::ControlModifier);
    CHECK(bench.window.workings().isVisible());
    CHECK(picture() > bench.window.width() / 2);
}

TEST_CASE("forty arbors stand on the ladder one under the other, and the selected one is always seen") {
    Bench bench;
    QString text = "144";
    for (int i = 0; i < 39; ++i) text += ", 12/96";
    bench.window.show_station("train");
    bench.document().edit("many", [&](Job& job) { job.train = read_written(text.toStdString(), {}, {}).train; });
    const auto& arbors = bench.job().train.arbors;
    REQUIRE(arbors.size() == 40);
    for (const size_t which : {size_t{0}, size_t{39}, size_t{17}}) {
        bench.document().selection().select(arbors[which].train.id);
        bench.window.ladder().grab();
        const QRectF at = bench.window.ladder().place_of("rung:" + QString::fromStdString(arbors[which].train.id));
        CHECK(at.height() > 40);
        CHECK(QRectF(bench.window.ladder().rect()).contains(at));
    }
}

namespace {

/// Texts of a picture that stand in one another, two by two.
QStringList overprinted(const Canvas& canvas) {
    QStringList list;
    const auto body = [](const Lettered& one) { return one.at.adjusted(1.5, 3.5, -1.5, -3.5); };
    const auto& written = canvas.written();
    for (size_t i = 0; i < written.size(); ++i)
        for (size_t j = 0; j < i; ++j)
            if (!written[i].is_figure() && !written[j].is_figure() && body(written[i]).intersects(body(written[j])))
                list << "“" + written[i].words + "” in “" + written[j].words + "”";
    return list;
}

void check_nothing_overprints(Bench& bench, const std::string& of) {
    for (const StationRow& row : station_rows()) {
        bench.window.show_station(row.id);
        Bench::settle();
        bench.window.grab();
        for (const auto* canvas : bench.window.findChildren<Canvas*>()) {
            if (!canvas->isVisible()) continue;
            INFO(bench.window.width() << " × " << bench.window.height() << ", " << of << ", " << row.id.toStdString() << ", "
                                      << canvas->accessibleName().toStdString());
            CHECK(overprinted(*canvas).join("\n").toStdString() == "");
        }
    }
}

}  // namespace

TEST_CASE("no text stands in another, at any station, of any demo, from a small window to a large one") {
    Bench bench;
    for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
        bench.window.open_demo(demo);
        for (const QSize size : {QSize(1024, 700), QSize(1280, 800), QSize(1920, 1080)}) {
            bench.window.resize(size);
            check_nothing_overprints(bench, demo);
        }
    }
}

TEST_CASE("what a person is told names things in words, and a file drawn over the window is looked at before anything is asked") {
    CHECK(fault_in_words(InputError("drives[0].drum_diameter_mm", "nothing", "a number above 0")) ==
          "drives 1, drum diameter: got nothing, takes a number above 0");
    CHECK(fault_in_words(InputError("row 3, arbor", "nothing", "a name")).startsWith("row 3, arbor: "));
    Bench bench;
    bench.window.show_station("power");
    bench.window.grab();
    bench.type("sum:drum_diameter_mm", "-4");
    CHECK_FALSE(bench.window.calliper().message().contains('_'));
    CHECK(bench.window.calliper().message().contains("drum diameter"));
    QTest::keyClick(&bench.editor(), Qt::Key_Escape);
    const QTemporaryDir folder;
    QFile broken(folder.filePath("note.json"));
    REQUIRE(broken.open(QIODevice::WriteOnly));
    broken.write("no job");
    broken.close();
    bench.document().edit("dirty", [](Job& job) { job.note = "n"; });
    // Nothing is asked: a question would wait for its answer here.
    bench.window.out().take_files({broken.fileName()});
    CHECK(bench.window.calliper().message().contains("note.json"));
    CHECK(bench.job().note == "n");
}

TEST_CASE("help is read and searched in the window, and a term of the trade tells itself where it stands") {
    Bench bench;
    HelpSheet& help = bench.window.sheets().help();
    help.show_page(HelpSheet::Page::guide);
    QTest::keyClicks(&help.search(), "calliper line");
    CHECK(help.page().textCursor().selectedText().toLower() == "calliper line");
    const int first = help.page().textCursor().position();
    QTest::keyClick(&help.search(), Qt::Key_Return);
    CHECK(help.page().textCursor().position() > first);
    for (const auto page : {HelpSheet::Page::keys, HelpSheet::Page::terms, HelpSheet::Page::limits, HelpSheet::Page::about}) {
        help.show_page(page);
        CHECK(help.page().toPlainText().size() > 400);
    }
    // What stands on another page is found there; what stands nowhere is said.
    help.show_page(HelpSheet::Page::about);
    help.search().setText("smoothing broach");
    CHECK(help.page().accessibleName() == "Terms");
    CHECK(help.page().textCursor().selectedText() == "smoothing broach");
    help.search().setText("zzzz");
    CHECK(help.said().contains("zzzz"));
    CHECK(meaning_in("Side shakes of the holes").startsWith("side shake: "));
    CHECK(meaning_in("Centre, front hole").startsWith("centre: "));
    CHECK(meaning_in("2026").isEmpty());
    help.close();
}

TEST_CASE("names of sixty-two letters in two alphabets stand in no other text, at any station") {
    Bench bench;
    for (const char* demo : {"tide-house", "waiting-room"}) {
        bench.window.open_demo(demo);
        bench.document().edit("long names", [](Job& job) {
            int number = 0;
            for (JobArbor& arbor : job.train.arbors) {
                ++number;
                arbor.name = (number % 2 ? "Федерхаусрад великого хронометра гавани номер "
                                         : "The great wheel of the harbour's chronometer, as found in ") +
                             std::to_string(number);
            }
            for (TrainList& train : job.train.trains) train.name = "The train that the harbour master calls the long going one";
            job.title = "A clock with a title that is much longer than any bar could ever hold, from the harbour";
        });
        for (const QSize size : {QSize(1024, 700), QSize(1280, 800)}) {
            bench.window.resize(size);
            check_nothing_overprints(bench, demo);
        }
    }
}

TEST_CASE("every sign that is written at any station, in the help and on the keys is in the letters that ship") {
    const QRawFont letters(QString(":/fonts/EchappeBench-Regular.otf"), 16);
    const QRawFont bold(QString(":/fonts/EchappeBench-Bold.otf"), 16);
    REQUIRE(letters.isValid());
    std::set<QChar> missing;
    const auto look = [&](const QString& text) {
        for (const QChar one : text)
            if (one != QChar(QChar::ObjectReplacementCharacter) && one.isPrint() && !one.isSpace() &&
                !(letters.supportsCharacter(one) && bold.supportsCharacter(one)))
                missing.insert(one);
    };
    Bench bench;
    for (const char* demo : {"tide-house", "waiting-room", "watch", "granary"}) {
        bench.window.open_demo(demo);
        for (const StationRow& row : station_rows()) {
            bench.window.show_station(row.id);
            bench.window.grab();
            for (const auto* canvas : bench.window.findChildren<Canvas*>())
                for (const auto& one : canvas->readables()) look(one.name + one.value + one.hint);
        }
    }
    for (const auto page : {HelpSheet::Page::guide, HelpSheet::Page::keys, HelpSheet::Page::terms, HelpSheet::Page::limits}) {
        bench.window.sheets().help().show_page(page);
        look(bench.window.sheets().help().page().toPlainText());
    }
    QString list;
    for (const QChar one : missing) list += QString("%1 (%2) ").arg(one).arg(one.unicode(), 4, 16);
    CHECK(list.toStdString() == "");
    bench.window.sheets().help().close();
}
