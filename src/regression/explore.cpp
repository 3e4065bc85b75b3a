#include "explore.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/side_by_side.hpp"
#include "../basis/sobol.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

constexpr int enough = 16;  // descents, whatever they find
constexpr std::size_t at_most = 200;
constexpr int times = 3;                   // that the best minimum has to be reached
constexpr std::size_t batch = 8;           // descents between two looks at what was found
constexpr std::size_t most_explored = 48;  // points
constexpr std::size_t most_polished = 6, most_tried = 16;

struct Start {
  std::vector<double> scaled;
  std::vector<std::size_t> held;  // first, then free like the others
};

// Free constants that are held by default, as alpha is: they bend the surface most.
std::vector<std::size_t> usually_held(const FitTask& task) {
  const std::vector<TermForFit>& terms = terms_for_fit(task.options.model);
  std::vector<std::size_t> list;
  for (std::size_t p = 0; p < task.plan.free.size(); ++p) {
    if (task.plan.start_low[p] == task.plan.start_high[p]) continue;  // no term of the model
    const TermForFit& term = terms[task.plan.free[p].term % terms.size()];
    if (term.held && !term.follows_T) list.push_back(p);
  }
  return list.size() < task.plan.free.size() ? list : std::vector<std::size_t>();
}

// An almost ideal liquid, and liquids in which one component is active in the other and not the other way
// round.
std::vector<std::vector<double>> corners(const FitTask& task) {
  const ParameterPlan& plan = task.plan;
  std::vector<std::vector<double>> list{plan.neutral};
  for (const bool even : {true, false}) {
    std::vector<double> corner = plan.neutral;
    for (std::size_t p = 0; p < corner.size(); ++p) {
      if (plan.start_low[p] == plan.start_high[p]) continue;
      corner[p] = (plan.free[p].term % 2 == 0) == even ? plan.start_high[p] : plan.start_low[p];
    }
    list.push_back(std::move(corner));
  }
  return list;
}

std::vector<Start> ladder(const FitTask& task) {
  std::vector<Start> list;
  const std::vector<std::size_t> held = usually_held(task);
  if (held.empty()) return list;
  for (const double rung : {0.3, 0.2, 0.47, 0.12, 0.08, 0.6, 0.8, 1.0}) {
    for (const std::vector<double>& corner : corners(task)) {
      Start start{corner, held};
      for (const std::size_t p : held)
        start.scaled[p] =
            std::clamp(rung / task.plan.free[p].scale, task.plan.lowest[p], task.plan.highest[p]);
      list.push_back(std::move(start));
    }
  }
  return list;
}

// One after the other, without an end.
class Starts {
 public:
  explicit Starts(const FitTask& task) : task_(task), sequence_(task.plan.free.size()) {
    list_.push_back({task.plan.neutral, {}});
    for (Start& start : ladder(task)) list_.push_back(std::move(start));
  }

  std::size_t planned() const { return list_.size(); }

  Start next() {
    if (given_ < list_.size()) return list_[given_++];
    std::vector<double> point(task_.plan.free.size());
    for (std::size_t p = 0; p < point.size(); ++p) {
      const double low = task_.plan.start_low[p], high = task_.plan.start_high[p];
      point[p] = low + sequence_.next() * (high - low);
    }
    return {std::move(point), {}};
  }

 private:
  const FitTask& task_;
  std::vector<Start> list_;
  std::size_t given_ = 0;
  SobolSequence sequence_;
};

std::optional<Descent> follow(FitProblem& problem, const Start& start) {
  if (start.held.empty()) return problem.descend(start.scaled);
  const auto held = problem.descend(start.scaled, start.held);
  return problem.descend(held ? held->scaled : start.scaled);
}

// Descents side by side, in an order that does not depend on which is done first.
std::vector<std::optional<Descent>> follow_all(std::vector<std::unique_ptr<FitProblem>>& problems,
                                               const std::vector<Start>& starts) {
  std::vector<std::optional<Descent>> ends(starts.size());
  const auto share = [&](std::size_t worker) {
    for (std::size_t k = worker; k < starts.size(); k += problems.size())
      ends[k] = follow(*problems[worker], starts[k]);
  };
  side_by_side(problems.size(), share);
  return ends;
}

std::vector<FitProblem*> all_of(const std::vector<std::unique_ptr<FitProblem>>& problems) {
  std::vector<FitProblem*> list;
  for (const auto& problem : problems) list.push_back(problem.get());
  return list;
}

bool same_objective(double a, double b, double relative) {
  return std::abs(a - b) <= relative * std::max({std::abs(a), std::abs(b), 1e-3});
}

bool near(const Descent& a, const Descent& b) {
  for (std::size_t p = 0; p < a.scaled.size(); ++p)
    if (std::abs(a.scaled[p] - b.scaled[p]) > 0.01 * (1 + std::abs(b.scaled[p]))) return false;
  return true;
}

// Groups the ends of the descents; two are the same minimum where objective and parameters agree.
std::vector<std::pair<Descent, int>> distinct(std::vector<Descent> descents) {
  std::stable_sort(descents.begin(), descents.end(),
                   [](const Descent& a, const Descent& b) { return a.objective < b.objective; });
  std::vector<std::pair<Descent, int>> groups;
  for (Descent& descent : descents) {
    const auto same = [&](const std::pair<Descent, int>& group) {
      return same_objective(group.first.objective, descent.objective, 1e-4) && near(group.first, descent);
    };
    const auto found = std::find_if(groups.begin(), groups.end(), same);
    if (found != groups.end()) {
      ++found->second;
    } else {
      groups.emplace_back(std::move(descent), 1);
    }
  }
  return groups;
}

// Which rough minima are taken further, and how far.
struct Polishing {
  double much_worse = 3;  // than the best: not wanted
  bool best_alone = false;
  double relative_change = FitProblem::last_digits;
};

// The rough minima, best first, that the last digits are worth: after the first few only those that lie
// clearly higher than the one before. A long valley must not hide the minimum behind it.
std::vector<std::size_t> worth_polishing(const std::vector<std::pair<Descent, int>>& rough,
                                         const Polishing& how) {
  constexpr double noise = 20, clearly = 1.01;
  std::vector<std::size_t> chosen;
  double last = 0;
  const std::size_t most = how.best_alone ? 1 : most_tried;
  for (std::size_t k = 0; k < rough.size() && chosen.size() < most; ++k) {
    const double objective = rough[k].first.objective;
    if (objective > how.much_worse * rough.front().first.objective + noise) break;
    if (chosen.size() >= most_polished && objective < clearly * last) continue;
    chosen.push_back(k);
    last = objective;
  }
  return chosen;
}

// Rough minima to the last digits; those that are one then are one.
std::vector<std::pair<Descent, int>> polished(const std::vector<FitProblem*>& problems,
                                              const std::vector<std::pair<Descent, int>>& rough,
                                              const Polishing& how) {
  std::vector<std::pair<Descent, int>> minima;
  const auto take = [&](Descent exact, int count) {
    // A valley in which descents creep to an end at different places is one minimum, too.
    const auto same = [&](const std::pair<Descent, int>& known) {
      return same_objective(known.first.objective, exact.objective, 1e-6) ||
             (same_objective(known.first.objective, exact.objective, 1e-2) && near(known.first, exact));
    };
    const auto found = std::find_if(minima.begin(), minima.end(), same);
    if (found != minima.end())
      found->second += count;
    else
      minima.emplace_back(std::move(exact), count);
  };
  const std::vector<std::size_t> chosen = worth_polishing(rough, how);
  for (std::size_t first = 0; first < chosen.size() && minima.size() < most_polished;
       first += problems.size()) {
    const std::size_t together = std::min(problems.size(), chosen.size() - first);
    std::vector<std::optional<Descent>> ends(together);
    side_by_side(together, [&](std::size_t worker) {
      ends[worker] = problems[worker]->polish(rough[chosen[first + worker]].first, how.relative_change);
    });
    for (std::size_t k = 0; k < together && minima.size() < most_polished; ++k)
      if (ends[k]) take(std::move(*ends[k]), rough[chosen[first + k]].second);
  }
  std::stable_sort(minima.begin(), minima.end(),
                   [](const auto& a, const auto& b) { return a.first.objective < b.first.objective; });
  return minima;
}

}  // namespace

Explored explore(const FitTask& task, FitProblem& whole) {
  const FitTask few = task.thinned(most_explored);
  const std::size_t workers = workers_for(batch);
  std::vector<std::unique_ptr<FitProblem>> problems;
  for (std::size_t worker = 0; worker < workers; ++worker) problems.push_back(few.problem());
  Starts starts(task);
  Explored result;
  const auto asked = static_cast<std::size_t>(std::max(0, task.options.starts));
  const std::size_t least = asked > 0 ? asked : std::max<std::size_t>(enough, starts.planned());
  const std::size_t most = asked > 0 ? asked : at_most;
  Progress* progress = task.options.progress;
  if (progress) progress->expected += static_cast<long>(least);
  std::vector<Descent> descents;
  std::size_t made = 0;
  while (made < least || (made < most && result.reached_best < times)) {
    std::vector<Start> next;
    while (next.size() < batch && made + next.size() < most) next.push_back(starts.next());
    for (auto& end : follow_all(problems, next)) {
      if (end) descents.push_back(std::move(*end));
    }
    made += next.size();
    if (progress) {
      progress->done += static_cast<long>(next.size());
      if (made > least) progress->expected += static_cast<long>(next.size());
    }
    double best = HUGE_VAL;
    for (const Descent& descent : descents) best = std::min(best, descent.objective);
    constexpr double same = 1e-3;
    result.reached_best =
        static_cast<int>(std::count_if(descents.begin(), descents.end(), [&](const Descent& one) {
          return same_objective(one.objective, best, same);
        }));
  }
  result.starts = static_cast<int>(made);
  if (!descents.empty()) {
    auto rough = distinct(std::move(descents));
    Polishing how{.best_alone = task.best_alone};
    if (few.points.size() < task.points.size() || few.liquids.size() < task.liquids.size()) {
      // Which of them are one minimum is found out on the few. Adjustments of points that were left out begin
      // at nothing.
      auto distinct_on_few = polished(all_of(problems), rough, how);
      if (!distinct_on_few.empty()) rough = std::move(distinct_on_few);
      for (auto& [descent, count] : rough) descent.adjustments.clear();
      how.much_worse = 1.6;  // what can be the best of all, or be told beside it
      constexpr std::size_t many = 300;
      if (task.points.size() > many)
        how.relative_change = 1e-6;  // the one that is taken gets its last digits
    }
    std::vector<std::unique_ptr<FitProblem>> others;  // of all points, for minima side by side
    std::vector<FitProblem*> wholes{&whole};
    const std::size_t several = worth_polishing(rough, how).size();
    for (std::size_t worker = 1; worker < workers_for(several); ++worker) {
      others.push_back(task.problem());
      wholes.push_back(others.back().get());
    }
    result.minima = polished(wholes, rough, how);
    for (const auto& other : others) result.evaluations += other->context().mixture().evaluations();
    if (result.minima.empty()) result.minima = {std::move(rough.front())};  // a valley without an end
  }
  for (const auto& problem : problems) result.evaluations += problem->context().mixture().evaluations();
  return result;
}

}  // namespace jampot
