#pragma once
// The lowest point below the tangent plane of a phase, looked for everywhere.
#include <vector>

#include "jampot/equilibrium/stability.hpp"

namespace jampot {

/// A composition and the description of the phase that it would have.
struct TangentCandidate {
  std::size_t kind = 0;
  TangentMinimum minimum{{}, HUGE_VAL};
};

/// Searches every description of a phase from many starts: what boils off first and what condenses first, the
/// middle, and every nearly pure component. Keeps its scratch space between calls.
class TangentSearch {
 public:
  explicit TangentSearch(std::vector<Phase*> kinds) : kinds_(std::move(kinds)) {}

  /// All distinct ends of the descents from a phase `of` with composition x; the lowest first.
  const std::vector<TangentCandidate>& all(Phase& of, double T_K, double P_Pa, std::span<const double> x);
  /// The lowest of them.
  const TangentCandidate& lowest(Phase& of, double T_K, double P_Pa, std::span<const double> x) {
    return all(of, T_K, P_Pa, x).front();
  }

 private:
  void set_starts(std::span<const double> x);

  std::vector<Phase*> kinds_;
  TangentPlane plane_;
  PhaseValues values_;
  std::vector<double> ln_f_;
  std::vector<std::vector<double>> starts_;
  std::vector<TangentCandidate> found_;
};

}  // namespace jampot
