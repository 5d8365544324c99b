#pragma once

#include <QColor>
#include <QFont>

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

/// The theme in use, shared by all painting.
const Theme& theme();
/// Sets palette, style sheet and fonts of the application.
void apply_theme(bool dark);
/// Loads the fonts that ship with the application. False when they are missing.
bool load_fonts();

/// Reading sizes: a word (11 pt), a figure that matters (18 to 28 pt).
QFont word_font(double points = 10, bool bold = false);
QFont figure_font(double points = 18, bool bold = true);

}  // namespace echappe
