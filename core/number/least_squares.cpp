#include "number/least_squares.h"

#include <Eigen/QR>

namespace echappe {

namespace {

// One way for both: Eigen would make all of it twice.
Eigen::MatrixXd shortest(const Eigen::MatrixXd& a, const Eigen::MatrixXd& b) { return a.completeOrthogonalDecomposition().solve(b); }

}  // namespace

Eigen::VectorXd least_squares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b) { return shortest(a, b); }

Eigen::MatrixXd pseudo_inverse(const Eigen::MatrixXd& a) { return shortest(a, Eigen::MatrixXd::Identity(a.rows(), a.rows())); }

}  // namespace echappe
