#pragma once
// The lowest point below the tangent plane of a phase, looked for everywhere.
#include <vector>

#include "jampot/equilibrium/parting.hpp"
#include "jampot/equilibrium/stability.hpp"

namespace jampot {

/// A composition and the description of the phase that it would have.
struct TangentCandidate {
  std::size_t kind = 0;                  ///< number of the kind of phase
  TangentMinimum minimum{{}, HUGE_VAL};  ///< lowest point found
};

/// Searches every description of a phase from many starts: what boils off first and what condenses first, the
/// middle, and every nearly pure component. Keeps its scratch space between calls.
class TangentSearch {
 public:
  /// With the kinds of phase that may form; they must outlive the search.
  explicit TangentSearch(std::vector<Phase*> kinds) : kinds_(std::move(kinds)) {}

  /// ln phi of the first phase of the last search.
  const PhaseValues& values() const { return values_; }

  /// All distinct ends of the descents from a phase `of` with composition x; the lowest first.
  const std::vector<TangentCandidate>& all(Phase& of, double T_K, double P_Pa, std::span<const double> x);
  /// The first end found below `below` (from the common plane of phases that are in equilibrium), else the
  /// lowest of all. Descents end as soon as they are clearly below, or beside one of the phases; nearly pure
  /// starts high above the plane (an activity under 0.15) are not followed.
  const TangentCandidate& below(std::span<const PhaseAmounts> phases, double T_K, double P_Pa, double below);
  /// The lowest of them.
  const TangentCandidate& lowest(Phase& of, double T_K, double P_Pa, std::span<const double> x) {
    return all(of, T_K, P_Pa, x).front();
  }

 private:
  void set_plane(Phase& of, double T_K, double P_Pa, std::span<const double> x);
  void set_starts(std::span<const double> x);

  std::vector<Phase*> kinds_;
  TangentPlane plane_;
  PhaseValues values_;
  std::vector<double> ln_f_;
  std::vector<std::vector<double>> starts_, ln_starts_;
  std::size_t thorough_ = 0;       ///< starts from here on are nearly pure
  std::vector<std::size_t> rich_;  ///< in which component
  std::vector<TangentCandidate> found_;
  std::vector<std::vector<double>> known_;
  std::vector<double> between_;
  TangentCandidate best_, trial_;
};

}  // namespace jampot
