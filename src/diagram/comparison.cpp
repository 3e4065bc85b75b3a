#include "jampot/diagram/comparison.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"

namespace jampot {

DeviationSummary summarise(const std::vector<double>& deviations) {
  DeviationSummary summary;
  summary.count = static_cast<int>(deviations.size());
  if (deviations.empty()) return summary;
  for (const double deviation : deviations) {
    summary.mean += deviation;
    summary.mean_absolute += std::abs(deviation);
    summary.root_mean_square += deviation * deviation;
    if (std::abs(deviation) > std::abs(summary.largest)) summary.largest = deviation;
  }
  summary.mean /= summary.count;
  summary.mean_absolute /= summary.count;
  summary.root_mean_square = std::sqrt(summary.root_mean_square / summary.count);
  return summary;
}

Comparison compare(Mixture& mixture, const DataSet& data) {
  demand_size(data.substances.size(), mixture.size(), "substances of the data");
  demand_points(data);
  Comparison comparison;
  std::vector<double> T, P;
  std::vector<std::vector<double>> y(mixture.size());
  for (const DataPoint& point : data.points) {
    const VlePoint model = isobaric(data.kind) ? bubble_temperature(mixture, point.P_Pa, point.x)
                                               : bubble_pressure(mixture, point.T_K, point.x);
    comparison.rows.push_back({point, model.T_K, model.P_Pa, model.y});
    if (!point.excluded.empty()) continue;  // shown, but not counted
    if (isobaric(data.kind)) {
      T.push_back(model.T_K - point.T_K);
    } else {
      P.push_back(model.P_Pa - point.P_Pa);
    }
    for (std::size_t i = 0; i < point.y.size(); ++i) y[i].push_back(model.y[i] - point.y[i]);
  }
  if (!T.empty()) comparison.T_K = summarise(T);
  if (!P.empty()) comparison.P_Pa = summarise(P);
  for (const std::vector<double>& deviations : y) {
    if (!deviations.empty()) comparison.y.push_back(summarise(deviations));
  }
  return comparison;
}

DataSet in_order_of(const std::vector<Substance>& wanted, DataSet data) {
  std::vector<std::size_t> from;
  for (const Substance& substance : wanted) {
    const auto found =
        std::find_if(data.substances.begin(), data.substances.end(),
                     [&](const Substance& candidate) { return candidate.name == substance.name; });
    if (found == data.substances.end() || data.substances.size() != wanted.size()) {
      throw RequestError(
          fmt::format("the data of {} are not about the substances of this mixture", data.name));
    }
    from.push_back(static_cast<std::size_t>(found - data.substances.begin()));
  }
  const auto reorder = [&](std::vector<double>& fractions) {
    if (fractions.empty()) return;
    const std::vector<double> before = fractions;
    for (std::size_t i = 0; i < from.size(); ++i) fractions[i] = before[from[i]];
  };
  for (DataPoint& point : data.points) {
    reorder(point.x);
    reorder(point.y);
    for (std::size_t* member : {&point.solute, &point.solvent}) {
      const auto now = std::find(from.begin(), from.end(), *member);
      *member = static_cast<std::size_t>(now - from.begin());
    }
  }
  data.substances = wanted;
  return data;
}

}  // namespace jampot
