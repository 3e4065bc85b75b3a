#include "jampot/liquid/size_part.hpp"

#include <cmath>

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

}  // namespace jampot
