#include "jampot/substance/substance.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <map>

#include "jampot/basis/error.hpp"

namespace jampot {

// Here once, and not in every file that uses one: they are long.
Substance::Substance() = default;
Substance::Substance(const Substance&) = default;
Substance::Substance(Substance&&) noexcept = default;
Substance& Substance::operator=(const Substance&) = default;
Substance& Substance::operator=(Substance&&) noexcept = default;
Substance::~Substance() = default;

std::string Substance::short_name() const {
  if (!label.empty()) return label;
  const std::string* best = nullptr;
  for (const std::string& alias : aliases) {
    const bool capitals =
        std::all_of(alias.begin(), alias.end(), [](unsigned char c) { return std::isupper(c); });
    if (capitals && alias.size() >= 3 && (best == nullptr || alias.size() < best->size())) best = &alias;
  }
  return best != nullptr && name.size() > 14 ? *best : name;
}

bool pairs_up(const Substance& substance) {
  constexpr double eta_of_dimers = 4.5;
  if (substance.carboxyl_group || substance.dimer) return true;
  if (substance.hayden_oconnell) return substance.hayden_oconnell->eta >= eta_of_dimers;
  for (const auto& [table, make_up] : substance.groups) {
    if (make_up.find("COOH:") != std::string::npos) return true;  // HCOOH too
  }
  return substance.groups.empty() && substance.name.ends_with(" acid");
}

double LiquidHeatCapacity::value(double T_K) const {
  double sum = 0;
  for (std::size_t k = coefficients.size(); k-- > 0;) sum = sum * T_K + coefficients[k];
  return sum / 1000;
}

double GasHeatCapacity::value(double T_K) const {
  if (hyperbolic) {
    const auto& [c1, c2, c3, c4, c5] = *hyperbolic;
    const double sine = c3 / T_K / std::sinh(c3 / T_K), cosine = c5 / T_K / std::cosh(c5 / T_K);
    return c1 + c2 * sine * sine + c4 * cosine * cosine;
  }
  const auto& [a, b, c, d] = cubic;
  return a + T_K * (b + T_K * (c + T_K * d));
}

double GasHeatCapacity::enthalpy_change(double from_K, double to_K) const {
  const auto integral = [&](double T) {
    if (hyperbolic) {
      const auto& [c1, c2, c3, c4, c5] = *hyperbolic;
      return c1 * T + c2 * c3 / std::tanh(c3 / T) - c4 * c5 * std::tanh(c5 / T);
    }
    const auto& [a, b, c, d] = cubic;
    return T * (a + T * (b / 2 + T * (c / 3 + T * d / 4)));
  };
  return integral(to_K) - integral(from_K);
}

double GasHeatCapacity::entropy_change(double from_K, double to_K) const {
  const auto integral = [&](double T) {
    if (hyperbolic) {
      const auto& [c1, c2, c3, c4, c5] = *hyperbolic;
      const double s = c3 / T, c = c5 / T;
      return c1 * std::log(T) + c2 * (s / std::tanh(s) - std::log(std::sinh(s))) -
             c4 * (c * std::tanh(c) - std::log(std::cosh(c)));
    }
    const auto& [a, b, c, d] = cubic;
    return a * std::log(T) + T * (b + T * (c / 2 + T * d / 3));
  };
  return integral(to_K) - integral(from_K);
}

double VaporisationCurve::value(double T_K) const {
  if (T_K >= Tc_K) return 0;
  const double Tr = T_K / Tc_K;
  const auto& [c1, c2, c3, c4] = coefficients;
  return c1 / 1000 * std::pow(1 - Tr, c2 + Tr * (c3 + Tr * c4));
}

double LiquidDensityCurve::molar_volume(double T_K) const {
  const auto& [c1, c2, c3, c4] = coefficients;
  return std::pow(c2, 1 + std::pow(std::max(0.0, 1 - T_K / c3), c4)) / (1000 * c1);
}

double LiquidDensityCurve::expansion(double T_K) const {
  const auto& [c1, c2, c3, c4] = coefficients;
  return T_K < c3 ? -std::log(c2) * c4 / c3 * std::pow(1 - T_K / c3, c4 - 1) : 0;
}

std::map<std::string, int> atoms_in(const std::string& formula) {
  std::map<std::string, int> atoms;
  for (std::size_t k = 0; k < formula.size();) {
    if (!std::isupper(static_cast<unsigned char>(formula[k]))) {
      throw RequestError(fmt::format("the formula '{}' cannot be read at '{}'", formula, formula.substr(k)));
    }
    std::string element(1, formula[k++]), digits;
    while (k < formula.size() && std::islower(static_cast<unsigned char>(formula[k])))
      element += formula[k++];
    while (k < formula.size() && std::isdigit(static_cast<unsigned char>(formula[k])) && digits.size() < 6) {
      digits += formula[k++];
    }
    atoms[element] += digits.empty() ? 1 : std::stoi(digits);
  }
  return atoms;
}

double molar_mass_from_formula(const std::string& formula) {
  static const std::map<std::string, double> atomic_weight{
      {"H", 1.008},   {"B", 10.81},   {"C", 12.011},  {"N", 14.007}, {"O", 15.999},
      {"F", 18.998},  {"Si", 28.085}, {"P", 30.974},  {"S", 32.06},  {"Cl", 35.45},
      {"Br", 79.904}, {"I", 126.904}, {"He", 4.0026}, {"Ar", 39.95}};
  double mass = 0;
  for (const auto& [element, count] : atoms_in(formula)) {
    const auto found = atomic_weight.find(element);
    if (found == atomic_weight.end()) {
      throw RequestError(
          fmt::format("'{}' in the formula '{}' is not an element that is known here", element, formula));
    }
    mass += found->second * count;
  }
  if (mass == 0) throw RequestError("the formula is empty");
  return mass / 1000;
}

void check_mosced(const MoscedParameters& parameters) {
  const bool sound = parameters.v_cm3_mol > 0 && parameters.lambda > 0 && parameters.tau >= 0 &&
                     parameters.alpha >= 0 && parameters.beta >= 0 && parameters.q > 0 && parameters.q <= 1.1;
  if (sound) return;
  throw RequestError(
      "MOSCED parameters: v and lambda are positive, tau, alpha and beta not negative, q about 0.9 to 1");
}

}  // namespace jampot
