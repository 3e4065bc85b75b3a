#pragma once
// Whether liquids split, for many of them at a time, over arrays.
#include <cstddef>
#include <span>
#include <vector>

#include "jampot/equilibrium/stability.hpp"
#include "jampot/liquid/activity_model.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// The tangent-plane test of `liquid_splits` over arrays of compositions. Fractions stand component by
/// component, as in `ActivityModel::evaluate_states`: x[i*states + k] is component i of state k.
///
/// The descents of all states, from the same starts as there, are made side by side by substitution of the
/// mole numbers, ln W_i = ln(x_i gamma_i(x)) - ln gamma_i(w), which takes several at a time where the model
/// does, and more of them where all states have one temperature; every fourth foresees the rest of the way.
/// One that is not done after some rounds goes on by Newton's method (`TangentPlane`). Keeps its scratch
/// space: repeated calls of the same size allocate nothing, unless such a descent is left.
class StabilityStates {
 public:
  /// The model is borrowed and must outlive this.
  explicit StabilityStates(ActivityModel& model);

  /// Lowest tangent-plane distances, in units of RT, each state at its own temperature.
  /// @param T_K       a temperature above zero for each state
  /// @param x         mole fractions of the liquids
  /// @param distance  out: the lowest distance met; below -1e-9 where the liquid splits (the search then
  /// ends, so that it is not the lowest there is), else 0 but for rounding or above it
  /// @returns the number of states that split
  /// @throws RequestError where the sizes do not go together or a temperature is not positive
  std::size_t distances(std::span<const double> T_K, std::span<const double> x, std::span<double> distance);

 private:
  void start(std::span<const double> T_K, std::span<const double> x, std::size_t first, std::size_t last);
  void substitute();
  void leap();
  void keep_open(std::span<double> distance);
  void finish(std::span<double> distance);

  ActivityModel& model_;
  std::size_t n_;
  bool one_temperature_ = false;     ///< of all states: the model then stands at it
  std::vector<double> ln_activity_;  ///< ln(x_i gamma_i) of the states
  // Of each open descent; the fractions component by component.
  std::vector<std::size_t> state_;
  std::vector<double> T_K_, ln_a_, w_, ln_w_;
  std::vector<double> ln_gamma_, W_, ln_W_, change_;  ///< `change_`: of ln w in the round before
  std::vector<double> sum_, moved_, met_;             ///< largest change of a fraction; the distance met last
  TangentPlane plane_;
};

}  // namespace jampot
