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
  std::vector<MixtureSpec> compare{};       ///< further models, answered side by side
  double T_K = 298.15;                      ///< temperature, K
  int tie_lines = 25;                       ///< how many are shown
  std::optional<std::size_t> solute{},      ///< number of the solute; none: as `roles_in` finds it
      solvent{};                            ///< else as `roles_in` finds them
  std::vector<AskedComposition> through{};  ///< tie lines through these, by the first model
  std::vector<DataSet> measured{};          ///< two liquids in equilibrium
  bool uncertainty = false;  ///< what the covariance of fitted parameters means for the first model
  bool working = false;      ///< write out the activity coefficients of one liquid
};

/// A tie line that was asked for.
struct AskedTieLine {
  AskedComposition through{};  ///< as it was asked
  TieLine line{};              ///< the tie line
  double share = 0;            ///< of beta
};

/// The diagram by one model.
struct TernaryByModel {
  TernaryDiagram diagram{};  ///< the diagram
  Extraction roles{};        ///< solute, carrier and solvent
};

/// Diagrams by each model.
struct TernaryStudy {
  std::vector<Contender> contenders{};                   ///< the models that answer, the first one asked for
  double T_K = 0;                                        ///< temperature, K
  std::vector<TernaryByModel> diagrams{};                ///< one for each model
  std::vector<AskedTieLine> through{};                   ///< tie lines asked for
  std::vector<DataSet> measured{};                       ///< measured points
  std::vector<LiquidsBeside> beside{};                   ///< measured points with what each model says there
  std::vector<TieLineUncertainty> uncertainties{};       ///< of the tie lines shown, where asked for
  std::vector<std::vector<TieLineUncertainty>> bands{};  ///< of all tie lines of each region, likewise
  std::vector<std::string> working{};                    ///< how the numbers came about, line by line
  Notices notices{};                                     ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
  bool parts() const;  ///< whether the three are two liquids anywhere, by any model
};

/// @throws RequestError for another number of substances; CalculationError for a model that cannot describe
/// two liquids
TernaryStudy study(const TernaryRequest& request);

}  // namespace jampot
