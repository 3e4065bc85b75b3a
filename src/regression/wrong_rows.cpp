// Rows far off the model, and whether they read right with two of their numbers exchanged.
#include <algorithm>
#include <cmath>

#include "fit_results.hpp"

namespace jampot {
namespace {

double size_of(const ResidualRow& row) {
  double sum = row.standardised_P * row.standardised_P;
  for (const double value : row.standardised_y) sum += value * value;
  return std::sqrt(sum);
}

struct Misreading {
  const char* words;
  void (*read)(DataPoint&);
};

void exchange_components(std::vector<double>& fractions) {
  std::reverse(fractions.begin(), fractions.end());
}

// Of two components; what people exchange when they copy a row.
const Misreading misreadings[] = {
    {"liquid and vapour exchanged", [](DataPoint& p) { std::swap(p.x, p.y); }},
    {"the components exchanged in liquid and vapour",
     [](DataPoint& p) {
       exchange_components(p.x);
       exchange_components(p.y);
     }},
    {"the components of the vapour exchanged", [](DataPoint& p) { exchange_components(p.y); }},
    {"the components of the liquid exchanged", [](DataPoint& p) { exchange_components(p.x); }},
};

// Distance of a row from the model with these parameters.
double distance(FitContext& context, const std::vector<double>& scaled, ResidualRow row) {
  context.set(scaled.data());
  row.standardised_y.clear();
  standardise(context, row);
  return size_of(row);
}

// The fit to all points but one. A row that is far off moves the fit further than its slope there tells.
std::vector<double> fitted_without(const FitTask& task, const ResidualRow& row, std::vector<double> start) {
  constexpr std::size_t many = 300;  // of so many, one hardly moves the fit
  if (task.points.size() > many) return start;
  FitTask rest = task;
  std::erase_if(rest.points, [&](const DataPoint* point) {
    return point->line == row.measured.line && point->x == row.measured.x && point->y == row.measured.y;
  });
  const auto found = rest.problem()->polish({start, {}, 0, false});
  return found ? found->scaled : start;
}

}  // namespace

void find_wrong_rows(Fit& result, const FitTask& task, FitProblem& problem, const Descent& best) {
  constexpr double far = 5, near = 3.5;
  constexpr std::size_t most = 4;  // rows that are looked at closely
  FitContext& context = problem.context();
  std::vector<ResidualRow*> far_off;
  for (ResidualRow& row : result.residuals) {
    if (!row.used() || row.measured.x.size() != 2) continue;
    std::vector<double> without = best.scaled;
    for (std::size_t p = 0; p < without.size(); ++p)
      without[p] += row.influence.change[p] / task.plan.free[p].scale;
    row.distance_without = distance(context, without, row);
    if (row.distance_without > far && !row.measured.y.empty()) far_off.push_back(&row);
  }
  std::stable_sort(far_off.begin(), far_off.end(),
                   [](const ResidualRow* a, const ResidualRow* b) { return a->chi_square > b->chi_square; });
  for (std::size_t k = 0; k < std::min(most, far_off.size()); ++k) {
    ResidualRow& row = *far_off[k];
    const std::vector<double> without = fitted_without(task, row, best.scaled);
    row.distance_without = distance(context, without, row);
    double least = std::min(near, row.distance_without / 3);
    for (const Misreading& reading : misreadings) {
      ResidualRow other = row;
      reading.read(other.measured);
      const double off = distance(context, without, other);
      if (!(off < least)) continue;
      least = off;
      row.reads_right = reading.words;
    }
  }
  context.set(best.scaled.data());
}

}  // namespace jampot
