#pragma once
// Special points of a mixture that are known beside measured points: a fit meets them within their
// uncertainty.
#include <cstddef>
#include <string_view>
#include <vector>

namespace jampot {

enum class SpecialPoint {
  azeotrope,          ///< homogeneous: liquid and vapour have the same composition
  critical_solution,  ///< of two substances: two liquids become one with temperature
  plait_point         ///< of three: the tie lines of one temperature end
};

/// The word for it: "azeotrope", "critical" or "plait". @throws RequestError naming those there are
std::string_view name_of(SpecialPoint what);
SpecialPoint parse_special_point(std::string_view text);

/// One that is known, in SI, with standard uncertainties.
struct KnownPoint {
  SpecialPoint what = SpecialPoint::azeotrope;  ///< which special point
  /// Mole fractions of all substances of the fit in their order; 0 for one that is not there. Of a critical
  /// solution point empty where only its temperature is known.
  std::vector<double> x{};
  double T_K = 0;   ///< K
  double P_Pa = 0;  ///< of an azeotrope
  double u_x = 0,   ///< standard uncertainty of x
      u_T_K = 0,    ///< standard uncertainty of the temperature, K
      u_P_Pa = 0;   ///< standard uncertainty of the pressure, Pa
};

/// @throws RequestError for a point that no fit of so many substances can meet
void demand_known_point(const KnownPoint& point, std::size_t substances);

/// What became of it in a fit.
struct KnownRow {
  KnownPoint known{};       ///< as it was given
  std::vector<double> x{};  ///< the point of the model nearest to it, in units of the uncertainties
  double T_K = 0,           ///< of the model, K
      P_Pa = 0;             ///< of the model, Pa
  double distance = 0;      ///< to that, in standard uncertainties
  bool there = false;       ///< the model has such a point near it
};

}  // namespace jampot
