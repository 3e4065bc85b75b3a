#pragma once
// Shares of one piece of work on the cores there are.
#include <algorithm>
#include <cstddef>
#include <future>
#include <thread>
#include <vector>

namespace jampot {

/// While it lives, work in this thread stays in it: where many pieces of work keep all cores busy already.
class OneThread {
 public:
  OneThread();
  ~OneThread();
  OneThread(const OneThread&) = delete;
  OneThread& operator=(const OneThread&) = delete;
  static bool here();

 private:
  bool before_;
};

/// As many as there are cores, one at least, and no more than `most` or four.
inline std::size_t workers_for(std::size_t most) {
  if (OneThread::here()) return 1;
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
