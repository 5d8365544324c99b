#include "theme/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QHash>
#include <QPainter>
#include <QPalette>
#include <QRegularExpression>
#include <QStyleFactory>
#include <QWidget>
#include <algorithm>
#include <cmath>

namespace echappe {
namespace {

Theme current = Theme::light();

double scale_in_use = 1;

constexpr const char* names_of_type[] = {"note", "text", "figure", "head", "great"};
constexpr int pixels_of_type[] = {12, 13, 16, 20, 27};

/// Lengths in it are the house's pixels, and become the screen's.
QString in_screen_pixels(QString sheet) {
    static const QRegularExpression length("\\b(\\d+)px");
    for (qsizetype from = 0;;) {
        const QRegularExpressionMatch found = length.match(sheet, from);
        if (!found.hasMatch()) return sheet;
        const QString scaled = QString::number(std::max(1L, std::lround(found.captured(1).toDouble() * scale_in_use))) + "px";
        sheet.replace(found.capturedStart(), found.capturedLength(), scaled);
        from = found.capturedStart() + scaled.size();
    }
}

/// The five sizes, as a widget wears them.
QString type_sheet() {
    QString sheet;
    for (size_t i = 0; i < std::size(names_of_type); ++i)
        for (const bool bold : {false, true})
            sheet += QString("*[wears=\"%1%2\"] { font: %3 %4px \"Echappe Bench\"; }")
                         .arg(names_of_type[i], bold ? "-bold" : "", bold ? "bold" : "normal")
                         .arg(pixels_of_type[i]);
    return sheet;
}

QString style_sheet(const Theme& t) {
    return in_screen_pixels(
        type_sheet() +
        QString("QWidget { color: %1; }"
                "QMenuBar { background: %4; color: %5; padding: 1px 6px; } QMenuBar::item { padding: 3px 9px; background: transparent; }"
                "QMenuBar::item:selected { background: %3; }"
                "QMenu { background: %2; color: %1; border: 1px solid %6; } QMenu::item { padding: 5px 26px 5px 18px; }"
                "QMenu::item:selected { background: %3; color: %7; } QMenu::item:disabled { color: %6; } "
                "QMenu::separator { height: 1px; background: %6; }"
                "QLineEdit { background: %2; border: none; border-bottom: 2px solid %6; selection-background-color: %3; "
                "selection-color: %7; padding: 1px 2px; } QLineEdit:focus { border-bottom: 3px solid %3; }"
                "QToolTip { background: %2; color: %1; border: 1px solid %3; padding: 4px; }"
                "QScrollBar:vertical { width: 8px; background: transparent; } "
                "QScrollBar::handle:vertical { background: %6; min-height: 30px; }"
                "QTabWidget::pane { border: 0; border-top: 1px solid %6; } "
                "QTabBar::tab { background: transparent; color: %1; padding: 6px 14px; border-bottom: 3px solid transparent; } "
                "QTabBar::tab:selected { border-bottom-color: %3; color: %3; } QTabBar:focus { border: 1px solid %3; }"
                "QHeaderView { background: %2; } QHeaderView::section { background: %2; color: %1; border: 0; border-bottom: 1px "
                "solid %6; padding: 5px 8px; } QTableView { background: %2; color: %1; border: 0; }"
                "QScrollBar::add-line, QScrollBar::sub-line { height: 0; }"
                "QListView { background: %2; border: none; outline: none; } QListView::item { padding: 6px 10px; } "
                "QListView::item:selected { background: %3; color: %7; }"
                "QPushButton { background: %2; border: 1px solid %3; color: %3; padding: 4px 12px; } "
                "QPushButton:hover, QPushButton:focus { background: %3; color: %7; }")
            .arg(t.ink.name(), t.sheet.name(), t.blued.name(), t.band.name(), t.on_band.name(), t.rule.name(), t.sheet.name()));
}

}  // namespace

Theme Theme::light() {
    return {"#E9EDEF", "#F7F9FA", "#16222E", "#5E6B76", "#214B7A", "#9C7A2B", "#E6D7A8", "#7C611F",
            "#A8232F", "#2A7263", "#98550A", "#C4CCD2", "#16222E", "#E9EDEF", false};
}

Theme Theme::night() {
    return {"#14191E", "#1C232A", "#E4E8EA", "#93A1AC", "#7FB0E6", "#D2B25E", "#4A4226", "#D2B25E",
            "#E2707A", "#6CC2AE", "#E0A458", "#39444E", "#0C1014", "#C9D2D8", true};
}

const QColor& Theme::severity(const std::string& word) const { return word == "fault" ? ruby : word == "caution" ? amber : verdigris; }

const Theme& theme() { return current; }

bool for_screen(const QPainter& painter) {
    const int device = painter.device()->devType();
    return device == QInternal::Widget || device == QInternal::Image || device == QInternal::Pixmap;
}

const Theme& inks(const QPainter& painter) {
    static const Theme paper = [] {
        Theme inks = Theme::light();
        inks.ground = inks.sheet = Qt::white;
        return inks;
    }();
    return for_screen(painter) ? current : paper;
}

bool desktop_is_dark() {
    static const bool dark = QApplication::palette().color(QPalette::Window).lightness() < 128;
    return dark;
}

void apply_theme(bool dark) {
    desktop_is_dark();
    current = dark ? Theme::night() : Theme::light();
    QApplication::setStyle(QStyleFactory::create("Fusion"));
    QPalette palette;
    palette.setColor(QPalette::Window, current.ground);
    palette.setColor(QPalette::Base, current.sheet);
    palette.setColor(QPalette::WindowText, current.ink);
    palette.setColor(QPalette::Text, current.ink);
    palette.setColor(QPalette::Highlight, current.blued);
    palette.setColor(QPalette::HighlightedText, current.sheet);
    palette.setColor(QPalette::PlaceholderText, current.steel);
    palette.setColor(QPalette::AlternateBase, current.ground);
    palette.setColor(QPalette::Button, current.sheet);
    palette.setColor(QPalette::ButtonText, current.ink);
    palette.setColor(QPalette::ToolTipBase, current.sheet);
    palette.setColor(QPalette::ToolTipText, current.ink);
    palette.setColor(QPalette::Link, current.blued);
    palette.setColor(QPalette::LinkVisited, current.blued);
    palette.setColor(QPalette::BrightText, current.ruby);
    for (const auto shade : {QPalette::Light, QPalette::Midlight, QPalette::Mid, QPalette::Dark}) palette.setColor(shade, current.rule);
    palette.setColor(QPalette::Shadow, current.band);
    for (const auto ink : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText})
        palette.setColor(QPalette::Disabled, ink, current.steel);
    QApplication::setPalette(palette);
    QApplication::setFont(type_on_screen(Type::text));
    qApp->setStyleSheet(style_sheet(current));
}

bool load_fonts() {
    bool all = true;
    for (const char* file : {"EchappeBench-Regular", "EchappeBench-Bold"})
        all = QFontDatabase::addApplicationFont(QString(":/fonts/%1.otf").arg(file)) >= 0 && all;
    return all;
}

double interface_scale() { return scale_in_use; }

void set_interface_scale(double scale) {
    scale_in_use = std::clamp(scale, least_scale, most_scale);
    apply_theme(current.dark);
}

QFont type(Type size, bool bold) {
    static QHash<std::pair<int, bool>, QFont> made;
    const std::pair key(pixels_of_type[static_cast<size_t>(size)], bold);
    if (!made.contains(key)) {
        QFont font("Echappe Bench");
        font.setPixelSize(key.first);
        font.setBold(bold);
        made[key] = font;
    }
    return made[key];
}

QFont type_on_screen(Type size, bool bold) {
    QFont font = type(size, bold);
    font.setPixelSize(static_cast<int>(std::lround(font.pixelSize() * scale_in_use)));
    return font;
}

void wear(QWidget& widget, Type size, bool bold) {
    widget.setProperty("wears", QString(names_of_type[static_cast<size_t>(size)]) + (bold ? "-bold" : ""));
}

QFont paper_font(double points, bool bold) {
    static QHash<std::pair<double, bool>, QFont> made;
    const std::pair key(points, bold);
    if (!made.contains(key)) {
        QFont font("Echappe Bench");
        font.setPointSizeF(points);
        font.setBold(bold);
        made[key] = font;
    }
    return made[key];
}

}  // namespace echappe
