#include "jampot/diagram/gamma.hpp"

#include "jampot/basis/constants.hpp"

namespace jampot {

GammaPoint gamma_at(ActivityModel& model, double T_K, const std::vector<double>& x) {
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
  std::vector<GammaPoint> line;
  for (std::size_t k = 0; k < points; ++k) {
    const double x1 = static_cast<double>(k) / static_cast<double>(points - 1);
    line.push_back(gamma_at(model, T_K, {x1, 1 - x1}));
  }
  return line;
}

double limiting_ln_gamma(ActivityModel& model, double T_K, std::size_t solute, std::size_t solvent) {
  std::vector<double> x(model.size()), ln_gamma(model.size());
  x[solvent] = 1;
  model.set_temperature(T_K);
  model.evaluate(x, ln_gamma);
  return ln_gamma[solute];
}

}  // namespace jampot
