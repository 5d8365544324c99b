#include "number/least_squares.h"

#include <Eigen/QR>

namespace echappe {

Eigen::VectorXd least_squares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b) { return a.completeOrthogonalDecomposition().solve(b); }

Eigen::MatrixXd pseudo_inverse(const Eigen::MatrixXd& a) { return a.completeOrthogonalDecomposition().pseudoInverse(); }

}  // namespace echappe
