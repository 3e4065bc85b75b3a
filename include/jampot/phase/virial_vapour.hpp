#pragma once
// A vapour at moderate pressure: second virial coefficients, and dimers where molecules pair up.

#include "jampot/basis/hidden.hpp"
#include "jampot/fluid/virial_coefficients.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// ln phi_i = P/(R T) (2 sum_j y_j B_ij - sum_jk y_j y_k B_jk), the virial equation in P cut after its second
/// coefficient.
///
/// Where molecules pair up (carboxylic acids) the vapour is an ideal solution of monomers and dimers ij in
/// equilibrium, K_ij = -(2 - delta_ij) B_ij(bound)/(R T), each with the free share of B: phi_i = (monomers of
/// i per molecule)/y_i exp(B_ii(free) P/(R T)). Source: K.-H. Nothnagel, D. S. Abrams, J. M. Prausnitz, Ind.
/// Eng. Chem. Process Des. Dev. 12 (1973) 25-35; J. M. Prausnitz et al. (1980).
class VirialVapour final : public Phase {
 public:
  /// With its coefficients; a copy has a state of its own.
  explicit VirialVapour(std::unique_ptr<VirialCoefficients> coefficients);
  /// With its coefficients; a copy has a state of its own.
  VirialVapour(const VirialVapour& other);
  VirialVapour& operator=(const VirialVapour&) = delete;

  std::size_t size() const override { return B_->size(); }
  std::unique_ptr<Phase> clone() const override { return std::make_unique<VirialVapour>(*this); }
  bool depends_on_composition() const override { return true; }
  /// Second virial coefficients.
  const VirialCoefficients& coefficients() const { return *B_; }

  /// Molecules (monomers and dimers) per mole as weighed in, at a state; 1 where nothing pairs up.
  double true_moles(double T_K, double P_Pa, std::span<const double> y);

 private:
  void do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                   PhaseValues& out) override;
  void physical(double T_K, double P_Pa, std::span<const double> y, Wanted wanted, PhaseValues& out);
  void chemical(double T_K, double P_Pa, std::span<const double> y, Wanted wanted, PhaseValues& out);
  void find_monomers(double T_K, double P_Pa, std::span<const double> y);

  std::unique_ptr<VirialCoefficients> B_;
  std::vector<double> row_;  ///< sum_j y_j B_ij
  std::vector<double> kappa_, kappa_T_,
      kappa_P_;  ///< ln-derivatives of the equilibrium constants with T and ln P

  struct Work;  ///< scratch and its linear algebra
  Hidden<Work> work_;
};

}  // namespace jampot
