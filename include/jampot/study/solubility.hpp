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
  std::vector<MixtureSpec> compare{};  ///< further models, answered side by side
  std::vector<double> T_K{};           ///< at most 5000, in any order
  std::vector<DataSet> measured{};     ///< two liquids in equilibrium
  bool working = false;                ///< write out the activity coefficients of the first liquid
};

/// Curves by each model.
struct SolubilityStudy {
  std::vector<Contender> contenders{};    ///< the models that answer, the first one asked for
  std::vector<SolubilityCurve> curves{};  ///< one for each model
  std::vector<DataSet> measured{};        ///< sets laid over it
  std::vector<LiquidsBeside> beside{};    ///< measured points with what each model says there
  std::vector<std::string> working{};     ///< how the numbers came about, line by line
  Notices notices{};                      ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for another number of substances or no temperature; CalculationError where the two
/// are one liquid throughout, or the model cannot describe two liquids
SolubilityStudy study(const SolubilityRequest& request);

}  // namespace jampot
