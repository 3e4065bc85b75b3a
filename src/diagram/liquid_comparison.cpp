#include "jampot/diagram/liquid_comparison.hpp"

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/liquid_split.hpp"

namespace jampot {
namespace {

double squares(const std::vector<double>& a, const std::vector<double>& b) {
  double sum = 0;
  for (std::size_t i = 0; i < a.size(); ++i) sum += (a[i] - b[i]) * (a[i] - b[i]);
  return sum;
}

}  // namespace

std::optional<NearestLiquids> nearest_liquids(ActivityModel& model, const DataPoint& measured) {
  std::vector<NearestLiquids> candidates;
  if (model.size() == 2) {
    for (const BinarySplit& split : binary_splits(model, measured.T_K))
      candidates.push_back({{split.x1_alpha, 1 - split.x1_alpha}, {split.x1_beta, 1 - split.x1_beta}});
  } else {
    std::vector<double> middle(model.size());
    for (std::size_t i = 0; i < middle.size(); ++i) middle[i] = (measured.x[i] + measured.y[i]) / 2;
    const LiquidSplit split = LiquidSplitter(model, measured.T_K).split(middle);
    if (split.phases() == 2) candidates.push_back({split.x[0], split.x[1]});
  }
  std::optional<NearestLiquids> best;
  double least = HUGE_VAL;
  for (NearestLiquids& candidate : candidates) {
    for (int turn = 0; turn < 2; ++turn, std::swap(candidate.alpha, candidate.beta)) {
      const double distance = squares(candidate.alpha, measured.x) + squares(candidate.beta, measured.y);
      if (distance >= least) continue;
      least = distance;
      best = candidate;
    }
  }
  return best;
}

LiquidComparison compare_liquids(ActivityModel& model, const DataSet& data) {
  demand_size(data.substances.size(), model.size(), "substances of the data");
  demand_points(data);
  LiquidComparison comparison;
  const std::size_t n = model.size();
  std::vector<std::vector<double>> x(n);
  std::vector<double> distances;
  for (const DataPoint& point : data.points) {
    LiquidComparison::Row row{point, {}, {}, 0};
    if (const auto liquids = nearest_liquids(model, point)) {
      row.alpha = liquids->alpha;
      row.beta = liquids->beta;
      const bool counts = point.excluded.empty();
      for (std::size_t i = 0; counts && i < n; ++i) {
        x[i].push_back(row.alpha[i] - point.x[i]);
        x[i].push_back(row.beta[i] - point.y[i]);
      }
      row.distance = std::sqrt((squares(row.alpha, point.x) + squares(row.beta, point.y)) /
                               (2 * static_cast<double>(n)));
      if (counts) distances.push_back(row.distance);
    } else {
      if (point.excluded.empty()) ++comparison.without;
    }
    comparison.rows.push_back(std::move(row));
  }
  for (const std::vector<double>& deviations : x) comparison.x.push_back(summarise(deviations));
  comparison.distance = summarise(distances);
  return comparison;
}

}  // namespace jampot
