#pragma once

#include <QString>

namespace echappe {

/// Where Echappe keeps what is not a job file. The variable ECHAPPE_STATE names one folder for both, for tests and rehearsals.

/// What a run leaves for the next one: the journals of unsaved work, pictures of a job that is no file yet.
QString state_folder();
/// What belongs to the workshop: its drawers.
QString data_folder();

}  // namespace echappe
