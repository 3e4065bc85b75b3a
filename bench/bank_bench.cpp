// Looking a substance up, searching for a misspelt one, and reading the whole bank (once a run of the tool).
#include <benchmark/benchmark.h>

#include "jampot/substance/bank.hpp"

namespace {

using namespace jampot;

void look_up(benchmark::State& state) {
  const Bank& bank = Bank::built_in();
  for (auto _ : state) benchmark::DoNotOptimize(bank.find("MTBE"));
}
BENCHMARK(look_up)->Unit(benchmark::kMicrosecond);

void search_misspelt(benchmark::State& state) {
  const Bank& bank = Bank::built_in();
  for (auto _ : state) benchmark::DoNotOptimize(bank.search("etyl").data());
}
BENCHMARK(search_misspelt)->Unit(benchmark::kMicrosecond);

void index_bank(benchmark::State& state) {
  const std::vector<Substance> all(Bank::built_in().all().begin(), Bank::built_in().all().end());
  for (auto _ : state) {
    const Bank bank(all);
    benchmark::DoNotOptimize(bank.all().data());
  }
}
BENCHMARK(index_bank)->Unit(benchmark::kMicrosecond);

}  // namespace
