#include "fit_task.hpp"

#include "jampot/liquid/models.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {
namespace {

template <class Point>
std::vector<Point> every_so_many(const std::vector<Point>& all, std::size_t most) {
  if (all.size() <= most) return all;
  std::vector<Point> chosen;
  for (std::size_t k = 0; k < most; ++k) chosen.push_back(all[k * (all.size() - 1) / (most - 1)]);
  return chosen;
}

}  // namespace

std::unique_ptr<FitProblem> FitTask::problem() const {
  auto model = make_activity_model_to_fit(options.model, substances);
  if (options.pure == PurePressures::fit) model = std::make_unique<ScaledPureModel>(std::move(model));
  Mixture mixture(substances, std::move(model), {}, options.vapour);
  return std::make_unique<FitProblem>(std::move(mixture), plan, options, points, liquids);
}

FitTask FitTask::thinned(std::size_t most) const {
  FitTask few = *this;
  few.points = every_so_many(points, most);
  few.liquids = every_so_many(liquids, most);
  return few;
}

}  // namespace jampot
