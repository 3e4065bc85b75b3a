#pragma once
// What handbooks say of the substances of a mixture, beside what the models say.
#include <optional>
#include <string>
#include <vector>

#include "jampot/known/held.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

struct KnownRequest {
  MixtureSpec mixture{};  ///< a liquid model that is named is held against the facts beside the others
};

/// One model against all facts.
struct ModelOnFacts : OnFacts {
  std::string label{};
  bool fitted = false;           ///< pairs of it were fitted to facts: that it agrees with them is no proof
  std::vector<HeldFact> held{};  ///< in the order of the facts; not judged where the model could not be made
};

struct KnownStudy {
  std::vector<Substance> substances{};
  std::vector<const Fact*> facts{};
  std::vector<ModelOnFacts> models{};  ///< the best first
  /// "of 5 facts about these pairs unifac-dortmund agrees with 5, unifac with 4 ...".
  std::string ranking{};
  Notices notices{};
};

/// @throws RequestError for an unknown substance or model
KnownStudy study(const KnownRequest& request);

/// The models that could describe a mixture without further choice: those with pairs where every pair is
/// published or fitted to facts, and the predictive ones that know all its substances.
std::vector<MixtureSpec> models_for(const MixtureSpec& spec);

}  // namespace jampot
