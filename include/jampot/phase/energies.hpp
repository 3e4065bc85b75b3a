#pragma once
// Enthalpy, heat capacity and density of the phases of a mixture, all on one reference.
#include "jampot/phase/mixture.hpp"
#include "jampot/substance/enthalpy_path.hpp"

namespace jampot {

/// What a phase has beside its fugacities.
struct PhaseEnergy {
  Property h_J_mol,         ///< enthalpy, J/mol
      Cp_J_mol_K,           ///< molar heat capacity, J/(mol K)
      molar_volume_m3_mol;  ///< molar volume, m3/mol
};

/// One rule for every model: the ideal gas of each substance on the stated reference, and from there
/// - to any phase of an equation of state the departure of its model, -R T^2 sum_i x_i d ln phi_i/dT;
/// - to a liquid of an activity model the path of each pure liquid (`EnthalpyPath`: the integral of its heat
///   capacity, the saturated vapour above it by the enthalpy of vaporisation), and the excess enthalpy
///   -R T^2 sum_i x_i d ln gamma_i/dT;
/// - to the vapour beside such a liquid the departure of its model, and at the partial pressure of each
///   substance what its path adds, so that evaporation takes the enthalpy of vaporisation;
/// - to a gas dissolved after Henry's law -R T^2 d ln H/dT.
/// Heat capacities are the slope of the enthalpy at constant pressure, but of a liquid without the excess.
/// Volumes of such liquids are added (no excess volume).
class Energies {
 public:
  /// With its reference; keeps a copy of the mixture.
  explicit Energies(Mixture& mixture, const Reference& reference = {});

  /// Of the phase described by kinds()[kind] at a state.
  PhaseEnergy of(std::size_t kind, double T_K, double P_Pa, std::span<const double> x);
  /// The enthalpy alone. @throws CalculationError naming what is missing
  double enthalpy(std::size_t kind, double T_K, double P_Pa, std::span<const double> x);

  /// Where enthalpy is zero.
  const Reference& reference() const { return reference_; }
  /// Enthalpies of vaporisation taken from the slope of the vapour pressure.
  const Notices& notices() const { return notices_; }

 private:
  bool liquid(std::size_t kind) const { return !mixture_.one_equation() && kind == 1; }
  const EnthalpyPath& path(std::size_t i) const;
  bool on_a_path(std::size_t i) const { return paths_[i] && !mixture_.is_solute(i); }
  void heat_capacity(std::size_t kind, double T_K, double P_Pa, std::span<const double> x, Property& Cp);

  Mixture& mixture_;
  Reference reference_;
  std::vector<std::optional<EnthalpyPath>> paths_;  ///< nothing for what has no vapour pressure
  PhaseValues values_;
  std::vector<double> ln_gamma_, dln_gamma_;
  Notices notices_;
};

}  // namespace jampot
