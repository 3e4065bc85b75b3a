#pragma once
// Shares of one piece of work on the cores there are.
#include <algorithm>
#include <cstddef>
#include <future>
#include <thread>
#include <vector>

namespace jampot {

/// As many as there are cores, one at least, and no more than `most` or four.
inline std::size_t workers_for(std::size_t most) {
  return std::clamp<std::size_t>(std::thread::hardware_concurrency(), 1, std::clamp<std::size_t>(most, 1, 4));
}

/// share(0), share(1), ... side by side; returns when all are done. What a share throws is thrown here.
template <class Share>
void side_by_side(std::size_t workers, const Share& share) {
  std::vector<std::future<void>> running;
  for (std::size_t worker = 1; worker < workers; ++worker)
    running.push_back(std::async(std::launch::async, [&share, worker] { share(worker); }));
  share(0);
  for (auto& one : running) one.get();
}

}  // namespace jampot
