#pragma once

#include "topic.h"
#include "workings/calculation.h"

namespace echappe {

struct ReportMesh {
    std::string wheel_of;
    std::string pinion_of;
    long long wheel = 0;
    long long pinion = 0;
    double module_mm = 0;
    double module_u_mm = 0;
    std::string module_state;
    std::optional<double> measured_centre_distance_mm;
    GeometryResult sizes;
    static const Record& record();
};

struct ReportHole {
    std::string hole;
    std::string decision;
    std::string reason;
    bool done = false;
    std::optional<double> pivot_mm;
    std::optional<double> push_deg;
    std::optional<double> wear_deg;
    std::optional<BushPlanResult> plan;
    std::vector<HoleEffect> effects;
    std::vector<SimulatedEffect> simulated;
    static const Record& record();
};

/// A drive, what it gives and where it goes.
struct ReportDrive {
    std::string train;
    std::string kind;
    std::optional<double> torque_start_N_mm;
    std::optional<double> torque_end_N_mm;
    std::string torque_from;
    std::optional<double> least_N_mm;
    std::string verdict;
    std::string reason;
    std::optional<WeightDriveResult> weight;
    std::optional<SpringSizeResult> spring;
    std::optional<TorqueLogResult> log;
    std::optional<FuseeResult> fusee;
    std::optional<FuseeSetUpResult> set_up;
    std::optional<RewindResult> rewind;
    std::optional<PowerChainResult> chain;
    std::vector<std::string> look_at;
    std::vector<std::string> wear;
    static const Record& record();
};

/// The rate as it is now, and what to do.
struct ReportRate {
    std::optional<RateFitResult> now;
    std::optional<double> by_sizes_s_per_day;
    std::optional<double> per_K;  ///< s/d/K, positive gains when warmer
    std::optional<double> per_K_u;
    std::vector<RateMeans> means;
    std::string advice;
    std::vector<std::string> outcomes;
    std::optional<PoiseResult> poise;
    static const Record& record();
};

/// A strike through its day, its train and how that stands.
struct ReportStrike {
    std::vector<StruckHour> day;
    std::optional<StrikeHeardResult> heard;
    std::optional<CountWheelResult> count_wheel;
    std::optional<SnailResult> snail;
    std::optional<StrikeTrainResult> train;
    std::optional<StrikeTogetherResult> together;
    static const Record& record();
};

struct ReportAlarm {
    std::optional<TimeCamResult> cam, silent;
    std::optional<AlarmRingResult> ring;
    static const Record& record();
};

/// What carries the hands, and the room that they and their pipes have.
struct ReportHands {
    std::optional<HandsFrictionResult> friction;
    std::vector<HandsRoom> rooms;
    std::vector<std::string> oil;
    static const Record& record();
};

/// What job.report prints: everything derived, with the findings.
struct JobReport {
    std::string title;
    std::optional<double> beats_per_hour;
    std::optional<std::string> beats_per_hour_exact;
    std::optional<double> run_s;
    std::vector<Quantity> quantities;
    std::vector<ReportMesh> meshes;
    std::vector<Strain> strain;
    std::vector<Candidate> candidates;
    std::optional<long long> considered;
    std::optional<NextMeasurement> next_measurement;
    std::optional<Conflict> conflict;
    std::vector<ReportHole> holes;
    std::vector<SurveyLine> needed;
    std::vector<SurveyLine> earlier;
    std::vector<ShoppingLine> shopping;
    std::vector<ReportDrive> drives;
    std::optional<ReportRate> rate;
    std::optional<ReportStrike> strike;
    std::optional<ReportAlarm> alarm;
    std::optional<ReportHands> hands;
    std::vector<WoodMesh> wood;
    std::vector<DerivedCard> cards;
    std::vector<Finding> findings;
    Parts others;  ///< of topics that have no member here
    static const Record& record();
    /// From now on every report tells this part.
    static void declare_part(const std::string& id, const std::string& meaning, Part empty);
};

struct JobSummary {
    std::string title;
    long long schema = 0;
    long long arbors = 0;
    long long lost_counts = 0;
    long long measurements = 0;
    long long choices = 0;
    static const Record& record();
};

/// A job file, and the drawers it is planned with.
struct ReportInput {
    Job job;
    std::string stock_folder;  ///< with bushes.csv and reamers.csv; empty: no bush is chosen
    static const Record& record();
};

JobReport job_report(const ReportInput& input);
JobSummary job_check(const Job& job);
const Calculation& job_report_calculation();
const Calculation& job_check_calculation();

}  // namespace echappe
