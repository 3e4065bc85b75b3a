#pragma once
// Mutual solubilities of two substances against temperature.
#include <string>
#include <vector>

#include "jampot/diagram/solubility.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "jampot/study/overlay.hpp"

namespace jampot {

/// What mutual solubilities are asked for.
struct SolubilityRequest {
  MixtureSpec mixture{};  ///< of two; without model and parameters UNIFAC's table for liquids predicts them
  std::vector<MixtureSpec> compare{};
  std::vector<double> T_K{};        ///< at most 5000, in any order
  std::vector<DataSet> measured{};  ///< two liquids in equilibrium
  bool working = false;             ///< write out the activity coefficients of the first liquid
};

/// Curves by each model.
struct SolubilityStudy {
  std::vector<Contender> contenders{};
  std::vector<SolubilityCurve> curves{};
  std::vector<DataSet> measured{};
  std::vector<LiquidsBeside> beside{};
  std::vector<std::string> working{};
  Notices notices{};

  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for another number of substances or no temperature; CalculationError where the two
/// are one liquid throughout, or the model cannot describe two liquids
SolubilityStudy study(const SolubilityRequest& request);

}  // namespace jampot
