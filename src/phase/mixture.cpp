#include "jampot/phase/mixture.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/henry.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/phase/saturation_correction.hpp"
#include "jampot/substance/saturation.hpp"

namespace jampot {
namespace {

void check(const std::vector<Substance>& substances) {
  if (substances.size() < 2) throw RequestError("a mixture needs at least two substances");
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (substances[i].name == substances[j].name) {
        throw RequestError(fmt::format("{} is named twice in this mixture", substances[i].name));
      }
    }
  }
}

// Whether a vapour model has what it takes to let this acid pair up.
bool can_pair(const Substance& acid, const std::string& vapour) {
  if (vapour == "virial") return acid.dimer || (acid.hayden_oconnell && acid.hayden_oconnell->eta >= 4.5);
  return vapour == "pc-saft" && acid.pc_saft && !acid.pc_saft->association_scheme.empty();
}

std::vector<PairParameters> used_pairs(const std::vector<Substance>& substances, const std::string& model,
                                       const ParameterCollection& parameters) {
  std::vector<PairParameters> used;
  for (std::size_t i = 0; needs_pairs(model) && i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (auto pair = parameters.find(model, substances[i].name, substances[j].name))
        used.push_back(std::move(*pair));
    }
  }
  return used;
}

}  // namespace

// Taken by value like the substances of the other constructors.
Mixture::Mixture(std::vector<Substance> substances,  // NOLINT(performance-unnecessary-value-param)
                 const std::string& liquid_model, const ParameterCollection& parameters,
                 const VapourChoice& vapour)
    : Mixture(liquid_model == "eos"
                  ? Mixture(substances, vapour)
                  : Mixture(substances, make_activity_model(liquid_model, substances, parameters),
                            used_pairs(substances, liquid_model, parameters), vapour)) {}

Mixture::Mixture(std::vector<Substance> substances, std::unique_ptr<ActivityModel> model,
                 std::vector<PairParameters> parameters, const VapourChoice& vapour)
    : substances_(std::move(substances)), parameters_(std::move(parameters)), choice_(vapour) {
  check(substances_);
  if (model == nullptr) throw RequestError("the model of the liquid is a null pointer");
  demand_size(model->size(), substances_.size(), "substances of the model");
  const bool volatile_one =
      std::any_of(substances_.begin(), substances_.end(),
                  [](const Substance& substance) { return substance.vapour_pressure.has_value(); });
  if (!volatile_one)
    throw CalculationError("none of the substances has a vapour pressure, so there is no vapour");
  Vapour made = make_vapour(vapour, substances_);
  model_notices_.add(made.notices);
  associating_vapour_ = made.associates;
  vapour_ = std::move(made.phase);
  std::unique_ptr<SaturationCorrection> correction;
  if (vapour.model != "ideal" || vapour.poynting.value_or(false))
    correction = std::make_unique<SaturationCorrection>(vapour, substances_, model_notices_);
  liquid_ = std::make_unique<ActivityLiquid>(substances_, std::move(model), std::move(correction));
}

Mixture::Mixture(std::vector<Substance> substances, const VapourChoice& vapour)
    : substances_(std::move(substances)), choice_(vapour) {
  check(substances_);
  if (vapour.model == "ideal" || vapour.model == "virial" || vapour.model == "tsonopoulos") {
    throw RequestError(fmt::format(
        "with `liquid` eos one equation of state describes liquid and vapour: `vapour` {}, not {}",
        joined(equation_names(), ", "), vapour.model));
  }
  const auto equation = make_equation(vapour.model, substances_, vapour.interactions, vapour.translated);
  model_notices_ = equation->notices();
  associating_vapour_ = vapour.model == "pc-saft";
  liquid_ = std::make_unique<FluidPhase>(equation->clone(), FluidPhase::Root::liquid);
  vapour_ = std::make_unique<FluidPhase>(equation->clone(), FluidPhase::Root::vapour);
  whole_ = std::make_unique<FluidPhase>(equation->clone(), FluidPhase::Root::stable);
}

Mixture::Mixture(Mixture&&) noexcept = default;
Mixture& Mixture::operator=(Mixture&&) noexcept = default;
Mixture::~Mixture() = default;

Mixture::Mixture(const Mixture& other)
    : substances_(other.substances_),
      parameters_(other.parameters_),
      choice_(other.choice_),
      model_notices_(other.model_notices_),
      associating_vapour_(other.associating_vapour_),
      liquid_(other.liquid_->clone()),
      vapour_(other.vapour_->clone()),
      whole_(other.whole_ ? std::make_unique<FluidPhase>(*other.whole_) : nullptr) {}

Mixture& Mixture::operator=(const Mixture& other) {
  return *this = Mixture(other);
}

ActivityModel& Mixture::activity() {
  if (ActivityModel* model = liquid_->activity()) return *model;
  throw CalculationError(
      fmt::format("this needs an activity model of the liquid; here the equation of state {} describes it",
                  choice_.model));
}

std::vector<Phase*> Mixture::kinds() {
  if (whole_) return {whole_.get()};
  return {vapour_.get(), liquid_.get()};
}

std::string Mixture::liquid_model() const {
  ActivityModel* model = liquid_->activity();
  return model == nullptr ? "eos" : std::string(model->name());
}

bool Mixture::is_solute(std::size_t i) const {
  const auto* henry = dynamic_cast<const HenrySolution*>(liquid_->activity());
  return henry != nullptr && henry->is_solute(i);
}

const SaturationCorrection* Mixture::correction(double T_K) {
  auto* liquid = dynamic_cast<ActivityLiquid*>(liquid_.get());
  return liquid == nullptr ? nullptr : liquid->correction(T_K);
}

const Unifac* Mixture::unifac() const {
  return dynamic_cast<const Unifac*>(liquid_->activity());
}

void Mixture::demand_volatilities() const {
  if (one_equation()) return;
  for (std::size_t i = 0; i < size(); ++i) {
    if (!is_solute(i)) demand_volatility(substances_[i]);
  }
}

Notices Mixture::range_notices(double Tmin_K, double Tmax_K) const {
  Notices notices;
  notices.add(model_notices_);
  for (const Substance& substance : substances_) {
    if (pairs_up(substance) && !(associating_vapour_ && can_pair(substance, choice_.model))) {
      notices.add(
          "associating-vapour",
          fmt::format("{} associates in the vapour, which {} does not describe; boiling and dew points with "
                      "other substances can be wrong by many degrees{}",
                      substance.name,
                      choice_.model == "ideal" ? "an ideal vapour" : "`vapour` " + choice_.model,
                      can_pair(substance, "virial") ? ". `vapour` virial describes it" : ""));
    }
    if (one_equation() || is_solute(static_cast<std::size_t>(&substance - substances_.data()))) continue;
    notices.add(vapour_pressure_notices(substance, Tmin_K, Tmax_K));
    if (!substance.vapour_pressure) {
      notices.add(
          "non-volatile",
          substance.non_volatile
              ? fmt::format("{} is non-volatile: it stays in the liquid", substance.name)
              : fmt::format("{} has no vapour pressure; it is calculated in liquids only", substance.name));
    }
  }
  for (const PairParameters& pair : parameters_) {
    if (pair.fitted_to.find("vle") != std::string::npos &&
        pair.vapour != (choice_.model == "ideal" ? "" : choice_.model)) {
      notices.add("fitted-with-other-vapour",
                  fmt::format("the {} parameters of {} and {} were fitted {} and are used with {} here: "
                              "fitted parameters compensate for what their vapour model leaves out",
                              pair.model, pair.between[0], pair.between[1],
                              pair.vapour.empty() ? "with an ideal vapour (or their file does not name one)"
                                                  : "with `vapour` " + pair.vapour,
                              choice_.model == "ideal" ? "an ideal vapour" : "`vapour` " + choice_.model));
    }
    // Data of a mixture end short of the boiling points of the pure substances; a step of that size is no
    // extrapolation.
    constexpr double step_K = 2;
    if (pair.T_range_K &&
        (Tmin_K < (*pair.T_range_K)[0] - step_K || Tmax_K > (*pair.T_range_K)[1] + step_K)) {
      notices.add("parameter-range",
                  fmt::format("the {} parameters of {} and {} come from data {}; this result uses them {}",
                              pair.model, pair.between[0], pair.between[1],
                              temperatures_text((*pair.T_range_K)[0], (*pair.T_range_K)[1]),
                              temperatures_text(Tmin_K, Tmax_K)));
    }
  }
  return notices;
}

std::vector<Substance> substances_named(const std::vector<std::string>& names, const Bank& bank) {
  std::vector<Substance> substances;
  for (const std::string& name : names) substances.push_back(bank.require(name));
  return substances;
}

}  // namespace jampot
