#pragma once
// Which columns and decanters make pure products of three substances, by their residue curve map.
#include <optional>
#include <string>
#include <vector>

#include "jampot/design/route.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/study/residue.hpp"

namespace jampot {

/// What is to be parted, and with what.
struct RouteRequest {
  MixtureSpec mixture{};                 ///< of three substances
  double P_Pa = 101325;                  ///< pressure of all columns, Pa
  Feed feed{};                           ///< what comes in; one substance may be missing: an entrainer
  std::optional<double> decanter_T_K{};  ///< at which liquids are parted; none: at their boiling point
  std::size_t most_units = 5;            ///< columns and decanters together, 1 to 6
  int curves = 15;                       ///< of the map, 0 to 500
  Progress* progress = nullptr;          ///< told how far the map is; may be null
};

/// The sequences that were found, the one to look at first in front.
struct RouteStudy {
  ResidueStudy map{};                    ///< the map they are read off
  Feed feed{};                           ///< what comes in
  std::optional<double> decanter_T_K{};  ///< temperature of the decanters, K
  std::vector<Route> routes{};           ///< flows per mole of feed
  std::vector<std::string> sentences{};  ///< the first route in words, one sentence for each unit
  std::string verdict{};                 ///< whether there is one, in a sentence
  Notices notices{};                     ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return map.substances(); }
};

/// @throws RequestError for another number of substances or a feed of fewer than two; CalculationError as
/// `residue_map`
RouteStudy study(const RouteRequest& request);

}  // namespace jampot
