#include "jampot/regression/ranking.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <exception>
#include <future>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

// The data with every fold-th point left out, and how far the fit to the rest is off there.
std::optional<double> cross_validate(const std::vector<DataSet>& sets, const FitOptions& options, int folds) {
  const std::string mark = "left out to be predicted";
  double sum = 0;
  int count = 0;
  for (int fold = 0; fold < folds; ++fold) {
    std::vector<DataSet> rest = sets;
    int number = 0, left = 0;
    for (DataSet& set : rest) {
      for (DataPoint& point : set.points) {
        if (!vapour_liquid(set.kind) || point.is_pure() || !point.excluded.empty()) continue;
        if (number++ % folds != fold) continue;
        point.excluded = mark;
        ++left;
      }
    }
    if (left == 0) continue;
    FitOptions quick = options;
    quick.starts = 3;
    quick.profiles = Profiles::never;
    std::optional<Fit> fitted;
    try {
      fitted = fit(rest, quick);
    } catch (const std::runtime_error&) {
      return std::nullopt;  // too few points are left to fit at all
    }
    for (const ResidualRow& row : fitted->residuals) {
      if (row.measured.excluded != mark) continue;
      sum += row.standardised_P * row.standardised_P;
      ++count;
      for (const double value : row.standardised_y) {
        sum += value * value;
        ++count;
      }
    }
  }
  return count > 0 ? std::optional<double>(std::sqrt(sum / count)) : std::nullopt;
}

double overdispersion_of(const std::vector<RankedFit>& ranked) {
  double least = HUGE_VAL;
  for (const RankedFit& entry : ranked) {
    if (entry.fit.options.objective != Objective::maximum_likelihood) return 1;
    if (entry.fit.degrees_of_freedom > 0)
      least = std::min(least, entry.fit.objective / entry.fit.degrees_of_freedom);
  }
  return std::isfinite(least) ? std::max(1.0, least) : 1;
}

std::string verdict(const RankedFit& ranked, bool best) {
  if (best)
    return ranked.fit.notices.has("misfit") ? "best of these, but none describes the data" : "best of these";
  const double above = ranked.aicc_above_best;
  if (above < 2) return "as good: the data cannot tell it from the best";
  if (above < 7) return "somewhat worse; more data would decide";
  if (above < 12) return "clearly worse";
  return "ruled out beside the best";
}

}  // namespace

std::vector<RankedFit> rank_models(const std::vector<DataSet>& sets, const FitOptions& options,
                                   const std::vector<std::string>& models, int folds) {
  if (models.empty()) throw RequestError("no model to fit");
  std::vector<std::future<RankedFit>> running;
  for (const std::string& model : models) {
    running.push_back(std::async(std::launch::async, [&, model] {
      FitOptions own = options;
      own.model = model;
      RankedFit ranked{.fit = fit(sets, own), .cross_validation = std::nullopt, .verdict = ""};
      ranked.cross_validation = cross_validate(sets, own, folds);
      return ranked;
    }));
  }
  std::vector<RankedFit> ranked;
  Notices failed;
  std::exception_ptr first_failure;
  for (std::size_t k = 0; k < running.size(); ++k) {
    try {
      ranked.push_back(running[k].get());
    } catch (const CalculationError& error) {  // of one model; the others are ranked all the same
      if (!first_failure) first_failure = std::current_exception();
      failed.add("model-not-fitted", fmt::format("{} is not in the ranking: {}", models[k], error.what()));
    }
  }
  if (ranked.empty()) std::rethrow_exception(first_failure);
  const double overdispersion = overdispersion_of(ranked);
  const auto criterion = [&](const RankedFit& entry) {
    const bool known = entry.fit.options.objective == Objective::maximum_likelihood;
    return entry.fit.aicc - (known ? entry.fit.objective * (1 - 1 / overdispersion) : 0);
  };
  std::stable_sort(ranked.begin(), ranked.end(),
                   [&](const RankedFit& a, const RankedFit& b) { return criterion(a) < criterion(b); });
  double sum = 0;
  for (RankedFit& entry : ranked) {
    entry.overdispersion = overdispersion;
    entry.aicc_above_best = criterion(entry) - criterion(ranked.front());
    if (!std::isfinite(entry.aicc_above_best))
      entry.aicc_above_best = &entry == &ranked.front() ? 0 : HUGE_VAL;
    sum += entry.weight = std::exp(-entry.aicc_above_best / 2);
  }
  for (RankedFit& entry : ranked) {
    entry.weight /= sum;
    entry.verdict = verdict(entry, &entry == &ranked.front());
  }
  ranked.front().fit.notices.add(failed);
  return ranked;
}

}  // namespace jampot
