#include "jampot/liquid/pair_model.hpp"

#include <algorithm>

namespace jampot {

void PairModel::set_coefficient(std::size_t term, Coefficient coefficient, double value) {
  terms_.at(term).function[coefficient] = value;
  changed_ = true;
}

bool PairModel::moves_to(double T_K) {
  if (T_K == T_K_ && !changed_) return false;
  T_K_ = T_K;
  if (changed_) {
    with_log_ = std::any_of(terms_.begin(), terms_.end(),
                            [](const ModelTerm& term) { return term.function.log_T != 0; });
  }
  changed_ = false;
  return true;
}

namespace {

// ln gamma with one term moved by a constant, at a temperature.
void evaluate_moved(ActivityModel& model, std::size_t term, double by, double T_K, std::span<const double> x,
                    std::span<double> ln_gamma) {
  const double before = model.terms()[term].function.constant;
  model.set_coefficient(term, Coefficient::constant, before + by);
  model.set_temperature(T_K);
  model.evaluate(x, ln_gamma);
  model.set_coefficient(term, Coefficient::constant, before);
}

constexpr double term_step = 1e-4;

}  // namespace

void PairModel::term_derivatives(std::span<const double> x, std::span<double> out) {
  const std::unique_ptr<ActivityModel> own = clone();
  const std::size_t n = size();
  std::vector<double> above(n), below(n);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    evaluate_moved(*own, t, term_step, T_K_, x, above);
    evaluate_moved(*own, t, -term_step, T_K_, x, below);
    for (std::size_t i = 0; i < n; ++i) out[i * terms_.size() + t] = (above[i] - below[i]) / (2 * term_step);
  }
}

void PairModel::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                       std::span<double> slope_dT) {
  const std::unique_ptr<ActivityModel> own = clone();
  std::vector<double> ln_gamma(size());
  const auto gibbs = [&](std::size_t t, double by, double T_K) {
    evaluate_moved(*own, t, by, T_K, x, ln_gamma);
    double sum = 0;
    for (std::size_t i = 0; i < ln_gamma.size(); ++i) sum += x[i] * ln_gamma[i];
    return sum;
  };
  constexpr double step_K = 0.1;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto at = [&](double T_K) {
      return (gibbs(t, term_step, T_K) - gibbs(t, -term_step, T_K)) / (2 * term_step);
    };
    slope[t] = at(T_K_);
    slope_dT[t] = (at(T_K_ + step_K) - at(T_K_ - step_K)) / (2 * step_K);
  }
}

}  // namespace jampot
