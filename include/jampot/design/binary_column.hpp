#pragma once
// A column for two substances: stages, reflux and feed stage, with constant molar overflow and with
// enthalpies.
#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "jampot/diagram/binary_vle.hpp"

namespace jampot {

/// The equilibrium of a column by the mole fraction of the substance that is enriched at its top, and the
/// enthalpies of saturated liquid and vapour where they are known. Between the points cubic and monotonic.
class ColumnEquilibrium {
 public:
  /// From points with x strictly rising from 0 to 1.
  /// @throws RequestError for fewer than four points or different numbers of them
  ColumnEquilibrium(std::vector<double> x, std::vector<double> y, std::vector<double> T_K);
  /// Adds molar enthalpies at the same points: of the liquid x and of the vapour y, J/mol.
  void set_enthalpies(std::vector<double> liquid_J_mol, std::vector<double> vapour_J_mol);
  /// From a boiling curve. @param light  number of the substance that is enriched at the top
  static ColumnEquilibrium of(const BinaryCurve& curve, std::size_t light);

  /// Mole fraction of the vapour over a liquid.
  double y(double x) const;
  /// Mole fraction of the liquid under a vapour.
  double x(double y) const;
  /// Boiling point of a liquid, K.
  double T_K(double x) const;
  /// True where enthalpies were given.
  bool has_enthalpies() const { return has_enthalpies_; }
  double liquid_J_mol(double x) const;  ///< of the boiling liquid
  double vapour_J_mol(double y) const;  ///< of the saturated vapour
  /// Where y = x strictly between two compositions: the first azeotrope met on the way down from the top.
  std::optional<double> azeotrope_between(double bottom, double top) const;

 private:
  struct Curves;
  std::vector<double> x_;
  double y_low_ = 0, y_high_ = 1;
  std::shared_ptr<const Curves> curves_;  ///< never changed once made: copies share it
  bool has_enthalpies_ = false;
};

/// What a column has to do, in mole fractions of the substance enriched at the top.
struct ColumnTask {
  double feed = 0.5,       ///< mole fraction of the feed
      top = 0.95,          ///< of the distillate
      bottom = 0.05;       ///< of the bottom product
  double feed_liquid = 1;  ///< liquid fraction of the feed: 1 boiling, 0 saturated vapour, above 1 subcooled
  double efficiency = 1;   ///< Murphree's, of the vapour, 0 to 1
};

/// A stage, counted from the top.
struct ColumnStage {
  double x = 0,            ///< mole fraction of the liquid that leaves it
      y = 0,               ///< of the vapour that leaves it
      T_K = 0;             ///< boiling point of the liquid, K
  bool stripping = false;  ///< the one the feed enters, or below it
};

/// The least reflux, with which the stages become infinitely many.
struct MinimumReflux {
  double ratio = 0;      ///< reflux over distillate
  double pinch = 0;      ///< mole fraction of the liquid where operating line and equilibrium meet
  bool tangent = false;  ///< true where they touch away from the feed
};

/// Stages at a reflux ratio.
struct ColumnStages {
  double reflux = 0;                  ///< reflux over distillate; infinite at total reflux
  double count = 0;                   ///< with the part of the last stage, reboiler included
  int feed_stage = 0;                 ///< the one the feed enters, counted from the top; 0 at total reflux
  std::vector<ColumnStage> stages{};  ///< from the top
};

/// @throws RequestError unless 0 < bottom < feed < top < 1 and the efficiency lies in (0, 1];
/// CalculationError where an azeotrope lies between, naming the purity that can be reached
void demand_possible(const ColumnEquilibrium& equilibrium, const ColumnTask& task);

/// Stages at total reflux. Source of the construction: W. L. McCabe, E. W. Thiele, Ind. Eng. Chem. 17 (1925)
/// 605-611.
ColumnStages stages_at_total_reflux(const ColumnEquilibrium& equilibrium, const ColumnTask& task);

/// With constant molar overflow: the smallest ratio with which neither operating line meets the equilibrium
/// before its end.
MinimumReflux minimum_reflux(const ColumnEquilibrium& equilibrium, const ColumnTask& task);

/// With constant molar overflow, a total condenser and a reboiler that is a stage, the feed where it saves
/// most. @throws CalculationError at or below the least reflux
ColumnStages stages_at_reflux(const ColumnEquilibrium& equilibrium, const ColumnTask& task, double reflux);

/// Stage to stage with the enthalpies of both phases: the flows change along the column. Heats per mole of
/// feed.
struct ExactStages : ColumnStages {
  double condenser_J_mol = 0,    ///< heat taken away at the top
      reboiler_J_mol = 0;        ///< heat added at the bottom
  std::vector<double> vapour{};  ///< moles of vapour that leave each stage, per mole of feed
};
/// Source of the construction: M. Ponchon, Tech. Moderne 13 (1921) 20; R. Savarit, Arts et Metiers (1922) 65.
/// @throws CalculationError without enthalpies, or where the reflux is too small
ExactStages exact_stages(const ColumnEquilibrium& equilibrium, const ColumnTask& task, double reflux);

/// Boiled away from a still, the vapour taken off as it comes.
struct SimpleDistillation {
  double left = 0;        ///< moles left per mole charged
  double distillate = 0;  ///< mean mole fraction of all that was taken off
};
/// Source: Lord Rayleigh, Phil. Mag. 4 (1902) 521-537. @pre bottom < feed
/// @throws CalculationError where an azeotrope lies between
SimpleDistillation simple_distillation(const ColumnEquilibrium& equilibrium, double charged, double left);

}  // namespace jampot
