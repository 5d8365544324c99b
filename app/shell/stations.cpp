#include "drawing/words.h"
#include "shell/station.h"
#include "stations/beat/beat_station.h"
#include "stations/bench/bench_station.h"
#include "stations/make/make_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/strike/strike_station.h"
#include "stations/survey/survey_station.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"

namespace echappe {
namespace {

template <class S>
Station* made(const Workbench& bench) {
    return new S(bench);
}

std::vector<StationRow>& all() {
    static std::vector<StationRow> rows = {
        {"survey", words("Survey"), made<SurveyStation>, 3}, {"train", words("Train"), made<TrainStation>, 1},
        {"teeth", words("Teeth"), made<TeethStation>, 2},    {"pivots", words("Pivots"), made<PivotsStation>, 4},
        {"power", words("Power"), made<PowerStation>, 5},    {"beat", words("Beat"), made<BeatStation>, 6},
        {"strike", words("Strike"), made<StrikeStation>, 7}, {"make", words("Make"), made<MakeStation>, 8},
        {"bench", words("Bench"), made<BenchStation>, 9},
    };
    return rows;
}

}  // namespace

const std::vector<StationRow>& station_rows() { return all(); }

void register_station(StationRow row) { all().push_back(std::move(row)); }

}  // namespace echappe
