// Residue curve maps of 60 curves, with singular points, boundaries and regions, without drawing; and the
// curves alone by the plain method of the textbooks in the same run.
#include <benchmark/benchmark.h>

#include <array>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"

namespace jampot {
namespace {

// Of the order of published ones; made up.
PairParameters pair(const char* first, const char* second, double b12, double b21) {
  PairParameters made;
  made.model = "nrtl";
  made.between = {first, second};
  made.terms["tau_12"].inverse_T = b12;
  made.terms["tau_21"].inverse_T = b21;
  made.terms["alpha"].constant = 0.3;
  made.source = "made up";
  return made;
}

Mixture homogeneous() {
  ParameterCollection parameters;
  parameters.add(pair("acetone", "chloroform", -310, 110));
  parameters.add(pair("acetone", "methanol", 90, 115));
  parameters.add(pair("chloroform", "methanol", 720, -35));
  return {substances_named({"acetone", "chloroform", "methanol"}), "nrtl", parameters};
}

Mixture heterogeneous() {
  ParameterCollection parameters;
  parameters.add(pair("1-butanol", "n-butyl acetate", 40, 160));
  parameters.add(pair("1-butanol", "water", 250, 1300));
  parameters.add(pair("n-butyl acetate", "water", 560, 1700));
  return {substances_named({"1-butanol", "n-butyl acetate", "water"}), "nrtl", parameters};
}

void map_of_sixty(benchmark::State& state, Mixture mixture, bool each_slope_exact = false) {
  ResidueOptions options;
  options.each_slope_exact = each_slope_exact;
  options.curves = 60;
  std::size_t singular = 0, regions = 0;
  for (auto _ : state) {
    const ResidueMap map = residue_map(mixture, standard_atmosphere, options);
    singular = map.singular.points.size();
    regions = map.regions.size();
    benchmark::DoNotOptimize(map.curves.data());
  }
  state.counters["singular"] = static_cast<double>(singular);
  state.counters["regions"] = static_cast<double>(regions);
  state.SetLabel(mixture.liquid_model());
}
void HomogeneousMap(benchmark::State& state) {
  map_of_sixty(state, homogeneous());
}
// As maps were made before: a boiling point for every slope.
void HomogeneousMapSlopeBySlope(benchmark::State& state) {
  map_of_sixty(state, homogeneous(), true);
}
void HomogeneousMapByGroups(benchmark::State& state) {
  map_of_sixty(state, {substances_named({"acetone", "chloroform", "methanol"}), "unifac", {}});
}
void HeterogeneousMap(benchmark::State& state) {
  map_of_sixty(state, heterogeneous());
}
void HeterogeneousMapByGroups(benchmark::State& state) {
  map_of_sixty(state, {substances_named({"ethanol", "benzene", "water"}), "unifac", {}});
}
BENCHMARK(HomogeneousMap)->Unit(benchmark::kMillisecond);
BENCHMARK(HomogeneousMapSlopeBySlope)->Unit(benchmark::kMillisecond);
BENCHMARK(HomogeneousMapByGroups)->Unit(benchmark::kMillisecond);
BENCHMARK(HeterogeneousMap)->Unit(benchmark::kMillisecond);
BENCHMARK(HeterogeneousMapByGroups)->Unit(benchmark::kMillisecond);

// The textbook's way: Runge-Kutta of fourth order in 400 equal steps of the dimensionless time each way, a
// boiling point from the mean of the pure ones for every slope, 60 starts on a line; no singular points, no
// boundaries, no second liquid.
void PlainCurves(benchmark::State& state) {
  Mixture mixture = homogeneous();
  using X = std::array<double, 3>;
  const auto slope = [&](const X& x) {
    const VlePoint point = bubble_temperature(mixture, standard_atmosphere, x);
    return X{x[0] - point.y[0], x[1] - point.y[1], x[2] - point.y[2]};
  };
  const auto moved = [](const X& x, double h, const X& by) {
    X out{};
    double sum = 0;
    for (std::size_t i = 0; i < 3; ++i) sum += out[i] = std::max(0.0, x[i] + h * by[i]);
    for (double& value : out) value /= sum;
    return out;
  };
  for (auto _ : state) {
    double last = 0;
    for (int k = 0; k < 60; ++k) {
      for (const double h : {0.02, -0.02}) {
        X x{(k + 0.5) / 60 * 0.8 + 0.1, 0.05, 0};
        x[2] = 1 - x[0] - x[1];
        for (int step = 0; step < 400; ++step) {
          const X a = slope(x), b = slope(moved(x, h / 2, a)), c = slope(moved(x, h / 2, b)),
                  d = slope(moved(x, h, c));
          X mean{};
          for (std::size_t i = 0; i < 3; ++i) mean[i] = (a[i] + 2 * b[i] + 2 * c[i] + d[i]) / 6;
          x = moved(x, h, mean);
        }
        last += x[0];
      }
    }
    benchmark::DoNotOptimize(last);
  }
}
BENCHMARK(PlainCurves)->Unit(benchmark::kMillisecond);

}  // namespace
}  // namespace jampot
