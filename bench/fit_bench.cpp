// A fit of 30 points by maximum likelihood: two energies and alpha, from one start and from sixteen.
#include <benchmark/benchmark.h>

#include "jampot/files/measured_csv.hpp"
#include "jampot/regression/fit.hpp"

namespace {

using namespace jampot;

void fit_30_points_3_parameters(benchmark::State& state) {
  const DataSet data = read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv");
  FitOptions options;
  options.release = {"alpha"};
  options.starts = static_cast<int>(state.range(0));
  long evaluations = 0;
  for (auto _ : state) {
    const Fit result = fit({data}, options);
    benchmark::DoNotOptimize(result.objective);
    evaluations = result.evaluations;
  }
  state.counters["evaluations"] = static_cast<double>(evaluations);
}
BENCHMARK(fit_30_points_3_parameters)->ArgName("starts")->Arg(1)->Arg(16)->Unit(benchmark::kMillisecond);

}  // namespace
