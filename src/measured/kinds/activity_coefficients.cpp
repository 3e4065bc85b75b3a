// Activity coefficients of one component: infinitely dilute, or at a composition. Compared by the logarithm.
#include "jampot/liquid/activity_model.hpp"
#include "jampot/measured/data_set.hpp"
#include "kinds.hpp"

namespace jampot::kinds {
namespace {

void evaluate_gamma(ActivityModel& model, const DataPoint& point, bool derivatives, ModelValue& out) {
  const std::size_t n = point.x.size(), terms = model.terms().size();
  std::vector<double>&ln_gamma = out.scratch[0], &slopes = out.scratch[1];
  ln_gamma.resize(n);
  model.set_temperature(point.T_K);
  model.evaluate(point.x, ln_gamma);
  out.value = ln_gamma[point.solute];
  if (!derivatives) return;
  slopes.resize(n * terms);
  model.term_derivatives(point.x, slopes);
  const auto row = slopes.begin() + static_cast<std::ptrdiff_t>(point.solute * terms);
  out.by_term.assign(row, row + static_cast<std::ptrdiff_t>(terms));
  out.by_term_dT.assign(terms, 0.0);
}

LiquidValue activity(bool dilute) {
  return {.column = "gamma",
          .json_key = "gamma",
          .thing = "an activity coefficient",
          .format = "{:.4g}",
          .of_component = true,
          .dilute = dilute,
          .logarithmic = true,
          .assumed_part = 0.05,
          .assumed_text = "5 % of gamma",
          .thermoml_name = "Activity coefficient",
          .thermoml_group = "ActivityFugacityOsmoticProp",
          .evaluate = evaluate_gamma};
}

}  // namespace

KindDescription limiting_gamma() {
  static const LiquidValue value = activity(true);
  return {.kind = DataKind::gamma_inf,
          .name = "gamma-inf",
          .family = DataFamily::liquid_value,
          .uncertainties = {"u(gamma)"},
          .value = &value};
}

KindDescription activity_coefficient() {
  static const LiquidValue value = activity(false);
  return {.kind = DataKind::gamma,
          .name = "gamma",
          .family = DataFamily::liquid_value,
          .uncertainties = {"u(gamma)"},
          .value = &value};
}

}  // namespace jampot::kinds
