#include "drawing/glossary.h"

#include <QFile>
#include <QRegularExpression>
#include <vector>

namespace echappe {
namespace {

struct TradeTerm {
    QString term;
    QString meaning;
    QRegularExpression found;
};

std::vector<TradeTerm> read_terms() {
    static const QRegularExpression line("^- \\*\\*(.+)\\*\\*: (.+)$", QRegularExpression::MultilineOption);
    std::vector<TradeTerm> terms;
    for (auto all = line.globalMatch(terms_of_the_trade()); all.hasNext();) {
        const QRegularExpressionMatch one = all.next();
        const QString term = one.captured(1);
        const QString plural = QRegularExpression::escape(term) + (term.endsWith('f') ? "" : "(s|es)?");
        terms.push_back({term, one.captured(2), QRegularExpression("\\b" + plural + "\\b", QRegularExpression::CaseInsensitiveOption)});
    }
    return terms;
}

}  // namespace

QString terms_of_the_trade() {
    QFile file(":/help/terms.md");
    return file.open(QIODevice::ReadOnly) ? QString::fromUtf8(file.readAll()) : QString();
}

QString meaning_in(const QString& words) {
    static const std::vector<TradeTerm> terms = read_terms();
    const TradeTerm* longest = nullptr;
    for (const TradeTerm& one : terms)
        if ((!longest || one.term.size() > longest->term.size()) && one.found.match(words).hasMatch()) longest = &one;
    return longest ? longest->term + ": " + longest->meaning : QString();
}

}  // namespace echappe
