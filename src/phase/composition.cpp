#include "jampot/phase/composition.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

constexpr double rounding = 1e-6;

std::vector<double> weighted(std::span<const double> fractions, const std::vector<Substance>& substances,
                             int power) {
  demand_size(fractions.size(), substances.size(), "fractions");
  std::vector<double> result(fractions.begin(), fractions.end());
  double sum = 0;
  for (std::size_t i = 0; i < result.size(); ++i) {
    sum += result[i] *= std::pow(substances[i].molar_mass_kg_mol, power);
  }
  for (double& value : result) value /= sum;
  return result;
}

}  // namespace

std::size_t member_named(const std::string& name, const std::vector<Substance>& substances) {
  const std::string wanted = lower_case(name);
  const auto same = [&](const std::string& key) { return lower_case(key) == wanted; };
  std::vector<std::string> names;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const Substance& substance = substances[i];
    if (same(substance.name) || same(substance.cas) || same(substance.formula) ||
        (!substance.label.empty() && same(substance.label)) ||
        std::any_of(substance.aliases.begin(), substance.aliases.end(), same)) {
      return i;
    }
    names.push_back(substance.name);
  }
  throw RequestError(fmt::format("'{}' in the composition is not part of this mixture ({})", shortened(name),
                                 joined(names, ", ")));
}

double mole_fraction_uncertainty(double u_w, std::span<const double> x,
                                 const std::vector<Substance>& substances) {
  const double M1 = substances[0].molar_mass_kg_mol;
  double rest = 0;
  for (std::size_t i = 1; i < x.size(); ++i) rest += x[i] * substances[i].molar_mass_kg_mol;
  const double M2 = x[0] < 1 ? rest / (1 - x[0]) : substances[1].molar_mass_kg_mol;
  const double mean = x[0] * M1 + (1 - x[0]) * M2;
  return u_w * mean * mean / (M1 * M2);
}

std::vector<double> from_mole_ratio(double ratio, std::size_t solute) {
  std::vector<double> x(2);
  x[solute] = ratio / (1 + ratio);
  x[1 - solute] = 1 / (1 + ratio);
  return x;
}

std::size_t rich_in(std::span<const double> x, const std::vector<std::vector<double>>& others) {
  std::size_t rich = 0;
  double most = -HUGE_VAL;
  for (std::size_t i = 0; i < x.size(); ++i) {
    double elsewhere = 0;
    for (const std::vector<double>& other : others) elsewhere = std::max(elsewhere, other[i]);
    if (x[i] - elsewhere <= most) continue;
    most = x[i] - elsewhere;
    rich = i;
  }
  return rich;
}

Basis parse_basis(std::string_view text) {
  if (text == "mole") return Basis::mole;
  if (text == "mass") return Basis::mass;
  throw RequestError(fmt::format("'{}' is not a basis; it is mole or mass", text));
}

std::vector<double> mass_fractions(std::span<const double> x, const std::vector<Substance>& substances) {
  return weighted(x, substances, 1);
}

std::vector<double> mole_fractions(std::span<const double> w, const std::vector<Substance>& substances) {
  return weighted(w, substances, -1);
}

std::vector<double> parse_composition(std::string_view text, const std::vector<Substance>& substances,
                                      Basis basis) {
  std::vector<std::optional<double>> given(substances.size());
  double sum = 0;
  for (const NamedValue& piece : named_values(text)) {
    if (!piece.has_value) {
      throw RequestError(fmt::format("'{}' in the composition: expected NAME=FRACTION, as in \"{}=0.3\"",
                                     shortened(piece.name), substances[0].name));
    }
    const std::size_t i = member_named(piece.name, substances);
    if (given[i]) throw RequestError(fmt::format("{} is given twice in the composition", substances[i].name));
    const double fraction = parse_quantity(piece.value, Dimension::fraction);
    if (!(fraction >= 0 && fraction <= 1)) {
      throw RequestError(
          fmt::format("the fraction of {} is {}; it must lie in 0..1 (write a percentage with its sign: 30%)",
                      substances[i].name, fraction));
    }
    given[i] = fraction;
    sum += fraction;
  }
  const auto missing = std::count(given.begin(), given.end(), std::nullopt);
  if (missing > 1) {
    throw RequestError(fmt::format(
        "the composition leaves {} substances out; at most one can be computed as the rest", missing));
  }
  if (sum > 1 + rounding || (missing == 0 && sum < 1 - rounding)) {
    throw RequestError(fmt::format("the fractions sum to {:.6g}, not to 1", sum));
  }
  std::vector<double> fractions;
  for (const auto& value : given) fractions.push_back(value.value_or(std::max(0.0, 1 - sum)));
  if (basis == Basis::mass) return mole_fractions(fractions, substances);
  for (double& value : fractions) value /= missing == 0 ? sum : 1;
  return fractions;
}

}  // namespace jampot
