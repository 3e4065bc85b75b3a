#pragma once
// The same work for many things on all cores.
#include <algorithm>
#include <atomic>
#include <cstddef>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace jampot {

/// Calls work(k) for k = 0 ... count - 1, in any order, on all cores; the first exception ends it and is
/// thrown.
template <class Work>
void for_each_number(std::size_t count, const Work& work) {
  std::atomic<std::size_t> next{0};
  std::exception_ptr failure;
  std::mutex mutex;
  const auto some = [&] {
    for (std::size_t k = next++; k < count; k = next++) {
      try {
        work(k);
      } catch (...) {
        const std::scoped_lock lock(mutex);
        if (!failure) failure = std::current_exception();
        next = count;
      }
    }
  };
  {
    std::vector<std::jthread> threads;
    const unsigned cores = std::max(1u, std::thread::hardware_concurrency());
    for (unsigned t = 1; t < cores && t < count; ++t) threads.emplace_back(some);
    some();
  }
  if (failure) std::rethrow_exception(failure);
}

}  // namespace jampot
