#pragma once
// The equations of a phase about to appear beside a known one. Bubble and dew points are both this.
#include <span>
#include <vector>

#include "jampot/basis/hidden.hpp"
#include "jampot/basis/matrix.hpp"
#include "jampot/equilibrium/sought.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// A known phase of composition z and an incipient phase of composition w in equilibrium with it:
///   ln K_i + ln phi_i(incipient, w) - ln phi_i(known, z) = 0,  w_i = z_i K_i,  sum_i w_i = 1.
/// Written in ln K, so that components absent from z still have their limiting K.
struct IncipientState {
  /// With room for n components.
  explicit IncipientState(std::size_t n = 0) : ln_K(n), w(n) {}
  double T_K = 0;            ///< temperature, K
  double P_Pa = 0;           ///< pressure, Pa
  std::vector<double> ln_K;  ///< ln of w over the composition of the other phase
  std::vector<double> w;     ///< mole fractions of the incipient phase
  double residual =
      0;  ///< largest absolute residual of the equations (they are logarithms: a relative error)
};

/// Solves for an incipient phase. Holds scratch space and the last solution; allocates nothing while solving.
class IncipientSolver {
 public:
  /// Residual at which a state counts as solved. Newton's last step squares it: curves that ask often can do
  /// with less than the default.
  double tolerance = 1e-12;

  /// The phases are borrowed and must outlive the solver.
  IncipientSolver(Phase& known, Phase& incipient);

  /// Solves from the state given: T_K, P_Pa, and (where the incipient phase depends on composition) w are
  /// starting values; the one of T and P that is not sought is held. Returns false if no solution was
  /// reached.
  bool solve(Sought sought, std::span<const double> z, IncipientState& state);

  /// Solves for T or P with w held: sum_i z_i phi_i(known, z) / phi_i(incipient, w) = 1. Sets w to the result
  /// normalised (one step of successive substitution). Returns false if no solution was reached.
  bool solve_with_fixed_w(Sought sought, std::span<const double> z, IncipientState& state);

  /// Derivatives of the solved state at constant P (temperature sought) or T (pressure sought), one column
  /// for each input: z_1..z_n (as amounts), the held one of ln P and T, then the terms of the known phase's
  /// activity model. Rows: ln K_1..ln K_n, then T (temperature sought) or ln P (pressure sought).
  MatrixView sensitivity(Sought sought, std::span<const double> z, const IncipientState& state);

 private:
  void evaluate(std::span<const double> z, const IncipientState& state, Wanted wanted);
  bool newton(Sought sought, std::span<const double> z, IncipientState& state);
  bool bracketed(Sought sought, std::span<const double> z, IncipientState& state);
  void fill_jacobian(Sought sought, std::span<const double> z, const IncipientState& state);
  void eliminate();
  bool reciprocal_in_P() const;
  double log_sum(std::span<const double> z, IncipientState& state);

  Phase& known_;
  Phase& incipient_;
  std::size_t n_;
  PhaseValues known_values_, incipient_values_;
  std::vector<double> term_derivatives_;
  std::vector<double> previous_w_;
  IncipientState attempt_;

  struct Work;  ///< scratch and its linear algebra
  Hidden<Work> work_;
};

}  // namespace jampot
