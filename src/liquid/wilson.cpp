#include "jampot/liquid/wilson.hpp"

#include <algorithm>

namespace jampot {

Wilson::Wilson(std::vector<double> volumes, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, volumes.size(), pairs, {"lambda_12", "lambda_21"})),
      contacts_(volumes.size()),
      gradient_(volumes.size()) {
  for (std::size_t t = 0; t < terms_.size(); t += 2) {
    const auto& own = pairs[t / 2].molar_volumes_m3_mol;
    const double ratio = own ? (*own)[1] / (*own)[0] : volumes[terms_[t].j] / volumes[terms_[t].i];
    ratio_.push_back(ratio);
    ratio_.push_back(1 / ratio);
  }
}

void Wilson::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const double Lambda = ratio_[t] * std::exp(-terms_[t].function.value(T_K));
    contacts_.psi(j, i) = Lambda;
    contacts_.dpsi(j, i) = -Lambda * terms_[t].function.dT(T_K);
  }
}

void Wilson::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                      std::span<double> dn) {
  contacts_.gradient(x, ln_gamma);
  if (!dT.empty()) contacts_.gradient_dT(x, dT);
  if (!dn.empty()) contacts_.hessian(x, dn);
}

double Wilson::third_derivative(std::span<const double> x, std::span<const double> u) const {
  return contacts_.third_derivative(x, u);
}

void Wilson::term_derivatives(std::span<const double> x, std::span<double> out) {
  contacts_.gradient(x, gradient_);
  std::fill(out.begin(), out.end(), 0.0);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    contacts_.add_entry_change(x, j, i, -contacts_.psi(j, i), &out[t], terms_.size());
  }
}

void Wilson::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                    std::span<double> slope_dT) {
  contacts_.gradient(x, gradient_);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const auto entry = contacts_.entry_slope(x, j, i);
    const double psi = contacts_.psi(j, i), dpsi = contacts_.dpsi(j, i);
    slope[t] = -psi * entry.value;
    slope_dT[t] = -dpsi * entry.value - psi * entry.dT;
  }
}

}  // namespace jampot
