#pragma once
// What a mixture is made of, as plain values, and the mixture made from it.
#include <string>
#include <vector>

#include "jampot/equilibrium/suitability.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/liquid/henry.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// Substances, models and parameters of a mixture. The defaults are those of the commands: pair parameters
/// come from `parameters`, then from the published sets; a pair that neither has is refused.
struct MixtureSpec {
  std::vector<Substance> substances{};  ///< in the order of the components
  /// A word of liquid_model_names(), "eos", or an equation of equation_names() for both phases. Empty: the
  /// model of `parameters`; without any, for two liquids "unifac-lle", else the first of nrtl, wilson and
  /// uniquac whose pairs are all published.
  std::string liquid{};
  ParameterCollection parameters{};                   ///< of the pairs
  MissingPairs missing_pairs = MissingPairs::refuse;  ///< what to do where one is missing
  DoubtfulGroups doubtful_groups =
      DoubtfulGroups::refuse;          ///< of UNIFAC, whose interactions contradict facts
  EstimateOptions estimate{};          ///< how missing pairs are estimated: `from` and `T_range_K`
  VapourChoice vapour{};               ///< model of the vapour
  std::vector<HenryConstant> henry{};  ///< of dissolved gases
  std::string name{};                  ///< under which it stands beside others; empty: its models

  /// "nrtl", "nrtl, virial vapour", "pr", or `name`.
  std::string label() const;
};

/// The built-in substances of these names, with a liquid model.
/// @throws RequestError suggesting the nearest names
MixtureSpec mixture_of(const std::vector<std::string>& names, const std::string& liquid = {});

/// The same substances by other models: a liquid model, an equation of state for both phases ("pr"), or a
/// vapour ("virial").
/// @throws RequestError for an unknown word, or another vapour beside one equation of state
MixtureSpec with_model(const MixtureSpec& spec, const std::string& word);

/// The same with its liquid model named and every pair that could be found.
/// @param notices is told of estimates, of pairs taken as ideal, and of Henry's constants without a slope
/// @throws RequestError where the models contradict each other
MixtureSpec settled(const MixtureSpec& spec, Purpose purpose, Notices& notices);

/// A mixture with what it was made from.
struct Contender {
  std::string label{};                 ///< by which its curves are told apart
  Mixture mixture;                     ///< the mixture with its models
  std::vector<HenryConstant> henry{};  ///< of dissolved gases
};

/// @throws as `settled` and the constructors of Mixture
Contender prepare(const MixtureSpec& spec, Notices& notices, Purpose purpose = Purpose::vapour_liquid);

/// The settled form of a mixture and of those it is compared with, the mixture itself first. One that comes
/// out like an earlier one is left out.
std::vector<MixtureSpec> settled_all(const MixtureSpec& spec, const std::vector<MixtureSpec>& compare,
                                     Purpose purpose, Notices& notices);

/// The same, prepared.
std::vector<Contender> prepare_all(const MixtureSpec& spec, const std::vector<MixtureSpec>& compare,
                                   Notices& notices, Purpose purpose = Purpose::vapour_liquid);

}  // namespace jampot
