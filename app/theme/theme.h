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

/// The five sizes of type; every text on screen has one of them. A note is 12 px high at 100 %, the least that is read at a bench.
enum class Type { note, text, figure, head, great };
QFont type(Type size, bool bold = false);
/// On paper, where a point is a point.
QFont paper_font(double points, bool bold = false);

}  // namespace echappe
