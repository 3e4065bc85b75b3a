#include "integral.hpp"

#include <boost/math/differentiation/finite_difference.hpp>
#include <boost/math/quadrature/gauss.hpp>
#include <boost/math/quadrature/gauss_kronrod.hpp>
#include <boost/math/special_functions/legendre.hpp>

namespace jampot {

double integral(const CurveView& f, double a, double b) {
  return boost::math::quadrature::gauss<double, 15>::integrate(f, a, b);
}

double careful_integral(const CurveView& f, double a, double b) {
  constexpr unsigned halvings = 12;
  return boost::math::quadrature::gauss_kronrod<double, 31>::integrate(f, a, b, halvings, 1e-10);
}

double derivative(const CurveView& f, double x) {
  return boost::math::differentiation::finite_difference_derivative(f, x);
}

double legendre(int n, double x) {
  return boost::math::legendre_p(n, x);
}

double legendre_slope(int n, double x) {
  return boost::math::legendre_p_prime(n, x);
}

}  // namespace jampot
