#include "jampot/diagram/gamma.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {

GammaPoint gamma_at(ActivityModel& model, double T_K, const std::vector<double>& x) {
  demand_temperature(T_K);
  demand_fractions(x, model.size());
  GammaPoint point{T_K, x, std::vector<double>(x.size())};
  std::vector<double> dT(x.size());
  model.set_temperature(T_K);
  model.evaluate(x, point.ln_gamma, dT);
  for (std::size_t i = 0; i < x.size(); ++i) {
    point.gE_J_mol += gas_constant * T_K * x[i] * point.ln_gamma[i];
    point.hE_J_mol -= gas_constant * T_K * T_K * x[i] * dT[i];
  }
  return point;
}

std::vector<GammaPoint> gamma_line(ActivityModel& model, double T_K, std::size_t points) {
  demand_size(model.size(), 2, "substances of the model");
  if (points < 2) throw RequestError("a line needs at least two points");
  std::vector<GammaPoint> line;
  for (std::size_t k = 0; k < points; ++k) {
    const double x1 = static_cast<double>(k) / static_cast<double>(points - 1);
    line.push_back(gamma_at(model, T_K, {x1, 1 - x1}));
  }
  return line;
}

double limiting_ln_gamma(ActivityModel& model, double T_K, std::size_t solute, std::size_t solvent) {
  demand_temperature(T_K);
  if (solute >= model.size() || solvent >= model.size())
    throw RequestError(
        fmt::format("substances {} and {} are asked for of {}", solute, solvent, model.size()));
  std::vector<double> x(model.size()), ln_gamma(model.size());
  x[solvent] = 1;
  model.set_temperature(T_K);
  model.evaluate(x, ln_gamma);
  return ln_gamma[solute];
}

std::vector<MeasuredGamma> measured_gammas(ActivityModel& model, const DataSet& data) {
  demand_size(data.substances.size(), model.size(), "substances of the data");
  demand_points(data);
  std::vector<MeasuredGamma> list;
  const std::size_t n = model.size();
  std::vector<double> ln_gamma(n);
  const auto add = [&](const DataPoint& point, const std::vector<double>& x, std::size_t i, double measured) {
    list.push_back({point.T_K, x, i, measured, ln_gamma[i], point.line});
  };
  for (const DataPoint& point : data.points) {
    if (!point.excluded.empty()) continue;
    if (const LiquidValue* value = describe(data.kind).value) {
      if (!value->of_component) continue;
      model.set_temperature(point.T_K);
      model.evaluate(point.x, ln_gamma);
      add(point, point.x, point.solute, std::log(point.value));
      continue;
    }
    if (!has_vapour(data.kind) || point.is_pure() || point.y.empty()) continue;
    model.set_temperature(point.T_K);
    model.evaluate(point.x, ln_gamma);
    for (std::size_t i = 0; i < n; ++i) {
      if (point.x[i] > 0 && point.y[i] > 0 && data.substances[i].vapour_pressure)
        add(point, point.x, i, ln_gamma_of(point, data.substances, i));
    }
  }
  return list;
}

}  // namespace jampot
