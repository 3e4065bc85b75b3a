#include "jampot/regression/ranking.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <exception>
#include <optional>

#include "../basis/side_by_side.hpp"
#include "fit_near.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

constexpr const char* mark = "left out to be predicted";

// How far the fit to the points that are not marked is off at those that are.
struct LeftOut {
  double sum = 0;
  int count = 0;
  std::optional<double> root() const {
    return count > 0 ? std::optional(std::sqrt(sum / count)) : std::nullopt;
  }
  // False where too few points are left to fit at all.
  bool add(const std::vector<DataSet>& marked, const FitOptions& options, const Fit& whole) {
    std::optional<Fit> fitted;
    try {
      fitted = fit_near(marked, options, whole);
    } catch (const std::runtime_error&) {
      return false;
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
    return true;
  }
};

bool may_be_left_out(const DataSet& set, const DataPoint& point) {
  return vapour_liquid(set.kind) && !point.is_pure() && point.used();
}

// Every fold-th point left out in turn.
std::optional<double> by_points(const std::vector<DataSet>& sets, const FitOptions& options, const Fit& whole,
                                int folds) {
  LeftOut left;
  for (int fold = 0; fold < folds; ++fold) {
    std::vector<DataSet> rest = sets;
    int number = 0, out = 0;
    for (DataSet& set : rest) {
      for (DataPoint& point : set.points) {
        if (!may_be_left_out(set, point) || number++ % folds != fold) continue;
        point.excluded = mark;
        ++out;
      }
    }
    if (out > 0 && !left.add(rest, options, whole)) return std::nullopt;
  }
  return left.root();
}

// Every set left out in turn.
std::optional<double> by_sets(const std::vector<DataSet>& sets, const FitOptions& options, const Fit& whole) {
  if (sets.size() < 2) return std::nullopt;
  LeftOut left;
  for (std::size_t s = 0; s < sets.size(); ++s) {
    std::vector<DataSet> rest = sets;
    int out = 0;
    for (DataPoint& point : rest[s].points) {
      if (!may_be_left_out(sets[s], point)) continue;
      point.excluded = mark;
      ++out;
    }
    if (out > 0 && !left.add(rest, options, whole)) return std::nullopt;
  }
  return left.root();
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
  return "ruled out, compared with the best";
}

}  // namespace

std::vector<RankedFit> rank_models(const std::vector<DataSet>& sets, const FitOptions& options,
                                   const std::vector<std::string>& models, int folds) {
  if (models.empty()) throw RequestError("no model to fit");
  std::vector<std::optional<RankedFit>> each(models.size());
  std::vector<std::exception_ptr> failures(models.size());
  const std::size_t workers = workers_for(models.size());
  side_by_side(workers, [&](std::size_t worker) {
    for (std::size_t k = worker; k < models.size(); k += workers) {
      try {
        FitOptions own = options;
        own.model = models[k];
        each[k] = RankedFit{.fit = fit(sets, own)};
        each[k]->cross_validation = by_points(sets, own, each[k]->fit, folds);
        each[k]->cross_validation_sets = by_sets(sets, own, each[k]->fit);
      } catch (...) {
        failures[k] = std::current_exception();
      }
    }
  });
  std::vector<RankedFit> ranked;
  Notices failed;
  std::exception_ptr first_failure;
  for (std::size_t k = 0; k < models.size(); ++k) {
    try {
      if (failures[k]) std::rethrow_exception(failures[k]);
      ranked.push_back(std::move(*each[k]));
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
