#include "jampot/design/solvent.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/subsystem.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

constexpr std::size_t at_first = 0, at_second = 1, at_solvent = 2;

std::array<double, 3> gammas(ActivityModel& model, const std::array<double, 3>& x) {
  std::array<double, 3> gamma{};
  model.evaluate(x, gamma);
  for (double& value : gamma) value = std::exp(value);
  return gamma;
}

double vapour_pressure(const Mixture& mixture, std::size_t i, double T_K) {
  const Substance& substance = mixture.substances()[i];
  if (!substance.vapour_pressure)
    throw CalculationError(substance.name + " has no vapour pressure: its volatility is not known");
  return substance.vapour_pressure->P_Pa(T_K);
}

Mixture checked(const Mixture& mixture, double T_K) {
  demand_size(mixture.size(), 3, "substances");
  demand_temperature(T_K);
  return mixture;
}

}  // namespace

std::string_view name_of(SolventRole role) {
  switch (role) {
    case SolventRole::extraction:
      return "extraction";
    case SolventRole::entrainer:
      return "entrainer";
    case SolventRole::absorbent:
      break;
  }
  return "absorbent";
}

SolventRole parse_solvent_role(const std::string& text) {
  for (const SolventRole role : {SolventRole::extraction, SolventRole::entrainer, SolventRole::absorbent}) {
    if (text == name_of(role)) return role;
  }
  throw RequestError(fmt::format("`role` '{}': expected extraction, entrainer or absorbent.{}", text,
                                 did_you_mean(text, {"extraction", "entrainer", "absorbent"})));
}

DiluteInSolvent dilute_in_solvent(const Mixture& mixture, double T_K) {
  Mixture own = checked(mixture, T_K);
  own.activity().set_temperature(T_K);
  const auto gamma = gammas(own.activity(), {0, 0, 1});
  return {{gamma[at_first], gamma[at_second]},
          gamma[at_second] / gamma[at_first],
          1 / std::min(gamma[at_first], gamma[at_second])};
}

std::optional<ExtractionFigures> extraction_figures(const Mixture& mixture, double T_K) {
  Mixture own = checked(mixture, T_K);
  ActivityModel& model = own.activity();
  Subsystem pair(model, {at_second, at_solvent});
  const std::vector<BinarySplit> splits = binary_splits(pair, T_K);
  if (splits.empty()) return std::nullopt;
  // Of several gaps the one that the two pure liquids meet first: from the carrier's side to the solvent's.
  const std::array<double, 3> poor{0, splits.front().x1_alpha, 1 - splits.front().x1_alpha},
      rich{0, splits.back().x1_beta, 1 - splits.back().x1_beta};
  model.set_temperature(T_K);
  const double in_solvent = gammas(model, poor)[at_first], in_carrier = gammas(model, rich)[at_first];
  const auto mass = [&](const std::array<double, 3>& x) {
    double sum = 0;
    for (std::size_t i = 0; i < 3; ++i) sum += x[i] * own.substances()[i].molar_mass_kg_mol;
    return sum;
  };
  const auto w_poor = mass_fractions(poor, own.substances()), w_rich = mass_fractions(rich, own.substances());
  ExtractionFigures figures;
  figures.distribution = in_carrier / in_solvent * mass(rich) / mass(poor);
  figures.selectivity = figures.distribution * w_rich[at_second] / w_poor[at_second];
  figures.loss = w_rich[at_solvent];
  figures.carrier = w_poor[at_second];
  return figures;
}

VolatilityFigures volatility_figures(const Mixture& mixture, double T_K) {
  Mixture own = checked(mixture, T_K);
  ActivityModel& model = own.activity();
  model.set_temperature(T_K);
  const double ratio = vapour_pressure(own, at_first, T_K) / vapour_pressure(own, at_second, T_K);
  const auto alpha = [&](const std::array<double, 3>& x) {
    const auto gamma = gammas(model, x);
    return gamma[at_first] / gamma[at_second] * ratio;
  };
  VolatilityFigures figures{alpha({0, 0, 1}), 1};
  double nearest = HUGE_VAL, before = 0;
  constexpr int steps = 20;
  for (int k = 0; k <= steps; ++k) {
    const double x = static_cast<double>(k) / steps, value = alpha({x, 1 - x, 0}), off = std::log(value);
    if (std::abs(off) < nearest) {
      nearest = std::abs(off);
      figures.without_solvent = value;
    }
    if (k > 0 && before * off < 0) {  // an azeotrope between the two
      figures.without_solvent = 1;
      return figures;
    }
    before = off;
  }
  return figures;
}

AbsorptionFigures absorption_figures(const Mixture& mixture, double T_K, double P_Pa) {
  Mixture own = checked(mixture, T_K);
  demand_pressure(P_Pa);
  own.activity().set_temperature(T_K);
  const auto gamma = gammas(own.activity(), {0, 0, 1});
  const double of_first = 1 / (gamma[at_first] * vapour_pressure(own, at_first, T_K)),
               of_second = 1 / (gamma[at_second] * vapour_pressure(own, at_second, T_K));
  return {of_first, of_first / of_second, vapour_pressure(own, at_solvent, T_K) / P_Pa};
}

}  // namespace jampot
