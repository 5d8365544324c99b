#pragma once

#include "shell/action.h"

namespace echappe {

class MainWindow;

/// What can be done whatever station is shown, in the order of the menus.
QList<Action> window_actions(MainWindow& window);

}  // namespace echappe
