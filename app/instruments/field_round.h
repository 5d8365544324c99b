#pragma once

#include "instruments/reading_round.h"

namespace echappe {

/// Readings that go into single fields of a part of the job, one after the other: those of a smaller instrument.
class FieldRound : public ReadingRound {
public:
    struct Reading {
        std::string field;
        QString name, how;
        bool whole = false;
    };
    /// How a field of this part of the job is read and written.
    struct Part {
        std::string id;  ///< "hands"
        const Record& record;
        std::function<const void*(const Job&)> now;  ///< nullptr: the job has none
        std::function<void(Document&, const QString& name, const std::string& field, const std::string& word)> take;
    };
    FieldRound(Document& document, Part part, QString instrument, QString precision, std::vector<Reading> readings)
        : m_document(document),
          m_part(std::move(part)),
          m_instrument(std::move(instrument)),
          m_precision(std::move(precision)),
          m_readings(std::move(readings)) {}

    /// Asks for this one next.
    void go_to(const std::string& field);
    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return m_instrument; }
    QString precision() const override { return m_precision; }

private:
    /// The first that is not taken, until another was stepped to.
    size_t at() const;
    bool taken(size_t which) const;
    Document& m_document;
    Part m_part;
    QString m_instrument, m_precision;
    std::vector<Reading> m_readings;
    std::optional<size_t> m_at;
    std::map<std::string, std::uint64_t> m_turn;
};

/// Thread and weight at the hands, and the hand itself.
FieldRound hands_round(Document& document);
/// How the strike stands, locked.
FieldRound together_round(Document& document);
/// The alarm's cam and its setting.
FieldRound alarm_round(Document& document);
/// The moisture of the wood.
FieldRound wood_round(Document& document);

}  // namespace echappe
