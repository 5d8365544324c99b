#include "number/solve.h"

#include <rapidcheck/catch.h>

#include <stdexcept>

#include "number/constants.h"
#include "number/least_squares.h"

using namespace echappe;

TEST_CASE("a cosine crosses zero at a right angle, found to the last bits from either side") {
    const auto cosine = [](double x) { return std::cos(x); };
    CHECK(std::abs(root_between(cosine, 0, 3) - pi / 2) < 1e-15);
    CHECK(std::abs(root_between(cosine, 3, 6) - 3 * pi / 2) < 2e-15);
    // At an end.
    CHECK(root_between([](double x) { return x; }, 0, 1) == 0);
    CHECK(root_between([](double x) { return x - 1; }, 0, 1) == 1);
}

TEST_CASE("where a function does not cross there is no root, and it says so") {
    CHECK_THROWS_AS(root_between([](double x) { return x * x + 1; }, -1, 1), std::domain_error);
}

TEST_CASE("a cubic of any three roots is 0 where it was found to be") {
    rc::prop("the middle root lies between the outer ones", [] {
        const double least = 0.001 * *rc::gen::inRange(-5000, 0), most = 0.001 * *rc::gen::inRange(1, 5000);
        const double middle = least + (most - least) * 0.001 * *rc::gen::inRange(200, 800);
        const auto cubic = [&](double x) { return (x - least) * (x - middle) * (x - most); };
        const double found = root_between(cubic, least + (middle - least) / 2, middle + (most - middle) / 2);
        RC_ASSERT(std::abs(found - middle) < 1e-12);
    });
}

TEST_CASE("the valley of a parabola and of a kink is found") {
    const Lowest parabola = lowest_between([](double x) { return 2 + (x - 0.3) * (x - 0.3); }, -1, 1);
    CHECK(parabola.at == Approx(0.3).margin(1e-6));
    CHECK(parabola.value == Approx(2).epsilon(1e-12));
    CHECK(lowest_between([](double x) { return std::abs(x - 0.7); }, 0, 3).at == Approx(0.7).margin(1e-6));
}

TEST_CASE("areas are those of geometry: a quarter circle, a triangle with its corner anywhere, a power") {
    CHECK(integral([](double x) { return std::sqrt(1 - x * x); }, 0, 1) == Approx(pi / 4).epsilon(1e-8));
    CHECK(integral([](double x) { return 1 / (1 + x * x); }, 0, 1) == Approx(pi / 4).epsilon(1e-13));
    CHECK(integral([](double x) { return std::abs(x - 1.0 / 3); }, 0, 1) == Approx(1.0 / 18 + 4.0 / 18).epsilon(1e-9));
    // A rule of 15 points is exact for polynomials up to its degree.
    CHECK(integral([](double x) { return std::pow(x, 20); }, -1, 2) == Approx((std::pow(2.0, 21) + 1) / 21).epsilon(1e-13));
    // Backwards it is the opposite.
    const auto sine = [](double x) { return std::sin(x); };
    CHECK(integral(sine, 2, 0.5) == Approx(-integral(sine, 0.5, 2)).epsilon(1e-14));
}

TEST_CASE("what least squares leave stands at right angles to every column") {
    rc::prop("the normal equations hold", [] {
        const int rows = *rc::gen::inRange(3, 12), columns = *rc::gen::inRange(1, 4);
        Eigen::MatrixXd a(rows, columns);
        Eigen::VectorXd b(rows);
        for (int i = 0; i < rows; ++i) {
            b[i] = 0.01 * *rc::gen::inRange(-500, 500);
            for (int k = 0; k < columns; ++k) a(i, k) = 0.01 * *rc::gen::inRange(-500, 500);
        }
        const Eigen::VectorXd left = b - a * least_squares(a, b);
        RC_ASSERT((a.transpose() * left).norm() < 1e-9);
    });
}

TEST_CASE("of what two like columns cannot tell apart each gets half") {
    Eigen::MatrixXd a(3, 2);
    a << 1, 1, 2, 2, 3, 3;
    const Eigen::VectorXd x = least_squares(a, Eigen::Vector3d(2, 4, 6));
    CHECK(x[0] == Approx(1));
    CHECK(x[1] == Approx(1));
}

TEST_CASE("a pseudo-inverse has the four properties that make it the only one") {
    Eigen::MatrixXd a(4, 3);
    a << 2, 1, 3, -1, 0.5, -0.5, 4, 0, 4, 1, 7, 8;  // the third column is the sum of the others
    const Eigen::MatrixXd p = pseudo_inverse(a);
    CHECK((a * p * a - a).norm() < 1e-12);
    CHECK((p * a * p - p).norm() < 1e-12);
    CHECK((a * p - (a * p).transpose()).norm() < 1e-12);
    CHECK((p * a - (p * a).transpose()).norm() < 1e-12);
}
