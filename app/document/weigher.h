#pragma once

#include "document/errand.h"
#include "train/derive.h"

namespace echappe {

/// Weighs what is lost in a train off the interface thread, where it takes longer than typing allows.
class Weigher : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;

    bool running() const { return m_errand.out(); }
    double done() const { return m_done; }
    /// Gives up what was being weighed.
    void start(const RestoreInput& question);
    /// What is lost stays unweighed until the job changes or it is asked for again.
    void stop();
    /// The last answer; it serves every job with the same question.
    const WeighedTrain* answer() const { return m_answer ? &*m_answer : nullptr; }
    void forget() { m_answer.reset(); }

signals:
    void moved();
    void answered();
    void failed(const QString& why);

private:
    std::optional<WeighedTrain> m_answer;
    double m_done = 0;
    Errand m_errand;
};

}  // namespace echappe
