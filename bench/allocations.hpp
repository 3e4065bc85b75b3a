#pragma once
// How often memory was asked for, since the program began: counted over all threads (allocations.cpp replaces
// operator new of the benchmark program).
#include <benchmark/benchmark.h>

namespace jampot::bench {

long allocations();

/// Adds a counter "allocations" for each iteration, from the moment it is made to where it goes.
class CountAllocations {
 public:
  explicit CountAllocations(benchmark::State& state) : state_(state), before_(allocations()) {}
  ~CountAllocations() {
    state_.counters["allocations"] =
        benchmark::Counter(static_cast<double>(allocations() - before_), benchmark::Counter::kAvgIterations);
  }
  CountAllocations(const CountAllocations&) = delete;
  CountAllocations& operator=(const CountAllocations&) = delete;

 private:
  benchmark::State& state_;
  long before_;
};

}  // namespace jampot::bench
