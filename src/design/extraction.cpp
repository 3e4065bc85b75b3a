#include "jampot/design/extraction.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../basis/bracket.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

constexpr std::size_t solute = 0, carrier = 1, solvent_at = 2;
constexpr unsigned place_digits = 44;

Fractions mixed(const Fractions& a, double factor, const Fractions& b) {
  return {a[0] + factor * b[0], a[1] + factor * b[1], a[2] + factor * b[2]};
}

double sum_of(const Fractions& a) {
  return a[0] + a[1] + a[2];
}

Fractions whole_of(const Fractions& amounts) {
  const double sum = sum_of(amounts);
  return {amounts[0] / sum, amounts[1] / sum, amounts[2] / sum};
}

// Zero where the three lie on one line; any of them may be a difference of flows.
double determinant(const Fractions& a, const Fractions& b, const Fractions& c) {
  return a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) +
         a[2] * (b[0] * c[1] - b[1] * c[0]);
}

// How much of `b` there is in a whole of `a` and `b`, read along the fraction that differs most.
double share_of_second(const Fractions& a, const Fractions& b, const Fractions& whole) {
  std::size_t widest = 0;
  for (std::size_t i = 1; i < 3; ++i) {
    if (std::abs(b[i] - a[i]) > std::abs(b[widest] - a[widest])) widest = i;
  }
  return (whole[widest] - a[widest]) / (b[widest] - a[widest]);
}

}  // namespace

ExtractionLiquids::ExtractionLiquids(std::vector<Fractions> raffinate, std::vector<Fractions> extract)
    : raffinate_(std::move(raffinate)), extract_(std::move(extract)) {
  if (raffinate_.size() < 2 || extract_.size() != raffinate_.size())
    throw RequestError("an extraction needs two tie lines or more, each with both liquids");
  if (raffinate_.front()[solute] > 1e-9 || extract_.front()[solute] > 1e-9)
    throw RequestError(
        fmt::format("the first tie line of an extraction has no solute; here its liquids have fractions of "
                    "{:.4g} and {:.4g}",
                    raffinate_.front()[solute], extract_.front()[solute]));
}

ExtractionLiquids ExtractionLiquids::of(const TernaryDiagram& diagram, const Extraction& roles,
                                        const std::vector<Substance>& substances, Basis basis) {
  if (!diagram.three_liquids.empty())
    throw CalculationError("three liquids form in this triangle: the construction with two does not hold");
  const std::string &B = substances[roles.carrier].name, &C = substances[roles.solvent].name;
  for (const TwoLiquidRegion& region : diagram.regions) {
    const auto at_edge = [&](const RegionEnd& end) {
      return end.kind == RegionEnd::Kind::edge && end.number == roles.solute;
    };
    if (!at_edge(region.begin) && !at_edge(region.end)) continue;
    std::vector<Fractions> raffinate, extract;
    const auto fractions = [&](const std::array<double, 3>& x) {
      const auto values =
          basis == Basis::mole ? std::vector<double>(x.begin(), x.end()) : mass_fractions(x, substances);
      return Fractions{values[roles.solute], values[roles.carrier], values[roles.solvent]};
    };
    for (const TieLine& line : region.tie_lines) {
      Fractions one = fractions(line.alpha), other = fractions(line.beta);
      const TieLine& first = at_edge(region.begin) ? region.tie_lines.front() : region.tie_lines.back();
      if (first.alpha[roles.carrier] < first.beta[roles.carrier]) std::swap(one, other);
      raffinate.push_back(one);
      extract.push_back(other);
    }
    if (!at_edge(region.begin)) {
      std::reverse(raffinate.begin(), raffinate.end());
      std::reverse(extract.begin(), extract.end());
    }
    return {std::move(raffinate), std::move(extract)};
  }
  throw CalculationError(fmt::format(
      "{} and {} are one liquid: there is no extraction. 'jampot screen' ranks other solvents", B, C));
}

Fractions ExtractionLiquids::raffinate(double t) const {
  const auto k = std::min(static_cast<std::size_t>(std::max(t, 0.0)), raffinate_.size() - 2);
  const double share = t - static_cast<double>(k);
  return mixed(raffinate_[k], share, mixed(raffinate_[k + 1], -1, raffinate_[k]));
}

Fractions ExtractionLiquids::extract(double t) const {
  const auto k = std::min(static_cast<std::size_t>(std::max(t, 0.0)), extract_.size() - 2);
  const double share = t - static_cast<double>(k);
  return mixed(extract_[k], share, mixed(extract_[k + 1], -1, extract_[k]));
}

std::optional<double> ExtractionLiquids::with_solute(double fraction) const {
  for (std::size_t k = 1; k < raffinate_.size(); ++k) {
    const double low = raffinate_[k - 1][solute], high = raffinate_[k][solute];
    if (!(low <= fraction && fraction <= high) || high == low) continue;
    return static_cast<double>(k - 1) + (fraction - low) / (high - low);
  }
  return std::nullopt;
}

std::optional<double> ExtractionLiquids::through(const Fractions& whole) const {
  const auto off = [&](double t) { return determinant(raffinate(t), extract(t), whole); };
  for (std::size_t k = 1; k < raffinate_.size(); ++k) {
    const double low = static_cast<double>(k - 1), high = static_cast<double>(k);
    const auto ends = bracketed_root(off, low, high, off(low), off(high), place_digits);
    if (!ends) continue;
    const double t = (ends->first + ends->second) / 2,
                 share = share_of_second(raffinate(t), extract(t), whole);
    if (share >= -1e-9 && share <= 1 + 1e-9) return t;
  }
  return std::nullopt;
}

std::optional<double> ExtractionLiquids::extract_on_line(const Fractions& from, const Fractions& to,
                                                         double before) const {
  const auto off = [&](double t) { return determinant(extract(t), from, to); };
  for (std::size_t k = extract_.size() - 1; k > 0; --k) {
    const double low = static_cast<double>(k - 1), high = std::min(static_cast<double>(k), before);
    if (!(low < high)) continue;
    const auto ends = bracketed_root(off, low, high, off(low), off(high), place_digits);
    if (ends) return (ends->first + ends->second) / 2;
  }
  return std::nullopt;
}

ExtractionStages counter_current(const ExtractionLiquids& liquids, const ExtractionTask& task,
                                 double solvent) {
  for (const double value : {task.raffinate, solvent}) {
    if (!(value > 0) || !std::isfinite(value))
      throw RequestError("the raffinate asked for and the amount of solvent are numbers above zero");
  }
  const auto last = liquids.with_solute(task.raffinate);
  if (!last)
    throw CalculationError(fmt::format(
        "a raffinate with a fraction of {:.4g} of the solute is not one of two liquids", task.raffinate));
  if (!(task.feed[solute] > task.raffinate))
    throw RequestError("the feed has no more solute than the raffinate asked for");
  const Fractions RN = liquids.raffinate(*last), whole = mixed(task.feed, solvent, task.solvent);
  if (!liquids.through(whole_of(whole)))
    throw CalculationError(
        fmt::format("{:.4g} of solvent per amount of feed gives one liquid: it is too little to split the "
                    "feed, or so much that everything dissolves",
                    solvent));
  // The first extract lies on the line from the last raffinate through the whole, beyond it.
  const auto first = liquids.extract_on_line(RN, whole, liquids.last());
  if (!first) throw CalculationError("no first extract lies on the line of balance");
  ExtractionStages result;
  result.solvent = solvent;
  const Fractions E1 = liquids.extract(*first);
  const double e1 = share_of_second(RN, E1, whole_of(whole)) * sum_of(whole);
  const Fractions net =
      mixed(task.feed, -e1, E1);  // what flows towards the raffinate, the same between all stages
  double t = *first, extract_amount = e1;
  constexpr int most = 500;
  for (int n = 0; n < most; ++n) {
    ExtractionStage stage{liquids.raffinate(t), liquids.extract(t), 0, extract_amount};
    const bool done = t <= *last;
    const auto next = done ? std::optional(0.0) : liquids.extract_on_line(stage.raffinate, net, t);
    if (done) {
      const double before =
          result.stages.empty() ? task.feed[solute] : result.stages.back().raffinate[solute];
      const double part = (before - task.raffinate) / (before - stage.raffinate[solute]);
      result.count = n + std::clamp(part, 0.0, 1.0);
      const double final = sum_of(whole) - e1;
      stage.raffinate_amount = final;
      result.stages.push_back(stage);
      result.recovered = e1 * E1[solute] / (task.feed[solute] + solvent * task.solvent[solute]);
      result.lost = final * RN[solvent_at];
      result.net = net;
      result.last_raffinate = RN;
      result.last_amount = final;
      return result;
    }
    if (!next || !(t - *next > 1e-7))
      throw CalculationError(fmt::format(
          "with {:.4g} of solvent for each amount of feed the stages come to a standstill: more is needed",
          solvent));
    const Fractions E = liquids.extract(*next);
    // r R - e E = net, in the two fractions that tell R and E apart best.
    const double cross = stage.raffinate[solute] * E[carrier] - stage.raffinate[carrier] * E[solute];
    const double cross_solvent =
        stage.raffinate[carrier] * E[solvent_at] - stage.raffinate[solvent_at] * E[carrier];
    if (std::abs(cross_solvent) > std::abs(cross)) {
      stage.raffinate_amount = (net[carrier] * E[solvent_at] - net[solvent_at] * E[carrier]) / cross_solvent;
    } else {
      stage.raffinate_amount = (net[solute] * E[carrier] - net[carrier] * E[solute]) / cross;
    }
    extract_amount = stage.raffinate_amount - sum_of(net);
    if (!(stage.raffinate_amount > 0) || !(extract_amount > 0))
      throw CalculationError("the stages come to a standstill: more solvent is needed");
    result.stages.push_back(stage);
    t = *next;
  }
  throw CalculationError(fmt::format("more than {} stages; more solvent needs fewer", most));
}

double minimum_solvent(const ExtractionLiquids& liquids, const ExtractionTask& task) {
  const auto works = [&](double solvent) {
    try {
      counter_current(liquids, task, solvent);
      return true;
    } catch (const CalculationError&) {
      return false;
    }
  };
  double low = 0, high = 0;
  for (double amount = 0.005; amount < 200; amount *= 1.15) {
    if (works(amount)) {
      high = amount;
      break;
    }
    low = amount;
  }
  if (high == 0)
    throw CalculationError(
        "no amount of this solvent reaches the raffinate asked for; try a richer raffinate, another "
        "temperature or another solvent");
  while (high - low > 1e-6 * high) {
    const double middle = (low + high) / 2;
    (works(middle) ? high : low) = middle;
  }
  return high;
}

ExtractionStages cross_flow(const ExtractionLiquids& liquids, const ExtractionTask& task,
                            double solvent_each) {
  if (!(solvent_each > 0) || !std::isfinite(solvent_each))
    throw RequestError("the amount of solvent is a number above zero");
  ExtractionStages result;
  Fractions amounts = task.feed;
  double taken = 0, before = task.feed[solute];
  constexpr int most = 200;
  for (int n = 0; n < most; ++n) {
    const Fractions whole = mixed(amounts, solvent_each, task.solvent);
    const auto t = liquids.through(whole_of(whole));
    if (!t)
      throw CalculationError(
          fmt::format("on stage {} solvent and liquid are one liquid: it is too little or too much", n + 1));
    ExtractionStage stage{liquids.raffinate(*t), liquids.extract(*t), 0, 0};
    stage.extract_amount = share_of_second(stage.raffinate, stage.extract, whole_of(whole)) * sum_of(whole);
    stage.raffinate_amount = sum_of(whole) - stage.extract_amount;
    taken += stage.extract_amount * stage.extract[solute];
    result.stages.push_back(stage);
    result.solvent += solvent_each;
    if (stage.raffinate[solute] <= task.raffinate) {
      result.count = n + (before - task.raffinate) / (before - stage.raffinate[solute]);
      result.recovered = taken / (task.feed[solute] + result.solvent * task.solvent[solute]);
      result.lost = stage.raffinate_amount * stage.raffinate[solvent_at];
      result.last_raffinate = stage.raffinate;
      result.last_amount = stage.raffinate_amount;
      return result;
    }
    if (!(before - stage.raffinate[solute] > 1e-12)) break;
    before = stage.raffinate[solute];
    for (std::size_t i = 0; i < 3; ++i) amounts[i] = stage.raffinate_amount * stage.raffinate[i];
  }
  throw CalculationError(fmt::format("the raffinate is not reached in {} stages", most));
}

}  // namespace jampot
