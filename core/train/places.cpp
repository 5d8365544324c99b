#include "train/places.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "number/input_error.h"
#include "number/least_squares.h"
#include "number/numeral.h"
#include "number/units.h"
#include "train/edits.h"

namespace echappe {
namespace {

Place place_of(const DerivedTrain& derived, const std::string& id) {
    const DerivedArbor* arbor = derived.arbor(id);
    return arbor ? Place{arbor->x_mm, arbor->y_mm} : Place{0, 0};
}

[[noreturn]] void no_place(const TrainRecord& record, const std::string& arbor, const std::string& got) {
    throw InputError(
        "place of " + record.name_of_arbor(arbor), got,
        "x and y in mm from the middle of the lower edge, as in -12.5 60.1, or two distances, as in 35.1 from great, 30.6 from "
        "escape; other behind them takes the other crossing");
}

double checked(const TrainRecord& record, const std::string& arbor, const std::string& word, double least) {
    const auto value = read_number(word);
    constexpr double far = 1e4;
    if (!value || *value < least || std::abs(*value) > far) no_place(record, arbor, in_quotes(word));
    return *value;
}

std::string other_arbor(const TrainRecord& record, const std::string& arbor, const std::string& name) {
    const JobArbor* other = record.arbor_called(name);
    if (!other || other->train.id == arbor) no_place(record, arbor, in_quotes(name));
    return other->train.id;
}

/// "35.1 from great": the distance and the place it is from.
std::pair<double, Place> distance_from(const TrainRecord& record, const DerivedTrain& derived, const std::string& arbor,
                                       const std::string& text) {
    const size_t from = text.find(" from ");
    if (from == std::string::npos) no_place(record, arbor, in_quotes(text));
    const std::string other = other_arbor(record, arbor, as_typed(text.substr(from + 6)));
    return {checked(record, arbor, as_typed(text.substr(0, from)), 1e-3), place_of(derived, other)};
}

}  // namespace

std::vector<Place> crossings_of(Place a, double from_a, Place b, double from_b, Place near) {
    const double dx = b[0] - a[0], dy = b[1] - a[1];
    const double apart = std::hypot(dx, dy);
    if (apart == 0) return {};
    const double along = (from_a * from_a - from_b * from_b + apart * apart) / (2 * apart);
    const double square = from_a * from_a - along * along;
    const double touching = 1e-9 * from_a * from_a;
    if (square < -touching) return {};
    const double off = std::sqrt(std::max(0.0, square));
    const Place foot = {a[0] + along * dx / apart, a[1] + along * dy / apart};
    std::vector<Place> out = {{foot[0] - off * dy / apart, foot[1] + off * dx / apart}};
    if (off > 0) out.push_back({foot[0] + off * dy / apart, foot[1] - off * dx / apart});
    const auto away = [&](const Place& p) { return std::hypot(p[0] - near[0], p[1] - near[1]); };
    std::sort(out.begin(), out.end(), [&](const Place& p, const Place& q) { return away(p) < away(q); });
    return out;
}

PlaceTyped read_place(const TrainRecord& record, const DerivedTrain& derived, const std::string& arbor, const std::string& typed) {
    std::string text = as_typed(typed);
    const bool other = text.ends_with("other");
    if (other) text = as_typed(text.substr(0, text.size() - 5));
    PlaceTyped out;
    out.back = text.starts_with("back ");
    if (out.back) text = as_typed(text.substr(5));
    if (text.find("from") == std::string::npos) {
        const size_t gap = text.find_first_of(" ;");
        if (gap == std::string::npos || other) no_place(record, arbor, in_quotes(text));
        std::string second = as_typed(text.substr(gap + 1));
        std::string first = text.substr(0, gap);
        if (first.ends_with(',')) first.pop_back();
        constexpr double anywhere = -1e4;
        out.places = {{checked(record, arbor, first, anywhere), checked(record, arbor, second, anywhere)}};
        return out;
    }
    // A comma may be decimal: the distances part at "from".
    const size_t from = text.find(" from ");
    const size_t cut = from == std::string::npos ? from : text.find(',', from);
    if (cut == std::string::npos) no_place(record, arbor, in_quotes(text));
    const auto [from_a, a] = distance_from(record, derived, arbor, as_typed(text.substr(0, cut)));
    const auto [from_b, b] = distance_from(record, derived, arbor, as_typed(text.substr(cut + 1)));
    out.places = crossings_of(a, from_a, b, from_b, place_of(derived, arbor));
    if (out.places.empty())
        no_place(record, arbor, "distances of " + print_short(from_a) + " and " + print_short(from_b) + " mm, which do not cross");
    if (other && out.places.size() > 1) std::swap(out.places[0], out.places[1]);
    return out;
}

namespace {

Place to_micron(Place at) { return {std::round(at[0] * 1000) / 1000, std::round(at[1] * 1000) / 1000}; }

/// A change of what is known of an arbor's holes.
Edit<TrainRecord> change_holes(const TrainRecord& record, const std::string& arbor, const std::string& what,
                               const std::function<void(JobArbor&)>& change) {
    return {what + record.name_of_arbor(arbor), [=](TrainRecord& out) {
                for (JobArbor& one : out.arbors)
                    if (one.train.id == arbor) change(one);
            }};
}

std::vector<double> kept(Place at_mm) {
    const Place at = to_micron(at_mm);
    return {at[0], at[1]};
}

}  // namespace

Edit<TrainRecord> set_place(const TrainRecord& record, const std::string& arbor, Place at_mm) {
    return change_holes(record, arbor, "The hole of ", [=](JobArbor& one) { one.position_mm = kept(at_mm); });
}

Edit<TrainRecord> forget_place(const TrainRecord& record, const std::string& arbor) {
    return change_holes(record, arbor, "Forget the hole of ", [](JobArbor& one) { one.position_mm.clear(); });
}

Edit<TrainRecord> set_back_place(const TrainRecord& record, const std::string& arbor, Place at_mm) {
    return change_holes(record, arbor, "The back hole of ", [=](JobArbor& one) { one.back_mm = kept(at_mm); });
}

Edit<TrainRecord> set_opposite(const TrainRecord& record, const std::string& arbor) {
    return change_holes(record, arbor, "Opposite holes of ", [](JobArbor& one) { one.back_mm.clear(); });
}

double PlacedDistance::oddness() const {
    constexpr double checked_by_nothing = 1e-6;
    return free < checked_by_nothing ? 0 : std::abs(sigma()) / std::sqrt(free);
}

PlaceFit fit_places(const TrainRecord& record, const DerivedTrain& derived) {
    PlaceFit fit;
    std::vector<std::string> ids;
    for (const DerivedArbor& arbor : derived.arbors) {
        ids.push_back(arbor.id);
        fit.places[arbor.id] = {arbor.x_mm, arbor.y_mm};
    }
    for (const DerivedMesh& mesh : derived.meshes)
        if (mesh.measured_centre_mm)
            fit.distances.push_back({mesh.wheel_of, mesh.pinion_of, mesh.measured_centre_mm->value, 0, mesh.measured_centre_mm->u});
    for (const Measurement& m : record.measurements) {
        const QuantityKey& key = m.evidence.key;
        const bool meshes = key.wheel_of && key.pinion_of && derived.mesh(*key.wheel_of, *key.pinion_of);
        if (m.left_out || key.kind != "centre_distance_mm" || meshes || !fit.places.contains(*key.wheel_of) ||
            !fit.places.contains(*key.pinion_of))
            continue;
        fit.distances.push_back({*key.wheel_of, *key.pinion_of, m.evidence.value, 0, m.evidence.u});
    }
    if (fit.distances.empty()) throw InputError("distances", "none measured", "the distances between holes, taken by the line");
    const auto index = [&](const std::string& id) { return std::find(ids.begin(), ids.end(), id) - ids.begin(); };
    const auto unknowns = static_cast<Eigen::Index>(2 * ids.size());
    const auto rows = static_cast<Eigen::Index>(fit.distances.size());
    constexpr double hold_mm = 1000, fixed_mm = 1e-6;
    Eigen::VectorXd at(unknowns), start(unknowns), hold(unknowns);
    for (size_t i = 0; i < ids.size(); ++i) {
        const auto k = static_cast<Eigen::Index>(2 * i);
        start[k] = fit.places[ids[i]][0];
        start[k + 1] = fit.places[ids[i]][1];
        hold[k] = hold[k + 1] = 1 / (ids[i] == record.reference.arbor ? fixed_mm : hold_mm);
    }
    at = start;
    Eigen::MatrixXd J;
    constexpr int most_steps = 60;
    for (int step = 0; step < most_steps; ++step) {
        J = Eigen::MatrixXd::Zero(rows + unknowns, unknowns);
        Eigen::VectorXd r(rows + unknowns);
        for (Eigen::Index d = 0; d < rows; ++d) {
            const PlacedDistance& distance = fit.distances[static_cast<size_t>(d)];
            const Eigen::Index a = 2 * index(distance.wheel_of), b = 2 * index(distance.pinion_of);
            const double dx = at[b] - at[a], dy = at[b + 1] - at[a + 1];
            const double apart = std::max(1e-6, std::hypot(dx, dy));
            r[d] = (apart - distance.measured_mm) / distance.u_mm;
            J(d, b) = dx / apart / distance.u_mm, J(d, b + 1) = dy / apart / distance.u_mm;
            J(d, a) = -J(d, b), J(d, a + 1) = -J(d, b + 1);
        }
        for (Eigen::Index k = 0; k < unknowns; ++k) r[rows + k] = (at[k] - start[k]) * hold[k], J(rows + k, k) = hold[k];
        const Eigen::VectorXd by = least_squares(J, -r);
        at += by;
        if (by.cwiseAbs().maxCoeff() < 1e-9) break;
    }
    for (size_t i = 0; i < ids.size(); ++i)
        fit.places[ids[i]] = {at[static_cast<Eigen::Index>(2 * i)], at[static_cast<Eigen::Index>(2 * i + 1)]};
    // What of a fault in each reading shows in its own strain: the diagonal of I − J J⁺.
    const Eigen::MatrixXd spread = pseudo_inverse(J);
    for (Eigen::Index d = 0; d < rows; ++d) fit.distances[static_cast<size_t>(d)].free = std::max(0.0, 1 - J.row(d).dot(spread.col(d)));
    for (PlacedDistance& distance : fit.distances) {
        const Place a = fit.places[distance.wheel_of], b = fit.places[distance.pinion_of];
        distance.placed_mm = std::hypot(b[0] - a[0], b[1] - a[1]);
    }
    std::stable_sort(fit.distances.begin(), fit.distances.end(),
                     [](const PlacedDistance& a, const PlacedDistance& b) { return a.oddness() > b.oddness(); });
    // Without the one the misfit falls by the square of its oddness: three sigma more than without the next tells them apart.
    constexpr double tells = 9;
    const auto falls = [&](size_t i) { return i < fit.distances.size() ? fit.distances[i].oddness() * fit.distances[i].oddness() : 0; };
    fit.told_apart = falls(0) - falls(1) > tells;
    return fit;
}

Edit<TrainRecord> place_by(const PlaceFit& fit) {
    return {"Place the holes by what was measured", [=](TrainRecord& out) {
                for (JobArbor& arbor : out.arbors) {
                    const auto at = fit.places.find(arbor.train.id);
                    if (at != fit.places.end()) arbor.position_mm = kept(at->second);
                }
            }};
}

Edit<TrainRecord> store_distance(const TrainRecord& record, const DerivedTrain& derived, const std::string& arbor, const std::string& text,
                                 const std::string& id, const Taken& taken) {
    const std::string field = "distance from " + record.name_of_arbor(arbor);
    const std::string typed = as_typed(text);
    const size_t to = typed.find(" to ");
    if (to == std::string::npos) throw InputError(field, in_quotes(typed), "a distance and the other arbor, as in 46.2 to great");
    const JobArbor* there = record.arbor_called(as_typed(typed.substr(to + 4)));
    if (!there || there->train.id == arbor) throw InputError(field, in_quotes(typed), "the name of another arbor of this movement");
    const std::string& other = there->train.id;
    const bool driven = derived.mesh(other, arbor) != nullptr;
    const QuantityKey key = {"centre_distance_mm", {}, driven ? other : arbor, driven ? arbor : other};
    const Reading reading = parse_reading(typed.substr(0, to), base_unit(Dimension::length), field);
    const Range& range = Evidence::record().find("value")->range;
    if (!range.holds(reading.value)) throw InputError(field, in_quotes(typed), range.sentence());
    Evidence evidence{key, reading.value, reading.u.value_or(key.declared().workshop_u)};
    if (!Evidence::record().find("u")->range.holds(evidence.u)) throw InputError(field, in_quotes(typed), "an uncertainty above 0");
    return store_reading(record, evidence, id, taken);
}

Edit<TrainRecord> set_plate(const TrainRecord& record, const std::string& text) {
    if (as_typed(text).empty()) return {"No plate", [](TrainRecord& out) { out.plate.reset(); }};
    const Plate plate = read_plate(text, record.plate);
    return {"The plate", [=](TrainRecord& out) { out.plate = plate; }};
}

namespace {

Edit<TrainRecord> change_plate(const TrainRecord& record, const std::string& name, const std::function<void(Plate&)>& change) {
    if (!record.plate) throw InputError("plate", "none", "a plate, by F12: arched 120 x 180");
    return {name, [=](TrainRecord& out) {
                if (out.plate) change(*out.plate);
            }};
}

void throw_unless_pillar(const TrainRecord& record, size_t pillar) {
    const size_t there = record.plate ? record.plate->pillars.size() : 0;
    if (pillar >= there) throw InputError("pillar", std::to_string(pillar + 1), "one of " + std::to_string(there));
}

}  // namespace

Edit<TrainRecord> add_pillar(const TrainRecord& record, Place at_mm) {
    if (record.plate) record.plate->hold_pillar(at_mm);
    return change_plate(record, "A pillar", [=](Plate& plate) { plate.pillars.push_back(to_micron(at_mm)); });
}

Edit<TrainRecord> move_pillar(const TrainRecord& record, size_t pillar, Place to_mm) {
    throw_unless_pillar(record, pillar);
    record.plate->hold_pillar(to_mm);
    return change_plate(record, "Move a pillar", [=](Plate& plate) { plate.pillars.at(pillar) = to_micron(to_mm); });
}

Edit<TrainRecord> take_pillar_away(const TrainRecord& record, size_t pillar) {
    throw_unless_pillar(record, pillar);
    return change_plate(record, "A pillar less",
                        [=](Plate& plate) { plate.pillars.erase(plate.pillars.begin() + static_cast<std::ptrdiff_t>(pillar)); });
}

Edit<TrainRecord> resize_plate(const TrainRecord& record, double width_mm, double height_mm) {
    return change_plate(record, "The plate's size", [=](Plate& plate) {
        constexpr double least = 1, tenths = 10;
        const double wide = std::max(least, std::round(width_mm * tenths) / tenths);
        const double high = std::max(least, std::round(height_mm * tenths) / tenths);
        for (auto& [x, y] : plate.corners) x *= wide / plate.width_mm, y *= high / plate.height_mm;
        const bool one_size = plate.shape == "round" || plate.shape == "three-quarter";
        const double across = std::abs(wide - plate.width_mm) > std::abs(high - plate.height_mm) ? wide : high;
        plate.width_mm = one_size ? across : wide;
        plate.height_mm = one_size ? across : high;
        plate.assumed = false;
    });
}

}  // namespace echappe
