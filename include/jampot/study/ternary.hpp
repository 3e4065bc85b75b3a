#pragma once
// The liquid-liquid diagram of three substances at a temperature.
#include <optional>
#include <string>
#include <vector>

#include "jampot/diagram/distribution.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "jampot/study/asked.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "jampot/study/overlay.hpp"

namespace jampot {

/// What a ternary diagram is asked for.
struct TernaryRequest {
  MixtureSpec mixture{};  ///< of three; without model and parameters UNIFAC's table for liquids predicts it
  std::vector<MixtureSpec> compare{};
  double T_K = 298.15;
  int tie_lines = 25;                              ///< how many are shown
  std::optional<std::size_t> solute{}, solvent{};  ///< else as `roles_in` finds them
  std::vector<AskedComposition> through{};         ///< tie lines through these, by the first model
  std::vector<DataSet> measured{};                 ///< two liquids in equilibrium
  bool uncertainty = false;  ///< what the covariance of fitted parameters means for the first model
  bool working = false;      ///< write out the activity coefficients of one liquid
};

/// A tie line that was asked for.
struct AskedTieLine {
  AskedComposition through{};
  TieLine line{};
  double share = 0;  ///< of beta
};

/// The diagram by one model.
struct TernaryByModel {
  TernaryDiagram diagram{};
  Extraction roles{};
};

/// Diagrams by each model.
struct TernaryStudy {
  std::vector<Contender> contenders{};
  double T_K = 0;
  std::vector<TernaryByModel> diagrams{};
  std::vector<AskedTieLine> through{};
  std::vector<DataSet> measured{};
  std::vector<LiquidsBeside> beside{};
  std::vector<TieLineUncertainty> uncertainties{};       ///< of the tie lines shown, where asked for
  std::vector<std::vector<TieLineUncertainty>> bands{};  ///< of all tie lines of each region, likewise
  std::vector<std::string> working{};
  Notices notices{};

  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  bool compared() const { return contenders.size() > 1; }
  bool parts() const;  ///< whether the three are two liquids anywhere, by any model
};

/// @throws RequestError for another number of substances; CalculationError for a model that cannot describe
/// two liquids
TernaryStudy study(const TernaryRequest& request);

}  // namespace jampot
