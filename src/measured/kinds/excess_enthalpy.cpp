// Molar excess enthalpies, by the Gibbs-Helmholtz equation: hE = -R T^2 sum_i x_i dln gamma_i/dT.
#include "jampot/basis/constants.hpp"
#include "jampot/liquid/activity_model.hpp"
#include "jampot/measured/data_set.hpp"
#include "kinds.hpp"

namespace jampot::kinds {
namespace {

void evaluate_enthalpy(ActivityModel& model, const DataPoint& point, bool derivatives, ModelValue& out) {
  const std::size_t n = point.x.size(), terms = model.terms().size();
  const double T_K = point.T_K, scale = -gas_constant * T_K * T_K;
  model.set_temperature(T_K);
  double sum = 0;
  if (!derivatives) {
    std::vector<double>&ln_gamma = out.scratch[0], &dT = out.scratch[1];
    ln_gamma.resize(n);
    dT.resize(n);
    model.evaluate(point.x, ln_gamma, dT);
    for (std::size_t i = 0; i < n; ++i) sum += point.x[i] * dT[i];
    out.value = scale * sum;
    return;
  }
  // gE/RT changes with T through the terms alone: d(gE/RT)/dT = sum_t slope_t dterm_t/dT.
  std::vector<double>&slope = out.scratch[1], &slope_dT = out.scratch[2];
  slope.resize(terms);
  slope_dT.resize(terms);
  model.gibbs_term_derivatives(point.x, slope, slope_dT);
  out.by_term.resize(terms);
  out.by_term_dT.resize(terms);
  for (std::size_t t = 0; t < terms; ++t) {
    sum += slope[t] * model.terms()[t].function.dT(T_K);
    out.by_term[t] = scale * slope_dT[t];
    out.by_term_dT[t] = scale * slope[t];
  }
  out.value = scale * sum;
}

}  // namespace

KindDescription excess_enthalpy() {
  static const LiquidValue value{.column = "hE",
                                 .json_key = "hE_J_mol",
                                 .dimension = Dimension::molar_energy,
                                 .unit = "J/mol",
                                 .thing = "an excess enthalpy",
                                 .format = "{:.1f}",
                                 .assumed_part = 0.03,
                                 .assumed_least = 5,
                                 .assumed_text = "3 % of hE, at least 5 J/mol",
                                 .thermoml_name = "Excess molar enthalpy (molar enthalpy of mixing), kJ/mol",
                                 .thermoml_group = "ExcessPartialApparentEnergyProp",
                                 .thermoml_scale = 1e3,
                                 .evaluate = evaluate_enthalpy};
  return {.kind = DataKind::excess_enthalpy,
          .name = "excess-enthalpy",
          .family = DataFamily::liquid_value,
          .uncertainties = {"u(hE)"},
          .value = &value};
}

}  // namespace jampot::kinds
