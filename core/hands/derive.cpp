#include "hands/derive.h"

#include "number/input_error.h"
#include "number/units.h"
#include "workings/attempted.h"

namespace echappe {
namespace {

constexpr double gravity_m_s2 = 9.80665;
// Workshop practice: a pipe turns freely with a fiftieth of its size to spare, and tilts its hand beyond a fifteenth.
constexpr double least_play_mm = 0.02, least_play = 0.008, most_play = 0.05;
constexpr double least_room_mm = 0.4;
constexpr double usual_end_shake_mm = 0.2, usual_thickness_mm = 0.5;

/// A thread at the tip of the level hand pulls with the hand's own weight.
void take_thread(HandsFrictionInput& in, double slips_at_g) {
    if (!in.hand_length_mm) throw InputError("hand_length_mm", "nothing", "the hand's length, where the thread hangs");
    const double own = in.hand_g && in.hand_centre_mm ? *in.hand_g * *in.hand_centre_mm : 0;
    in.torque_N_mm = gravity_m_s2 / 1000 * (slips_at_g * *in.hand_length_mm + own);
}

HandsFrictionInput friction_of(const HandsRecord& r) {
    HandsFrictionInput in = r.friction;
    if (r.slips_at_g && !in.torque_N_mm) take_thread(in, *r.slips_at_g);
    return in;
}

void pipe(DerivedHands& out, const std::string& between, const std::optional<double>& inner, const std::optional<double>& bore) {
    if (!inner || !bore) return;
    HandsRoom room{between, *bore - *inner, true, "", false};
    const double least = std::max(least_play_mm, least_play * *inner);
    room.rubs = room.mm <= 0;
    if (room.rubs) room.right = false, room.words = "does not go on";
    else if (room.mm < least)
        room.right = false, room.words = "binds when it is warm or dirty: " + print_fixed(least, 2) + " mm are wanted";
    else if (room.mm > most_play * *inner) room.right = false, room.words = "so much lets the hand tilt: sleeve it, or a new pipe";
    else room.words = "turns freely";
    out.pipes.push_back(room);
}

void height(DerivedHands& out, const std::string& between, double mm, double wanted) {
    HandsRoom room{between, mm, mm >= wanted, "", mm <= 0};
    room.words = mm <= 0 ? "they touch" : mm < wanted ? "too little: " + print_fixed(wanted, 2) + " mm with the end shake" : "clear";
    out.heights.push_back(room);
}

void derive_heights(const HandsRecord& r, DerivedHands& out) {
    const double wanted = least_room_mm + r.end_shake_mm.value_or(usual_end_shake_mm),
                 thick = r.hand_thickness_mm.value_or(usual_thickness_mm);
    if (r.hour_height_mm) height(out, "dial and hour hand", *r.hour_height_mm, wanted);
    if (r.hour_height_mm && r.minute_height_mm)
        height(out, "hour and minute hand", *r.minute_height_mm - *r.hour_height_mm - thick, wanted);
    if (r.minute_height_mm && r.glass_height_mm)
        height(out, "minute hand and glass", *r.glass_height_mm - *r.minute_height_mm - thick, wanted);
}

/// In proportion to what was measured of it, else of a clock of middling size.
HandsRecord with_usual_sizes(HandsRecord r) {
    constexpr double usual_arbor = 3, cannon_over_arbor = 1.7, hour_over_cannon = 1.4, free_play = 0.05;
    const auto fill = [](std::optional<double>& size, double usual) { size = size.value_or(usual); };
    fill(r.arbor_mm, r.cannon_bore_mm ? *r.cannon_bore_mm - free_play : r.cannon_mm ? *r.cannon_mm / cannon_over_arbor : usual_arbor);
    fill(r.cannon_bore_mm, *r.arbor_mm + free_play);
    fill(r.cannon_mm, r.hour_bore_mm ? *r.hour_bore_mm - 2 * free_play : *r.arbor_mm * cannon_over_arbor);
    fill(r.hour_bore_mm, *r.cannon_mm + 2 * free_play);
    fill(r.hour_mm, *r.cannon_mm * hour_over_cannon);
    fill(r.hand_thickness_mm, usual_thickness_mm);
    constexpr double over_dial = 2, between = 1.5, under_glass = 4;
    fill(r.hour_height_mm, over_dial);
    fill(r.minute_height_mm, *r.hour_height_mm + *r.hand_thickness_mm + between);
    fill(r.glass_height_mm, *r.minute_height_mm + *r.hand_thickness_mm + under_glass);
    return r;
}

void derive_oil(const HandsRecord& r, DerivedHands& out) {
    out.oil = {"Clean old oil off first: a setting made on gum does not last.",
               "A trace on the minute wheel's stud, and where hour pipe and cannon rub; none on the teeth."};
    const std::string& kind = r.friction.kind;
    if (kind == "leaf") out.oil.push_back("A little grease between the leaf and the faces that slip on it.");
    if (kind == "coil")
        out.oil.push_back("Grease on the washer's faces alone: never oil on a close-coiled spring, it runs along the coils and stays.");
    if (kind == "pinched") out.oil.push_back("Grease in the pinched pipe, and the bore must be smooth: a dry pipe tears.");
    out.oil.push_back("The washer's square must be free on the arbor's, or the pin's thickness sets the friction.");
}

}  // namespace

const Record& HandsRoom::record() {
    using Out = HandsRoom;
    static const Record record = Fields<Out>()
                                     .add("between", &Out::between, "", "these")
                                     .add("mm", &Out::mm, "mm", "of pipes by the diameter")
                                     .add("right", &Out::right, "", "neither too little nor too much")
                                     .add("words", &Out::words, "", "what comes of it");
    return record;
}

DerivedHands derive_hands(const std::optional<HandsRecord>& hands) {
    DerivedHands out;
    if (!hands) return out;
    out.there = true;
    out.drawn = with_usual_sizes(*hands);
    out.friction = attempted(out.friction_fault, [&] { return hands_friction(friction_of(*hands)); });
    pipe(out, "cannon on the arbor", hands->arbor_mm, hands->cannon_bore_mm);
    pipe(out, "hour pipe on the cannon", hands->cannon_mm, hands->hour_bore_mm);
    derive_heights(*hands, out);
    derive_oil(*hands, out);
    return out;
}

std::vector<Finding> findings_of_hands(const DerivedHands& d) {
    std::vector<Finding> all;
    if (d.friction && d.friction->state != "right" && d.friction->state != "")
        all.push_back({"hands.friction", d.friction->state == "slips" || d.friction->state == "bends" ? "fault" : "caution",
                       d.friction->state == "bends" ? "The hands are held too hard." : "The hands slip.", d.friction->verdict, "", ""});
    const auto rub = [&](const char* id, const char* sentence, const std::vector<HandsRoom>& rooms) {
        std::string reason;
        for (const HandsRoom& room : rooms)
            if (!room.right)
                reason += (reason.empty() ? "" : " ") + room.between + ", " + print_fixed(room.mm, 2) + " mm: " + room.words + ".";
        if (!reason.empty()) all.push_back({id, "caution", sentence, reason, "", ""});
    };
    rub("hands.pipes", "A pipe of the hands does not run as it should.", d.pipes);
    rub("hands.foul", "The hands have too little room.", d.heights);
    return all;
}

}  // namespace echappe
