#include <QClipboard>
#include <QMimeData>
#include <QPrinter>
#include <QTemporaryDir>
#include <catch2/catch.hpp>

#include "app/bench.h"
#include "app/pdf.h"
#include "exchange/whole_file.h"
#include "number/input_error.h"

using namespace echappe;

TEST_CASE("each station prints what it shows, with its figures as text, whose job it is, the day and the page, and nothing is cut") {
    Bench bench;
    const QTemporaryDir folder;
    const std::map<QString, QStringList> says = {{"train", {"Arbors, from the power up", "beats", "144"}},
                                                 {"power", {"Figures", "N mm"}},
                                                 {"beat", {"Looks at the clock", "PENDULUM"}},
                                                 {"strike", {"Say what counts its hours"}},
                                                 {"make", {"Runout as found"}},
                                                 {"bench", {"Order of work", "Teeth of wheels and leaves of pinions"}},
                                                 {"pivots", {"holes"}},
                                                 {"survey", {"Wants a decision"}},
                                                 {"teeth", {"10 : 1"}}};
    for (const StationRow& row : station_rows()) {
        bench.window.show_station(row.id);
        Bench::settle();
        bench.window.grab();
        const QString pdf = folder.filePath(row.id + ".pdf");
        bench.window.export_to(pdf);
        const QString words = words_on(pdf);
        INFO(row.id.toStdString() << "\n" << words.toStdString());
        for (const QString& one : says.at(row.id)) CHECK(words.contains(one));
        CHECK(words.contains("page 1"));
        CHECK(words.contains("Tide-house regulator"));
        const QStringList lines = words.split('\n');
        for (const QString& line : lines) CHECK_FALSE(line.trimmed().endsWith(QString::fromUtf8("…")));
        CHECK(words.count("· page ") == pages_of(pdf));
    }
}

TEST_CASE("the letters of a printed picture are as large beside it as on the screen") {
    Bench bench;
    const QTemporaryDir folder;
    bench.window.show_station("train");
    bench.window.export_to(folder.filePath("train.pdf"));
    // A word of a picture whose width fills 273 mm.
    const QString text = asked_of_pdf("pdftotext", {"-bbox", "-l", "1", folder.filePath("train.pdf"), "-"});
    const QString word = text.split('\n').filter(">EVIDENCE<").value(0);
    REQUIRE_FALSE(word.isEmpty());
    const auto number = [&](const QString& name) { return word.section(name + "=\"", 1).section('"', 0, 0).toDouble(); };
    const double wide_mm = (number("xMax") - number("xMin")) / 72 * 25.4;
    Station& train = bench.window.shown();
    train.grab();
    const auto& written = train.written();
    const auto there = std::find_if(written.begin(), written.end(), [](const Lettered& one) { return one.words.startsWith("EVIDENCE"); });
    REQUIRE(there != written.end());
    const double share = QFontMetricsF(type(Type::note, true)).horizontalAdvance("EVIDENCE") / train.width();
    const double paper_mm = std::min(273.0, 178.0 * train.width() / train.height());
    CHECK(wide_mm == Approx(share * paper_mm).epsilon(0.08));
}

TEST_CASE("the whole job is one document, its stations in the order of the work") {
    Bench bench;
    const QTemporaryDir folder;
    QPrinter printer;
    printer.setOutputFormat(QPrinter::PdfFormat);
    printer.setOutputFileName(folder.filePath("all.pdf"));
    std::vector<Printout> parts;
    for (Station* station : bench.window.stations()) parts.push_back(station->printed());
    print_on(printer, "Tide-house regulator", parts);
    const QString words = words_on(folder.filePath("all.pdf"));
    CHECK(words.indexOf("Wants a decision") < words.indexOf("Arbors, from the power up"));
    CHECK(words.indexOf("Arbors, from the power up") < words.indexOf("Looks at the clock"));
    CHECK(pages_of(folder.filePath("all.pdf")) >= 8);
    // A preview shows every page in the form of the last: all are as the first, whatever lies on them.
    const QString all = asked_of_pdf("pdfinfo", {"-l", "99", folder.filePath("all.pdf")});
    const QString size = all.section("Page    1 size:", 1).section('\n', 0, 0).trimmed();
    REQUIRE_FALSE(size.isEmpty());
    CHECK(all.count(size) == pages_of(folder.filePath("all.pdf")));
}

TEST_CASE("the picture is written as PNG and SVG and copied, and another ending is refused") {
    Bench bench;
    const QTemporaryDir folder;
    bench.window.show_station("train");
    bench.window.out().write_picture(folder.filePath("plan.png"));
    CHECK(QImage(folder.filePath("plan.png")).width() == bench.window.shown().QWidget::width());
    bench.window.out().write_picture(folder.filePath("plan.svg"));
    const QString svg = QString::fromStdString(read_text(folder.filePath("plan.svg").toStdString()));
    CHECK(svg.contains("<svg"));
    CHECK(svg.contains("144"));
    CHECK_THROWS_AS(bench.window.out().write_picture(folder.filePath("plan.bmp")), InputError);
    bench.window.out().copy_picture();
    CHECK(QApplication::clipboard()->mimeData()->hasImage());
}
