#pragma once

#include "instruments/reading_round.h"
#include "sheet/drawn_size.h"

namespace echappe {

/// The sizes of a drawing, one after the other: the first that is open, until another is asked for on the drawing.
class SizeRound : public ReadingRound {
public:
    SizeRound(Document& document, std::function<DrawnSizes()> sizes) : m_document(document), m_sizes(std::move(sizes)) {}

    /// Asks for this one; empty: for what is open.
    void go_to(const QString& id) { m_at = id; }
    /// Somebody asked for one of them.
    bool wanted() const { return !m_at.isEmpty(); }
    /// Whether one of them is open.
    bool open() const;
    /// The one that is asked; empty: none.
    QString at() const;
    /// The next one after this, open ones first where `open_only`; round from the last to the first. Empty: there is none.
    QString after(const QString& id, int by, bool open_only) const;
    DrawnSizes sizes() const { return m_sizes(); }

    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return QObject::tr("calliper"); }
    QString precision() const override { return QObject::tr("type what you read"); }
    std::vector<LineKey> keys() const override {
        return {{QObject::tr("Enter keeps it and goes on"), {Qt::Key_Return}},
                {QObject::tr("Tab another"), {Qt::Key_Tab}},
                {QObject::tr("? how to take it"), {Qt::Key_Question}}};
    }

private:
    Document& m_document;
    std::function<DrawnSizes()> m_sizes;
    QString m_at;
};

}  // namespace echappe
