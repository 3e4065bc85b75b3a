#pragma once
// Flashes by what is given beside the feed: T and P, a vapour fraction, an enthalpy.
#include "jampot/equilibrium/flash.hpp"
#include "jampot/phase/energies.hpp"

namespace jampot {

/// A flashed feed at its state.
struct FlashState {
  double T_K = 0,   ///< temperature, K
      P_Pa = 0;     ///< pressure, Pa
  Flashed flashed;  ///< phases and amounts
};

FlashState flash_at(Mixture& mixture, const State& at, std::span<const double> z);

/// The temperature at which a share of the moles is vapour. At 0 and 1: the first bubble, the last drop (to
/// 1e-12 of the feed).
/// @throws RequestError unless 0 <= vapour_fraction <= 1; CalculationError where no temperature gives it
FlashState flash_at_P_and_vapour_fraction(Mixture& mixture, double P_Pa, double vapour_fraction,
                                          std::span<const double> z);
/// The pressure.
FlashState flash_at_T_and_vapour_fraction(Mixture& mixture, double T_K, double vapour_fraction,
                                          std::span<const double> z);

/// The temperature at which one mole of feed has the enthalpy h_J_mol (adiabatic where it came in with it).
/// Where the enthalpy jumps (a pure substance, three phases of a binary), the phases on both sides are shared
/// out by the lever rule.
/// @param near_K where the search begins, as the temperature of the feed; 0: near the boiling points
FlashState flash_at_P_and_enthalpy(Mixture& mixture, Energies& energies, double P_Pa, double h_J_mol,
                                   std::span<const double> z, double near_K = 0);

/// The same of a mixture that stays as it is, a temporary one or one that threads share: a copy does the
/// work.
inline FlashState flash_at(const Mixture& mixture, const State& at, std::span<const double> z) {
  Mixture own = mixture;
  return flash_at(own, at, z);
}
inline FlashState flash_at_P_and_vapour_fraction(const Mixture& mixture, double P_Pa, double vapour_fraction,
                                                 std::span<const double> z) {
  Mixture own = mixture;
  return flash_at_P_and_vapour_fraction(own, P_Pa, vapour_fraction, z);
}
inline FlashState flash_at_T_and_vapour_fraction(const Mixture& mixture, double T_K, double vapour_fraction,
                                                 std::span<const double> z) {
  Mixture own = mixture;
  return flash_at_T_and_vapour_fraction(own, T_K, vapour_fraction, z);
}

/// Enthalpy of all phases for one mole of feed. @throws CalculationError naming what is missing
double enthalpy(Energies& energies, const FlashState& state);

}  // namespace jampot
