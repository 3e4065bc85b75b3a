#include "scaled_pure_model.hpp"

#include <algorithm>

namespace jampot {

ScaledPureModel::ScaledPureModel(std::unique_ptr<ActivityModel> base)
    : base_(std::move(base)),
      own_(base_->terms().size()),
      terms_(base_->terms().begin(), base_->terms().end()),
      factor_ln_(base_->size()),
      scratch_(base_->size() * own_) {
  for (std::size_t i = 0; i < base_->size(); ++i) terms_.push_back({i, i, term_name, {}});
}

std::unique_ptr<ActivityModel> ScaledPureModel::clone() const {
  auto copy = std::make_unique<ScaledPureModel>(base_->clone());
  copy->terms_ = terms_;
  copy->factor_ln_ = factor_ln_;
  return copy;
}

void ScaledPureModel::set_temperature(double T_K) {
  base_->set_temperature(T_K);
}

void ScaledPureModel::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                               std::span<double> dn) {
  base_->evaluate(x, ln_gamma, dT, dn);
  for (std::size_t i = 0; i < factor_ln_.size(); ++i) ln_gamma[i] += factor_ln_[i];
}

double ScaledPureModel::third_derivative(std::span<const double> x, std::span<const double> u) const {
  return base_->third_derivative(x, u);
}

void ScaledPureModel::set_coefficient(std::size_t term, Coefficient coefficient, double value) {
  terms_[term].function[coefficient] = value;
  if (term < own_)
    base_->set_coefficient(term, coefficient, value);
  else if (coefficient == Coefficient::constant)
    factor_ln_[term - own_] = value;
}

void ScaledPureModel::term_derivatives(std::span<const double> x, std::span<double> out) {
  base_->term_derivatives(x, scratch_);
  const std::size_t n = size(), all = terms_.size();
  for (std::size_t i = 0; i < n; ++i) {
    std::copy_n(scratch_.begin() + static_cast<std::ptrdiff_t>(i * own_), own_,
                out.begin() + static_cast<std::ptrdiff_t>(i * all));
    for (std::size_t k = 0; k < n; ++k) out[i * all + own_ + k] = i == k ? 1 : 0;
  }
}

void ScaledPureModel::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                             std::span<double> slope_dT) {
  base_->gibbs_term_derivatives(x, slope.first(own_), slope_dT.first(own_));
  for (std::size_t i = 0; i < size(); ++i) {
    slope[own_ + i] = x[i];
    slope_dT[own_ + i] = 0;
  }
}

}  // namespace jampot
