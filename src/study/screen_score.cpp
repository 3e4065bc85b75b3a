#include "screen_score.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

double between_0_and_1(double value) {
  return std::clamp(value, 0.0, 1.0);
}

// What each part of the score sees of a solvent.
class Parts {
 public:
  Parts(const ScreenedSolvent& solvent, SolventRole role, const std::vector<Substance>& pair)
      : solvent_(solvent), role_(role), pair_(pair) {}

  ScorePart part(const std::string& name) const {
    ScorePart part;
    part.name = name;
    if (name == "distribution") distribution(part);
    if (name == "selectivity") selectivity(part);
    if (name == "loss") loss(part);
    if (name == "recovery") recovery(part);
    if (name == "density") density(part);
    if (name == "volatility") volatility(part);
    if (name == "azeotropes") azeotropes(part);
    if (name == "capacity") capacity(part);
    if (name == "reactivity") reactivity(part);
    if (name == "facts") facts(part);
    return part;
  }

 private:
  void distribution(ScorePart& part) const {
    const double d = solvent_.extraction->distribution;
    part.value = d / (1 + d);
    constexpr double little = 0.5;
    if (d < little) part.shortfall = fmt::format("extracts little {}: {:.2g} by mass", pair_[0].name, d);
  }

  void selectivity(ScorePart& part) const {
    const double s = role_ == SolventRole::extraction ? solvent_.extraction->selectivity
                                                      : solvent_.absorption->selectivity;
    constexpr double wished = 1000, poor = 5;
    part.value = between_0_and_1(std::log(std::max(s, 1.0)) / std::log(wished));
    if (s < poor) part.shortfall = fmt::format("also extracts {}: selectivity {:.2g}", pair_[1].name, s);
  }

  void loss(ScorePart& part) const {
    if (role_ == SolventRole::extraction) {
      constexpr double most = 0.1, much = 0.02;
      part.value = between_0_and_1(1 - solvent_.extraction->loss / most);
      if (solvent_.extraction->loss > much)
        part.shortfall = fmt::format("{:.1f} mass per cent of it stay in the liquid of {}",
                                     100 * solvent_.extraction->loss, pair_[1].name);
    } else {
      constexpr double most = 0.02, much = 0.005;
      part.value = between_0_and_1(1 - solvent_.absorption->loss / most);
      if (solvent_.absorption->loss > much)
        part.shortfall =
            fmt::format("the gas leaves with {:.1f} mole per cent of it", 100 * solvent_.absorption->loss);
    }
  }

  // It is parted again from what it took up.
  void recovery(ScorePart& part) const {
    constexpr double wished_K = 40, close_K = 15;
    // Close boilers can still be parted, with many stages; that they make an azeotrope says little more.
    constexpr double least = 0.1;
    part.value = std::clamp(std::abs(solvent_.boiling_gap_K) / wished_K, least, 1.0);
    // A heavy agent leaves at the bottom; a light one goes over the top with the product.
    if (role_ == SolventRole::entrainer && solvent_.boiling_gap_K < 0) part.value /= 2;
    if (std::abs(solvent_.boiling_gap_K) < close_K)
      part.shortfall = fmt::format("boils only {:.1f} K from the substance that it must be separated from",
                                   std::abs(solvent_.boiling_gap_K));
    if (role_ == SolventRole::entrainer) return;
    const double apart = part.value;
    for (const NewAzeotrope& azeotrope : solvent_.azeotropes) {
      if (azeotrope.members.size() != 2 || !holds(azeotrope, pair_[0].name)) continue;
      part.value *= azeotrope.heterogeneous ? 0.6 : 0.3;
      part.shortfall = fmt::format("makes an azeotrope with {}", pair_[0].name);
    }
    part.value = std::max(part.value, std::min(apart, least));
  }

  void density(ScorePart& part) const {
    constexpr double wished = 100, little = 30;
    part.value = solvent_.density_difference_kg_m3
                     ? between_0_and_1(std::abs(*solvent_.density_difference_kg_m3) / wished)
                     : 0.5;
    if (solvent_.density_difference_kg_m3 && std::abs(*solvent_.density_difference_kg_m3) < little)
      part.shortfall = fmt::format("its density is only {:.0f} kg/m3 from that of {}",
                                   std::abs(*solvent_.density_difference_kg_m3), pair_[1].name);
  }

  void volatility(ScorePart& part) const {
    const double alpha = solvent_.volatility->with_solvent;
    constexpr double wished = 5, near_1 = 1.3;
    part.value = between_0_and_1(std::abs(std::log(alpha)) / std::log(wished));
    if (std::max(alpha, 1 / alpha) < near_1)
      part.shortfall = fmt::format("leaves the relative volatility at {:.2f}", alpha);
  }

  void azeotropes(ScorePart& part) const {
    part.value = 1;
    for (const NewAzeotrope& azeotrope : solvent_.azeotropes) {
      const double left = azeotrope.heterogeneous ? 0.6 : 0.2;
      if (left >= part.value) continue;
      part.value = left;
      part.shortfall = fmt::format("makes a {}azeotrope with {}",
                                   azeotrope.heterogeneous ? "hetero" : "homogeneous ", with(azeotrope));
    }
    if (!solvent_.azeotropes_known) {
      part.value = 0.5;
      part.shortfall = "its azeotropes are not known";
    }
  }

  void capacity(ScorePart& part) const {
    if (role_ == SolventRole::absorbent) {
      // In equilibrium with 1 kPa of it.
      const double x = 1000 * solvent_.absorption->solubility_per_Pa;
      constexpr double half = 0.02, little = 0.005;
      part.value = x / (x + half);
      if (x < little)
        part.shortfall =
            fmt::format("absorbs little {}: {:.2g} mole per cent at 1 kPa", pair_[0].name, 100 * x);
      return;
    }
    constexpr double half = 0.2, little = 0.1;
    part.value = solvent_.dilute.capacity / (solvent_.dilute.capacity + half);
    if (solvent_.dilute.capacity < little)
      part.shortfall =
          fmt::format("dissolves little of either: infinite-dilution activity coefficients {:.3g} and {:.3g}",
                      solvent_.dilute.gamma[0], solvent_.dilute.gamma[1]);
  }

  // What comes apart again only by chemistry is lost, and what it makes has to be taken out.
  void reactivity(ScorePart& part) const {
    part.value = 1;
    if (solvent_.reactions.empty()) return;
    const Reaction& worst = solvent_.reactions.front();
    constexpr double very_slow = 0.9, on_boiling = 0.3, at_once = 0.1;
    part.value = worst.readiness == Readiness::at_once      ? at_once
                 : worst.readiness == Readiness::on_boiling ? on_boiling
                                                            : very_slow;
    if (worst.readiness != Readiness::very_slow)
      part.shortfall = worst.with == worst.substance
                           ? "polymerises unless it is inhibited"
                           : fmt::format("forms {} with {}", worst.products, worst.with);
  }

  // How far what handbooks have of it bears the prediction out: half where they have nothing.
  void facts(ScorePart& part) const {
    part.value = (solvent_.facts_agreeing + solvent_.facts_taken + 1.0) / (solvent_.facts + 2.0);
    if (solvent_.facts == 0) part.shortfall = "no handbook fact about it bears the prediction out";
    if (solvent_.miscible_kin.empty()) return;
    part.value = 0;
    part.shortfall = fmt::format("may mix with {} in all proportions, as its kin {} does", pair_[1].name,
                                 solvent_.miscible_kin);
  }

  static bool holds(const NewAzeotrope& azeotrope, const std::string& name) {
    return std::find(azeotrope.members.begin(), azeotrope.members.end(), name) != azeotrope.members.end();
  }
  std::string with(const NewAzeotrope& azeotrope) const {
    std::vector<std::string> others;
    for (const std::string& name : azeotrope.members) {
      if (name != solvent_.substance.name) others.push_back(name);
    }
    return joined(others, " and ");
  }

  const ScreenedSolvent& solvent_;
  SolventRole role_;
  const std::vector<Substance>& pair_;
};

}  // namespace

std::vector<std::pair<std::string, double>> score_weights(SolventRole role) {
  switch (role) {
    case SolventRole::extraction:
      return {{"distribution", 0.36}, {"selectivity", 0.15}, {"loss", 0.12}, {"recovery", 0.08},
              {"density", 0.06},      {"reactivity", 0.1},   {"facts", 0.13}};
    case SolventRole::entrainer:
      return {{"volatility", 0.28}, {"azeotropes", 0.19}, {"recovery", 0.15},
              {"capacity", 0.15},   {"reactivity", 0.1},  {"facts", 0.13}};
    case SolventRole::absorbent:
      break;
  }
  return {{"capacity", 0.31}, {"selectivity", 0.15}, {"loss", 0.19},
          {"recovery", 0.12}, {"reactivity", 0.1},   {"facts", 0.13}};
}

std::vector<std::pair<std::string, double>> weights_of(const ScreenRequest& request) {
  auto weights = score_weights(request.role);
  for (const auto& asked : request.weights) {
    const std::string& name = asked.first;
    const double value = asked.second;
    const auto found =
        std::find_if(weights.begin(), weights.end(), [&](const auto& one) { return one.first == name; });
    if (found == weights.end()) {
      std::vector<std::string> names;
      for (const auto& one : weights) names.push_back(one.first);
      throw RequestError(
          fmt::format("`weights`: '{}' is not a term of the score for this role; the terms are {}.{}", name,
                      joined(names, ", "), did_you_mean(name, names)));
    }
    if (!(value >= 0) || !std::isfinite(value))
      throw RequestError(fmt::format("`weights`: {} of {} is below zero or no number", value, name));
    found->second = value;
  }
  double sum = 0;
  for (const auto& one : weights) sum += one.second;
  if (!(sum > 0)) throw RequestError("`weights`: all of them are zero");
  for (auto& one : weights) one.second /= sum;
  return weights;
}

void score(ScreenedSolvent& solvent, SolventRole role, const std::vector<Substance>& pair,
           const std::vector<std::pair<std::string, double>>& weights) {
  const Parts parts(solvent, role, pair);
  double worst = 0, log_score = 0;
  for (const auto& [name, weight] : weights) {
    ScorePart part = parts.part(name);
    part.weight = weight;
    // A geometric mean: what is useless in one part is not saved by the others.
    constexpr double least = 0.01;
    log_score += weight * std::log(std::max(part.value, least));
    const double lost = weight * (1 - part.value);
    if (!part.shortfall.empty() && lost > worst) {
      worst = lost;
      solvent.verdict = part.shortfall;
    }
    solvent.parts.push_back(std::move(part));
  }
  solvent.score = std::exp(log_score);
  if (solvent.verdict.empty()) solvent.verdict = "no disadvantage found";
}

}  // namespace jampot
