#pragma once

#include "beat/readings.h"
#include "drawing/words.h"
#include "instruments/reading_round.h"
#include "power/readings.h"

namespace echappe {

/// Torque of the shown train's drive, turn by turn: up as it is wound, down as it drives, and the least that runs.
class TorqueRound : public ReadingRound {
public:
    explicit TorqueRound(Document& document) : m_document(document) {}
    std::optional<TorqueQuestion> question() const;
    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("torque gauge"); }
    QString precision() const override { return words("reads the hidden drive, ±1 %"); }
    std::vector<LineKey> keys() const override {
        return {{words("Enter keeps it, next turn"), {Qt::Key_Return}},
                {words("← back"), {Qt::Key_Left}},
                {words("Tab skip"), {Qt::Key_Tab}},
                {words("? how"), {Qt::Key_Question}}};
    }
    bool key_on_empty_line(int key) override;
    void paint_instrument(QPainter& painter, QPointF at) const override { paint_gauge(painter, at); }

private:
    const DriveRecord* drive() const;
    std::vector<TorqueQuestion> round() const;
    Document& m_document;
    std::optional<TorqueQuestion> m_at;
    std::map<std::string, std::uint64_t> m_turn;
};

/// Looks at the clock beside the reference, one after the other.
class LookRound : public ReadingRound {
public:
    explicit LookRound(Document& document) : m_document(document) {}
    std::optional<Asked> asked() const override;
    std::function<void()> hold() override {
        return [] {};
    }
    void step(int) override {}
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("reference"); }
    QString precision() const override { return words("and thermometer, some time on"); }
    std::vector<LineKey> keys() const override {
        return {{words("Enter keeps the look"), {Qt::Key_Return}},
                {words("+12.4 18.5C, or 14:03:20 14:03:26")},
                {words("? how"), {Qt::Key_Question}}};
    }
    void paint_instrument(QPainter& painter, QPointF at) const override { paint_reference(painter, at); }

private:
    Document& m_document;
    std::uint64_t m_turn = 0;
};

}  // namespace echappe
