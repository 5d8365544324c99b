#pragma once

#include <vector>

namespace echappe {

/// How two sounds lie on one scale.
struct PutAlike {
    double shift = 0;  ///< by which the second lies later than the first where they are most alike; in their own steps
    double u = 0;      ///< standard uncertainty of that
};
/// How far tick may begin from where it first rises clearly, against tock: real ones are two to five impacts over 20 to 60 ms,
/// and any of them may be the first that is heard.
inline constexpr double begins_u_s = 0.015;

/// How tick and tock rise, of equal length and steps, laid over one another. Both may be several impacts, of which the one has its
/// loudest where the other has a soft one: where both begin to rise is right to `begins_u` steps, and not further than `reach`. Among
/// these places each is right by how much of the one the other then explains: (1 - r²) to the power of half the number of impacts that
/// one may compare (the likelihood of a linear fit). As far as they are unlike, which of several impacts is
/// which is not known: their rises' own spread is in the uncertainty. Two sounds of one kind lie within a step; of two that have
/// nothing in common it stays where they begin, to `begins_u`.
PutAlike put_alike_by(const std::vector<float>& first, const std::vector<float>& second, double begins_u, size_t reach);

}  // namespace echappe
