#pragma once
// Where a ternary liquid at its boiling point is two liquids, at a given pressure.
#include <memory>
#include <optional>
#include <vector>

#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/boiling_liquids.hpp"
#include "jampot/equilibrium/incipient.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Two liquids that boil together, and their vapour.
struct BoilingTieLine : TieLine {
  std::array<double, 3> y{};  ///< mole fractions of the vapour
  double T_K = 0;             ///< temperature, K
};

/// A region of two boiling liquids: its tie lines in order, from one end to the other. alpha lies on the same
/// side throughout. The vapours make the vapour line.
struct BoilingRegion {
  std::vector<BoilingTieLine> tie_lines;  ///< in order along the region
  RegionEnd begin,                        ///< where it begins
      end;                                ///< where it ends
};

/// Where the boiling liquid of a ternary parts in two or three.
struct BoilingRegions {
  std::vector<BoilingRegion> regions;              ///< one for each region of two boiling liquids
  std::vector<ThreeBoilingLiquids> three_liquids;  ///< whatever lies in their triangles boils as three
  Notices notices;                                 ///< what the reader must know
};

class BoilingPolynomials;
class BubbleStates;

/// All regions of a ternary mixture at P_Pa.
///
/// Method: the three-phase lines of the three pairs are followed into the triangle, every tie line solved
/// with its vapour and temperature, until another pair, or until both liquids become one (found by letting
/// the tie lines shrink: the square of their length goes to zero linearly), or until a third liquid appears,
/// whose triangle sends out two more regions. What still parts then on a lattice begins a region of its own.
/// @throws CalculationError where a region cannot be followed to an end
BoilingRegions boiling_regions(Mixture& mixture, double P_Pa);

/// The boiling point of ternary liquids of any composition at one pressure, one liquid or two: what the
/// equation of residue curves asks for. Where there are two it is read off a curve through the tie lines of
/// the region (tests hold it to 1e-5 of the exact one). Keeps the last temperature as the next start;
/// allocates nothing once made.
class BoilingLiquid {
 public:
  /// The mixture and the regions are borrowed and must outlive this.
  BoilingLiquid(Mixture& mixture, double P_Pa, const BoilingRegions& regions);
  BoilingLiquid(Mixture& mixture, double P_Pa, BoilingRegions&& regions) = delete;  ///< it keeps a reference
  ~BoilingLiquid();

  /// Boils a composition. @throws CalculationError where no bubble point is found
  void at(const std::array<double, 3>& x);
  /// The same for many compositions: one liquid is read off polynomials through exact boiling points, within
  /// 1e-6 of the vapour and 1e-4 K. They are made where they are first needed. @throws CalculationError as
  /// `at`
  void at_on_surface(const std::array<double, 3>& x);
  /// Boiling point found last, K.
  double T_K() const { return T_K_; }
  /// Vapour found last.
  const std::array<double, 3>& y() const { return y_; }
  /// True where two liquids boil.
  bool two_liquids() const { return liquids_there_ == 2; }
  /// Number of liquids that boil.
  int liquids() const { return liquids_there_; }

  /// The exact tie line through a composition, its share of beta too; nothing where it boils as one liquid or
  /// as three.
  struct Through {
    BoilingTieLine line;  ///< the tie line
    double share = 0;     ///< share of the second liquid in the overall composition
  };
  /// The tie line through x, if x lies in a region.
  std::optional<Through> tie_line(const std::array<double, 3>& x);

 private:
  class Spline;
  bool part(const std::array<double, 3>& x);
  bool at_several(const std::array<double, 3>& x);
  bool boil(const std::array<double, 3>& x);
  void demand_boiling(bool found, const std::array<double, 3>& x) const;

  Mixture& mixture_;
  double P_Pa_;
  const std::vector<ThreeBoilingLiquids>& three_;
  std::vector<Spline> splines_;
  std::unique_ptr<BubbleStates> many_;  ///< for the surface
  std::unique_ptr<BoilingPolynomials> surface_;
  IncipientSolver solver_;
  IncipientState state_;
  std::array<double, 3> last_{}, before_{};  ///< boiled as one liquid
  double T_before_ = 0;
  BoilingLiquidsSolver liquids_;
  BoilingTieLine line_;
  double share_ = 0;
  double T_K_ = 0;
  std::array<double, 3> y_{};
  int liquids_there_ = 1;
};

}  // namespace jampot
