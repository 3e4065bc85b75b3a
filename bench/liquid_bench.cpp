// ln gamma: NRTL of three components beside a hand-written kernel for exactly three, and UNIFAC of four
// components with seven subgroups.
#include <benchmark/benchmark.h>

#include <array>
#include <cmath>

#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/phase/mixture.hpp"

namespace {

using namespace jampot;

struct Energies {
  double b[3][3] = {{0, 120, 480}, {210, 0, 90}, {900, -40, 0}};
  double alpha[3][3] = {{0, 0.3, 0.3}, {0.3, 0, 0.25}, {0.3, 0.25, 0}};
};

std::unique_ptr<ActivityModel> ternary_nrtl() {
  const auto substances = substances_named({"ethanol", "acetone", "water"});
  const Energies energies;
  ParameterCollection parameters;
  for (std::size_t i = 0; i < 3; ++i) {
    for (std::size_t j = i + 1; j < 3; ++j) {
      PairParameters pair;
      pair.model = "nrtl";
      pair.between = {substances[i].name, substances[j].name};
      pair.terms["tau_12"].inverse_T = energies.b[i][j];
      pair.terms["tau_21"].inverse_T = energies.b[j][i];
      pair.terms["alpha"].constant = energies.alpha[i][j];
      parameters.add(pair);
    }
  }
  return make_activity_model("nrtl", substances, parameters);
}

// Written for three components, everything in fixed arrays, loops unrolled by the compiler.
struct Kernel {
  Energies energies;
  double tau[3][3]{}, G[3][3]{};

  void set_temperature(double T) {
    for (int i = 0; i < 3; ++i) {
      for (int j = 0; j < 3; ++j) {
        if (i == j) {
          tau[i][j] = 0;
          G[i][j] = 1;
          continue;
        }
        tau[i][j] = energies.b[i][j] / T;
        G[i][j] = std::exp(-energies.alpha[i][j] * tau[i][j]);
      }
    }
  }

  void evaluate(const double* x, double* ln_gamma) const {
    double S[3], R[3];
    for (int j = 0; j < 3; ++j) {
      double s = 0, c = 0;
      for (int k = 0; k < 3; ++k) {
        s += G[k][j] * x[k];
        c += tau[k][j] * G[k][j] * x[k];
      }
      S[j] = 1 / s;
      R[j] = c * S[j];
    }
    for (int i = 0; i < 3; ++i) {
      double sum = R[i];
      for (int j = 0; j < 3; ++j) sum += x[j] * G[i][j] * S[j] * (tau[i][j] - R[j]);
      ln_gamma[i] = sum;
    }
  }
};

const std::array<double, 3> composition{0.2, 0.3, 0.5};

void nrtl_ternary(benchmark::State& state) {
  const auto model = ternary_nrtl();
  std::array<double, 3> x = composition, ln_gamma{};
  model->set_temperature(330);
  for (auto _ : state) {
    benchmark::DoNotOptimize(x.data());
    model->evaluate(x, ln_gamma);
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(nrtl_ternary);

void nrtl_ternary_by_hand(benchmark::State& state) {
  Kernel kernel;
  std::array<double, 3> x = composition, ln_gamma{};
  kernel.set_temperature(330);
  for (auto _ : state) {
    benchmark::DoNotOptimize(x.data());
    kernel.evaluate(x.data(), ln_gamma.data());
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(nrtl_ternary_by_hand);

void nrtl_ternary_new_T(benchmark::State& state) {
  const auto model = ternary_nrtl();
  std::array<double, 3> x = composition, ln_gamma{};
  double T = 330;
  for (auto _ : state) {
    T = T == 330 ? 331 : 330;
    model->set_temperature(T);
    model->evaluate(x, ln_gamma);
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(nrtl_ternary_new_T);

void nrtl_ternary_new_T_by_hand(benchmark::State& state) {
  Kernel kernel;
  std::array<double, 3> x = composition, ln_gamma{};
  double T = 330;
  for (auto _ : state) {
    T = T == 330 ? 331 : 330;
    kernel.set_temperature(T);
    kernel.evaluate(x.data(), ln_gamma.data());
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(nrtl_ternary_new_T_by_hand);

// Ethyl acetate, 1-butanol, toluene, water: CH3, CH2, CH3COO, OH, ACH, ACCH3, H2O.
std::unique_ptr<ActivityModel> unifac_of_four() {
  return make_activity_model("unifac", substances_named({"ethyl acetate", "1-butanol", "toluene", "water"}),
                             {});
}

void unifac_4_components(benchmark::State& state) {
  const auto model = unifac_of_four();
  std::array<double, 4> x{0.2, 0.3, 0.1, 0.4}, ln_gamma{};
  model->set_temperature(330);
  for (auto _ : state) {
    benchmark::DoNotOptimize(x.data());
    model->evaluate(x, ln_gamma);
    benchmark::DoNotOptimize(ln_gamma.data());
  }
  state.counters["subgroups"] = static_cast<double>(dynamic_cast<const Unifac&>(*model).groups().size());
}
BENCHMARK(unifac_4_components);

void unifac_4_components_new_T(benchmark::State& state) {
  const auto model = unifac_of_four();
  std::array<double, 4> x{0.2, 0.3, 0.1, 0.4}, ln_gamma{};
  double T = 330;
  for (auto _ : state) {
    T = T == 330 ? 331 : 330;
    model->set_temperature(T);
    model->evaluate(x, ln_gamma);
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(unifac_4_components_new_T);

}  // namespace
