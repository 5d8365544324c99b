#include "drawing/words.h"

#include <QRegularExpression>
#include <QStringList>

#include "number/input_error.h"
#include "workings/sum.h"

namespace echappe {
namespace {

/// "drives[0].drum_diameter_mm": "drives 1, drum diameter".
QString name_in_words(const std::string& field) {
    static const QRegularExpression place("\\[(\\d+)\\]$");
    QStringList parts;
    for (QString part : words(field).split('.')) {
        const QRegularExpressionMatch numbered = place.match(part);
        if (numbered.hasMatch()) part.replace(place, " " + QString::number(numbered.captured(1).toInt() + 1));
        parts << words(name_without_unit(part.toStdString()));
    }
    return parts.join(", ");
}

}  // namespace

QString fault_in_words(const std::exception& fault) {
    const auto* input = dynamic_cast<const InputError*>(&fault);
    if (!input) return QString::fromUtf8(fault.what());
    // A sentence of its own is left as it is.
    if (input->field().find(' ') != std::string::npos) return words(input->what());
    QString said = words(input->what());
    if (said.startsWith(words(input->field()))) said.replace(0, words(input->field()).size(), name_in_words(input->field()));
    return said;
}

}  // namespace echappe
