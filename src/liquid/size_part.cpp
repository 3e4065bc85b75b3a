#include "jampot/liquid/size_part.hpp"

#include <cmath>

#include "jampot/liquid/along_line.hpp"

namespace jampot {

SizePart::SizePart(std::vector<double> r, std::vector<double> q, double exponent)
    : r_(std::move(r)), q_(std::move(q)), p_(r_), relative_(r_.size()), ratio_(r_.size()) {
  if (exponent == 1) return;
  for (double& value : p_) value = std::pow(value, exponent);
}

void SizePart::ln_gamma(std::span<const double> x, std::span<double> out) {
  total_ = sum_r_ = sum_q_ = sum_p_ = 0;
  for (std::size_t i = 0; i < r_.size(); ++i) {
    total_ += x[i];
    sum_r_ += r_[i] * x[i];
    sum_q_ += q_[i] * x[i];
    sum_p_ += p_[i] * x[i];
  }
  for (std::size_t i = 0; i < r_.size(); ++i) {
    const double V = p_[i] * total_ / sum_p_, ratio = r_[i] * sum_q_ / (q_[i] * sum_r_);
    relative_[i] = V;
    ratio_[i] = ratio;
    out[i] = 1 - V + std::log(V) - 5 * q_[i] * (1 - ratio + std::log(ratio));
  }
}

void SizePart::add_dn(std::span<double> dn) const {
  const std::size_t n = r_.size();
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < n; ++k) {
      dn[i * n + k] += (1 - relative_[i]) * (1 / total_ - p_[k] / sum_p_) -
                       5 * q_[i] * (1 - ratio_[i]) * (q_[k] / sum_q_ - r_[k] / sum_r_);
    }
  }
}

// The sum is N ln N - N ln P - 5 (Q ln Q - Q ln R) and what is linear in the amounts, with N = sum x_i,
// P = sum r_i^p x_i, Q = sum q_i x_i, R = sum r_i x_i.
double SizePart::third_derivative(std::span<const double> x, std::span<const double> u) const {
  AlongLine N, P, Q, R;
  for (std::size_t i = 0; i < r_.size(); ++i) {
    N.add(1, x[i], u[i]);
    P.add(p_[i], x[i], u[i]);
    Q.add(q_[i], x[i], u[i]);
    R.add(r_[i], x[i], u[i]);
  }
  return third_of_a_ln_c(N, N) - third_of_a_ln_c(N, P) - 5 * (third_of_a_ln_c(Q, Q) - third_of_a_ln_c(Q, R));
}

}  // namespace jampot
