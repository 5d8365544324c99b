#include "oscillator/drawn_bodies.h"

#include <algorithm>

#include "workings/sum.h"

namespace echappe {

namespace {

bool is_rod(const PendulumPart& part) { return part.shape == "rod"; }

DrawnBody to_begin(const char* name, const char* shape) {
    DrawnBody body;
    body.part.name = name;
    body.part.shape = shape;
    return body;
}

}  // namespace

std::vector<DrawnBody> drawn_bodies(const Pendulum& pendulum) {
    const auto& parts = pendulum.parts;
    std::vector<DrawnBody> bodies;
    if (std::none_of(parts.begin(), parts.end(), is_rod)) bodies.push_back(to_begin("rod", "rod"));
    for (const PendulumPart& part : parts) bodies.push_back({part, true});
    if (std::all_of(parts.begin(), parts.end(), is_rod)) bodies.push_back(to_begin("bob", "lens"));
    return bodies;
}

const std::vector<std::string>& sizes_of_body(const std::string& shape) {
    static const std::vector<std::string> upright = {"diameter_mm", "length_mm", "top_mm", "mass_kg"};
    static const std::vector<std::string> flat = {"diameter_mm", "thickness_mm", "centre_mm", "mass_kg"};
    static const std::vector<std::string> point = {"centre_mm", "mass_kg"};
    return shape == "rod" || shape == "cylinder" ? upright : shape == "point" ? point : flat;
}

void type_into_body(Pendulum& pendulum, size_t which, const std::string& field, const std::string& word) {
    const std::vector<DrawnBody> bodies = drawn_bodies(pendulum);
    PendulumPart body = bodies.at(which).part;
    type_into_record(PendulumPart::record(), &body, field, word);
    // A rod that waits stands before all parts.
    const size_t at = bodies.front().begun ? which : which - std::min<size_t>(which, 1);
    if (bodies[which].begun) pendulum.parts[at] = body;
    else if (!word.empty()) pendulum.parts.insert(which == 0 ? pendulum.parts.begin() : pendulum.parts.end(), body);
}

}  // namespace echappe
