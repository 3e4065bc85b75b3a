// Equations of state and flashes: fugacity coefficients at a given density, volume roots, and flashes of ten
// components beside the plain method of the textbooks in the same run.
#include <benchmark/benchmark.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/equilibrium/flash.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/fluid/pc_saft.hpp"
#include "jampot/phase/fluid_phase.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {
namespace {

const std::vector<std::string>& ten() {
  static const std::vector<std::string> names{"methane",   "ethane",        "propane",   "n-butane",
                                              "n-pentane", "n-hexane",      "n-heptane", "n-octane",
                                              "nitrogen",  "carbon dioxide"};
  return names;
}
const std::vector<double> ten_z{0.35, 0.1, 0.1, 0.08, 0.07, 0.08, 0.08, 0.07, 0.02, 0.05};

// At a given density.
void ln_phi_of_three(benchmark::State& state, const std::vector<std::string>& names, double P_Pa) {
  PcSaft equation(substances_named(names));
  const std::vector<double> x{0.3, 0.3, 0.4};
  const double T_K = 320, v = equation.volumes(T_K, P_Pa, x).front().v_m3_mol;
  FluidState fluid(3);
  for (auto _ : state) {
    fluid_state(equation, T_K, v, x, false, fluid, P_Pa);
    benchmark::DoNotOptimize(fluid.ln_phi.data());
  }
}
void PcSaftTernaryLnPhi(benchmark::State& state) {
  ln_phi_of_three(state, {"methane", "n-butane", "toluene"}, 2e6);
}
BENCHMARK(PcSaftTernaryLnPhi);
void PcSaftAssociatingTernaryLnPhi(benchmark::State& state) {
  ln_phi_of_three(state, {"methanol", "water", "n-hexane"}, 1e5);
}
BENCHMARK(PcSaftAssociatingTernaryLnPhi);

void PcSaftVolumes(benchmark::State& state) {
  PcSaft equation(substances_named({"methane", "n-butane", "toluene"}));
  const std::vector<double> x{0.3, 0.3, 0.4};
  for (auto _ : state) benchmark::DoNotOptimize(equation.volumes(320, 2e6, x).size());
}
BENCHMARK(PcSaftVolumes);

void PengRobinsonTenLnPhi(benchmark::State& state) {
  FluidPhase phase(
      std::make_unique<CubicEquation>(CubicEquation::Form::peng_robinson, substances_named(ten())),
      FluidPhase::Root::stable);
  PhaseValues values(10);
  const Wanted wanted{false, false, state.range(0) == 1};
  for (auto _ : state) {
    phase.evaluate(300, 3e6, ten_z, wanted, values);
    benchmark::DoNotOptimize(values.ln_phi.data());
  }
}
BENCHMARK(PengRobinsonTenLnPhi)->Arg(0)->Arg(1);

// At conditions with one and with two phases.
void PengRobinsonTenFlash(benchmark::State& state) {
  FluidPhase phase(
      std::make_unique<CubicEquation>(CubicEquation::Form::peng_robinson, substances_named(ten())),
      FluidPhase::Root::stable);
  const double T = static_cast<double>(state.range(0)), P = 1e5 * static_cast<double>(state.range(1));
  std::size_t phases = 0;
  FlashSolver flasher({&phase});
  for (auto _ : state) {
    const Flashed& flashed = flasher.flash({Kelvin(T), Pascal(P)}, ten_z);
    phases = flashed.phases.size();
    benchmark::DoNotOptimize(flashed.residual);
  }
  state.counters["phases"] = static_cast<double>(phases);
}
BENCHMARK(PengRobinsonTenFlash)->Args({300, 30})->Args({250, 10})->Args({350, 60})->Args({500, 10});

// The textbook's way: K values of Wilson's rule, Rackford-Rice by Newton's method, substitution to 1e-10,
// with no question whether what comes out is stable.
void PlainTenFlash(benchmark::State& state) {
  FluidPhase liquid(
      std::make_unique<CubicEquation>(CubicEquation::Form::peng_robinson, substances_named(ten())),
      FluidPhase::Root::liquid),
      vapour(std::make_unique<CubicEquation>(CubicEquation::Form::peng_robinson, substances_named(ten())),
             FluidPhase::Root::vapour);
  const auto substances = substances_named(ten());
  const double T = static_cast<double>(state.range(0)), P = 1e5 * static_cast<double>(state.range(1));
  const std::size_t n = ten_z.size();
  std::vector<double> K(n), x(n), y(n);
  PhaseValues l(n), v(n);
  double V = 0.5;
  for (auto _ : state) {
    for (std::size_t i = 0; i < n; ++i)
      K[i] = *substances[i].Pc_Pa / P *
             std::exp(5.373 * (1 + *substances[i].acentric_factor) * (1 - *substances[i].Tc_K / T));
    V = 0.5;
    for (int round = 0; round < 500; ++round) {
      for (int k = 0; k < 50; ++k) {
        double f = 0, slope = 0;
        for (std::size_t i = 0; i < n; ++i) {
          const double d = (K[i] - 1) / (1 + V * (K[i] - 1));
          f += ten_z[i] * d;
          slope -= ten_z[i] * d * d;
        }
        V -= f / slope;
        if (std::abs(f) < 1e-13) break;
      }
      for (std::size_t i = 0; i < n; ++i) {
        x[i] = ten_z[i] / (1 + V * (K[i] - 1));
        y[i] = K[i] * x[i];
      }
      liquid.evaluate(T, P, x, {}, l);
      vapour.evaluate(T, P, y, {}, v);
      double change = 0;
      for (std::size_t i = 0; i < n; ++i) {
        const double next = std::exp(l.ln_phi[i] - v.ln_phi[i]);
        change = std::max(change, std::abs(std::log(next / K[i])));
        K[i] = next;
      }
      if (change < 1e-10) break;
    }
    benchmark::DoNotOptimize(V);
  }
}
BENCHMARK(PlainTenFlash)->Args({300, 30})->Args({250, 10});

}  // namespace
}  // namespace jampot
