#pragma once
// One flashed feed with all that is told of it.
#include <optional>
#include <string>
#include <vector>

#include "answer.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/phase/feed.hpp"

namespace jampot::tool {

/// The state in which a feed comes in, for its enthalpy.
struct FeedState {
  FlashState state;
  std::string description;  ///< "liquid", "vapour and liquid, 0.31 vapour"
};

struct FlashCase {
  std::string label;  ///< of the model, where several are compared; else empty
  Feed feed;
  FlashState state;
  std::vector<std::string> names;     ///< of the phases: "vapour", "liquid rich in water"
  std::vector<PhaseEnergy> energies;  ///< of the phases
  std::optional<FeedState> incoming;
  std::optional<double> h_feed_J_mol, h_J_mol;  ///< per mole of feed, where they can be had
  double balance = 0;                    ///< largest difference of an amount, in moles per mole of feed
  std::optional<double> energy_balance;  ///< what is left of h_out - h_feed - duty, over the sum of |n h|
};

/// "vapour", "liquid", "liquid rich in water" for each phase.
std::vector<std::string> phase_names(const Flashed& flashed, const std::vector<Substance>& substances);
/// In words: "vapour and liquid, vapour fraction 0.314".
std::string described(const Flashed& flashed, const std::vector<Substance>& substances);

/// Two tables of all cases (states and phases); of a single one also the amounts of every substance in every
/// phase.
std::vector<Table> flash_tables(const std::vector<FlashCase>& cases, const std::vector<Substance>& substances,
                                Basis basis);
Json to_json(const FlashCase& flash, const std::vector<Substance>& substances);

}  // namespace jampot::tool
