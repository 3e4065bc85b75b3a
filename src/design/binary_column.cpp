#include "jampot/design/binary_column.hpp"

#include <fmt/format.h>
#include <math.h>  // pchip of Boost 1.74 asks for isnan without a namespace

#include <algorithm>
#include <boost/math/interpolators/pchip.hpp>
#include <cmath>

#include "../basis/bracket.hpp"
#include "../basis/integral.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

// Monotonic cubic pieces: no stage is invented by an overshoot.
using Pchip = boost::math::interpolators::pchip<std::vector<double>>;

Pchip through(std::vector<double> x, std::vector<double> values) {
  return Pchip(std::move(x), std::move(values));
}

constexpr int most_stages = 2000;
constexpr unsigned digits = 48;

// The root of f between two points of different sign.
template <class Function>
double root_of(Function&& f, double low, double high, const char* what) {
  const auto ends = bracketed_root(f, low, high, f(low), f(high), digits);
  if (!ends)
    throw CalculationError(
        fmt::format("the {} of a stage was not found between {:.5f} and {:.5f}", what, low, high));
  return (ends->first + ends->second) / 2;
}

// Both operating lines with constant molar overflow.
class OperatingLines {
 public:
  OperatingLines(const ColumnTask& task, double reflux) : task_(task), slope_(reflux / (reflux + 1)) {
    // Where the line of the feed meets that of the upper part.
    const double q = task.feed_liquid, b = task.top / (reflux + 1);
    meet_x_ = (task.feed + b * (q - 1)) / (q - slope_ * (q - 1));
    meet_y_ = upper(meet_x_);
  }
  double upper(double x) const { return task_.top + slope_ * (x - task_.top); }
  double lower(double x) const {
    return task_.bottom + (meet_y_ - task_.bottom) * (x - task_.bottom) / (meet_x_ - task_.bottom);
  }
  double y(double x) const { return x >= meet_x_ ? upper(x) : lower(x); }
  double meet_x() const { return meet_x_; }
  /// Whether the feed leaves vapour to rise and liquid to fall in both parts.
  bool possible() const {
    return meet_x_ > task_.bottom && meet_x_ < task_.top && meet_y_ > meet_x_ && meet_y_ < 1;
  }

 private:
  const ColumnTask& task_;
  double slope_, meet_x_ = 0, meet_y_ = 0;
};

// The smallest distance of the operating lines below the equilibrium, and where it is.
std::pair<double, double> nearest(const ColumnEquilibrium& equilibrium, const ColumnTask& task,
                                  double reflux) {
  const OperatingLines lines(task, reflux);
  if (!lines.possible()) return {-HUGE_VAL, lines.meet_x()};
  std::pair<double, double> least{HUGE_VAL, 0};
  const auto look = [&](double x) {
    const double gap = equilibrium.y(x) - lines.y(x);
    if (gap < least.first) least = {gap, x};
  };
  constexpr int steps = 4000;
  for (int k = 1; k < steps; ++k) look(task.bottom + (task.top - task.bottom) * k / steps);
  look(std::clamp(lines.meet_x(), task.bottom, task.top));
  return least;
}

// Steps down from the top; `below(x)` is the vapour that comes up from under a liquid.
template <class Below>
void step(const ColumnEquilibrium& equilibrium, const ColumnTask& task, const Below& below,
          ColumnStages& result) {
  double y = task.top;
  double before = task.top;
  for (int n = 0; n < most_stages; ++n) {
    // With an efficiency the vapour leaves between what comes up and the equilibrium.
    const auto leaving = [&](double x) {
      if (task.efficiency == 1) return equilibrium.y(x) - y;
      const double up = below(x).first;
      return up + task.efficiency * (equilibrium.y(x) - up) - y;
    };
    const double x = task.efficiency == 1 ? equilibrium.x(y) : root_of(leaving, 0.0, y, "liquid");
    const auto [up, stripping] = below(x);
    result.stages.push_back({x, y, equilibrium.T_K(x), stripping});
    if (stripping && result.feed_stage == 0) result.feed_stage = n + 1;
    if (x <= task.bottom) {
      result.count = n + (before - task.bottom) / (before - x);
      return;
    }
    if (!(up < y) || !(before - x > 1e-9))
      throw CalculationError(
          "the stages come to a standstill: with this reflux the operating line meets the equilibrium");
    before = x;
    y = up;
  }
  throw CalculationError(fmt::format("more than {} stages; a greater reflux needs fewer", most_stages));
}

}  // namespace

struct ColumnEquilibrium::Curves {
  Pchip y, T;
  std::optional<Pchip> liquid{}, vapour{};
};

ColumnEquilibrium::ColumnEquilibrium(std::vector<double> x, std::vector<double> y, std::vector<double> T_K)
    : x_(std::move(x)) {
  if (x_.size() < 4 || y.size() != x_.size() || T_K.size() != x_.size())
    throw RequestError("an equilibrium curve has four points or more, each with x, y and T");
  for (std::size_t k = 1; k < x_.size(); ++k) {
    if (!(x_[k] > x_[k - 1]) || !(y[k] >= y[k - 1]))
      throw RequestError("an equilibrium curve rises from point to point in x and y");
  }
  y_low_ = y.front();
  y_high_ = y.back();
  curves_ = std::make_shared<const Curves>(Curves{through(x_, std::move(y)), through(x_, std::move(T_K))});
}

void ColumnEquilibrium::set_enthalpies(std::vector<double> liquid_J_mol, std::vector<double> vapour_J_mol) {
  if (liquid_J_mol.size() != x_.size() || vapour_J_mol.size() != x_.size())
    throw RequestError("an equilibrium curve has an enthalpy of either phase at every point");
  Curves all = *curves_;
  all.liquid.emplace(through(x_, std::move(liquid_J_mol)));
  all.vapour.emplace(through(x_, std::move(vapour_J_mol)));
  curves_ = std::make_shared<const Curves>(std::move(all));
  has_enthalpies_ = true;
}

ColumnEquilibrium ColumnEquilibrium::of(const BinaryCurve& curve, std::size_t light) {
  std::vector<double> x, y, T;
  const auto add = [&](const BinaryPoint& point) {
    if (!x.empty() && !(point.x[light] > x.back())) return;
    x.push_back(point.x[light]);
    y.push_back(y.empty() ? point.y[light] : std::max(point.y[light], y.back()));
    T.push_back(point.T_K);
  };
  if (light == 0) {
    for (const BinaryPoint& point : curve.points) add(point);
  } else {
    for (auto point = curve.points.rbegin(); point != curve.points.rend(); ++point) add(*point);
  }
  return {std::move(x), std::move(y), std::move(T)};
}

double ColumnEquilibrium::y(double x) const {
  return curves_->y(std::clamp(x, x_.front(), x_.back()));
}

double ColumnEquilibrium::x(double y) const {
  if (y <= y_low_) return x_.front();
  if (y >= y_high_) return x_.back();
  return root_of([&](double x) { return this->y(x) - y; }, x_.front(), x_.back(), "liquid");
}

double ColumnEquilibrium::T_K(double x) const {
  return curves_->T(std::clamp(x, x_.front(), x_.back()));
}

double ColumnEquilibrium::liquid_J_mol(double x) const {
  return (*curves_->liquid)(std::clamp(x, x_.front(), x_.back()));
}

double ColumnEquilibrium::vapour_J_mol(double y) const {
  return (*curves_->vapour)(x(y));
}

std::optional<double> ColumnEquilibrium::azeotrope_between(double bottom, double top) const {
  constexpr int steps = 2000;
  const auto gap = [&](double x) { return y(x) - x; };
  const double at_top = gap(top);
  for (int k = 1; k <= steps; ++k) {
    const double x = top - (top - bottom) * k / steps;
    if (gap(x) * at_top <= 0) return root_of(gap, x, top - (top - bottom) * (k - 1) / steps, "azeotrope");
  }
  return std::nullopt;
}

void demand_possible(const ColumnEquilibrium& equilibrium, const ColumnTask& task) {
  if (!(task.bottom > 0 && task.bottom < task.feed && task.feed < task.top && task.top < 1))
    throw RequestError(
        fmt::format("the feed lies between the products: 0 < {:.4g} (bottom) < {:.4g} (feed) < {:.4g} (top) "
                    "< 1 is not so",
                    task.bottom, task.feed, task.top));
  if (!(task.efficiency > 0 && task.efficiency <= 1))
    throw RequestError("an efficiency lies above 0 and not above 1");
  if (!std::isfinite(task.feed_liquid))
    throw RequestError("the liquid fraction of the feed must be a number");
  if (const auto azeotrope = equilibrium.azeotrope_between(task.bottom, task.top)) {
    // Which product the azeotrope is in the way of: the one it shares no side with the feed.
    const bool above = *azeotrope >= task.feed;
    throw CalculationError(
        fmt::format("an azeotrope at x = {:.4f} is in the way: from this feed the {} cannot be {} than that "
                    "at this pressure. "
                    "Another pressure ('jampot azeotropes' over several), or a third substance ('jampot "
                    "screen'), may help",
                    *azeotrope, above ? "distillate" : "bottom product", above ? "richer" : "poorer"));
  }
  if (!(equilibrium.y(task.feed) > task.feed))
    throw CalculationError(
        "the substance named for the top is the less volatile one at this composition: it leaves at the "
        "bottom");
}

ColumnStages stages_at_total_reflux(const ColumnEquilibrium& equilibrium, const ColumnTask& task) {
  demand_possible(equilibrium, task);
  ColumnStages result;
  result.reflux = HUGE_VAL;
  step(
      equilibrium, task, [](double x) { return std::pair(x, false); }, result);
  return result;
}

MinimumReflux minimum_reflux(const ColumnEquilibrium& equilibrium, const ColumnTask& task) {
  demand_possible(equilibrium, task);
  // By the slope R/(R + 1), which lies between 0 and 1.
  double low = 0, high = 1 - 1e-9;
  const auto ratio = [](double slope) { return slope / (1 - slope); };
  if (nearest(equilibrium, task, ratio(low)).first > 0) high = low;
  while (high - low > 1e-12) {
    const double middle = (low + high) / 2;
    (nearest(equilibrium, task, ratio(middle)).first > 0 ? high : low) = middle;
  }
  MinimumReflux result;
  result.ratio = ratio(high);
  result.pinch = nearest(equilibrium, task, result.ratio).second;
  constexpr double at_feed = 0.01;
  result.tangent =
      result.ratio > 0 && std::abs(result.pinch - OperatingLines(task, result.ratio).meet_x()) > at_feed;
  return result;
}

ColumnStages stages_at_reflux(const ColumnEquilibrium& equilibrium, const ColumnTask& task, double reflux) {
  const double least = minimum_reflux(equilibrium, task).ratio;
  if (!(reflux > least) || !std::isfinite(reflux))
    throw CalculationError(fmt::format(
        "a reflux ratio of {:.4g} is not enough: the least is {:.4g}, with infinitely many stages", reflux,
        least));
  ColumnStages result;
  result.reflux = reflux;
  const OperatingLines lines(task, reflux);
  step(
      equilibrium, task, [&](double x) { return std::pair(lines.y(x), x < lines.meet_x()); }, result);
  return result;
}

ExactStages exact_stages(const ColumnEquilibrium& equilibrium, const ColumnTask& task, double reflux) {
  demand_possible(equilibrium, task);
  if (!equilibrium.has_enthalpies())
    throw CalculationError("without the enthalpies of both phases there is no exact answer");
  if (!(reflux > 0) || !std::isfinite(reflux)) throw RequestError("the reflux ratio is a number above zero");
  ExactStages result;
  result.reflux = reflux;
  const double D = (task.feed - task.bottom) / (task.top - task.bottom), B = 1 - D;
  const double hD = equilibrium.liquid_J_mol(task.top), hB = equilibrium.liquid_J_mol(task.bottom);
  const double feed_vapour = equilibrium.vapour_J_mol(task.feed),
               hF = feed_vapour - task.feed_liquid * (feed_vapour - equilibrium.liquid_J_mol(task.feed));
  result.condenser_J_mol = D * (reflux + 1) * (equilibrium.vapour_J_mol(task.top) - hD);
  result.reboiler_J_mol = D * hD + B * hB + result.condenser_J_mol - hF;
  const double over = hD + result.condenser_J_mol / D, under = hB - result.reboiler_J_mol / B;
  const auto below = [&](double x) {
    if (x <= task.bottom) return std::pair(x, true);  // it is the bottom product
    const double h = equilibrium.liquid_J_mol(x);
    // The vapour on the line from the liquid to a difference point.
    const auto meets = [&](double at, double enthalpy, double limit) -> std::optional<double> {
      const auto off = [&](double y) {
        return equilibrium.vapour_J_mol(y) - h - (enthalpy - h) * (y - x) / (at - x);
      };
      const auto ends = bracketed_root(off, x, limit, off(x), off(limit), digits);
      return ends ? std::optional((ends->first + ends->second) / 2) : std::nullopt;
    };
    const auto upper = x < task.top ? meets(task.top, over, task.top) : std::nullopt;
    const auto lower = meets(task.bottom, under, 1.0);
    // The lower of the two makes the greater step: that is where the feed belongs.
    if (lower && (!upper || *lower < *upper)) return std::pair(*lower, true);
    if (upper) return std::pair(*upper, false);
    return std::pair(x, x < task.feed);
  };
  step(equilibrium, task, below, result);
  for (const ColumnStage& stage : result.stages) {
    // From the balances around the top or the bottom: V (y - x_product) with the liquid that falls towards
    // it.
    const double x = stage.x;
    const auto [up, stripping] = below(x);
    result.vapour.push_back(stripping ? B * (x - task.bottom) / std::max(1e-12, up - x)
                                      : D * (task.top - x) / std::max(1e-12, up - x));
  }
  return result;
}

SimpleDistillation simple_distillation(const ColumnEquilibrium& equilibrium, double charged, double left) {
  if (!(left > 0 && left < charged && charged < 1))
    throw RequestError("the residue in a still must be poorer than the charge, both between 0 and 1");
  if (equilibrium.azeotrope_between(left, charged))
    throw CalculationError("an azeotrope lies between the charge and the residue that is asked for");
  const double logarithm =
      careful_integral([&](double x) { return 1 / (equilibrium.y(x) - x); }, left, charged);
  SimpleDistillation result;
  result.left = std::exp(-logarithm);
  result.distillate = (charged - result.left * left) / (1 - result.left);
  return result;
}

}  // namespace jampot
