#pragma once
// What handbooks say of the substances of a mixture, beside what the models say.
#include <optional>
#include <string>
#include <vector>

#include "jampot/known/held.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// Which facts are asked for.
struct KnownRequest {
  MixtureSpec mixture{};  ///< a liquid model that is named is held against the facts beside the others
};

/// One model against all facts.
struct ModelOnFacts : OnFacts {
  std::string label{};           ///< name of the model
  bool fitted = false;           ///< pairs of it were fitted to facts: that it agrees with them is no proof
  std::vector<HeldFact> held{};  ///< in the order of the facts; not judged where the model could not be made
};

/// The facts, and what each model says of them.
struct KnownStudy {
  std::vector<Substance> substances{};  ///< in the order of the components
  std::vector<const Fact*> facts{};     ///< all that are known of them
  std::vector<ModelOnFacts> models{};   ///< the best first
  /// "of 5 facts about these pairs unifac-dortmund agrees with 5, unifac with 4 ...".
  std::string ranking{};
  Notices notices{};  ///< what the reader must know
};

/// @throws RequestError for an unknown substance or model
KnownStudy study(const KnownRequest& request);

/// The models that could describe a mixture without further choice: those with pairs where every pair is
/// published or fitted to facts, and the predictive ones that know all its substances.
std::vector<MixtureSpec> models_for(const MixtureSpec& spec);

}  // namespace jampot
