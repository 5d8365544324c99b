#pragma once

#include "drawing/words.h"
#include "instruments/reading_round.h"
#include "sheet/drawn_size.h"

namespace echappe {

/// The sizes of a drawing, one after the other: the first that is open, until another is asked for on the drawing.
class SizeRound : public ReadingRound {
public:
    /// `kept`: one was typed into the line, and is no longer asked.
    SizeRound(std::function<DrawnSizes()> sizes, std::function<void()> kept) : m_sizes(std::move(sizes)), m_kept(std::move(kept)) {}

    /// Asks for this one; empty: for what is open.
    void go_to(const QString& id) { m_at = id; }
    /// Somebody asked for one of them.
    bool wanted() const { return !m_at.isEmpty(); }
    /// Whether one of them is open.
    bool open() const;
    /// The one that is asked; empty: none.
    QString at() const;
    /// The next one after this, of all or of those that are open; round from the last to the first. Empty: there is none.
    QString after(const QString& id, int by, bool open_only) const;
    DrawnSizes sizes() const { return m_sizes(); }

    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("calliper"); }
    bool has_stand_in() const override { return false; }

private:
    std::function<DrawnSizes()> m_sizes;
    std::function<void()> m_kept;
    QString m_at;
};

}  // namespace echappe
