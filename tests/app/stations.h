#pragma once

#include <stdexcept>

#include "shell/main_window.h"
#include "stations/beat/beat_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/survey/survey_station.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"

// A station of the window by its name, as what it is where a test asks what only that one knows.
template <class S = echappe::Station>
S& station_of(echappe::MainWindow& window, const QString& name) {
    S* station = dynamic_cast<S*>(window.station(name));
    if (!station) throw std::logic_error("no station " + name.toStdString());
    return *station;
}
inline echappe::TrainStation& train_of(echappe::MainWindow& window) { return station_of<echappe::TrainStation>(window, "train"); }
inline echappe::TeethStation& teeth_of(echappe::MainWindow& window) { return station_of<echappe::TeethStation>(window, "teeth"); }
inline echappe::PivotsStation& pivots_of(echappe::MainWindow& window) { return station_of<echappe::PivotsStation>(window, "pivots"); }
inline echappe::SurveyStation& survey_of(echappe::MainWindow& window) { return station_of<echappe::SurveyStation>(window, "survey"); }
inline echappe::PowerStation& power_of(echappe::MainWindow& window) { return station_of<echappe::PowerStation>(window, "power"); }
inline echappe::BeatStation& beat_of(echappe::MainWindow& window) { return station_of<echappe::BeatStation>(window, "beat"); }
