#pragma once

#include <memory>

#include "drawing/words.h"
#include "instruments/reading_round.h"
#include "strike/scheme.h"

namespace echappe {

struct BlowsInput;
struct BlowsResult;

/// What the strike was heard to count, hour by hour.
class StrikeRound : public ReadingRound {
public:
    explicit StrikeRound(Document& document) : m_document(document) {}
    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("the strike"); }
    QString precision() const override { return words("counted by its sound"); }
    void paint_instrument(QPainter& painter, QPointF at) const override { paint_reference(painter, at); }
    /// A strike as a sound, and its hour.
    struct Sounded {
        double hour = 0;
        std::shared_ptr<const BlowsResult> as;
    };
    /// The one that was listened to last, while the job keeps what it counted; else nothing.
    const Sounded* sounded() const;
    /// How a recording of the strike that is asked for is to be listened to. Throws InputError where no strike is asked for.
    BlowsInput to_listen() const;
    double hour() const { return hours()[at()].hour; }
    /// Keeps what was counted at that hour. Throws InputError where it was not recorded to its end.
    QString take(double hour, const BlowsResult& heard);
    /// Another job lies there.
    void forget() { m_sounded.reset(), m_at.reset(); }
    std::vector<LineKey> keys() const override {
        return {{words("Enter keeps it, next hour"), {Qt::Key_Return}},
                {words("Tab another hour"), {Qt::Key_Tab}},
                {words("0: it runs on; 1+4: one at the warning")},
                {words("? how"), {Qt::Key_Question}}};
    }

private:
    /// Strikes of once round the dial, from one o'clock on.
    std::vector<Strike> hours() const;
    /// Which of them is asked: the one after the last that was heard, until another was stepped to.
    size_t at() const;
    Document& m_document;
    std::optional<size_t> m_at;
    std::optional<Sounded> m_sounded;
};

}  // namespace echappe
