#include "split_estimate.hpp"

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {
namespace {

constexpr int temperatures = 6;

DataSet empty_set(DataKind kind, const Substance& first, const Substance& second) {
  DataSet set;
  set.name = "prediction";
  set.kind = kind;
  set.substances = {first, second};
  return set;
}

// Equal activities at the predicted solubilities to a hundredth; both limits as they may be.
std::vector<DataSet> predicted_data(const Substance& first, const Substance& second,
                                    const EstimateOptions& options, ActivityModel& prediction) {
  DataSet liquids = empty_set(DataKind::lle, first, second),
          limits = empty_set(DataKind::gamma_inf, first, second);
  const auto [low, high] = options.T_range_K;
  for (int t = 0; t < temperatures; ++t) {
    const double T_K = low + (high - low) * t / (temperatures - 1);
    for (const std::size_t solute : {0u, 1u}) {
      DataPoint point{T_K, 0,    {solute == 0 ? 0.0 : 1.0, solute == 0 ? 1.0 : 0.0}, {}, 0.01, 0, 0.01,
                      0,   t + 1};
      point.solute = solute;
      point.solvent = 1 - solute;
      point.value = std::exp(limiting_ln_gamma(prediction, T_K, solute, 1 - solute));
      point.u_value = point.value;
      limits.points.push_back(std::move(point));
    }
    const auto splits = binary_splits(prediction, T_K);
    if (splits.size() != 1) continue;
    const double a = splits[0].x1_alpha, b = splits[0].x1_beta;
    DataPoint point{T_K, 0, {a, 1 - a}, {b, 1 - b}, 0.01, 0, 0.01, 0.01, t + 1};
    constexpr double part = 0.01;
    point.relative_u_x = part;
    liquids.points.push_back(std::move(point));
  }
  return {liquids, limits};
}

// How far the solubilities of a model are from those of the prediction; nothing where it has one liquid.
std::optional<SplitEstimate> judged(const Fit& fit, const std::vector<DataPoint>& predicted) {
  SplitEstimate estimate{.pair = fit.pairs().front()};
  Mixture mixture = fit.mixture();
  double squares = 0;
  for (const DataPoint& point : predicted) {
    const auto splits = binary_splits(mixture.activity(), point.T_K);
    if (splits.size() != 1) return std::nullopt;
    for (const double ratio : {splits[0].x1_alpha / point.x[0], (1 - splits[0].x1_beta) / point.y[1]}) {
      squares += std::pow(std::log(ratio), 2);
      estimate.worst_factor = std::max(estimate.worst_factor, std::exp(std::abs(std::log(ratio))));
      ++estimate.solubilities;
    }
  }
  estimate.rms_ln = std::sqrt(squares / estimate.solubilities);
  return estimate;
}

}  // namespace

std::optional<SplitEstimate> estimate_of_split(const Substance& first, const Substance& second,
                                               const EstimateOptions& options, ActivityModel& prediction) {
  const bool with_alpha = options.model == "nrtl";
  const bool sizes_given = !options.beside.empty() && options.model == "uniquac";
  if (!can_split(options.model) || sizes_given || !(options.T_range_K[1] > options.T_range_K[0]))
    return std::nullopt;
  const std::vector<DataSet> data = predicted_data(first, second, options, prediction);
  if (data[0].points.size() < 2) return std::nullopt;
  const EstimateOptions plain;
  FitOptions fit_options;
  fit_options.model = options.model;
  // What bends with temperature is bent, unless another form or another alpha is asked for.
  fit_options.form =
      options.form == plain.form ? std::vector{Coefficient::constant, Coefficient::inverse_T} : options.form;
  fit_options.starts = 3;
  std::vector<double> alphas{0.0};
  if (with_alpha)
    alphas = options.alpha == plain.alpha ? std::vector{0.3, 0.2, 0.4, 0.25, 0.35, 0.45}
                                          : std::vector{options.alpha};
  std::optional<SplitEstimate> best;
  for (const double alpha : alphas) {
    if (with_alpha) fit_options.hold = {{"alpha", alpha}};
    try {
      auto one = judged(fit(data, fit_options), data[0].points);
      if (one && (!best || one->worst_factor < best->worst_factor)) best = std::move(one);
    } catch (const std::runtime_error&) {
      continue;  // not with this alpha
    }
    constexpr double enough = 1.03;
    if (best && best->worst_factor < enough) break;
  }
  constexpr double useless = 2;
  return best && best->worst_factor < useless ? best : std::nullopt;
}

}  // namespace jampot
