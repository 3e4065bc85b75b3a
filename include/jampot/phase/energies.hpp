#pragma once
// Enthalpy, heat capacity and density of the phases of a mixture, all on one reference.
#include "jampot/phase/mixture.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {

/// What a phase has beside its fugacities.
struct PhaseEnergy {
  Property h_J_mol, Cp_J_mol_K, molar_volume_m3_mol;
};

/// One rule for every model: the ideal gas of each substance on the stated reference, and from there
/// - to a vapour, or any phase of an equation of state, the departure of its model, -R T^2 sum_i x_i d ln
/// phi_i/dT;
/// - to a liquid of an activity model down to the saturated vapour of the pure substance (departure of the
/// vapour
///   model), by the enthalpy of vaporisation to the liquid (the known value, not the slope of the vapour
///   pressure), and by the excess enthalpy -R T^2 sum_i x_i d ln gamma_i/dT to the mixture.
/// - to a gas dissolved after Henry's law by -R T^2 d ln H/dT.
/// Heat capacities: exact from an equation of state; of a virial vapour with the second derivative of its
/// coefficients; of a liquid the sum of the pure ones (no excess). Volumes of such liquids are added (no
/// excess volume).
class Energies {
 public:
  explicit Energies(Mixture& mixture, const Reference& reference = {});

  /// Of the phase described by kinds()[kind] at a state.
  PhaseEnergy of(std::size_t kind, double T_K, double P_Pa, std::span<const double> x);
  /// The enthalpy alone. @throws CalculationError naming what is missing
  double enthalpy(std::size_t kind, double T_K, double P_Pa, std::span<const double> x);

  const Reference& reference() const { return reference_; }
  /// Enthalpies of vaporisation taken from the slope of the vapour pressure.
  const Notices& notices() const { return notices_; }

 private:
  bool liquid(std::size_t kind) const { return !mixture_.one_equation() && kind == 1; }
  double pure_liquid(std::size_t i, double T_K);
  void heat_capacity(std::size_t kind, double T_K, double P_Pa, std::span<const double> x, Property& Cp);

  Mixture& mixture_;
  Reference reference_;
  std::vector<std::unique_ptr<Phase>> pure_vapours_;
  PhaseValues values_, pure_values_;
  std::vector<double> ln_gamma_, dln_gamma_;
  Notices notices_;
};

}  // namespace jampot
