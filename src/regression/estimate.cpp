#include "jampot/regression/estimate.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/mosced.hpp"
#include "quiet_solver.hpp"
#include "split_estimate.hpp"

namespace jampot {
namespace {

// One state at which ln gamma of one or both components is wanted.
struct Target {
  double T_K, x1;
  std::array<double, 2> ln_gamma;
  std::array<bool, 2> counts;
};

// Which coefficient of which term is free, and its scale.
struct Free {
  std::size_t term;
  Coefficient coefficient;
  double scale;
};

class Residual final : public ceres::CostFunction {
 public:
  Residual(ActivityModel& model, const std::vector<Free>& free, const std::vector<Target>& targets)
      : model_(model), free_(free), targets_(targets), slopes_(2 * model.terms().size()) {
    mutable_parameter_block_sizes()->push_back(static_cast<int>(free.size()));
    int count = 0;
    for (const Target& target : targets) count += target.counts[0] + target.counts[1];
    set_num_residuals(count);
  }

  bool Evaluate(double const* const* blocks, double* residuals, double** jacobians) const override {
    for (std::size_t p = 0; p < free_.size(); ++p) {
      model_.set_coefficient(free_[p].term, free_[p].coefficient, free_[p].scale * blocks[0][p]);
    }
    double* slope = jacobians != nullptr ? jacobians[0] : nullptr;
    const std::size_t terms = model_.terms().size();
    for (const Target& target : targets_) {
      const std::array<double, 2> x{target.x1, 1 - target.x1};
      std::array<double, 2> ln_gamma{};
      model_.set_temperature(target.T_K);
      model_.evaluate(x, ln_gamma);
      if (slope != nullptr) model_.term_derivatives(x, slopes_);
      for (std::size_t i = 0; i < 2; ++i) {
        if (!target.counts[i]) continue;
        *residuals++ = ln_gamma[i] - target.ln_gamma[i];
        if (!std::isfinite(ln_gamma[i])) return false;
        if (slope == nullptr) continue;
        for (const Free& free : free_) {
          *slope++ = slopes_[i * terms + free.term] * free.scale *
                     TemperatureFunction::basis(free.coefficient, target.T_K);
        }
      }
    }
    return true;
  }

 private:
  ActivityModel& model_;
  const std::vector<Free>& free_;
  const std::vector<Target>& targets_;
  mutable std::vector<double> slopes_;
};

struct Solved {
  PairParameters pair;
  double sum_of_squares = 0;
  int count = 0;
};

// Least squares from several starts; the best end is taken.
Solved solve(const Substance& first, const Substance& second, const std::string& model_name,
             const std::vector<Coefficient>& form, double alpha, const std::vector<Target>& targets,
             const std::vector<PairParameters>& beside = {}) {
  PairParameters pair = neutral_pair(model_name, first, second);
  take_sizes(pair, beside);
  if (pair.terms.contains("alpha")) pair.terms["alpha"].constant = alpha;
  double T_mean = 0;
  for (const Target& target : targets) T_mean += target.T_K / static_cast<double>(targets.size());
  std::vector<Free> free;
  std::vector<double> neutral, low, high;
  const std::vector<TermForFit>& terms = terms_for_fit(model_name);
  for (std::size_t t = 0; t < terms.size(); ++t) {
    if (!terms[t].follows_T) continue;
    pair.terms[terms[t].name] = {};
    for (std::size_t k = 0; k < form.size(); ++k) {
      free.push_back({t, form[k], 1 / TemperatureFunction::basis(form[k], T_mean)});
      neutral.push_back(k == 0 ? terms[t].neutral : 0);
      low.push_back(k == 0 ? terms[t].start_low : 0);
      high.push_back(k == 0 ? terms[t].start_high : 0);
    }
  }
  ParameterCollection collection;
  collection.add(pair);
  const auto model = make_activity_model(model_name, {first, second}, collection);
  Residual residual(*model, free, targets);
  std::vector<double> best;
  double least = HUGE_VAL;
  ceres::Solver::Options options = quiet_options(200, 1e-15);
  options.parameter_tolerance = 1e-13;
  options.gradient_tolerance = 1e-14;
  for (int start = 0; start < 9; ++start) {
    std::vector<double> values = neutral;
    if (start > 0) {  // corners and sides of the starting box, the leading coefficients of both terms
      for (std::size_t p = 0; p < values.size(); ++p) {
        const int place = (p < form.size() ? (start - 1) % 3 : (start - 1) / 3);
        values[p] = low[p] + (high[p] - low[p]) * (0.15 + 0.35 * place);
      }
    }
    const auto sum = least_sum_of_squares(residual, values.data(), options);
    if (!sum || !(*sum < least)) continue;
    least = *sum;
    best = values;
  }
  if (best.empty()) {
    throw CalculationError(fmt::format("no {} parameters of {} and {} could be fitted to the prediction",
                                       model_name, first.name, second.name));
  }
  for (std::size_t p = 0; p < free.size(); ++p) {
    pair.terms[terms[free[p].term].name][free[p].coefficient] = free[p].scale * best[p];
  }
  return {pair, least, residual.num_residuals()};
}

std::array<double, 2> limits(ActivityModel& model, double T_K) {
  std::array<double, 2> ln_gamma{}, result{};
  model.set_temperature(T_K);
  model.evaluate(std::array{0.0, 1.0}, ln_gamma);
  result[0] = ln_gamma[0];
  model.evaluate(std::array{1.0, 0.0}, ln_gamma);
  result[1] = ln_gamma[1];
  return result;
}

// An estimate of a pair that parts, with what it is worth.
Estimate told(const Substance& first, const Substance& second, const EstimateOptions& options,
              const SplitEstimate& split, ActivityModel& prediction) {
  const auto [low, high] = options.T_range_K;
  Estimate estimate;
  estimate.pair = split.pair;
  estimate.pair.fitted.clear();
  estimate.pair.covariance.clear();
  estimate.pair.fitted_to = "lle";
  estimate.pair.estimated = true;
  estimate.pair.T_range_K = options.T_range_K;
  estimate.pair.source =
      fmt::format("estimate: {} fitted to the solubilities of {} between {:.1f} and {:.1f} degC",
                  options.model, options.from, low - celsius_zero, high - celsius_zero);
  estimate.rms_ln_gamma = split.rms_ln;
  estimate.states = split.solubilities;
  ParameterCollection collection;
  collection.add(estimate.pair);
  const auto fitted = make_activity_model(options.model, {first, second}, collection);
  estimate.fitted_limits = limits(*fitted, (low + high) / 2);
  estimate.predicted_limits = limits(prediction, (low + high) / 2);
  estimate.notices.add(
      "estimated-pair",
      fmt::format(
          "the {} parameters of {} and {} are an estimate: fitted to the solubilities that {} predicts "
          "between {:.1f} and {:.1f} degC, within a factor of {:.2f}; nothing was measured",
          options.model, first.name, second.name, options.from, low - celsius_zero, high - celsius_zero,
          split.worst_factor));
  constexpr double poor = 1.3;
  if (split.worst_factor > poor)
    estimate.notices.add(
        "poor-estimate",
        fmt::format("{} cannot follow the solubilities that {} predicts for {} and {}: it is off by up "
                    "to a factor of {:.2f}",
                    options.model, options.from, first.name, second.name, split.worst_factor));
  return estimate;
}

}  // namespace

Estimate estimate_pair(const Substance& first, const Substance& second, const EstimateOptions& options) {
  if (!needs_pairs(options.model)) {
    throw RequestError(fmt::format("{} has no pair parameters to estimate; there are {}", options.model,
                                   joined(pair_model_names(), ", ")));
  }
  const bool mosced = options.from == "mosced";
  if (!mosced && !options.from.starts_with("unifac")) {
    throw RequestError(
        fmt::format("'{}' predicts nothing; estimates come from unifac, unifac-lle, unifac-dortmund "
                    "or mosced",
                    options.from));
  }
  const auto [low, high] = options.T_range_K;
  if (!(low > 0 && high >= low))
    throw RequestError("the range of an estimate is two temperatures, the lower first");
  std::unique_ptr<ActivityModel> prediction;
  if (!mosced) {
    prediction = make_activity_model(options.from, {first, second}, {});
    if (options.doubtful_groups == DoubtfulGroups::refuse) refuse_doubtful_groups(*prediction);
  }
  const auto predicted = [&](double T_K, double x1) {
    std::array<double, 2> ln_gamma{};
    if (mosced) {
      ln_gamma = {mosced_ln_gamma_inf(first, second, T_K), mosced_ln_gamma_inf(second, first, T_K)};
    } else {
      prediction->set_temperature(T_K);
      prediction->evaluate(std::array{x1, 1 - x1}, ln_gamma);
    }
    return ln_gamma;
  };
  if (!mosced) {
    if (auto split = estimate_of_split(first, second, options, *prediction))
      return told(first, second, options, *split, *prediction);
  }
  std::vector<Target> targets;
  const int temperatures = high > low ? 5 : 1;
  for (int t = 0; t < temperatures; ++t) {
    const double T_K = temperatures == 1 ? low : low + (high - low) * t / (temperatures - 1);
    if (mosced) {
      const auto ln_gamma = predicted(T_K, 0);
      targets.push_back({T_K, 0, ln_gamma, {true, false}});
      targets.push_back({T_K, 1, ln_gamma, {false, true}});
      continue;
    }
    for (int k = 0; k <= 10; ++k) targets.push_back({T_K, 0.1 * k, predicted(T_K, 0.1 * k), {true, true}});
  }
  Solved solved = solve(first, second, options.model, options.form, options.alpha, targets, options.beside);
  Estimate estimate;
  estimate.pair = std::move(solved.pair);
  estimate.pair.estimated = true;
  estimate.pair.T_range_K = options.T_range_K;
  estimate.pair.source = fmt::format("estimate: {} fitted to {} between {:.1f} and {:.1f} degC",
                                     options.model, options.from, low - celsius_zero, high - celsius_zero);
  estimate.rms_ln_gamma = std::sqrt(solved.sum_of_squares / solved.count);
  estimate.states = solved.count;
  ParameterCollection collection;
  collection.add(estimate.pair);
  const auto fitted = make_activity_model(options.model, {first, second}, collection);
  const double middle = (low + high) / 2;
  estimate.fitted_limits = limits(*fitted, middle);
  estimate.predicted_limits = mosced ? predicted(middle, 0) : limits(*prediction, middle);
  estimate.notices.add(
      "estimated-pair",
      fmt::format("the {} parameters of {} and {} are an estimate: fitted to what {} predicts between "
                  "{:.1f} and {:.1f} degC, with an RMS of {:.3f} in ln gamma; nothing was measured",
                  options.model, first.name, second.name, options.from, low - celsius_zero,
                  high - celsius_zero, estimate.rms_ln_gamma));
  constexpr double poor = 0.15;
  if (estimate.rms_ln_gamma > poor) {
    estimate.notices.add(
        "poor-estimate",
        fmt::format("{} cannot follow what {} predicts for {} and {}: the RMS in ln gamma is {:.2f}",
                    options.model, options.from, first.name, second.name, estimate.rms_ln_gamma));
  }
  return estimate;
}

PairParameters pair_from_limits(const Substance& first, const Substance& second, const std::string& model,
                                std::array<double, 2> ln_gamma_inf, double T_K, double alpha) {
  const std::vector<Target> targets{{T_K, 0, ln_gamma_inf, {true, false}},
                                    {T_K, 1, ln_gamma_inf, {false, true}}};
  const Solved solved = solve(first, second, model, {Coefficient::inverse_T}, alpha, targets);
  if (solved.sum_of_squares > 1e-16) {
    throw CalculationError(
        fmt::format("no parameters of {} give the infinite-dilution activity coefficients {:.4g} and {:.4g}",
                    model, std::exp(ln_gamma_inf[0]), std::exp(ln_gamma_inf[1])));
  }
  PairParameters pair = solved.pair;
  pair.T_range_K = {T_K, T_K};
  pair.source = fmt::format("from the infinite-dilution activity coefficients {:.4g} and {:.4g} at {:.2f} K",
                            std::exp(ln_gamma_inf[0]), std::exp(ln_gamma_inf[1]), T_K);
  return pair;
}

}  // namespace jampot
