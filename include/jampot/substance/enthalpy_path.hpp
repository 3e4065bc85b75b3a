#pragma once
// Enthalpy, entropy and heat capacity of a pure liquid and of its vapour, on one path.
#include <functional>
#include <optional>

#include "jampot/substance/properties.hpp"

namespace jampot {

/// Where the liquid and its saturated vapour stand above the ideal gas of the same temperature:
/// - at the anchor (25 degC; the boiling point of what has its critical point near or below 25 degC) the
/// vapour
///   stands where its model puts it, and the liquid below it by the enthalpy of vaporisation;
/// - from there the liquid follows the integral of its heat capacity;
/// - at every other temperature the saturated vapour stands above the liquid by the enthalpy of vaporisation
///   of that temperature. What its model lacks for that grows with the pressure, as a departure of first
///   order does: the share P/Psat of it belongs to a thinner vapour;
/// - from 0.85 to 0.95 Tc the path goes over into the model of the vapour and the enthalpy of vaporisation
///   alone, which meet at the critical point; heat capacities there are the slope of the enthalpy.
/// Without a heat capacity of the liquid the last rule holds at all temperatures.
class EnthalpyPath {
 public:
  /// J/mol and J/(mol K), above the ideal gas at the same temperature (and one atmosphere).
  struct Levels {
    double h = 0,  ///< enthalpy, J/mol
        s = 0;     ///< entropy, J/(mol K)
  };
  /// Departure of the vapour from the ideal gas of the same temperature and pressure, by its model.
  using Departure = std::function<Levels(double T_K, double P_Pa)>;

  /// @pre the substance has a vapour pressure; it is copied
  EnthalpyPath(const Substance& substance, Departure departure);

  /// Enthalpy and entropy of the saturated liquid.
  Levels liquid(double T_K) const;
  /// What a vapour at a partial pressure has beside its model.
  Levels vapour(double T_K, double P_Pa) const;
  double vapour_Cp(double T_K, double P_Pa) const;  ///< d/dT of the enthalpy of `vapour`
  /// Of the liquid, the slope of its enthalpy.
  Property liquid_Cp(double T_K) const;

 private:
  struct Gap {
    double T_K = 0;
    Levels base, gap;
  };
  double vaporisation(double T_K) const;
  Levels base(double T_K) const;
  const Gap& at(double T_K) const;

  Substance substance_;
  Departure departure_;
  double anchor_K_ = 298.15;
  std::optional<Levels> anchor_;  ///< of the liquid; nothing where its heat capacity is not known
  mutable Gap last_;
};

/// With the departure of the virial equation by `second_virial`; nothing where that, the vapour pressure or
/// the ideal-gas heat capacity is not known.
std::optional<EnthalpyPath> virial_path(const Substance& substance);

}  // namespace jampot
