#pragma once
// How much solvent and how many stages an extraction needs.
#include <optional>
#include <string>
#include <vector>

#include "jampot/design/extraction.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What an extraction is asked for: solute, carrier and solvent are the substances of the mixture in this
/// order.
struct ExtractRequest {
  MixtureSpec mixture{};            ///< of solute, carrier and solvent
  Feed feed{};                      ///< what is to be extracted; the solvent in it may be zero
  double T_K = 298.15;              ///< temperature, K
  Basis basis = Basis::mole;        ///< of the raffinate, of amounts of solvent and of all results
  double raffinate = 0.01;          ///< fraction of the solute in the last raffinate
  std::optional<double> solvent{};  ///< amount per amount of feed
  double solvent_factor = 1.5;      ///< times the least, where `solvent` is not given
};

/// An extraction with all that was found.
struct ExtractStudy {
  std::vector<Contender> contenders{};      ///< the model that answers
  TernaryDiagram diagram{};                 ///< the two liquids
  double T_K = 0;                           ///< temperature, K
  Basis basis = Basis::mole;                ///< of all fractions and amounts
  Feed feed{};                              ///< what is to be extracted
  ExtractionTask task{};                    ///< in fractions of the basis
  double least = 0;                         ///< the least solvent, counter-current, per amount of feed
  ExtractionStages stages{};                ///< counter-current
  std::optional<ExtractionStages> cross{};  ///< the same number of stages or more, each with its share
  std::string no_cross{};                   ///< where cross-flow does not do it: why
  double coefficient = 0,                   ///< distribution coefficient without solute
      selectivity = 0;                      ///< the same over that of the carrier
  Notices notices{};                        ///< what the reader must know

  /// Solute, carrier and solvent.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
};

/// @throws RequestError for another number of substances or a feed without the solute; CalculationError where
/// carrier and solvent are one liquid, three liquids form, or no amount of solvent does it
ExtractStudy study(const ExtractRequest& request);

}  // namespace jampot
