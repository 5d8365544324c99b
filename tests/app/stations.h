#pragma once

#include "shell/main_window.h"
#include "stations/beat/beat_station.h"
#include "stations/pivots/pivots_station.h"
#include "stations/power/power_station.h"
#include "stations/survey/survey_station.h"
#include "stations/teeth/teeth_station.h"
#include "stations/train/train_station.h"

// The stations of a window, each as what it is.
template <class S>
S& station_of(echappe::MainWindow& window) {
    return *window.findChild<S*>();
}
inline echappe::TrainStation& train_of(echappe::MainWindow& window) { return station_of<echappe::TrainStation>(window); }
inline echappe::TeethStation& teeth_of(echappe::MainWindow& window) { return station_of<echappe::TeethStation>(window); }
inline echappe::PivotsStation& pivots_of(echappe::MainWindow& window) { return station_of<echappe::PivotsStation>(window); }
inline echappe::SurveyStation& survey_of(echappe::MainWindow& window) { return station_of<echappe::SurveyStation>(window); }
inline echappe::PowerStation& power_of(echappe::MainWindow& window) { return station_of<echappe::PowerStation>(window); }
inline echappe::BeatStation& beat_of(echappe::MainWindow& window) { return station_of<echappe::BeatStation>(window); }
