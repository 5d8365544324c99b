#pragma once

#include "shell/action.h"

namespace echappe {

class MainWindow;

/// The window's menus from what it and its stations can do. A station's action brings its station to the front first.
void build_menus(MainWindow& window, const QList<Action>& of_the_window);

}  // namespace echappe
