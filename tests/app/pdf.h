#pragma once

#include <QProcess>
#include <QString>
#include <catch2/catch.hpp>

/// What a tool for PDF files says of one.
inline QString asked_of_pdf(const QString& tool, const QStringList& words) {
    QProcess asked;
    asked.start(tool, words);
    REQUIRE(asked.waitForFinished());
    return QString::fromUtf8(asked.readAllStandardOutput());
}
inline QString words_on(const QString& pdf) { return asked_of_pdf("pdftotext", {"-layout", pdf, "-"}); }
inline int pages_of(const QString& pdf) {
    return asked_of_pdf("pdfinfo", {pdf}).section("Pages:", 1).section('\n', 0, 0).trimmed().toInt();
}
