#include "in_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace jampot {
namespace {

// The coefficients at the smallest and at the largest content of the solute.
std::optional<std::pair<double, double>> ends_of(const Distribution& distribution) {
  std::vector<double> found;
  for (const DistributionPoint& point : distribution.points) {
    if (point.in_carrier > 0 && std::isfinite(point.coefficient) && point.coefficient > 0)
      found.push_back(point.coefficient);
  }
  if (found.empty()) return std::nullopt;
  return std::pair(found.front(), found.back());
}

std::string preference(const std::pair<double, double>& ends, const std::string& solvent,
                       const std::string& carrier) {
  const auto rich = [&](double coefficient) { return coefficient > 1 ? solvent : carrier; };
  const std::string numbers =
      fmt::format("{:.3g} at small content, {:.3g} at the largest", ends.first, ends.second);
  return (ends.first > 1) == (ends.second > 1)
             ? fmt::format("the liquid rich in {} ({})", rich(ends.first), numbers)
             : fmt::format(
                   "the liquid rich in {} at small content and the one rich in {} at the largest ({})",
                   rich(ends.first), rich(ends.second), numbers);
}

constexpr double factor_of_two = 2, nearly_equal = 1.1;

std::string apart(double factor) {
  return factor < nearly_equal    ? fmt::format("agree within {:.0f} %", std::ceil(100 * (factor - 1)))
         : factor < factor_of_two ? fmt::format("differ by up to a factor of {:.2f}", factor)
                                  : fmt::format("differ by a factor of {:.2g}", factor);
}

// Of the first in the liquid of the second, and of the second in that of the first.
std::optional<std::array<double, 2>> solubilities(const SolubilityPoint& point) {
  if (point.splits.size() != 1) return std::nullopt;
  return std::array{point.splits[0].x1_alpha, 1 - point.splits[0].x1_beta};
}

// +1 where a series rises by more than a twentieth, -1 where it falls, else 0.
int trend(double first, double last) {
  constexpr double hardly = 1.05;
  return last > first * hardly ? 1 : first > last * hardly ? -1 : 0;
}

}  // namespace

std::string solute_in_words(const Distribution& by_mole, const Distribution& by_mass,
                            const std::vector<Substance>& substances) {
  const auto mole = ends_of(by_mole), mass = ends_of(by_mass);
  if (!mole || !mass) return {};
  const std::string solvent = substances[by_mole.roles.solvent].short_name(),
                    carrier = substances[by_mole.roles.carrier].short_name();
  const std::string first = preference(*mole, solvent, carrier), second = preference(*mass, solvent, carrier);
  return fmt::format("{} prefers, by mole fraction, {}; by mass fraction, {}",
                     substances[by_mole.roles.solute].short_name(), first, second);
}

std::vector<std::string> pressure_in_words(const AzeotropesStudy& study) {
  if (study.substances().size() != 2 || study.compared() || study.P_Pa.size() < 2) return {};
  const auto azeotropes = [](const FoundAzeotropes& search) {
    std::vector<const SingularPoint*> list;
    for (const SingularPoint& point : search.found.points) {
      if (point.members.size() == 2) list.push_back(&point);
    }
    return list;
  };
  const auto lowest =
      std::min_element(study.searches.begin(), study.searches.end(),
                       [](const FoundAzeotropes& a, const FoundAzeotropes& b) { return a.P_Pa < b.P_Pa; });
  const auto highest =
      std::max_element(study.searches.begin(), study.searches.end(),
                       [](const FoundAzeotropes& a, const FoundAzeotropes& b) { return a.P_Pa < b.P_Pa; });
  const auto low = azeotropes(*lowest), high = azeotropes(*highest);
  const auto kPa = [](const FoundAzeotropes& search) { return search.P_Pa / 1000; };
  if (low.empty() && high.empty())
    return {fmt::format("no azeotrope at {:.6g} or {:.6g} kPa: one column separates the two", kPa(*lowest),
                        kPa(*highest))};
  if (low.empty() || high.empty())
    return {fmt::format(
        "the azeotrope exists at {:.6g} kPa and not at {:.6g} kPa: there one column separates the two",
        kPa(low.empty() ? *highest : *lowest), kPa(low.empty() ? *lowest : *highest))};
  if (low.size() > 1 || high.size() > 1) return {};
  // Below this, recycles between two columns become several times the feed.
  constexpr double enough = 0.05;
  const double moved = high[0]->x[0] - low[0]->x[0];
  return {
      fmt::format("from {:.6g} to {:.6g} kPa the azeotrope moves by {:.3f} in the mole fraction of {}: {} "
                  "for two columns at these "
                  "pressures{}",
                  kPa(*lowest), kPa(*highest), std::abs(moved), study.substances()[0].short_name(),
                  std::abs(moved) >= enough ? "enough" : "too little",
                  std::abs(moved) >= enough ? " ('jampot swing' balances them)" : "")};
}

std::vector<std::string> agreement_in_words(const std::vector<std::string>& models,
                                            const std::vector<SolubilityCurve>& curves,
                                            const std::vector<Substance>& substances) {
  std::vector<std::string> sentences;
  for (std::size_t k = 1; k < curves.size(); ++k) {
    const std::size_t count = std::min(curves[0].points.size(), curves[k].points.size());
    std::array<double, 2> most{1, 1};
    std::array<std::vector<std::array<double, 2>>, 2> pairs;
    std::vector<double> disagree;
    for (std::size_t p = 0; p < count; ++p) {
      const auto one = solubilities(curves[0].points[p]), other = solubilities(curves[k].points[p]);
      if (curves[0].points[p].splits.empty() != curves[k].points[p].splits.empty())
        disagree.push_back(curves[0].points[p].T_K);
      if (!one || !other) continue;
      for (std::size_t side = 0; side < 2; ++side) {
        const double ratio = (*one)[side] / (*other)[side];
        most[side] = std::max({most[side], ratio, 1 / ratio});
        pairs[side].push_back({(*one)[side], (*other)[side]});
      }
    }
    std::string text;
    if (!disagree.empty())
      text = fmt::format("{} and {} disagree on whether there are two liquids at {} of {} temperatures",
                         models[0], models[k], disagree.size(), count);
    for (std::size_t side = 0; side < 2; ++side) {
      if (pairs[side].empty()) continue;
      const std::string what =
          fmt::format("{} in {}", substances[side].short_name(), substances[1 - side].short_name());
      text += text.empty() ? fmt::format("{} and {} ", models[0], models[k]) : "; they ";
      text += fmt::format("{} in the solubility of {}", apart(most[side]), what);
      if (pairs[side].size() < 2) continue;
      const int one = trend(pairs[side].front()[0], pairs[side].back()[0]),
                other = trend(pairs[side].front()[1], pairs[side].back()[1]);
      if (one * other < 0)
        text += fmt::format(", which {} with temperature by the first and {} by the second",
                            one > 0 ? "rises" : "falls", other > 0 ? "rises" : "falls");
    }
    if (std::max(most[0], most[1]) >= factor_of_two || !disagree.empty())
      text += ": measured solubilities must decide";
    sentences.push_back(text);
  }
  return sentences;
}

std::vector<std::string> agreement_in_words(const std::vector<BinaryCurve>& curves) {
  std::vector<std::string> sentences;
  for (std::size_t k = 1; k < curves.size(); ++k) {
    const auto &one = curves[0].azeotropes, &other = curves[k].azeotropes;
    const std::string names = fmt::format("{} and {}", curves[0].label, curves[k].label);
    if (one.size() != other.size()) {
      const auto count = [](std::size_t number) {
        return number == 0   ? std::string("no azeotrope")
               : number == 1 ? "an azeotrope"
                             : fmt::format("{} azeotropes", number);
      };
      sentences.push_back(fmt::format("{} disagree: {} and {}; measured data must decide", names,
                                      count(one.size()), count(other.size())));
    } else if (one.size() == 1) {
      const double x = std::abs(one[0].x1 - other[0].x1), T_K = std::abs(one[0].T_K - other[0].T_K);
      constexpr double near_x = 0.02, near_K = 0.5;
      sentences.push_back(fmt::format("{} {} on the azeotrope: {:.3f} in mole fraction and {:.2f} K apart",
                                      names, x <= near_x && T_K <= near_K ? "agree" : "differ", x, T_K));
    }
  }
  return sentences;
}

}  // namespace jampot
