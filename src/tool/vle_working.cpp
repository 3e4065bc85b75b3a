#include "vle_working.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/liquid/working.hpp"

namespace jampot::tool {

std::vector<std::string> vle_working(Mixture& mixture, double T_K, double P_Pa,
                                     const std::vector<double>& x) {
  std::vector<std::string> lines{"", "Working, at the middle of the table", ""};
  const auto own = working(mixture.activity(), mixture.substances(), T_K, x);
  lines.insert(lines.end(), own.begin(), own.end());
  std::vector<double> ln_gamma(x.size());
  mixture.activity().evaluate(x, ln_gamma);
  lines.emplace_back("bubble point: sum_i x_i gamma_i Psat_i = P,  y_i = x_i gamma_i Psat_i / P");
  double sum = 0;
  for (std::size_t i = 0; i < x.size(); ++i) {
    const auto& curve = mixture.substances()[i].vapour_pressure;
    const double Psat = curve ? curve->P_Pa(T_K) : 0;
    const double partial = x[i] * std::exp(ln_gamma[i]) * Psat;
    sum += partial;
    lines.push_back(fmt::format(
        "x_{0} gamma_{0} Psat_{0} = {1:.6g} x {2:.6g} x {3:.6g} Pa = {4:.6g} Pa;  y_{0} = {5:.6g}", i + 1,
        x[i], std::exp(ln_gamma[i]), Psat, partial, partial / P_Pa));
  }
  lines.push_back(fmt::format("sum = {:.6g} Pa;  P = {:.6g} Pa", sum, P_Pa));
  return lines;
}

}  // namespace jampot::tool
