#pragma once

#include "alarm/derive.h"
#include "beat/derive.h"
#include "cards/derive.h"
#include "escapement/derive.h"
#include "hands/derive.h"
#include "job/job.h"
#include "making/derive.h"
#include "oscillator/derive.h"
#include "pivots/derive.h"
#include "power/derive.h"
#include "strike/derive.h"
#include "strike/train_derive.h"
#include "survey/derive.h"
#include "train/derive.h"
#include "wood/derive.h"

namespace echappe {

/// A topic that could not be derived at all, and why; the others stand.
struct TopicFault {
    std::string topic;  ///< its id, or "findings"
    std::string sentence;
};

/// Everything that follows from a job, a member a topic. Pure: the same job gives the same derivation.
struct Derived {
    // Made in one place: of so much, each file that copies or drops one would compile it anew.
    Derived();
    Derived(const Derived&);
    Derived(Derived&&) noexcept;
    Derived& operator=(const Derived&);
    Derived& operator=(Derived&&) noexcept;
    ~Derived();

    DerivedTrain train;
    DerivedMaking making;
    DerivedOscillator oscillator;
    DerivedEscapement escapement;
    DerivedStrike strike;
    DerivedStrikeTrain strike_train;
    DerivedAlarm alarm;
    DerivedHands hands;
    DerivedWood wood;
    DerivedCards cards;
    DerivedBeat beat;
    DerivedPivots pivots;
    DerivedPower power;
    DerivedSurvey survey;
    Parts others;  ///< of topics that have no member here
    std::vector<Finding> findings;
    std::vector<TopicFault> faults;  ///< of the derivation itself
};

}  // namespace echappe
