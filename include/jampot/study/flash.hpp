#pragma once
// What feeds become at given temperatures, pressures, vapour fractions or heat.
#include <optional>
#include <string>
#include <vector>

#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/phase/feed.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What is held in a flash: two of T, P, vapour fraction, or P and heat added to the feed.
struct FlashSpecification {
  std::optional<double> T_K{},         ///< temperature held, K
      P_Pa{},                          ///< pressure held, Pa
      vapour_fraction{};               ///< vapour fraction held
  std::optional<double> heat_J_mol{};  ///< for each mole of feed
  std::optional<double> heat{};        ///< for the whole feed: J, or W where it flows
};

/// The state in which a feed comes in: two of T, P and vapour fraction; without a pressure at that of the
/// flash.
struct FeedCondition {
  std::optional<double> T_K{},  ///< temperature, K
      P_Pa{},                   ///< pressure, Pa
      vapour_fraction{};        ///< vapour fraction
};

/// What flashes are asked for: each feed by each specification.
struct FlashRequest {
  MixtureSpec mixture{};                             ///< the mixture with its models
  std::vector<MixtureSpec> compare{};                ///< further models, answered side by side
  std::vector<Feed> feeds{};                         ///< one or more
  std::vector<FlashSpecification> specifications{};  ///< two things held in each
  bool together = false;  ///< the specifications step two ranges in pairs; else they are all combinations
  std::optional<FeedCondition> incoming{};  ///< for the duty; needed where heat is given
  Reference reference{};                    ///< where enthalpies are zero
  bool working = false;                     ///< write out the equations of the first result
};

/// The state in which a feed came in.
struct FeedState {
  FlashState state{};         ///< phases of the feed
  std::string description{};  ///< "liquid", "vapour and liquid, 0.31 vapour"
};

/// One flashed feed with all that is told of it.
struct FlashCase {
  std::size_t contender = 0,               ///< number of the model that answers
      feed_number = 0;                     ///< number of the feed
  std::string label{};                     ///< of the model, where several are compared; else empty
  Feed feed{};                             ///< what comes in
  FlashState state{};                      ///< phases that leave
  std::vector<std::string> names{};        ///< of the phases: "vapour", "liquid rich in water"
  std::vector<PhaseEnergy> energies{};     ///< of the phases
  std::optional<FeedState> incoming{};     ///< the feed, where its state is known
  std::optional<double> h_feed_J_mol{},    ///< enthalpy of the feed, J/mol
      h_J_mol{};                           ///< enthalpy of what leaves, J per mole of feed
  double balance = 0;                      ///< largest difference of an amount, in moles per mole of feed
  std::optional<double> energy_balance{};  ///< what is left of h_out - h_feed - duty, over the sum of |n h|

  /// The heat taken up by the whole feed: J, W, or J/mol of a feed in fractions.
  std::optional<double> duty() const;
};

/// All cases: for each model each feed by each specification.
struct FlashStudy {
  std::vector<Contender> contenders{};               ///< the models that answer, the first one asked for
  std::vector<FlashSpecification> specifications{};  ///< what is held, one for each answer
  bool together = false;                             ///< true where the feeds are mixed
  std::size_t feeds = 1;                             ///< number of feeds
  Reference reference{};                             ///< where enthalpy is zero
  std::vector<FlashCase> cases{};                    ///< one for each model, feed and specification
  std::vector<std::string> working{};                ///< how the numbers came about, line by line
  Notices notices{};                                 ///< what the reader must know

  /// In the order of the components.
  const std::vector<Substance>& substances() const { return contenders.front().mixture.substances(); }
};

/// "vapour", "liquid", "liquid rich in water" for each phase.
std::vector<std::string> phase_names(const Flashed& flashed, const std::vector<Substance>& substances);

/// All combinations of two of T, P and vapour fraction (lists left empty are not held), or with `together`
/// their pairs.
/// @throws RequestError where lists are stepped in pairs and are not equally long
std::vector<FlashSpecification> flash_specifications(const std::vector<double>& T_K,
                                                     const std::vector<double>& P_Pa,
                                                     const std::vector<double>& vapour_fraction,
                                                     bool together = false);

/// @throws RequestError for specifications or feeds that are none; CalculationError where no state has what
/// is asked for, or where enthalpies are needed and cannot be had
FlashStudy study(const FlashRequest& request);

}  // namespace jampot
