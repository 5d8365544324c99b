#pragma once

#include <map>

#include "document/document.h"
#include "drawing/words.h"
#include "instruments/instrument_art.h"
#include "sheet/drawn_size.h"

namespace echappe {

/// A key of the line, or several, in words; the words do what the keys do. Without keys it is an example of what can be typed.
struct LineKey {
    QString words;
    std::vector<Qt::Key> keys = {};
};

/// What the calliper line asks for, one reading after the other, and where it goes.
class ReadingRound {
public:
    struct Asked {
        QString name;
        QString how;
        QString typed_as;
        QString note;  ///< a word about this one: taken already, doubtful, most telling
        bool warns = false;
        QString id = {};       ///< of the question, once in the job: two arbors may bear one name
        bool whole = false;    ///< only figures begin it: signs and points stay keys of the station
        QString letters = {};  ///< a reading here may begin with one of these, besides figures and signs
    };
    virtual ~ReadingRound() = default;
    virtual std::optional<Asked> asked() const = 0;
    /// Which question stands, to ask it again: what is typed belongs to it. It is held from then on, whatever else would be asked
    /// now; empty when nothing is asked.
    virtual std::function<void()> hold() = 0;
    virtual void step(int by) = 0;
    /// Keeps what was typed and goes on; returns what is to be told. Throws InputError.
    virtual QString keep(const QString& text, bool simulated) = 0;
    /// Enter alone says something here; elsewhere an empty Enter is no mistake and does nothing.
    virtual bool takes_nothing() const { return false; }
    /// The reading that the stand-in types. Throws InputError when it cannot take it.
    virtual QString simulated() = 0;
    virtual QString instrument() const = 0;
    /// Whether a demo's instruments read it.
    virtual bool has_stand_in() const { return true; }
    /// What the stand-in reads, and how well.
    virtual QString precision() const { return words("reads the hidden movement, ±0.01 mm"); }
    /// The line's own keys while it is empty.
    virtual std::vector<LineKey> keys() const {
        return {{words("Enter keeps it and goes on"), {Qt::Key_Return}},
                {words("Tab another"), {Qt::Key_Tab}},
                {words("? how to take it"), {Qt::Key_Question}}};
    }
    virtual bool key_on_empty_line(int /*key*/) { return false; }
    /// The line comes to it, or another hole is looked at.
    virtual void follow_subject() {}
    /// The job changed: what was kept and is undone is asked again. True where it went back.
    virtual bool follow_job() { return false; }
    virtual void paint_instrument(QPainter& painter, QPointF at) const { paint_calliper(painter, at); }
};

/// Counts, sizes and beats: the solver says which reading tells most.
class SolverRound : public ReadingRound {
public:
    explicit SolverRound(Document& document) : m_document(document) {}
    const Measurable* measurable() const;
    void ask(const QuantityKey& key) { m_wanted = key; }
    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override { return words("calliper"); }

private:
    Document& m_document;
    std::optional<QuantityKey> m_wanted;
    std::map<QuantityKey, std::uint64_t> m_turn;  ///< how often each has been read by the simulated instrument
};

/// Pivots and holes, plate by plate and arbor by arbor.
class PlateRound : public ReadingRound {
public:
    explicit PlateRound(Document& document) : m_document(document) {}
    const SurveyQuestion* question() const;
    /// The first reading of this hole, plate or arbor that is not taken, else its first.
    void go_to(const std::string& subject);
    /// From the first reading that is open.
    void begin() {
        m_at.reset();
        m_kept.clear();
    }
    /// The readings of these holes, plates and arbors as sizes of a drawing, in the order of the round. "n" says that one cannot be taken.
    DrawnSizes sizes(const std::vector<std::string>& subjects) const;
    bool takes_nothing() const override;
    std::optional<Asked> asked() const override;
    std::function<void()> hold() override;
    void step(int by) override;
    QString keep(const QString& text, bool simulated) override;
    QString simulated() override;
    QString instrument() const override;
    std::vector<LineKey> keys() const override {
        return {{words("Enter keeps"), {Qt::Key_Return}},
                {words("← back"), {Qt::Key_Left}},
                {words("Tab skip"), {Qt::Key_Tab}},
                {words("N Enter cannot measure"), {Qt::Key_N, Qt::Key_Return}},
                {words("P Enter pegged"), {Qt::Key_P, Qt::Key_Return}},
                {words("? how"), {Qt::Key_Question}}};
    }
    bool key_on_empty_line(int key) override;
    /// What is typed must go to the hole that is looked at; before anything was read the round begins at its beginning.
    void follow_subject() override;
    bool follow_job() override;

private:
    /// Made anew when the job changed.
    const std::vector<SurveyQuestion>& round() const;
    QString keep_word(const QString& word, const SurveyQuestion& now);
    void go_on();
    void show_subject();
    Document& m_document;
    mutable std::vector<SurveyQuestion> m_round;
    mutable std::uint64_t m_round_of = 0;
    std::optional<SurveyQuestion> m_at;
    std::vector<SurveyQuestion> m_kept;  ///< one after the other
    bool m_showing = false;              ///< the subject follows the round: the round must not follow it back
    std::map<std::string, std::uint64_t> m_turn;
};

}  // namespace echappe
