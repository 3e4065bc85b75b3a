// A ternary liquid-liquid diagram (water, ethanol, ethyl acetate by NRTL) with 25 tie lines, plait point and
// the test of every tie line for a further liquid; one split of a feed; and beside them the plain textbook
// way: 25 tie lines followed from the binary edge by Newton's method with differences for derivatives,
// without plait point or test.
#include <benchmark/benchmark.h>

#include <Eigen/LU>
#include <array>
#include <cmath>

#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/subsystem.hpp"
#include "jampot/phase/mixture.hpp"

namespace {

using namespace jampot;

constexpr double T_K = 298.15;

std::unique_ptr<ActivityModel> extraction() {
  const std::vector<std::string> names{"water", "ethanol", "ethyl acetate"};
  ParameterCollection parameters;
  const auto add = [&](int i, int j, double b12, double b21) {
    PairParameters pair;
    pair.model = "nrtl";
    pair.between = {names[static_cast<std::size_t>(i)], names[static_cast<std::size_t>(j)]};
    pair.terms["tau_12"].inverse_T = b12;
    pair.terms["tau_21"].inverse_T = b21;
    pair.terms["alpha"].constant = 0.3;
    parameters.add(pair);
  };
  add(0, 1, 400, 50);
  add(0, 2, 1250, 450);
  add(1, 2, 150, 160);
  return make_activity_model("nrtl", substances_named(names), parameters);
}

void ternary_25_tie_lines(benchmark::State& state) {
  const auto model = extraction();
  std::size_t lines = 0, plaits = 0;
  for (auto _ : state) {
    const TernaryDiagram diagram = ternary_diagram(*model, T_K);
    lines = diagram.tie_lines.size();
    plaits = diagram.plait_points.size();
  }
  state.counters["tie_lines"] = static_cast<double>(lines);
  state.counters["plait_points"] = static_cast<double>(plaits);
}
BENCHMARK(ternary_25_tie_lines)->Unit(benchmark::kMicrosecond);

// The textbook way, from the split of the pair inwards: ethanol in one liquid given, three unknowns.
void ternary_25_plain(benchmark::State& state) {
  const auto model = extraction();
  double checksum = 0;
  for (auto _ : state) {
    Subsystem pair(*model, {0, 2});
    const BinarySplit edge = binary_splits(pair, T_K).at(0);
    model->set_temperature(T_K);
    Eigen::Vector3d v(edge.x1_alpha, edge.x1_beta, 0);  // water in either liquid, ethanol in the other
    const auto residual = [&](const Eigen::Vector3d& at, double ethanol) {
      const std::array<double, 3> a{at[0], ethanol, 1 - at[0] - ethanol}, b{at[1], at[2], 1 - at[1] - at[2]};
      std::array<double, 3> ga{}, gb{};
      model->evaluate(a, ga);
      model->evaluate(b, gb);
      Eigen::Vector3d f;
      for (std::size_t i = 0; i < 3; ++i)
        f[static_cast<Eigen::Index>(i)] = a[i] * std::exp(ga[i]) - b[i] * std::exp(gb[i]);
      return f;
    };
    for (int k = 1; k <= 25; ++k) {
      const double ethanol = 0.0065 * k;
      if (k == 1) v[2] = ethanol;
      for (int iteration = 0; iteration < 50; ++iteration) {
        const Eigen::Vector3d f = residual(v, ethanol);
        if (f.cwiseAbs().maxCoeff() < 1e-11) break;
        Eigen::Matrix3d J;
        for (int c = 0; c < 3; ++c) {
          Eigen::Vector3d moved = v;
          const double step = 1e-7;
          moved[c] += step;
          J.col(c) = (residual(moved, ethanol) - f) / step;
        }
        v -= J.partialPivLu().solve(f);
      }
      checksum += v[2];
    }
    benchmark::DoNotOptimize(checksum);
  }
}
BENCHMARK(ternary_25_plain)->Unit(benchmark::kMicrosecond);

void ternary_split(benchmark::State& state) {
  const auto model = extraction();
  const std::vector<double> z{0.55, 0.05, 0.40};
  std::size_t phases = 0;
  for (auto _ : state) {
    LiquidSplitter splitter(*model, T_K);
    phases = splitter.split(z).phases();
  }
  state.counters["liquids"] = static_cast<double>(phases);
}
BENCHMARK(ternary_split)->Unit(benchmark::kMicrosecond);

}  // namespace
