#include "escapement/any_action.h"

#include "number/input_error.h"

namespace echappe {

double pitch_rad(const AnyAction& action) {
    return std::visit([](const auto& one) { return one.pitch_rad(); }, action);
}

double centre_mm(const AnyAction& action) {
    return std::visit([](const auto& one) { return one.centre_mm; }, action);
}

double tip_radius_mm(const AnyAction& action) {
    if (const auto* lever = std::get_if<LeverAction>(&action)) return lever->tooth.toe;
    return std::get<EscapementAction>(action).radius_mm;
}

bool locks(const AnyAction& action) {
    const auto* pendulum = std::get_if<EscapementAction>(&action);
    return !pendulum || pendulum->entry.arc;
}

AnyAction nearer(const AnyAction& action, double depth_mm) {
    return std::visit([&](const auto& one) -> AnyAction { return nearer(one, depth_mm); }, action);
}

AnyAction apart(const AnyAction& action, double by_mm) {
    return std::visit([&](const auto& one) -> AnyAction { return apart(one, by_mm); }, action);
}

EscapementBeat beat_of(const AnyAction& action, std::optional<double> semi_arc_rad) {
    return std::visit([&](const auto& one) { return beat_of(one, semi_arc_rad); }, action);
}

std::optional<EscapementWindow> depth_window(const AnyAction& layout, std::optional<double> semi_arc_rad) {
    return std::visit([&](const auto& one) { return depth_window(one, semi_arc_rad); }, layout);
}

std::optional<EscapementStand> stand_at(const AnyAction& action, const EscapementBeat& beat, double semi_arc_rad, double period) {
    return std::visit([&](const auto& one) { return stand_at(one, beat, semi_arc_rad, period); }, action);
}

std::optional<double> needed_swing_rad(const AnyAction& action, const EscapementBeat& beat) try {
    const auto* lever = std::get_if<LeverAction>(&action);
    return lever ? balance_needed_rad(*lever, beat) : beat.least_rad;
} catch (const InputError&) {
    return {};  // the slot passes the pin by at every swing
}

std::optional<double> lift_angle_rad(const AnyAction& action, const EscapementBeat& beat) try {
    const auto* lever = std::get_if<LeverAction>(&action);
    return lever ? lift_angle_rad(*lever, beat) : std::nullopt;
} catch (const InputError&) {
    return {};
}

}  // namespace echappe
