#pragma once
// A residue curve map, and what it says of feeds.
#include <array>
#include <optional>
#include <string>
#include <vector>

#include "jampot/diagram/isotherms.hpp"
#include "jampot/diagram/separation.hpp"
#include "jampot/study/asked.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What a map is asked for.
struct ResidueRequest {
  MixtureSpec mixture{};               ///< of three substances
  std::vector<MixtureSpec> compare{};  ///< of these the structure alone
  double P_Pa = 101325;
  int curves = 25;                            ///< spread over the triangle, 0 to 500
  std::vector<AskedComposition> through{};    ///< curves through these
  std::vector<AskedComposition> tie_lines{};  ///< boiling tie lines through these
  std::vector<double> isotherms_K{};          ///< at most 200
  std::vector<std::array<double, 3>> feeds{};
  std::optional<double> decanter_T_K{};  ///< at which liquids of feeds are parted; none: at boiling
  bool working = false;                  ///< write out the first azeotrope
  Progress* progress = nullptr;
};

/// A boiling tie line that was asked for.
struct AskedBoilingLine {
  AskedComposition through{};
  BoilingTieLine line{};
  double share = 0;  ///< of beta
};

/// Maps by each model; all else by the first.
struct ResidueStudy {
  std::vector<Contender> contenders{};
  double P_Pa = 0;
  std::vector<ResidueMap> maps{};
  std::vector<AskedComposition> through{};
  std::vector<AskedBoilingLine> tie_lines{};
  std::vector<Isotherm> isotherms{};
  std::vector<FeedReading> feeds{};
  std::optional<double> decanter_T_K{};
  std::vector<std::string> working{};
  Notices notices{};

  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  const ResidueMap& map() const { return maps.front(); }
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for another number of substances, curves or isotherms; CalculationError as
/// `residue_map`
ResidueStudy study(const ResidueRequest& request);

}  // namespace jampot
