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
        {"survey", Station::tr("Survey"), made<SurveyStation>, 3}, {"train", Station::tr("Train"), made<TrainStation>, 1},
        {"teeth", Station::tr("Teeth"), made<TeethStation>, 2},    {"pivots", Station::tr("Pivots"), made<PivotsStation>, 4},
        {"power", Station::tr("Power"), made<PowerStation>, 5},    {"beat", Station::tr("Beat"), made<BeatStation>, 6},
        {"strike", Station::tr("Strike"), made<StrikeStation>, 7}, {"make", Station::tr("Make"), made<MakeStation>, 8},
        {"bench", Station::tr("Bench"), made<BenchStation>, 9},
    };
    return rows;
}

}  // namespace

const std::vector<StationRow>& station_rows() { return all(); }

void register_station(StationRow row) { all().push_back(std::move(row)); }

}  // namespace echappe
