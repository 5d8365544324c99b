#include "report/oil_plan.h"

#include <algorithm>
#include <cmath>

#include "job/derived.h"
#include "number/constants.h"
#include "number/units.h"

namespace echappe {
namespace {

/// A sink as plates mostly have it: a pivot's width round the pivot and at most a millimetre and a quarter, as deep as half of the pivot, a
/// third of the plate and 0.8 mm allow. A bowl cut by a ball holds oil where it is wider than the pivot: from the rim down to where the
/// hole begins, the ball's section less the pivot's.
double sink_mm3(double pivot, double plate) {
    const double rim = pivot / 2 + std::min(pivot, 1.25), deep = std::min({pivot / 2, plate / 3, 0.8});
    const double ball = (rim * rim + deep * deep) / (2 * deep), hole = pivot / 2;
    // Below the ball's middle: the rim, and where the bowl is no wider than the hole.
    const double above = ball - deep, below = std::sqrt(ball * ball - hole * hole);
    return pi * (below * below * (below - above) - (std::pow(below, 3) - std::pow(above, 3)) / 3);
}

class Plan {
public:
    Plan(const Job& job, const Derived& derived) : m_job(job), m_derived(derived) {}

    std::vector<OilPlace> run() {
        // Oak plates say so before anything else of the wood is known.
        const std::string plates = m_job.train.plate ? m_job.train.plate->material : "brass";
        const bool wooden = m_derived.wood.there || (plates != "brass" && plates != "steel");
        for (const DerivedHole& hole : m_derived.pivots.holes) pivot(hole, wooden);
        escapement();
        springs();
        strike();
        hands();
        dry(wooden);
        for (OilPlace& place : out)
            place.done = std::find(m_job.bench.oiled.begin(), m_job.bench.oiled.end(), place.id) != m_job.bench.oiled.end();
        return std::move(out);
    }

private:
    const Job& m_job;
    const Derived& m_derived;
    std::vector<OilPlace> out;

    void add(const std::string& id, const std::string& words, const std::string& what, const std::string& how) {
        OilPlace place;
        place.id = id, place.words = words, place.what = what, place.how = how;
        out.push_back(std::move(place));
    }
    void pivot(const DerivedHole& hole, bool wooden) {
        OilPlace place;
        place.id = hole.id, place.words = hole.name + " hole", place.plate = hole.plate, place.x_mm = hole.x_mm, place.y_mm = hole.y_mm;
        place.what = wooden ? "dry" : "oil";
        // A bush of brass in wood is oiled on its pivot; it has no sink to be filled.
        const bool bushed = hole.record.bush || hole.old_bush || hole.record.done;
        if (wooden && bushed) {
            place.what = "oil";
            place.how = "A brass bush in wood: a trace on the pivot. None may reach the wood: oil swells the grain.";
        } else if (wooden) {
            place.how = "Steel in wood runs dry, or with a trace of graphite or tallow: oil swells the grain.";
        } else {
            fill_sink(hole, place);
        }
        out.push_back(std::move(place));
    }
    static void fill_sink(const DerivedHole& hole, OilPlace& place) {
        const std::string missing = hole.record.pivot_mm ? hole.thickness_mm ? "" : "the thickness of its plate" : "its pivot";
        place.how = "Half to two thirds of its sink after it has drawn in";
        if (missing.empty()) {
            constexpr double half = 0.5, most = 2.0 / 3;
            const double whole = sink_mm3(*hole.record.pivot_mm, *hole.thickness_mm);
            place.mm3 = (half + most) / 2 * whole;
            place.how += ", " + print_short(half * whole, 2) + " to " + print_short(most * whole, 2) + " mm³";
        }
        place.how +=
            "; none may run down the plate." + (missing.empty() ? "" : " How much that is follows once " + missing + " is measured.");
    }
    void escapement() {
        if (m_derived.escapement.kind.empty()) return;
        const bool lever = m_derived.escapement.kind == "lever" || m_derived.escapement.kind == "pin";
        add("pallets", "Pallet faces", "oil", "A trace on two or three teeth of the escape wheel: it carries it round.");
        if (lever) add("fork", "Fork, horns and roller", "dry", "Oil there drags and gathers dust.");
        else add("crutch", "Crutch where it carries the rod", "oil", "A trace.");
        if (lever) add("hairspring", "Hairspring", "dry", "Oil glues its coils together: it gains by minutes.");
    }
    void springs() {
        for (const DriveRecord& drive : m_job.power.drives) {
            if (drive.as<WeightDrive>() || drive.as<RewoundDrive>()) {
                add("click:" + drive.train, "Click and ratchet, " + drive.train, "grease", "A trace where they rub.");
                continue;
            }
            add("spring:" + drive.train, "Mainspring, " + drive.train, "grease",
                "Along its whole length, thin; and the barrel's floor and cover.");
            add("barrel:" + drive.train, "Barrel arbor, " + drive.train, "oil", "Both ends, before it is between the plates.");
            add("click:" + drive.train, "Click and its spring, " + drive.train, "grease", "A trace where they rub.");
            if (drive.as<FuseeDrive>())
                add("chain:" + drive.train, "Chain or line, " + drive.train, "dry", "A chain is oiled once, wiped, and then left.");
        }
    }
    void strike() {
        if (!m_job.strike) return;
        add("strike:levers", "Studs of rack, lifting piece and detents", "oil", "A trace on each stud.");
        add("strike:locking", "Locking faces and the warning pin", "oil", "A trace.");
        add("strike:hammer", "Hammer's tail where the pins lift it", "grease", "A trace.");
        add("strike:fly", "Fly's friction on its arbor", "dry", "It must hold and give: oiled it slips.");
    }
    void hands() {
        add("hands:stud", "Minute wheel's stud", "oil", "A trace.");
        add("hands:friction", "Between the faces where the hands slip", "grease", "A trace, so that it does not grip in jerks.");
        add("hands:coil", "A close-coiled tension spring", "dry", "Oil creeps between its coils and takes its grip.");
    }
    void dry(bool wooden) {
        add("teeth", "Teeth of wheels and leaves of pinions", "dry", "Oil holds grit and grinds both.");
        if (wooden) add("pulleys", "Wooden pulleys and drums", "dry", "Oil swells them and rots the line.");
        for (const DriveRecord& drive : m_job.power.drives)
            if (drive.as<RewoundDrive>()) add("contacts", "Electric contacts", "dry", "No oil and no lacquer: it stops there.");
    }
};

}  // namespace

std::vector<OilPlace> oil_plan(const Job& job, const Derived& derived) { return Plan(job, derived).run(); }

}  // namespace echappe
