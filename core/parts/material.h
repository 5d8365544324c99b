#pragma once

#include <string>
#include <vector>

namespace echappe {

/// What parts are made of. Figures are middling ones of handbooks: for masses, deflections and speeds of cut, not for proofs of strength.
struct Material {
    std::string id;  ///< "engraving brass"
    double density_kg_m3 = 0;
    double modulus_N_mm2 = 0;   ///< along the grain, of wood
    double strength_N_mm2 = 0;  ///< that may be counted on: yield, of wood in bending
    double cutting_m_min = 0;   ///< with high-speed steel
    bool hardens = false;       ///< by heating and quenching
    std::string uses;
    std::string caution;  ///< while it is worked
};

const std::vector<Material>& materials();
/// Throws InputError that names `field`.
const Material& material(const std::string& id, const std::string& field = "material");
std::vector<std::string> material_ids();

/// What cuts, by how fast it may go against turning with a graver or tool of the same steel.
enum class Cutting { turning, drilling, reaming, parting, tapping, fly_cutting };
/// Turns a minute for this diameter, to the nearest fifty (ten below two hundred) and no more than a small lathe gives; `hard`: hardened
/// and tempered, cut with carbide. Workshop practice.
double cutting_rpm(const Material& material, Cutting with, double diameter_mm, bool hard = false);
/// Feed a turn, mm: of a drill or reamer by its diameter, else of a light cut.
double feed_mm(const Material& material, Cutting with, double diameter_mm);

}  // namespace echappe
