// ln gamma: NRTL of three components beside a hand-written kernel for exactly three, and UNIFAC of four
// components with seven subgroups.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <array>
#include <cmath>

#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/bubble_states.hpp"
#include "jampot/equilibrium/stability_states.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/unifac_interactions.hpp"
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

// Many compositions at once, component by component. The counter is the time of one, to be held against the
// scalar call above.
struct ManyStates {
  static constexpr std::size_t count = 1024;
  std::vector<double> T_K, x, ln_gamma;
  ManyStates() : T_K(count), x(3 * count), ln_gamma(3 * count) {
    for (std::size_t k = 0; k < count; ++k) {
      const double a = 0.01 + 0.9 * static_cast<double>(k % 32) / 32,
                   b = (1 - a) * static_cast<double>(k / 32) / 32;
      x[k] = a;
      x[count + k] = b;
      x[2 * count + k] = 1 - a - b;
      T_K[k] = 320 + 0.03 * static_cast<double>(k);
    }
  }
};

void count_each(benchmark::State& state) {
  state.counters["each"] =
      benchmark::Counter(static_cast<double>(ManyStates::count),
                         benchmark::Counter::kIsIterationInvariantRate | benchmark::Counter::kInvert);
}

void nrtl_ternary_1024(benchmark::State& state) {
  const auto model = ternary_nrtl();
  model->set_temperature(330);
  ManyStates many;
  for (auto _ : state) {
    model->evaluate_states(many.x, many.ln_gamma);
    benchmark::DoNotOptimize(many.ln_gamma.data());
    benchmark::ClobberMemory();
  }
  count_each(state);
}
BENCHMARK(nrtl_ternary_1024);

void nrtl_ternary_1024_new_T(benchmark::State& state) {
  const auto model = ternary_nrtl();
  ManyStates many;
  for (auto _ : state) {
    model->evaluate_states(many.T_K, many.x, many.ln_gamma);
    benchmark::DoNotOptimize(many.ln_gamma.data());
    benchmark::ClobberMemory();
  }
  count_each(state);
}
BENCHMARK(nrtl_ternary_1024_new_T);

// Bubble temperatures of the same compositions, over arrays and one by one.
Mixture ternary_mixture() {
  return {substances_named({"ethanol", "acetone", "water"}), ternary_nrtl(), {}};
}

void bubble_1024(benchmark::State& state) {
  Mixture mixture = ternary_mixture();
  BubbleStates bubbles(mixture);
  ManyStates many;
  for (auto _ : state) {
    std::fill(many.T_K.begin(), many.T_K.end(), 0.0);
    bubbles.temperatures(101325, many.x, many.T_K, many.ln_gamma);
    benchmark::DoNotOptimize(many.T_K.data());
    benchmark::ClobberMemory();
  }
  count_each(state);
}
BENCHMARK(bubble_1024);

void bubble_one_by_one(benchmark::State& state) {
  Mixture mixture = ternary_mixture();
  const ManyStates many;
  for (auto _ : state) {
    for (std::size_t k = 0; k < ManyStates::count; ++k) {
      const std::array<double, 3> x{many.x[k], many.x[ManyStates::count + k],
                                    many.x[2 * ManyStates::count + k]};
      benchmark::DoNotOptimize(bubble_temperature(mixture, 101325, x).T_K);
    }
  }
  count_each(state);
}
BENCHMARK(bubble_one_by_one);

// Whether the same liquids split, each at its own temperature or all at one.
void stability(benchmark::State& state, bool one_temperature) {
  const auto model = ternary_nrtl();
  StabilityStates stability(*model);
  ManyStates many;
  if (one_temperature) std::fill(many.T_K.begin(), many.T_K.end(), 330.0);
  std::vector<double> distance(ManyStates::count);
  for (auto _ : state) {
    benchmark::DoNotOptimize(stability.distances(many.T_K, many.x, distance));
    benchmark::ClobberMemory();
  }
  count_each(state);
}
void stability_1024(benchmark::State& state) {
  stability(state, false);
}
void stability_1024_same_T(benchmark::State& state) {
  stability(state, true);
}
BENCHMARK(stability_1024);
BENCHMARK(stability_1024_same_T);

void stability_one_by_one(benchmark::State& state) {
  const auto model = ternary_nrtl();
  MixingLiquid liquid(*model);
  const ManyStates many;
  for (auto _ : state) {
    for (std::size_t k = 0; k < ManyStates::count; ++k) {
      const std::array<double, 3> x{many.x[k], many.x[ManyStates::count + k],
                                    many.x[2 * ManyStates::count + k]};
      benchmark::DoNotOptimize(liquid_splits(liquid, many.T_K[k], x));
    }
  }
  count_each(state);
}
BENCHMARK(stability_one_by_one);

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

// The same from the printed sums: every component in the mixture and pure, nothing kept.
struct PlainUnifac {
  static constexpr std::size_t components = 4;
  const std::vector<Substance> substances =
      substances_named({"ethyl acetate", "1-butanol", "toluene", "water"});
  std::vector<UnifacGroup> groups;
  std::vector<double> count;  // [component][group]
  std::vector<double> a;      // K, [group][group]

  PlainUnifac() {
    const auto model = make_activity_model("unifac", substances, {});
    groups = dynamic_cast<const Unifac&>(*model).groups();
    const auto& table = UnifacGroups::of(UnifacTable::vle);
    for (const Substance& substance : substances) {
      std::vector<double> row(groups.size());
      for (const GroupCount& group : table.parse(substance.groups.at(name_of(UnifacTable::vle)))) {
        for (std::size_t k = 0; k < groups.size(); ++k) {
          if (groups[k].name == group.group) row[k] += group.count;
        }
      }
      count.insert(count.end(), row.begin(), row.end());
    }
    for (const UnifacGroup& m : groups) {
      for (const UnifacGroup& n : groups)
        a.push_back(m.main_number == n.main_number
                        ? 0
                        : group_interaction(UnifacTable::vle, m.main_number, n.main_number)->a_K);
    }
  }

  // ln Gamma of every group in a liquid of these amounts.
  std::vector<double> ln_Gamma(const std::vector<double>& x, double T) const {
    const std::size_t n = groups.size();
    std::vector<double> theta(n), result(n);
    double whole = 0;
    for (std::size_t k = 0; k < n; ++k) {
      for (std::size_t i = 0; i < components; ++i) theta[k] += x[i] * count[i * n + k] * groups[k].Q;
      whole += theta[k];
    }
    for (double& share : theta) share /= whole;
    const auto psi = [&](std::size_t m, std::size_t k) { return std::exp(-a[m * n + k] / T); };
    for (std::size_t k = 0; k < n; ++k) {
      double sum = 0, rest = 0;
      for (std::size_t m = 0; m < n; ++m) {
        sum += theta[m] * psi(m, k);
        double below = 0;
        for (std::size_t l = 0; l < n; ++l) below += theta[l] * psi(l, m);
        rest += theta[m] * psi(k, m) / below;
      }
      result[k] = groups[k].Q * (1 - std::log(sum) - rest);
    }
    return result;
  }

  std::vector<double> ln_gamma(const std::vector<double>& x, double T) const {
    const std::size_t n = groups.size();
    const std::vector<double> mixed = ln_Gamma(x, T);
    std::vector<double> r(components), q(components), result(components);
    double rx = 0, qx = 0;
    for (std::size_t i = 0; i < components; ++i) {
      for (std::size_t k = 0; k < n; ++k) {
        r[i] += count[i * n + k] * groups[k].R;
        q[i] += count[i * n + k] * groups[k].Q;
      }
      rx += r[i] * x[i];
      qx += q[i] * x[i];
    }
    for (std::size_t i = 0; i < components; ++i) {
      const double V = r[i] / rx, F = q[i] / qx;
      result[i] = 1 - V + std::log(V) - 5 * q[i] * (1 - V / F + std::log(V / F));
      std::vector<double> pure(components);
      pure[i] = 1;
      const std::vector<double> alone = ln_Gamma(pure, T);
      for (std::size_t k = 0; k < n; ++k) result[i] += count[i * n + k] * (mixed[k] - alone[k]);
    }
    return result;
  }
};

void unifac_4_components_textbook(benchmark::State& state) {
  const PlainUnifac plain;
  const std::vector<double> x{0.2, 0.3, 0.1, 0.4};
  std::array<double, 4> ours{};
  const auto model = unifac_of_four();
  model->set_temperature(330);
  model->evaluate(x, ours);
  for (std::size_t i = 0; i < 4; ++i) {
    if (std::abs(plain.ln_gamma(x, 330)[i] - ours[i]) > 1e-10) state.SkipWithError("the two do not agree");
  }
  for (auto _ : state) benchmark::DoNotOptimize(plain.ln_gamma(x, 330).data());
}
BENCHMARK(unifac_4_components_textbook);

}  // namespace
