#pragma once

#include <QObject>

#include "job/job.h"

namespace echappe {

/// What is looked at: an arbor, one end of it, and the train that the ladder shows. It follows the job: what is gone is not selected.
class Selection : public QObject {
    Q_OBJECT
public:
    using QObject::QObject;

    /// The selected arbor; empty when the job has none.
    const std::string& subject() const { return m_subject; }
    void select(const std::string& arbor);
    /// Which end of the subject is looked at: "front" or "back", and its hole, "centre.front".
    const std::string& plate() const { return m_plate; }
    std::string hole() const { return m_subject + "." + m_plate; }
    void select_hole(const std::string& arbor, const std::string& plate);
    /// The train the ladder shows; nullptr when the job has none.
    const TrainList* train() const;
    /// Shows the job's next train and its top arbor.
    void next_train();
    /// One up or down the ladder.
    void climb(int rungs);

    /// The job as it is now; it outlives its selection.
    void follow(const TrainRecord& train);
    /// Begins anew, at what is lost where something is.
    void begin(const TrainRecord& train);

signals:
    void changed();

private:
    void show_its_train();

    const TrainRecord* m_record = nullptr;
    std::string m_subject;
    std::string m_plate = "front";
    size_t m_train = 0;
};

}  // namespace echappe
