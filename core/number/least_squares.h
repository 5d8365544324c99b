#pragma once

#include <Eigen/Core>

namespace echappe {

/// x of the least |A x − b|, and the shortest of them where several are: complete orthogonal decomposition (Golub and Van Loan, 2013,
/// 5.5), which tells what it cannot by itself.
Eigen::VectorXd least_squares(const Eigen::MatrixXd& a, const Eigen::VectorXd& b);

/// The pseudo-inverse (Moore and Penrose), likewise: what undoes A where it can be undone.
Eigen::MatrixXd pseudo_inverse(const Eigen::MatrixXd& a);

}  // namespace echappe
