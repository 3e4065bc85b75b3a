#pragma once
// Shared by the tests: seeded random states, simple models with known answers, numerical derivatives.
#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <memory>
#include <random>
#include <string>
#include <vector>

#include "jampot/liquid/nrtl.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot::test {

/// The two-suffix Margules model, ln gamma_1 = A x2^2: its azeotropes and splits have closed forms.
class Margules final : public ActivityModel {
 public:
  explicit Margules(double A, double B = 0)
      : A_(A), B_(B) {}  ///< B: the second term of the Redlich-Kister series
  std::string_view name() const override { return "margules"; }
  std::size_t size() const override { return 2; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Margules>(*this); }
  void set_temperature(double) override {}
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override {
    const double n = x[0] + x[1], x1 = x[0] / n, x2 = x[1] / n;
    // ln gamma_1 = x2^2 (A + B (4 x1 - 1)), ln gamma_2 = x1^2 (A + B (1 - 4 x2)) for gE/RT = x1 x2 (A + B (x1
    // - x2))
    ln_gamma[0] = x2 * x2 * (A_ + B_ * (4 * x1 - 1));
    ln_gamma[1] = x1 * x1 * (A_ + B_ * (1 - 4 * x2));
    for (double& value : dT) value = 0;
    if (dn.empty()) return;
    const double d1 = -2 * x2 * (A_ + B_ * (4 * x1 - 1)) + 4 * B_ * x2 * x2;  // d ln gamma_1 / dx1
    const double d2 = 2 * x1 * (A_ + B_ * (1 - 4 * x2)) + 4 * B_ * x1 * x1;
    dn[0] = x2 * d1 / n;
    dn[1] = -x1 * d1 / n;
    dn[2] = x2 * d2 / n;
    dn[3] = -x1 * d2 / n;
  }
  double third_derivative(std::span<const double>, std::span<const double> u) const override {
    return -12 * B_ * u[0] * u[0] * u[0];  // along u_1 = -u_2
  }

 private:
  double A_, B_;
};

inline PairParameters nrtl_pair(const std::string& first, const std::string& second, double b12, double b21,
                                double alpha) {
  PairParameters pair;
  pair.model = "nrtl";
  pair.between = {first, second};
  pair.terms["tau_12"].inverse_T = b12;
  pair.terms["tau_21"].inverse_T = b21;
  pair.terms["alpha"].constant = alpha;
  pair.source = "test";
  return pair;
}

inline Mixture mtbe_methanol() {
  ParameterCollection parameters;
  parameters.add(nrtl_pair("methyl tert-butyl ether", "methanol", 236, 194, 0.3));
  return {substances_named({"methyl tert-butyl ether", "methanol"}), "nrtl", parameters};
}

/// A pair that splits at its boiling point.
inline Mixture butanol_water() {
  ParameterCollection parameters;
  parameters.add(nrtl_pair("1-butanol", "water", 250, 1300, 0.4));
  return {substances_named({"1-butanol", "water"}), "nrtl", parameters};
}

inline std::vector<double> random_composition(std::mt19937_64& generator, std::size_t n) {
  std::exponential_distribution<double> exponential;
  std::vector<double> x(n);
  double sum = 0;
  for (double& value : x) sum += value = exponential(generator);
  for (double& value : x) value /= sum;
  return x;
}

/// Pair parameters of every kind of temperature dependence, of a size that real pairs have.
inline std::vector<PairParameters> random_nrtl_pairs(std::mt19937_64& generator, std::size_t n) {
  std::uniform_real_distribution<double> tau(-1, 3), alpha(0.15, 0.5), small(-1, 1);
  std::vector<PairParameters> pairs;
  for (std::size_t p = 0; p < n * (n - 1) / 2; ++p) {
    PairParameters pair = nrtl_pair("a", "b", 0, 0, 0);
    for (const char* name : {"tau_12", "tau_21"}) {
      pair.terms[name] = {tau(generator), 100 * small(generator), 0.1 * small(generator),
                          1e-3 * small(generator)};
    }
    pair.terms["alpha"] = {alpha(generator), 0, 0, 2e-4 * small(generator)};
    pairs.push_back(pair);
  }
  return pairs;
}

/// Central difference of fourth order.
inline double derivative(const std::function<double(double)>& f, double at, double step) {
  return (8 * (f(at + step) - f(at - step)) - (f(at + 2 * step) - f(at - 2 * step))) / (12 * step);
}

/// Three solvents of eight with random NRTL parameters; many of them part.
inline Mixture random_ternary(unsigned seed) {
  std::mt19937_64 generator(seed);
  std::vector<std::string> names{"acetone", "methanol", "water",      "ethyl acetate",
                                 "toluene", "n-hexane", "2-propanol", "chloroform"};
  std::shuffle(names.begin(), names.end(), generator);
  names.resize(3);
  std::uniform_real_distribution<double> b(-150, 700), alpha(0.2, 0.45);
  ParameterCollection parameters;
  for (std::size_t i = 0; i < 3; ++i) {
    for (std::size_t j = i + 1; j < 3; ++j) {
      // One after the other: the order in which arguments are computed is the compiler's.
      const double b12 = b(generator), b21 = b(generator), a = alpha(generator);
      parameters.add(nrtl_pair(names[i], names[j], b12, b21, a));
    }
  }
  return {substances_named(names), "nrtl", parameters};
}

}  // namespace jampot::test
