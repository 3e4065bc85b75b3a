#pragma once
// Bubble points of many liquids at a time, over arrays.
#include <span>
#include <vector>

#include "jampot/equilibrium/sought.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Bubble points over arrays of compositions. Fractions stand component by component, as in
/// `ActivityModel::evaluate_states`: x[i*states + k] is component i of state k, and y likewise.
///
/// Of an activity model with an ideal vapour all states are solved side by side (secant method in 1/T on
/// ln(sum x_i gamma_i Psat_i/P), from the slope of the vapour pressures), which takes several at a time where
/// the model does; with other vapours, or an equation of state, one after the other. Keeps its scratch space:
/// repeated calls of the same size allocate nothing.
class BubbleStates {
 public:
  /// The mixture is borrowed and must outlive this.
  explicit BubbleStates(Mixture& mixture);

  /// Bubble temperatures at P_Pa, to 1e-9 in ln P.
  /// @param x    mole fractions of the liquids
  /// @param T_K  in: where the search begins (of states side by side), or 0; out: the bubble temperatures, 0
  /// where none was found
  /// @param y    out: mole fractions of the vapours, 0 where none was found
  /// @returns the number of states where none was found
  /// @throws RequestError where the sizes do not go together or P_Pa is not positive
  std::size_t temperatures(double P_Pa, std::span<const double> x, std::span<double> T_K,
                           std::span<double> y);

  /// Bubble pressures at the temperature of each state.
  /// @param T_K   a temperature above zero for each state
  /// @param x     mole fractions of the liquids
  /// @param P_Pa  out: the bubble pressures, 0 where none was found
  /// @param y     as in `temperatures`
  /// @returns the number of states where none was found
  /// @throws RequestError where the sizes do not go together or a temperature is not positive
  std::size_t pressures(std::span<const double> T_K, std::span<const double> x, std::span<double> P_Pa,
                        std::span<double> y);

 private:
  double one(Sought sought, double held, std::span<const double> x, std::size_t states, std::size_t k,
             std::span<double> y);
  double start(std::span<const double> x, std::size_t states, std::size_t k) const;
  void terms(std::span<const double> T_K, std::span<const double> x);

  Mixture& mixture_;
  bool side_by_side_;                         ///< an activity model with an ideal vapour
  std::vector<double> z_, boiling_K_;         ///< one composition; boiling points of the pure ones
  std::vector<double> share_, slope_, sum_;   ///< x_i gamma_i Psat_i by component; its slope and sum by state
  std::vector<double> ln_gamma_, f_, u_, T_;  ///< by state: ln(sum/P) and 1/T of the step before
};

}  // namespace jampot
