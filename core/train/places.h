#pragma once

#include "train/derive.h"
#include "workings/edit.h"

namespace echappe {

using Place = std::array<double, 2>;

/// Where two distances from two holes cross: the nearer to where it is drawn first. One place where they touch, none where they miss.
std::vector<Place> crossings_of(Place a, double from_a_mm, Place b, double from_b_mm, Place near);

/// What was typed for the place of a hole: "35.2 60.1" from the middle of the lower edge, or "35.1 from great, 30.6 from escape",
/// where both crossings are.
struct PlaceTyped {
    std::vector<Place> places;  ///< the first is taken; "other" behind the text takes the second
    bool back = false;          ///< "back -12 60": the hole in the back plate, which is not opposite
};
/// Throws InputError.
PlaceTyped read_place(const TrainRecord& record, const DerivedTrain& derived, const std::string& arbor, const std::string& text);

Edit<TrainRecord> set_place(const TrainRecord& record, const std::string& arbor, Place at_mm);
Edit<TrainRecord> set_back_place(const TrainRecord& record, const std::string& arbor, Place at_mm);
/// The hole in the back plate is opposite the one in front.
Edit<TrainRecord> set_opposite(const TrainRecord& record, const std::string& arbor);
/// The hole is not known any more: it follows from what was measured.
Edit<TrainRecord> forget_place(const TrainRecord& record, const std::string& arbor);

/// A measured distance beside the one between the holes as they are placed.
struct PlacedDistance {
    std::string wheel_of;
    std::string pinion_of;
    double measured_mm = 0;
    double placed_mm = 0;
    double u_mm = 0;
    double free = 1;  ///< share of a fault in it that shows as strain; nought: nothing checks it
    double sigma() const { return (measured_mm - placed_mm) / u_mm; }
    /// Strain against what chance would leave: over 3 something is wrong with this one or with one it hangs together with
    /// (Baarda 1968, data snooping).
    double oddness() const;
};
/// The holes placed by least squares so that all measured distances are met as well as can be.
struct PlaceFit {
    std::map<std::string, Place> places;
    std::vector<PlacedDistance> distances;  ///< the oddest first
    bool told_apart = false;                ///< whether the oddest is odder than every other: too few distances tell no one
};
/// From where the holes are drawn; the arbor whose turn is known stays where it is, and the way to its first neighbour keeps its
/// direction. Gauss and Newton's least squares with a weak hold on where everything stands (1 m), to 1e-9 mm; by Eigen.
PlaceFit fit_places(const TrainRecord& record, const DerivedTrain& derived);
Edit<TrainRecord> place_by(const PlaceFit& fit);
/// A distance between two holes, wherever they are: "46.2 to great", "46.2±0.03 to third". Of two that turn each other it is the
/// centre distance of their mesh. Throws InputError.
Edit<TrainRecord> store_distance(const TrainRecord& record, const DerivedTrain& derived, const std::string& arbor, const std::string& text,
                                 const std::string& id, const Taken& taken);
Edit<TrainRecord> set_plate(const TrainRecord& record, const std::string& text);

// The plate by hand. Places in mm from the middle of the lower edge; all throw InputError without a plate.
Edit<TrainRecord> add_pillar(const TrainRecord& record, Place at_mm);
/// The pillar of this place in the list.
Edit<TrainRecord> move_pillar(const TrainRecord& record, size_t pillar, Place to_mm);
Edit<TrainRecord> take_pillar_away(const TrainRecord& record, size_t pillar);
/// Its width and height, as they are dragged; corners go with them. No less than 1 mm.
Edit<TrainRecord> resize_plate(const TrainRecord& record, double width_mm, double height_mm);

/// Holes from a table: columns arbor, x_mm, y_mm, and back_x_mm, back_y_mm where the back plate's is not opposite. How many.
/// Throws InputError that names the row.
size_t keep_places_csv(TrainRecord& record, const std::string& csv);
/// Holes from the circles of a drawing: each on a layer that bears its arbor's name, "Centre", "centre back" for the back plate.
/// Circles that tell of no arbor are passed over. Throws InputError when none tells of one.
size_t keep_places_dxf(TrainRecord& record, const std::string& path);

}  // namespace echappe
