#pragma once
// How far long work has come, for whoever wants to show it.
#include <atomic>

namespace jampot {

/// Counted by the work, read by another thread. The work may add to `expected` as it finds out what there is
/// to do.
struct Progress {
  std::atomic<long> done{0},  ///< pieces of work done
      expected{0};            ///< pieces of work in all; 0: not known
};

}  // namespace jampot
