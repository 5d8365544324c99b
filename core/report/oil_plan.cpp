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
        const bool wooden = m_derived.wood.there || (m_job.train.plate && m_job.train.plate->wooden());
        for (const DerivedHole& hole : m_derived.pivots.holes) pivot(hole, wooden);
        escapement(wooden);
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
    void escapement(bool wooden) {
        balance();
        pallet_arbor(wooden);
        if (m_derived.escapement.kind.empty()) return;
        const bool lever = m_derived.escapement.kind == "lever" || m_derived.escapement.kind == "pin";
        add("pallets", "Pallet faces", "oil", "A trace on two or three teeth of the escape wheel: it carries it round.");
        if (lever) add("fork", "Fork, horns and roller", "dry", "Oil there drags and gathers dust.");
        else add("crutch", "Crutch where it carries the rod", "oil", "A trace.");
    }
    void balance() {
        if (!m_job.oscillator || !m_job.oscillator->as<Balance>()) return;
        add("balance", "Balance pivots, both ends", "oil",
            is_watch(m_job)
                ? "A small drop between hole jewel and endstone, put in through the hole; where there is no endstone, in the cup."
                : "A small drop in each cup or screw, before the balance goes in.");
        add("hairspring", "Hairspring", "dry", "Oil glues its coils together: it gains by minutes.");
        add("roller", "Impulse pin and roller", "dry", "Oil there picks up dust and drags.");
    }
    /// No wheel sits on it, so that the train does not name it.
    void pallet_arbor(bool wooden) {
        const std::string kind = m_job.train.escapement.value_or("");
        if (kind == "cylinder" || (kind == "verge" && m_job.oscillator && m_job.oscillator->as<Balance>())) return;
        if (kind.empty() && !m_job.oscillator) return;
        if (wooden) add("pallet-arbor", "Pallet arbor's holes", "dry", "Steel in wood runs dry; a brass bush there has a trace.");
        else if (kind == "lever" && is_watch(m_job))
            add("pallet-arbor", "Pallet arbor's holes", "dry",
                "Most leave them dry in a watch: they hardly turn, and oil only slows them. Some give a large one a trace.");
        else
            add("pallet-arbor", "Pallet arbor's holes, the back cock's too", "oil",
                "A trace: they swing a few degrees and never turn round.");
    }
    void springs() {
        for (const DriveRecord& drive : m_job.power.drives) {
            if (const auto* weight = drive.as<WeightDrive>(); weight && weight->moving_pulleys > 0)
                add("pulley:" + drive.train, "Pulley on its arbor, " + drive.train, "oil", "A drop; none on the line.");
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
        if (is_watch(m_job)) return add("keyless", "Winding and setting work", "grease", "A trace where steel slides on steel.");
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

bool is_watch(const Job& job) {
    constexpr double widest_mm = 60;
    if (!job.oscillator || !job.oscillator->as<Balance>()) return false;
    const std::string kind = job.train.escapement.value_or("");
    // A usual plate tells nothing of the size; a round one with a lever and one train alone is a watch's.
    if (job.train.plate && job.train.plate->assumed)
        return job.train.plate->shape == "round" && job.train.trains.size() == 1 &&
               (kind == "lever" || kind == "cylinder" || kind == "verge");
    if (job.train.plate) return std::max(job.train.plate->width_mm, job.train.plate->height_mm) <= widest_mm;
    // Not even its plates are known: by its pivots.
    constexpr double thickest_mm = 0.6;
    bool any = false;
    for (const HoleRecord& hole : job.survey.pivots.holes) {
        if (!hole.pivot_mm) continue;
        if (*hole.pivot_mm > thickest_mm) return false;
        any = true;
    }
    return any;
}

std::vector<OilPlace> oil_plan(const Job& job, const Derived& derived) { return Plan(job, derived).run(); }

}  // namespace echappe
