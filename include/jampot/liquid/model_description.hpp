#pragma once
// What a liquid model says about itself, so that fits, files, tables and the tool know it.
#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// What a fit has to know of one term of a model.
struct TermForFit {
  std::string name;       ///< as fits and files call it
  double neutral = 0;     ///< its value for an almost ideal liquid; also what it is held at
  bool held = false;      ///< unless asked otherwise
  bool follows_T = true;  ///< takes the temperature dependence asked for; otherwise a constant
  double start_low = 0,   ///< lower end of where a search may start
      start_high = 0;     ///< values from which a search may start
  double lowest = 0,      ///< lowest value with a sensible meaning
      highest = 0;        ///< highest value with a sensible meaning
  bool optional = false;  ///< a file may leave it out: zero
  bool odd = false;       ///< changes its sign where the pair is read from the other side
};

/// A liquid model by its name.
struct ModelDescription {
  std::string name;                 ///< as users write it
  bool splits = true;               ///< whether it can describe two liquids at all
  std::vector<TermForFit> terms{};  ///< of a pair, in the order of ActivityModel::terms(); none: no pairs
  /// The model for these substances, with one set for each pair (0,1), (0,2), ... (1,2), ...
  std::function<std::unique_ptr<ActivityModel>(const std::vector<Substance>&,
                                               const std::vector<PairParameters>&)>
      make{};
  /// Fills in what a set has to state beside its terms to mean something: volumes, molecular sizes.
  /// @throws CalculationError naming a substance of which it is not known
  std::function<void(const Substance&, const Substance&, PairParameters&)> state{};
  std::vector<std::string> stated{};  ///< the keys of that in a pairs file
};

}  // namespace jampot
