#include "jampot/liquid/activity_model.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "jampot/liquid/working.hpp"
#include "states_size.hpp"

namespace jampot {

void ActivityModel::set_coefficient(std::size_t, Coefficient, double) {
  throw std::logic_error("this model has no adjustable terms");
}

void ActivityModel::evaluate_states(std::span<const double> x, std::span<double> ln_gamma) {
  const std::size_t n = size(), states = x.size() / n;
  demand_states(x.size(), ln_gamma.size(), n, states);
  std::vector<double> at(n), one(n);
  for (std::size_t s = 0; s < states; ++s) {
    for (std::size_t i = 0; i < n; ++i) at[i] = x[i * states + s];
    evaluate(at, one);
    for (std::size_t i = 0; i < n; ++i) ln_gamma[i * states + s] = one[i];
  }
}

void ActivityModel::evaluate_states(std::span<const double> T_K, std::span<const double> x,
                                    std::span<double> ln_gamma) {
  const std::size_t n = size(), states = T_K.size();
  demand_states(x.size(), ln_gamma.size(), n, states);
  std::vector<double> at(n), one(n);
  for (std::size_t s = 0; s < states; ++s) {
    for (std::size_t i = 0; i < n; ++i) at[i] = x[i * states + s];
    set_temperature(T_K[s]);
    evaluate(at, one);
    for (std::size_t i = 0; i < n; ++i) ln_gamma[i * states + s] = one[i];
  }
}

// For user-defined models: differences, on a copy so that this one stays as it is.
double ActivityModel::third_derivative(std::span<const double> x, std::span<const double> u) const {
  const std::unique_ptr<ActivityModel> own = clone();
  const std::size_t n = size();
  double room = 1e-3;  // the steps stay inside
  for (std::size_t i = 0; i < n; ++i) {
    if (u[i] != 0) room = std::min(room, 0.2 * x[i] / std::abs(u[i]));
  }
  if (room <= 0) return 0;
  std::vector<double> at(n), ln_gamma(n), dn(n * n);
  const auto curvature = [&](double s) {
    for (std::size_t i = 0; i < n; ++i) at[i] = x[i] + s * u[i];
    own->evaluate(at, ln_gamma, {}, dn);
    double sum = 0;
    for (std::size_t i = 0; i < n; ++i) {
      for (std::size_t k = 0; k < n; ++k) sum += u[i] * u[k] * dn[i * n + k];
    }
    return sum;
  };
  const auto slope = [&](double h) { return (curvature(h) - curvature(-h)) / (2 * h); };
  return (4 * slope(room / 2) - slope(room)) / 3;
}

void ActivityModel::term_derivatives(std::span<const double>, std::span<double>) {
  if (!terms().empty()) throw std::logic_error("this model has terms but not their derivatives");
}

void ActivityModel::gibbs_term_derivatives(std::span<const double>, std::span<double>, std::span<double>) {
  if (!terms().empty()) throw std::logic_error("this model has terms but not their derivatives");
}

void ActivityModel::write_out(Working& page) const {
  page.say(std::string(name()) + ": the model does not write its steps out");
  std::vector<double> ln_gamma(size());
  const std::unique_ptr<ActivityModel> own = clone();
  own->set_temperature(page.T_K());
  own->evaluate(page.x(), ln_gamma);
  for (std::size_t i = 0; i < ln_gamma.size(); ++i) page.result(i, {ln_gamma[i]}, ln_gamma[i]);
}

}  // namespace jampot
