#pragma once

#include <QColor>
#include <QFont>

class QPainter;
class QWidget;

namespace echappe {

/// The house's inks and papers; every colour on screen is one of these. Every ink reads at 4.5:1 or better on
/// ground and sheet; brass is for drawn metal, brass_ink for words.
struct Theme {
    QColor ground, sheet, ink, steel, blued, brass, pale_brass, brass_ink, ruby, verdigris, amber, rule, band, on_band;
    bool dark = false;

    static Theme light();
    static Theme night();
    const QColor& severity(const std::string& word) const;
};

/// The theme of the window. What paints asks for the inks of what it paints on.
const Theme& theme();
/// What is painted on is a screen, or a picture of one; else paper: a printer, or a file to print from.
bool for_screen(const QPainter& painter);
/// The inks for what is painted on: the window's, and on paper dark on white whatever the window's are.
const Theme& inks(const QPainter& painter);
/// Sets palette, style sheet and fonts of the application.
void apply_theme(bool dark);

/// As it was before the house's own colours.
bool desktop_is_dark();

/// How large all of the interface is shown, of its usual size.
constexpr double least_scale = 0.8, most_scale = 2;
double interface_scale();
/// Held within the limits; everything that stands follows.
void set_interface_scale(double scale);
/// Loads the fonts that ship with the application. False when they are missing.
bool load_fonts();

/// The five sizes of type; every text on screen has one of them. A note is 12 px high at 100 %, the least that is read at a
/// bench. In pixels, as all that is drawn: whatever the desktop says of dots in an inch, words fit where they stand.
enum class Type { note, text, figure, head, great };
/// On a canvas, whose pixels are the house's.
QFont type(Type size, bool bold = false);
/// For a plot, whose pixels are the screen's.
QFont type_on_screen(Type size, bool bold = false);
/// Gives a widget one of the sizes; it follows the interface's scale.
void wear(QWidget& widget, Type size, bool bold = false);
/// On paper, where a point is a point.
QFont paper_font(double points, bool bold = false);

}  // namespace echappe
