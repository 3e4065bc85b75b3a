// How costs grow: with components (2 to 20), with points, with threads.
#include <benchmark/benchmark.h>

#include <cmath>

#include "allocations.hpp"
#include "hidden_truth.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/equilibrium/flash.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "jampot/phase/fluid_phase.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {
namespace {

std::vector<double> even(std::size_t n) {
  return std::vector<double>(n, 1.0 / static_cast<double>(n));
}

Nrtl nrtl_of(std::size_t n) {
  std::vector<PairParameters> pairs;
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = i + 1; j < n; ++j) {
      PairParameters pair;
      pair.model = "nrtl";
      pair.between = {"a", "b"};
      pair.terms["tau_12"].inverse_T = 100 + 10.0 * static_cast<double>(i);
      pair.terms["tau_21"].inverse_T = 200 - 5.0 * static_cast<double>(j);
      pair.terms["alpha"].constant = 0.3;
      pairs.push_back(pair);
    }
  }
  return {n, pairs};
}

void NrtlByComponents(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  Nrtl model = nrtl_of(n);
  const std::vector<double> x = even(n);
  std::vector<double> ln_gamma(n);
  model.set_temperature(330);
  const bench::CountAllocations counting(state);
  for (auto _ : state) {
    benchmark::DoNotOptimize(x.data());
    model.evaluate(x, ln_gamma, {}, {});
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(NrtlByComponents)->Arg(2)->Arg(3)->Arg(5)->Arg(10)->Arg(20);

// The same as it stands in a textbook: sums over sums, nothing kept between components.
void PlainNrtlByComponents(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  const std::vector<double> x = even(n);
  std::vector<double> tau(n * n), G(n * n), ln_gamma(n);
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = 0; j < n; ++j) {
      tau[i * n + j] = i == j  ? 0
                       : i < j ? (100 + 10.0 * static_cast<double>(i)) / 330
                               : (200 - 5.0 * static_cast<double>(i)) / 330;
      G[i * n + j] = std::exp(-0.3 * tau[i * n + j]);
    }
  }
  for (auto _ : state) {
    benchmark::DoNotOptimize(x.data());
    for (std::size_t i = 0; i < n; ++i) {
      const auto share = [&](std::size_t j) {
        double below = 0, above = 0;
        for (std::size_t k = 0; k < n; ++k) {
          below += G[k * n + j] * x[k];
          above += tau[k * n + j] * G[k * n + j] * x[k];
        }
        return std::pair(above, below);
      };
      const auto [above, below] = share(i);
      double sum = above / below;
      for (std::size_t j = 0; j < n; ++j) {
        const auto [a, b] = share(j);
        sum += x[j] * G[i * n + j] / b * (tau[i * n + j] - a / b);
      }
      ln_gamma[i] = sum;
    }
    benchmark::DoNotOptimize(ln_gamma.data());
  }
}
BENCHMARK(PlainNrtlByComponents)->Arg(2)->Arg(3)->Arg(5)->Arg(10)->Arg(20);

const std::vector<std::string> fluids{
    "methane",  "ethane",       "propane",        "n-butane", "n-pentane",  "n-hexane",    "n-heptane",
    "n-octane", "nitrogen",     "carbon dioxide", "benzene",  "toluene",    "cyclohexane", "n-nonane",
    "n-decane", "ethylbenzene", "methanol",       "acetone",  "2-propanol", "ethanol"};

void FlashByComponents(benchmark::State& state) {
  const auto n = static_cast<std::size_t>(state.range(0));
  const std::vector<std::string> names(fluids.begin(), fluids.begin() + state.range(0));
  FluidPhase phase(
      std::make_unique<CubicEquation>(CubicEquation::Form::peng_robinson, substances_named(names)),
      FluidPhase::Root::stable);
  const std::vector<double> z = even(n);
  FlashSolver flasher({&phase});
  std::size_t phases = 0;
  for (auto _ : state) {
    const Flashed& flashed = flasher.flash({Kelvin(n < 4 ? 230 : 310), Pascal(2e6)}, z);
    phases = flashed.phases.size();
    benchmark::DoNotOptimize(flashed.residual);
  }
  state.counters["phases"] = static_cast<double>(phases);
}
BENCHMARK(FlashByComponents)->Arg(2)->Arg(3)->Arg(5)->Arg(10)->Arg(20)->Unit(benchmark::kMicrosecond);

void TxyByPoints(benchmark::State& state) {
  ParameterCollection parameters;
  parameters.add(hidden_truth::pair());
  Mixture mixture(substances_named({"methyl tert-butyl ether", "methanol"}), "nrtl", parameters);
  CurveOptions options;
  options.points = static_cast<std::size_t>(state.range(0));
  const bench::CountAllocations counting(state);
  for (auto _ : state) benchmark::DoNotOptimize(txy(mixture, 101325, options).points.data());
}
BENCHMARK(TxyByPoints)->Arg(26)->Arg(51)->Arg(101)->Arg(201)->Arg(401)->Unit(benchmark::kMicrosecond);

// Every thread with a copy of its own, as many maps as there are threads.
void MapsByThreads(benchmark::State& state) {
  Mixture mixture(substances_named({"acetone", "chloroform", "methanol"}), "unifac", {});
  for (auto _ : state) benchmark::DoNotOptimize(residue_map(mixture, 101325).curves.data());
}
BENCHMARK(MapsByThreads)->Threads(1)->Threads(2)->UseRealTime()->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace jampot
