#pragma once

#include "drawing/words.h"
#include "instruments/reading_round.h"
#include "train/counting.h"

namespace echappe {

/// Counts of wheels and pinions, train by train from the power up: those that are lost, or all of them once more.
class CountRound : public ReadingRound {
public:
    explicit CountRound(Document& document) : m_document(document) {}

    /// Whether all are counted once more.
    bool again() const { return m_again; }
    void set_again(bool again);
    std::optional<CountQuestion> question() const;
    /// Whether something is still to be counted.
    bool some_open() const;

    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("eye"); }
    QString precision() const override { return words("counts are taken by hand"); }
    std::vector<LineKey> keys() const override {
        return {{words("Enter keeps it and goes on"), {Qt::Key_Return}},
                {words("Tab another"), {Qt::Key_Tab}},
                {words("96? doubted")},
                {words("? how"), {Qt::Key_Question}},
                {words("Ctrl+Shift+T the rest is lost")}};
    }
    void follow_subject() override;

private:
    std::vector<CountQuestion> round() const { return counting_round(m_document.job().train); }
    void go_to(const CountQuestion& question);
    Document& m_document;
    bool m_again = false;
    bool m_showing = false;  ///< the subject follows the round: the round must not follow it back
    std::string m_at;
};

}  // namespace echappe
