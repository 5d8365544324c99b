#pragma once

#include "alarm/record.h"
#include "beat/record.h"
#include "bench/record.h"
#include "cards/record.h"
#include "escapement/record.h"
#include "hands/record.h"
#include "making/record.h"
#include "oscillator/record.h"
#include "power/record.h"
#include "strike/record.h"
#include "survey/record.h"
#include "teeth/record.h"
#include "train/record.h"
#include "wood/record.h"
#include "workings/length_unit.h"
#include "workings/part.h"

namespace echappe {

struct Judgement {
    std::string finding;
    std::string verdict;
    std::string reason;
    std::string date;
    static const Record& record();
};

/// The document: what is known of one movement and what was decided, a part for each topic. Plain values; everything else is derived.
struct Job {
    // Made in one place: of so much, each file that copies or drops one would compile it anew.
    Job();
    Job(const Job&);
    Job(Job&&) noexcept;
    Job& operator=(const Job&);
    Job& operator=(Job&&) noexcept;
    ~Job();

    std::string format = "echappe job";
    long long schema = 2;
    std::string title;
    std::string number;
    std::string place;
    std::string maker;
    std::string owner;
    std::string workshop;
    std::string note;
    std::string scope;  ///< what was agreed to be done
    std::string photo;  ///< of the whole, by its file's name in the folder of pictures
    LengthUnit length;
    TrainRecord train;
    TeethRecord teeth;
    MakingRecord making;
    std::vector<Judgement> judgements;
    SurveyRecord survey;
    PowerRecord power;
    std::optional<OscillatorRecord> oscillator;
    std::optional<PalletsRecord> pallets;
    std::optional<StrikeRecord> strike;
    std::optional<AlarmRecord> alarm;
    std::optional<HandsRecord> hands;
    std::optional<WoodRecord> wood;
    CardsRecord cards;
    BenchRecord bench;
    RateLog rate_log;
    Parts others;  ///< of topics that have no member here
    static const Record& record();
    /// From now on every job has this part, in its file too.
    static void declare_part(const std::string& id, const std::string& meaning, Part empty);

    /// Decimals that matter in a length shown in the job's unit.
    int length_decimals() const { return train.length_decimals(length.symbol); }
    bool operator==(const Job& other) const;
};

/// The newest layout of the file that this version writes.
inline constexpr long long newest_schema = 2;

}  // namespace echappe
