#pragma once
// Boiling and dew curves of a binary: the numbers behind Txy, Pxy and xy diagrams.
#include <array>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// One vapour-liquid equilibrium of a binary; index 0 is the first substance.
struct BinaryPoint {
  double T_K = 0,                 ///< temperature, K
      P_Pa = 0;                   ///< pressure, Pa
  std::array<double, 2> x{},      ///< mole fractions of the liquid
      y{},                        ///< mole fractions of the vapour
      K{};                        ///< vapour-liquid ratios y/x
  std::array<double, 2> gamma{};  ///< zero where an equation of state describes the liquid
  double residual = 0;            ///< relative, of the bubble-point equation

  /// K of component 1 over K of component 2.
  double relative_volatility() const { return K[0] / K[1]; }
};

/// A boiling curve with its dew curve, at constant pressure (Txy) or temperature (Pxy). Points go from pure
/// second to pure first substance. Where the liquid splits the unstable liquids are left out: two points
/// stand at the ends of the three-phase line, with the same T, P and y.
struct BinaryCurve {
  Sought sought = Sought::temperature;   ///< temperature: isobaric
  std::string label;                     ///< of the model, where several are compared; else empty
  std::vector<BinaryPoint> points;       ///< from x1 = 0 to x1 = 1
  std::vector<Azeotrope> azeotropes;     ///< in order of x1
  std::vector<ThreePhase> three_phases;  ///< where two liquids and the vapour are in equilibrium
  std::vector<BinaryPoint>
      critical;  ///< critical points of the mixture, at which a curve of one equation of state ends
  std::vector<std::size_t> breaks;  ///< numbers of points that do not continue the one before
  Notices notices;                  ///< what the reader must know
  long evaluations = 0;             ///< of the liquid model, for the curve
  long search_evaluations = 0;      ///< of the liquid model, for azeotropes
};

/// How a curve of a binary is traced.
struct CurveOptions {
  std::size_t points = 101;  ///< at equal distances in x, ends included; at least 3
};

/// T-x-y at P_Pa. @throws RequestError unless binary; CalculationError naming the composition that failed.
BinaryCurve txy(Mixture& mixture, double P_Pa, const CurveOptions& options = {});

/// P-x-y at T_K.
BinaryCurve pxy(Mixture& mixture, double T_K, const CurveOptions& options = {});

/// The same of a mixture that stays as it is, a temporary one or one that threads share: a copy does the
/// work.
inline BinaryCurve txy(const Mixture& mixture, double P_Pa, const CurveOptions& options = {}) {
  Mixture own = mixture;
  return txy(own, P_Pa, options);
}
inline BinaryCurve pxy(const Mixture& mixture, double T_K, const CurveOptions& options = {}) {
  Mixture own = mixture;
  return pxy(own, T_K, options);
}

}  // namespace jampot
