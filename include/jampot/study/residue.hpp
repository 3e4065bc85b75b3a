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
  MixtureSpec mixture{};                       ///< of three substances
  std::vector<MixtureSpec> compare{};          ///< of these the structure alone
  double P_Pa = 101325;                        ///< pressure, Pa
  int curves = 25;                             ///< spread over the triangle, 0 to 500
  std::vector<AskedComposition> through{};     ///< curves through these
  std::vector<AskedComposition> tie_lines{};   ///< boiling tie lines through these
  std::vector<double> isotherms_K{};           ///< at most 200
  std::vector<std::array<double, 3>> feeds{};  ///< mole fractions of feeds to be read
  std::optional<double> decanter_T_K{};        ///< at which liquids of feeds are parted; none: at boiling
  bool working = false;                        ///< write out the first azeotrope
  Progress* progress = nullptr;                ///< told how far the work is; may be null
};

/// A boiling tie line that was asked for.
struct AskedBoilingLine {
  AskedComposition through{};  ///< as it was asked
  BoilingTieLine line{};       ///< the tie line
  double share = 0;            ///< of beta
};

/// An azeotrope as handbooks have it.
struct HandbookAzeotrope {
  std::array<double, 3> x{};   ///< mole fractions
  double T_K = 0;              ///< temperature, K
  bool heterogeneous = false;  ///< true where two liquids boil
};

/// Maps by each model; all else by the first.
struct ResidueStudy {
  std::vector<Contender> contenders{};        ///< the models that answer, the first one asked for
  double P_Pa = 0;                            ///< pressure, Pa
  std::vector<ResidueMap> maps{};             ///< one for each model
  std::vector<AskedComposition> through{};    ///< compositions of single curves
  std::vector<AskedBoilingLine> tie_lines{};  ///< through compositions asked for
  std::vector<Isotherm> isotherms{};          ///< lines of equal boiling point
  std::vector<FeedReading> feeds{};           ///< what the map says of each feed
  std::vector<HandbookAzeotrope>
      handbook{};                        ///< at this pressure, within 5 %, where the composition is known
  std::optional<double> decanter_T_K{};  ///< temperature of the decanter, K
  std::vector<std::string> working{};    ///< how the numbers came about, line by line
  Notices notices{};                     ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
  /// Of the first model.
  const ResidueMap& map() const { return maps.front(); }
  /// True where several models answer.
  bool compared() const { return contenders.size() > 1; }
};

/// @throws RequestError for another number of substances, curves or isotherms; CalculationError as
/// `residue_map`
ResidueStudy study(const ResidueRequest& request);

}  // namespace jampot
