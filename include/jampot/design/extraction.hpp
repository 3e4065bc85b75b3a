#pragma once
// Liquid-liquid extraction in a triangle: counter-current and cross-flow stages, the least solvent.
#include <array>
#include <optional>
#include <vector>

#include "jampot/diagram/distribution.hpp"
#include "jampot/diagram/ternary.hpp"

namespace jampot {

/// Fractions of solute, carrier and solvent, in this order; of moles or of mass, all of one kind.
using Fractions = std::array<double, 3>;

/// The two liquids between carrier and solvent, tie line by tie line from the one without solute on. Between
/// two tie lines compositions are interpolated along both.
class ExtractionLiquids {
 public:
  /// @throws RequestError for fewer than two tie lines, different numbers, or a first one with solute
  ExtractionLiquids(std::vector<Fractions> raffinate, std::vector<Fractions> extract);
  /// Of a diagram, in mole or mass fractions.
  /// @throws CalculationError where carrier and solvent are one liquid, or a third liquid takes part
  static ExtractionLiquids of(const TernaryDiagram& diagram, const Extraction& roles,
                              const std::vector<Substance>& substances, Basis basis);

  Fractions raffinate(double t) const;  ///< at a place among the tie lines, 0 to `last()`
  Fractions extract(double t) const;    ///< the same of the other liquid
  double last() const { return static_cast<double>(raffinate_.size() - 1); }  ///< place of the last tie line
  /// Where the raffinate first has this fraction of the solute.
  std::optional<double> with_solute(double fraction) const;
  /// The tie line through a whole; nothing where it is one liquid.
  std::optional<double> through(const Fractions& whole) const;
  /// Where the extract meets the line from a composition to another one given as amounts (their sum may be
  /// zero or negative: then it points away), the last one below `before`.
  std::optional<double> extract_on_line(const Fractions& from, const Fractions& to, double before) const;

 private:
  std::vector<Fractions> raffinate_, extract_;
};

/// What an extraction has to do; amounts per amount of feed.
struct ExtractionTask {
  Fractions feed{0.3, 0.7, 0};  ///< solute, carrier, solvent
  Fractions solvent{0, 0, 1};   ///< what is added
  double raffinate = 0.01;      ///< fraction of the solute in the last raffinate
};

/// A stage, counted from the feed. Of the last one, of which only a part is needed, the liquids are those of
/// a whole stage and the amount of raffinate is that of the raffinate asked for.
struct ExtractionStage {
  Fractions raffinate{},        ///< liquid of the carrier that leaves it
      extract{};                ///< liquid of the solvent that leaves it
  double raffinate_amount = 0,  ///< per amount of feed
      extract_amount = 0;       ///< per amount of feed
};

/// Stages with a given amount of solvent.
struct ExtractionStages {
  double solvent = 0;                     ///< per amount of feed: all of it, of all stages together
  double count = 0;                       ///< with the part of the last stage
  std::vector<ExtractionStage> stages{};  ///< from the feed on
  double recovered = 0;                   ///< share of the solute in the extracts
  Fractions last_raffinate{};  ///< the raffinate asked for (counter-current) or reached (cross-flow)
  double last_amount = 0;      ///< of it, per amount of feed
  double lost = 0;             ///< solvent that leaves with the last raffinate, per amount of feed
  /// Of counter-current stages: what flows from stage to stage in all, raffinate less extract, per amount of
  /// feed. Its fractions are the difference point, through which every operating line runs.
  Fractions net{};
};

/// The least solvent with which infinitely many counter-current stages reach the raffinate asked for.
/// @throws CalculationError where no amount of solvent does
double minimum_solvent(const ExtractionLiquids& liquids, const ExtractionTask& task);

/// Counter-current stages. Source of the construction: T. G. Hunter, A. W. Nash, J. Soc. Chem. Ind. 53 (1934)
/// 95T-102T. @throws CalculationError where the solvent is not enough or dissolves everything
ExtractionStages counter_current(const ExtractionLiquids& liquids, const ExtractionTask& task,
                                 double solvent);

/// The same amount of fresh solvent to each of `stages` stages, one after the other, until the raffinate
/// asked for is reached. @throws CalculationError where it is not reached in 200 stages, or where all
/// dissolves
ExtractionStages cross_flow(const ExtractionLiquids& liquids, const ExtractionTask& task,
                            double solvent_each);

}  // namespace jampot
