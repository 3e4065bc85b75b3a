#include "jampot/phase/mixture.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
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

Mixture::Mixture(std::vector<Substance> substances, const std::string& liquid_model,
                 const ParameterCollection& parameters)
    : Mixture(substances, make_activity_model(liquid_model, substances, parameters),
              used_pairs(substances, liquid_model, parameters)) {}

Mixture::Mixture(std::vector<Substance> substances, std::unique_ptr<ActivityModel> model,
                 std::vector<PairParameters> parameters)
    : substances_(std::move(substances)), parameters_(std::move(parameters)) {
  check(substances_);
  const bool volatile_one =
      std::any_of(substances_.begin(), substances_.end(),
                  [](const Substance& substance) { return substance.vapour_pressure.has_value(); });
  if (!volatile_one) throw CalculationError("none of the substances has a vapour pressure, so nothing boils");
  liquid_ = std::make_unique<ActivityLiquid>(substances_, std::move(model));
  vapour_ = std::make_unique<IdealGas>(substances_.size());
}

Mixture::Mixture(const Mixture& other)
    : substances_(other.substances_),
      parameters_(other.parameters_),
      liquid_(other.liquid_->clone()),
      vapour_(other.vapour_->clone()) {}

Mixture& Mixture::operator=(const Mixture& other) {
  return *this = Mixture(other);
}

const Unifac* Mixture::unifac() const {
  return dynamic_cast<const Unifac*>(liquid_->activity());
}

Notices Mixture::range_notices(double Tmin_K, double Tmax_K) const {
  Notices notices;
  const auto celsius = [](double T_K) { return T_K - celsius_zero; };
  for (const Substance& substance : substances_) {
    notices.add(vapour_pressure_notices(substance, Tmin_K, Tmax_K));
    if (!substance.vapour_pressure) {
      notices.add(
          "non-volatile",
          fmt::format("{} has no vapour pressure and is taken as non-volatile: it stays in the liquid",
                      substance.name));
    }
    if (substance.name.ends_with(" acid")) {
      notices.add(
          "associating-vapour",
          fmt::format(
              "{} associates in the vapour; with an ideal vapour its boiling and dew points with other "
              "substances can be wrong by many degrees",
              substance.name));
    }
  }
  for (const PairParameters& pair : parameters_) {
    // Data of a mixture end short of the boiling points of the pure substances; a step of that size is no
    // extrapolation.
    constexpr double step_K = 2;
    if (pair.range_K && (Tmin_K < (*pair.range_K)[0] - step_K || Tmax_K > (*pair.range_K)[1] + step_K)) {
      notices.add(
          "parameter-range",
          fmt::format(
              "the {} parameters of {} and {} come from data between {:.1f} and {:.1f} degC; this result "
              "uses them between {:.1f} and {:.1f} degC",
              pair.model, pair.between[0], pair.between[1], celsius((*pair.range_K)[0]),
              celsius((*pair.range_K)[1]), celsius(Tmin_K), celsius(Tmax_K)));
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
