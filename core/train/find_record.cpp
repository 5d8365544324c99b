// The declarations of the train finder's fields.
#include "train/find.h"
#include "train/hands.h"

namespace echappe {

const Record& FindInput::record() {
    using In = FindInput;
    static const Record record = [] {
        const std::vector<std::string> hands = named_period_ids();
        return Record(
            Fields<In>()
                .add("target", &In::target, "", "turns of the last pinion per turn of the first wheel, a decimal or \"num/den\"",
                     above(0, 1e12))
                .add("hand", &In::hand, "", "instead of a target: what the hand shows")
                .choices(hands)
                .add("driver_period_s", &In::driver_period_s, "s", "and the period of the arbor that drives it", above(0, 1e12))
                .add("stages", &In::stages, "", "meshes in the train", between(1, 6))
                .required()
                .add("wheel", &In::wheel, "", "teeth a wheel may have")
                .add("pinion", &In::pinion, "", "leaves a pinion may have")
                .add("tolerance_ppm", &In::tolerance_ppm, "ppm", "list and count all within it; 0 = exact only", between(0, 1e6))
                .add("best", &In::best, "", "how many to list, by least error", between(1, 10000))
                .because("what can be looked through by eye")
                .add("time_limit_s", &In::time_limit_s, "s", "ends with what it has", above(0, 1e6))
                .add("wheel_counts", &In::wheel_counts, "", "only these counts, as the dividing plates index them", between(4, 1000))
                .add("pinion_counts", &In::pinion_counts, "", "only these leaves", between(4, 1000))
                .add("must_wheels", &In::must_wheels, "", "wheels that lie in the drawer and must be used", between(4, 1000))
                .add("must_pinions", &In::must_pinions, "", "pinions that must be used", between(4, 1000))
                .add("hunting_only", &In::hunting_only, "", "every stage without a common factor")
                .add("exclude_factors", &In::exclude_factors, "", "no stage whose wheel and pinion share one of these", between(2, 1000))
                .add("distinct_pinions_at_most", &In::distinct_pinions_at_most, "", "different pinions (and so cutters) in the train",
                     between(1, 6))
                .add("evenness_at_most", &In::evenness_at_most, "", "largest stage ratio ÷ smallest", between(1, 1e6))
                .add("stage_sum", &In::stage_sum, "", "teeth + leaves of every stage: the plates fix the centre distance")
                .add("stage_sums", &In::stage_sums, "", "stage by stage, the sums of teeth and leaves that fit between its holes",
                     between(8, 2000))
                .add("rank", &In::rank, "", "order of the list")
                .choices({"error", "evenness", "teeth", "hunting", "cutters"})
                .because("the ratio comes first; the rest is taste"));
    }();
    return record;
}

const Record& Stage::record() {
    static const Record record = Fields<Stage>().add("wheel", &Stage::wheel, "", "teeth").add("pinion", &Stage::pinion, "", "leaves");
    return record;
}

const Record& FoundTrain::record() {
    using Out = FoundTrain;
    static const Record record = Fields<Out>()
                                     .add("wheels", &Out::wheels, "", "ascending")
                                     .add("pinions", &Out::pinions, "", "ascending")
                                     .add("stages", &Out::stages, "", "as paired, the largest wheel on the slowest arbor")
                                     .add("ratio_exact", &Out::ratio_exact, "", "product of wheels ÷ product of pinions")
                                     .add("ratio", &Out::ratio, "", "the same as a decimal")
                                     .add("error_ppm", &Out::error_ppm, "ppm", "(ratio ÷ target − 1) × 10^6")
                                     .add("error_s_per_day", &Out::error_s_per_day, "s/day", "what the hand gains")
                                     .add("years_per_day", &Out::years_per_day, "year", "one day wrong in this many years; null when exact")
                                     .add("evenness", &Out::evenness, "", "largest stage ratio ÷ smallest")
                                     .add("hunting_stages", &Out::hunting_stages, "", "stages whose counts have no common factor")
                                     .add("distinct_pinions", &Out::distinct_pinions, "", "different pinions")
                                     .add("sum", &Out::sum, "", "teeth and leaves together");
    return record;
}

const Record& FindResult::record() {
    using Out = FindResult;
    static const Record record =
        Fields<Out>()
            .add("solutions", &Out::solutions, "", "by least error, then fewest teeth and leaves")
            .add("count_within_tolerance", &Out::count_within_tolerance, "", "all of them, also beyond the list; null without a tolerance")
            .add("complete", &Out::complete, "", "the whole space was covered")
            .add("ended", &Out::ended, "", "why it was not")
            .add("elapsed_s", &Out::elapsed_s, "s", "time taken")
            .add("target", &Out::target, "", "the ratio looked for")
            .add("target_exact", &Out::target_exact, "", "the same exactly")
            .add("pinions_drive", &Out::pinions_drive, "", "the hand is slower than its driver: read every stage the other way round")
            .add("considered", &Out::considered, "", "pairs of a set of wheels and a set of pinions in the space");
    return record;
}

}  // namespace echappe
