#include "vle_working.hpp"

#include <fmt/format.h>

#include <cmath>

#include "fluid_working.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/liquid/working.hpp"
#include "jampot/phase/saturation_correction.hpp"

namespace jampot {

std::vector<std::string> vle_working(Mixture& mixture, double T_K, double P_Pa, const std::vector<double>& x,
                                     const std::vector<double>& y) {
  std::vector<std::string> lines{
      "", fmt::format("Working at {:.3f} degC and {:.6g} kPa", T_K - celsius_zero, P_Pa / 1000), ""};
  const auto append = [&](const std::vector<std::string>& more) {
    lines.insert(lines.end(), more.begin(), more.end());
  };
  if (mixture.one_equation()) {
    lines.emplace_back("liquid and vapour of one equation of state: x_i phi_i(liquid) = y_i phi_i(vapour)");
    lines.emplace_back("");
    lines.emplace_back("Liquid");
    append(fluid_working(*mixture.equation(), mixture.substances(), T_K, P_Pa, x));
    lines.emplace_back("");
    lines.emplace_back("Vapour");
    append(fluid_working(*mixture.equation(), mixture.substances(), T_K, P_Pa, y));
    return lines;
  }
  append(working(mixture.activity(), mixture.substances(), T_K, x));
  std::vector<double> ln_gamma(x.size());
  mixture.activity().evaluate(x, ln_gamma);
  PhaseValues vapour(x.size());
  mixture.vapour().evaluate(T_K, P_Pa, y, {}, vapour);
  const SaturationCorrection* correction = mixture.correction(T_K);
  lines.emplace_back(
      correction == nullptr
          ? "bubble point: sum_i x_i gamma_i Psat_i = P,  y_i = x_i gamma_i Psat_i / P"
          : "bubble point: y_i phi_i P = x_i gamma_i Psat_i phi_sat_i Poynting_i,  sum_i y_i = 1");
  double sum = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    const auto& curve = mixture.substances()[i].vapour_pressure;
    const double Psat = curve ? curve->P_Pa(T_K) : 0;
    double partial = x[i] * std::exp(ln_gamma[i]) * Psat;
    std::string text = fmt::format("x_{0} gamma_{0} Psat_{0} = {1:.6g} x {2:.6g} x {3:.6g} Pa = {4:.6g} Pa",
                                   i + 1, x[i], std::exp(ln_gamma[i]), Psat, partial);
    if (correction != nullptr) {
      const double phi_sat = std::exp(correction->ln_phi(i)),
                   poynting = std::exp(correction->ln_poynting(i, P_Pa));
      const double phi = std::exp(vapour.ln_phi[i]);
      partial *= phi_sat * poynting / phi;
      text += fmt::format("; phi_sat = {:.6g}, Poynting = {:.6g}, phi = {:.6g}: {:.6g} Pa", phi_sat, poynting,
                          phi, partial);
    }
    sum += partial;
    lines.push_back(fmt::format("{};  y_{} = {:.6g}", text, i + 1, partial / P_Pa));
  }
  lines.push_back(fmt::format("sum = {:.6g} Pa;  P = {:.6g} Pa", sum, P_Pa));
  return lines;
}

}  // namespace jampot
