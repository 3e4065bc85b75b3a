#pragma once
// What the fugacity of a pure liquid is beside its vapour pressure.
#include <memory>
#include <vector>

#include "jampot/phase/vapour_models.hpp"

namespace jampot {

/// ln(f_i/Psat_i) = ln phi_i(saturated vapour) + v_i (P - Psat_i)/(R T): the second term is the logarithm of
/// the Poynting factor, with the volume of the saturated liquid. Source: J. M. Prausnitz et al., Molecular
/// Thermodynamics of Fluid-Phase Equilibria, 2nd ed. (1986), chapter 3.
class SaturationCorrection {
 public:
  /// Notices name liquids whose volume is not known: their Poynting factor is 1.
  SaturationCorrection(const VapourChoice& choice, const std::vector<Substance>& substances,
                       Notices& notices);
  /// A copy with a state of its own.
  SaturationCorrection(const SaturationCorrection& other);
  SaturationCorrection& operator=(const SaturationCorrection&) = delete;

  /// Of all substances at T_K, with ln(Psat/Pa) and its derivative with T.
  void set_temperature(double T_K, std::span<const double> ln_Psat, std::span<const double> dln_Psat);

  double ln_phi(std::size_t i) const { return of_[i].ln_phi; }  ///< of the saturated vapour
  /// Ln of the Poynting factor.
  double ln_poynting(std::size_t i, double P_Pa) const;

  /// Ln of both corrections together.
  double ln(std::size_t i, double P_Pa) const { return ln_phi(i) + ln_poynting(i, P_Pa); }
  double dT(std::size_t i, double P_Pa) const;     ///< of ln, at constant P
  double dln_P(std::size_t i, double P_Pa) const;  ///< of ln

 private:
  struct OfSubstance {
    std::unique_ptr<Phase> vapour;  ///< of the pure substance; none: taken as ideal
    double ln_phi = 0, ln_phi_dT = 0;
    double v = 0, v_dT = 0;  ///< m3/mol
    double Psat = 0, Psat_dT = 0;
  };
  bool poynting_;
  std::vector<Substance> substances_;
  std::vector<OfSubstance> of_;
  double T_K_ = 0;
};

}  // namespace jampot
