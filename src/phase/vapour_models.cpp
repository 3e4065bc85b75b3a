#include "jampot/phase/vapour_models.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/fluid/pc_saft.hpp"
#include "jampot/phase/fluid_phase.hpp"
#include "jampot/phase/virial_vapour.hpp"

namespace jampot {
namespace {

bool named(const std::vector<std::string>& names, const std::string& name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

}  // namespace

const std::vector<std::string>& vapour_model_names() {
  static const std::vector<std::string> names{"ideal", "virial", "tsonopoulos", "srk", "pr", "pc-saft"};
  return names;
}

const std::vector<std::string>& equation_names() {
  static const std::vector<std::string> names{"srk", "pr", "pc-saft"};
  return names;
}

std::unique_ptr<EquationOfState> make_equation(const std::string& name,
                                               const std::vector<Substance>& substances,
                                               const InteractionTable& interactions, bool translated) {
  if (!named(equation_names(), name)) {
    throw RequestError(fmt::format("'{}' is not an equation of state; there are {}.{}", name,
                                   joined(equation_names(), ", "), did_you_mean(name, equation_names())));
  }
  if (name == "pc-saft") return std::make_unique<PcSaft>(substances, interactions);
  return std::make_unique<CubicEquation>(
      name == "pr" ? CubicEquation::Form::peng_robinson : CubicEquation::Form::soave_redlich_kwong,
      substances, interactions, translated);
}

Vapour make_vapour(const VapourChoice& choice, const std::vector<Substance>& substances) {
  if (choice.model == "ideal") return {std::make_unique<IdealGas>(substances.size()), {}, false};
  if (choice.model == "virial" || choice.model == "tsonopoulos") {
    std::unique_ptr<VirialCoefficients> coefficients;
    if (choice.model == "virial") {
      coefficients = std::make_unique<HaydenOConnellVirial>(substances);
    } else {
      coefficients = std::make_unique<TsonopoulosVirial>(substances, choice.interactions);
    }
    const Notices notices = coefficients->notices();
    const bool dimers = coefficients->dimers();
    return {std::make_unique<VirialVapour>(std::move(coefficients)), notices, dimers};
  }
  if (!named(equation_names(), choice.model)) {
    throw RequestError(fmt::format("'{}' is not a vapour model; there are {}.{}", choice.model,
                                   joined(vapour_model_names(), ", "),
                                   did_you_mean(choice.model, vapour_model_names())));
  }
  auto equation = make_equation(choice.model, substances, choice.interactions, choice.translated);
  const Notices notices = equation->notices();
  return {std::make_unique<FluidPhase>(std::move(equation), FluidPhase::Root::vapour), notices,
          choice.model == "pc-saft"};
}

}  // namespace jampot
