// 95 % intervals: symmetric ones, and where the problem is visibly nonlinear, from profiles of the objective.
#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "../basis/side_by_side.hpp"
#include "fit_results.hpp"
#include "jampot/regression/statistics.hpp"

namespace jampot {
namespace {

// How far the objective may rise, and the normal or Student's quantile behind it.
struct Allowed {
  double quantile, rise;
};

Allowed allowed(const Fit& fit) {
  const bool known =
      fit.options.objective == Objective::maximum_likelihood && fit.options.errors != Errors::scatter;
  const double quantile = known || fit.degrees_of_freedom < 1
                              ? 1.959963984540054
                              : student_quantile(0.975, fit.degrees_of_freedom);
  return {quantile, quantile * quantile * scale_of(fit)};
}

// The ends of the profile of one parameter, by one problem.
class Profile {
 public:
  Profile(FitProblem& problem, const FitTask& task, const Fit& fit, const Descent& best, std::size_t number,
          double std_error, double rise)
      : problem_(problem), task_(task), best_(best), p_(number), sd_(std_error), rise_(rise) {
    // Along the valley the others move with this one, as the covariance says.
    const Matrix& row = fit.covariance;
    for (std::size_t q = 0; q < best.scaled.size(); ++q)
      along_.push_back(row(q, p_) / row(p_, p_) * task.plan.free[p_].scale / task.plan.free[q].scale);
  }

  // Where the objective has risen by the allowed amount; nothing where it does not before the bound, or
  // before sixty standard errors. The root of the rise is nearly a straight line, so that a few secants are
  // enough.
  std::optional<double> end(double direction) {
    const double bound = direction > 0 ? task_.plan.highest[p_] : task_.plan.lowest[p_];
    const double wanted = std::sqrt(rise_), here = best_.scaled[p_];
    const double most = std::min(60 * sd_, std::abs(bound - here));
    state_ = best_;
    double inside = 0, inside_root = 0, outside = HUGE_VAL, outside_root = 0;
    double distance = std::min(wanted * sd_, most);
    constexpr int most_tries = 30;
    for (int k = 0; k < most_tries; ++k) {
      const double root = root_of_rise(here + direction * distance);
      if (std::abs(root - wanted) < 1e-3 * wanted) return here + direction * distance;
      if (root < wanted) {
        if (distance >= most) return std::nullopt;
        inside = distance;
        inside_root = root;
      } else {
        outside = distance;
        outside_root = root;
      }
      double next = 0;
      if (std::isfinite(outside)) {
        const bool straight = std::isfinite(outside_root) && k % 4 != 3;
        next = straight ? inside + (wanted - inside_root) / (outside_root - inside_root) * (outside - inside)
                        : (inside + outside) / 2;
        const double width = outside - inside;
        if (width < 1e-4 * outside) return here + direction * (inside + outside) / 2;
        next = std::clamp(next, inside + 0.02 * width, outside - 0.02 * width);
      } else {
        const double slope = inside_root / inside;
        next = std::clamp(slope > 0 ? wanted / slope : 2 * inside, 1.1 * inside, 2.5 * inside);
      }
      distance = std::min(next, most);
    }
    return std::isfinite(outside) ? std::optional(here + direction * (inside + outside) / 2) : std::nullopt;
  }

 private:
  // Along the valley first; where that leads nowhere or up, with this parameter alone moved from the best.
  double root_of_rise(double value) {
    const double along = descended(value, state_, true);
    if (along < std::sqrt(rise_)) return along;
    return std::min(along, descended(value, state_, false));
  }

  double descended(double value, const Descent& from, bool predicted) {
    Descent start = from;
    const double step = value - start.scaled[p_];
    for (std::size_t q = 0; predicted && q < start.scaled.size(); ++q)
      start.scaled[q] =
          std::clamp(start.scaled[q] + along_[q] * step, task_.plan.lowest[q], task_.plan.highest[q]);
    start.scaled[p_] = value;
    auto found = problem_.descend_held(start, {p_});
    if (!found) return HUGE_VAL;
    const double root = std::sqrt(std::max(0.0, found->objective - best_.objective));
    if (root < std::sqrt(rise_)) state_ = std::move(*found);  // the last one inside: the next begins there
    return root;
  }

  FitProblem& problem_;
  const FitTask& task_;
  const Descent& best_;
  std::size_t p_;
  double sd_, rise_;
  std::vector<double> along_;
  Descent state_;
};

bool wants_profiles(const Fit& fit) {
  if (fit.options.profiles != Profiles::when_nonlinear) return fit.options.profiles == Profiles::always;
  const bool two_liquids = std::any_of(fit.liquid_residuals.begin(), fit.liquid_residuals.end(),
                                       [](const LiquidRow& row) { return row.two_liquids(); });
  if (two_liquids) return true;
  return std::any_of(fit.parameters.begin(), fit.parameters.end(), [](const FittedParameter& parameter) {
    return parameter.is_free() && parameter.term == "alpha";
  });
}

void take_profiles(Fit& result, const FitTask& task, const Descent& best, double rise,
                   const std::vector<FittedParameter*>& free) {
  Progress* progress = result.options.progress;
  if (progress) progress->expected += std::ssize(free);
  std::vector<std::optional<double>> ends(2 * free.size());  // low and high of each
  const std::size_t workers = workers_for(ends.size());
  const auto share = [&](std::size_t worker) {
    const auto problem = task.problem();
    if (problem->needs_polish()) problem->polish(best);
    for (std::size_t k = worker; k < ends.size(); k += workers) {
      const std::size_t p = k / 2;
      const double sd = std::abs(free[p]->std_error / task.plan.free[p].scale) / std::sqrt(scale_of(result));
      Profile profile(*problem, task, result, best, p, sd, rise);
      ends[k] = profile.end(k % 2 == 0 ? -1 : 1);
      if (progress && k % 2 == 1) ++progress->done;
    }
  };
  side_by_side(workers, share);
  for (std::size_t p = 0; p < free.size(); ++p) {
    const double scale = task.plan.free[p].scale;
    auto low = ends[2 * p], high = ends[2 * p + 1];
    if (scale < 0) std::swap(low, high);
    free[p]->low = low ? *low * scale : -HUGE_VAL;
    free[p]->high = high ? *high * scale : HUGE_VAL;
    free[p]->profiled = true;
  }
}

// Another minimum as low as chance allows belongs to what the data say: the intervals reach to it and beyond,
// as far as its own curvature and the rest of the allowed rise tell.
void reach_rivals(Fit& result, const FitTask& task, const Descent& best, const std::vector<Descent>& rivals,
                  double rise) {
  for (const Descent& rival : rivals) {
    const double left = rise - (rival.objective - best.objective);
    if (!(left > 0)) continue;
    const Eigen::MatrixXd variance = inverse_of(task.problem()->information(rival));
    std::size_t p = 0;
    for (FittedParameter& parameter : result.parameters) {
      if (!parameter.is_free()) continue;
      const auto row = static_cast<Eigen::Index>(p);
      const double scale = task.plan.free[p].scale;
      const double half = std::abs(scale) * std::sqrt(std::max(0.0, left * variance(row, row)));
      // Beyond the bounds of the model nothing is known: open.
      const double ends[] = {task.plan.lowest[p] * scale, task.plan.highest[p] * scale};
      const auto [least, most] = std::minmax(ends[0], ends[1]);
      const double low = rival.scaled[p] * scale - half, high = rival.scaled[p] * scale + half;
      parameter.low = std::min(parameter.low, low > least ? low : -HUGE_VAL);
      parameter.high = std::max(parameter.high, high < most ? high : HUGE_VAL);
      ++p;
    }
  }
}

}  // namespace

void set_intervals(Fit& result, const FitTask& task, const Descent& best,
                   const std::vector<Descent>& rivals) {
  const Allowed allow = allowed(result);
  std::vector<FittedParameter*> free;
  for (FittedParameter& parameter : result.parameters) {
    if (!parameter.is_free()) continue;
    parameter.low = parameter.value - allow.quantile * parameter.std_error;
    parameter.high = parameter.value + allow.quantile * parameter.std_error;
    free.push_back(&parameter);
  }
  if (wants_profiles(result)) take_profiles(result, task, best, allow.rise, free);
  reach_rivals(result, task, best, rivals, allow.rise);
}

}  // namespace jampot
