#pragma once
// How the amounts of a mixture share out among phases at given T and P: the least Gibbs energy, reached
// downhill.
#include <span>
#include <vector>

#include "jampot/basis/hidden.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// A phase and the amounts in it, in moles per mole of the whole.
struct PhaseAmounts {
  Phase* phase = nullptr;  ///< its model
  std::vector<double> n;   ///< moles of each component

  /// Moles in all.
  double total() const;
  std::vector<double> fractions() const;  ///< mole fractions; @pre total() > 0
};

/// How a parting ended.
struct Parting {
  bool converged = false;  ///< true where the solver met its tolerance
  double residual = 0;     ///< largest difference of ln(x_i phi_i) between two phases
  double gibbs = 0;        ///< sum n_i ln(x_i phi_i) of all phases
  int iterations = 0;      ///< steps taken
  int vanished = -1;       ///< number of a phase whose amount went to zero: there are fewer phases
};

/// Newton's method on the Gibbs energy in the amounts, with a line search that only goes downhill: what
/// starts below the undivided mixture cannot end in the trivial solution. Keeps its scratch space between
/// calls.
///
/// Source of the method: M. L. Michelsen, Fluid Phase Equilib. 9 (1982) 21-40 (second-order minimisation).
class PartingSolver {
 public:
  /// Moves the amounts to the nearest minimum downhill. Their sums over the phases stay as they are.
  /// @pre every component that is there at all has a positive amount in every phase
  Parting solve(std::span<PhaseAmounts> phases, double T_K, double P_Pa);

  /// The same until every phase that is left is there and differs from the others: what vanished, or became
  /// the same as another, goes to the largest.
  /// @throws CalculationError where the amounts do not settle
  Parting settle(std::vector<PhaseAmounts>& phases, double T_K, double P_Pa);

  /// Molar volume of a phase at the end of the last `settle`, of an equation of state.
  double volume(std::size_t phase) const { return values_[phase].v_m3_mol; }

  /// Takes a little of every phase for a new one of composition w, so that the Gibbs energy falls.
  /// @pre w lies below the tangent plane of the phases
  void begin_phase(std::vector<PhaseAmounts>& phases, Phase& kind, std::span<const double> w, double T_K,
                   double P_Pa);

 private:
  struct Variable {
    std::size_t component, phase, rest;  ///< amount in `phase`; what it loses goes to `rest`
  };
  double evaluate(std::span<PhaseAmounts> phases, double T_K, double P_Pa, bool derivatives);
  void choose_variables(std::span<const PhaseAmounts> phases);
  void assemble(std::span<const PhaseAmounts> phases);

  std::vector<PhaseValues> values_;
  std::vector<std::vector<double>> x_, potential_;  ///< mole fractions and ln(x phi) by phase
  std::vector<double> totals_, by_total_;
  std::vector<Variable> variables_;
  std::vector<PhaseAmounts> trial_;

  struct Work;  ///< scratch and its linear algebra
  Hidden<Work> work_;
};

}  // namespace jampot
