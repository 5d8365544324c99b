#pragma once

#include <QObject>
#include <QString>
#include <optional>

#include "document/document.h"
#include "document/errand.h"
#include "train/question.h"

namespace echappe {

/// A question put to the train finder, worked on beside the window; what it found so far, and what the one picked would make
/// of the job. Nothing of it is in the job until it is taken.
class TrainSearch : public QObject {
    Q_OBJECT
public:
    explicit TrainSearch(Document& document, QObject* parent = nullptr);

    /// What the drawer can cut, for questions that must fit between the holes.
    void set_cutters(std::vector<double> modules_mm) { m_cutter_modules_mm = std::move(modules_mm); }

    /// Asks anew; the sentence of what is wrong with the question is kept in `fault`.
    void ask(const QString& text);
    void close();
    void stop();
    bool running() const { return m_errand.out(); }
    double done() const { return m_done; }
    const QString& fault() const { return m_fault; }
    const std::optional<TrainQuestion>& question() const { return m_question; }
    const FindResult& result() const { return m_result; }

    size_t picked() const { return m_picked; }
    void pick(size_t index);
    /// What the train would become; none when nothing is picked or it cannot be worked out.
    const std::optional<DerivedTrain>& preview() const { return m_preview; }
    /// Makes the picked train part of the job: one edit.
    void take();

signals:
    void moved();

private:
    void show(const FindResult& result);
    TrainMeans means() const;

    Document& m_document;
    JobHeld m_held;  ///< the job that it was asked of
    std::vector<double> m_cutter_modules_mm;
    std::optional<TrainQuestion> m_question;
    QString m_fault;
    FindResult m_result;
    double m_done = 0;
    size_t m_picked = 0;
    std::optional<DerivedTrain> m_preview;
    Errand m_errand;
};

}  // namespace echappe
