#include "jampot/liquid/uniquac.hpp"

#include <algorithm>

namespace jampot {
namespace {

std::vector<double> each(const std::vector<UniquacSize>& sizes, double UniquacSize::*member) {
  std::vector<double> values;
  for (const UniquacSize& size : sizes) values.push_back(size.*member);
  return values;
}

}  // namespace

Uniquac::Uniquac(const std::vector<UniquacSize>& sizes, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, sizes.size(), pairs, {"u_12", "u_21"})),
      size_part_(each(sizes, &UniquacSize::r), each(sizes, &UniquacSize::q)),
      surface_(each(sizes, &UniquacSize::q_residual)),
      contacts_(sizes.size()),
      s_(sizes.size()),
      gradient_(sizes.size()) {}

void Uniquac::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const double tau = std::exp(-terms_[t].function.value(T_K));
    contacts_.psi(i, j) = tau;
    contacts_.dpsi(i, j) = -tau * terms_[t].function.dT(T_K);
  }
}

void Uniquac::set_surfaces(std::span<const double> x) {
  for (std::size_t i = 0; i < s_.size(); ++i) s_[i] = surface_[i] * x[i];
}

void Uniquac::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                       std::span<double> dn) {
  const std::size_t n = size();
  set_surfaces(x);
  size_part_.ln_gamma(x, ln_gamma);
  contacts_.gradient(s_, gradient_);
  for (std::size_t i = 0; i < n; ++i) ln_gamma[i] += surface_[i] * gradient_[i];
  if (!dT.empty()) {
    contacts_.gradient_dT(s_, dT);
    for (std::size_t i = 0; i < n; ++i) dT[i] *= surface_[i];
  }
  if (!dn.empty()) {
    contacts_.hessian(s_, dn);
    for (std::size_t i = 0; i < n; ++i) {
      for (std::size_t k = 0; k < n; ++k) dn[i * n + k] *= surface_[i] * surface_[k];
    }
    size_part_.add_dn(dn);
  }
}

double Uniquac::third_derivative(std::span<const double> x, std::span<const double> u) const {
  std::vector<double> s(size()), ds(size());
  for (std::size_t i = 0; i < size(); ++i) {
    s[i] = surface_[i] * x[i];
    ds[i] = surface_[i] * u[i];
  }
  return size_part_.third_derivative(x, u) + contacts_.third_derivative(s, ds);
}

void Uniquac::term_derivatives(std::span<const double> x, std::span<double> out) {
  set_surfaces(x);
  contacts_.gradient(s_, gradient_);
  std::fill(out.begin(), out.end(), 0.0);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    contacts_.add_entry_change(s_, i, j, -contacts_.psi(i, j), &out[t], terms_.size());
  }
  for (std::size_t i = 0; i < size(); ++i) {
    for (std::size_t t = 0; t < terms_.size(); ++t) out[i * terms_.size() + t] *= surface_[i];
  }
}

void Uniquac::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                     std::span<double> slope_dT) {
  set_surfaces(x);
  contacts_.gradient(s_, gradient_);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const auto entry = contacts_.entry_slope(s_, i, j);
    const double psi = contacts_.psi(i, j), dpsi = contacts_.dpsi(i, j);
    slope[t] = -psi * entry.value;
    slope_dT[t] = -dpsi * entry.value - psi * entry.dT;
  }
}

}  // namespace jampot
