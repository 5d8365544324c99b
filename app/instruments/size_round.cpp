#include "instruments/size_round.h"

#include <algorithm>

#include "drawing/words.h"
#include "instruments/no_instrument.h"

namespace echappe {

bool SizeRound::open() const {
    const DrawnSizes sizes = m_sizes();
    return std::any_of(sizes.begin(), sizes.end(), [](const DrawnSize& size) { return size.open(); });
}

QString SizeRound::at() const {
    const DrawnSizes sizes = m_sizes();
    if (size_by(sizes, m_at)) return m_at;
    for (const DrawnSize& size : sizes)
        if (size.open()) return size.id;
    return {};
}

QString SizeRound::after(const QString& id, int by, bool open_only) const {
    const DrawnSizes sizes = m_sizes();
    const auto count = static_cast<std::ptrdiff_t>(sizes.size());
    const DrawnSize* from = size_by(sizes, id);
    std::ptrdiff_t at = from ? from - sizes.data() : (by > 0 ? -1 : 0);
    for (std::ptrdiff_t i = 0; i < count; ++i) {
        at = (at + by + count) % count;
        const DrawnSize& size = sizes[static_cast<size_t>(at)];
        if (!open_only || size.open()) return size.id;
    }
    return {};
}

std::optional<ReadingRound::Asked> SizeRound::asked() const {
    const DrawnSizes sizes = m_sizes();
    const DrawnSize* size = size_by(sizes, at());
    if (!size) return {};
    Asked asked;
    asked.name = size->label;
    asked.id = size->id;
    asked.typed_as = words(size->line.unit);
    asked.how = words(size->line.explained());
    if (!size->line.choices.empty()) {
        QStringList choices;
        for (const std::string& choice : size->line.choices) choices << words(said(choice));
        asked.how = choices.join(", ");
    }
    if (size->assumed()) asked.note = words("assumed: %1; a reading replaces it").arg(size->said());
    else if (size->known()) asked.note = words("taken already, %1; a new reading replaces it").arg(size->said());
    else asked.note = words("type it here, or on the drawing");
    return asked;
}

std::function<void()> SizeRound::hold() {
    if (!asked()) return {};
    m_at = at();
    return [this, at = m_at] { m_at = at; };
}

void SizeRound::step(int by) { m_at = after(at(), by, false); }

QString SizeRound::keep(const QString& text, bool) {
    const DrawnSizes sizes = m_sizes();
    const DrawnSize* size = size_by(sizes, at());
    if (!size) throw InputError("reading", text.toStdString(), "nothing: no size is asked");
    size->take(words("Size: %1").arg(size->label), size->line.field, text.trimmed().toStdString());
    m_at.clear();
    m_kept();
    return words("Kept: %1, %2. Undo with Ctrl+Z.").arg(size->label, text.trimmed());
}

QString SizeRound::simulated() { throw no_instrument(); }

}  // namespace echappe
