#pragma once
// One piece of work on the cores there are.
#include <cstddef>
#include <functional>

namespace jampot {

/// While it lives, work in this thread stays in it: where many pieces of work keep all cores busy already.
class OneThread {
 public:
  OneThread();
  ~OneThread();
  OneThread(const OneThread&) = delete;
  OneThread& operator=(const OneThread&) = delete;

 private:
  bool before_;
};

/// The cores of this machine that the process may use, one at least.
std::size_t cores();

/// As many as there are cores, one at least, and no more than `most` or four.
std::size_t workers_for(std::size_t most);

/// share(0), share(1), ... side by side; returns when all are done. What a share throws is thrown here, that
/// of the first where several do.
void side_by_side(std::size_t workers, const std::function<void(std::size_t)>& share);

/// Calls work(k) for k = 0 ... count - 1, in any order.
/// @param threads how many work at a time, at most, and no more than there are cores; 0 for all cores
/// @throws what one of them throws; those that have not begun are left out then
void for_each_number(std::size_t count, const std::function<void(std::size_t)>& work,
                     std::size_t threads = 0);

}  // namespace jampot
