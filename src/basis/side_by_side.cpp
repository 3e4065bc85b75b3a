#include "side_by_side.hpp"

#include <algorithm>
#include <atomic>
#include <exception>
#include <thread>
#include <vector>

namespace jampot {
namespace {

thread_local bool one_thread = false;

}  // namespace

OneThread::OneThread() : before_(one_thread) {
  one_thread = true;
}
OneThread::~OneThread() {
  one_thread = before_;
}

std::size_t cores() {
  return std::max<std::size_t>(1, std::thread::hardware_concurrency());
}

std::size_t workers_for(std::size_t most) {
  if (one_thread) return 1;
  return std::min(cores(), std::clamp<std::size_t>(most, 1, 4));
}

void side_by_side(std::size_t workers, const std::function<void(std::size_t)>& share) {
  if (workers <= 1) return share(0);
  std::vector<std::exception_ptr> failures(workers);
  const auto guarded = [&](std::size_t worker) noexcept {
    try {
      share(worker);
    } catch (...) {
      failures[worker] = std::current_exception();
    }
  };
  {
    std::vector<std::jthread> threads;
    for (std::size_t worker = 1; worker < workers; ++worker) threads.emplace_back(guarded, worker);
    guarded(0);
  }
  for (const std::exception_ptr& failure : failures)
    if (failure) std::rethrow_exception(failure);
}

void for_each_number(std::size_t count, const std::function<void(std::size_t)>& work, std::size_t threads) {
  std::atomic<std::size_t> next{0};
  side_by_side(std::min({count, cores(), threads > 0 ? threads : count}), [&](std::size_t) {
    try {
      for (std::size_t k = next++; k < count; k = next++) work(k);
    } catch (...) {
      next = count;
      throw;
    }
  });
}

}  // namespace jampot
