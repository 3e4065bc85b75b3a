#include "misread.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <optional>

#include "../basis/side_by_side.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/regression/statistics.hpp"
#include "readings.hpp"

namespace jampot {
namespace {

struct Candidate {
  std::string cause;
  double reduced = HUGE_VAL;  ///< chi-square over its degrees of freedom, read so
};

std::string file_of(const DataSet& set, std::size_t sets) {
  return sets == 1 ? "" : fmt::format(" in {}", std::filesystem::path(set.name).filename().string());
}

// A mistake in how a set was read shows in any part of it: of many points some, spread evenly, so that ten
// fits cost no more than one.
std::vector<DataSet> few_points(std::vector<DataSet> sets) {
  constexpr std::size_t most = 48;
  std::size_t points = 0;
  for (const DataSet& set : sets) points += set.points.size();
  const std::size_t step = (points + most - 1) / most;
  if (step < 2) return sets;
  for (DataSet& set : sets) {
    std::vector<DataPoint> kept;
    for (std::size_t k = 0; k < set.points.size(); k += step) kept.push_back(set.points[k]);
    set.points = std::move(kept);
  }
  return sets;
}

class Search {
 public:
  Search(const std::vector<DataSet>& sets, const FitOptions& options, const Refit& refit)
      : sets_(few_points(sets)), options_(options), refit_(refit) {
    options_.starts = 4;
    options_.profiles = Profiles::never;
    options_.region = false;
    options_.progress = nullptr;
  }

  std::vector<Candidate> all() {
    for (std::size_t s = 0; s < sets_.size(); ++s) by_fractions(s);
    by_offset(0, 0.1);
    by_offset(10, 0);
    std::vector<std::optional<Fit>> fits(trials_.size());
    const std::size_t workers = workers_for(trials_.size());
    side_by_side(workers, [&](std::size_t worker) {
      for (std::size_t k = worker; k < trials_.size(); k += workers) fits[k] = fitted(trials_[k]);
    });
    std::vector<Candidate> found;
    for (std::size_t k = 0; k < trials_.size(); ++k) {
      if (!fits[k]) continue;
      const std::string cause = trials_[k].cause.empty() ? offsets_of(*fits[k]) : trials_[k].cause;
      if (!cause.empty()) found.push_back({cause, fits[k]->objective / fits[k]->degrees_of_freedom});
    }
    std::stable_sort(found.begin(), found.end(),
                     [](const Candidate& a, const Candidate& b) { return a.reduced < b.reduced; });
    return found;
  }

 private:
  // Data read otherwise, or with offsets; then the cause is what the fit finds of them.
  struct Trial {
    std::vector<DataSet> sets;
    FitOptions options;
    std::string cause{};
  };

  std::optional<Fit> fitted(const Trial& trial) const {
    try {
      Fit result = refit_(trial.sets, trial.options);
      if (result.degrees_of_freedom > 0) return result;
    } catch (const std::runtime_error&) {
      // cannot be read so
    }
    return std::nullopt;
  }

  void by_fractions(std::size_t s) {
    if (!vapour_liquid(sets_[s].kind)) return;
    for (const Reading& reading : readings(sets_[s].substances)) {
      if (!reading.of_fractions) continue;
      std::vector<DataSet> read = sets_;
      if (!std::all_of(read[s].points.begin(), read[s].points.end(), reading.apply)) continue;
      trials_.push_back({std::move(read), options_, reading.cause + file_of(sets_[s], sets_.size())});
    }
  }

  void by_offset(double u_T_K, double u_P) {
    FitOptions options = options_;
    options.u_offset_T_K = u_T_K;
    options.u_offset_P = u_P;
    trials_.push_back({sets_, options});
  }

  // "the pressures are read 3.1 % too high"; empty where no offset is sure.
  std::string offsets_of(const Fit& fit) const {
    std::vector<std::string> parts;
    std::size_t number = 0;
    for (const SetOffset& offset : fit.offsets) {
      while (number < sets_.size() && !vapour_liquid(sets_[number].kind)) ++number;
      const DataSet& set = sets_.at(number++);
      constexpr double sure = 4;
      if (!(std::abs(offset.value) > sure * offset.u)) continue;
      parts.push_back(offset.of_pressure
                          ? fmt::format("the pressures are read {:.1f} % too {}{}",
                                        std::abs(100 * offset.value), offset.value > 0 ? "high" : "low",
                                        file_of(set, sets_.size()))
                          : fmt::format("the temperatures are read {:.2f} K too {}{}", std::abs(offset.value),
                                        offset.value > 0 ? "high" : "low", file_of(set, sets_.size())));
    }
    return joined(parts, " and ");
  }

  std::vector<DataSet> sets_;
  FitOptions options_;
  const Refit& refit_;
  std::vector<Trial> trials_;
};

}  // namespace

void find_misreading(Fit& result, const std::vector<DataSet>& sets, const FitOptions& options,
                     const Refit& refit) {
  constexpr double hopeless = 1e-4;
  constexpr std::size_t most_sets = 4;
  const bool asked = options.u_offset_T_K > 0 || options.u_offset_P > 0;
  if (options.objective != Objective::maximum_likelihood || asked || sets.size() > most_sets) return;
  if (result.notices.has("data-implausible")) return;  // said already
  if (!(result.degrees_of_freedom > 0) || result.chi_square_probability > hopeless) return;
  const double stated = result.objective / result.degrees_of_freedom;
  const std::vector<Candidate> candidates = Search(sets, options, refit).all();
  // A wrong reading that helps a little is no finding: the misfit has to go away, or most of it.
  constexpr double sound = 1.6, most_of_it = 0.12, much = 0.4;
  std::vector<std::string> causes;
  for (const Candidate& candidate : candidates) {
    const bool explains =
        candidate.reduced < std::max(sound, most_of_it * stated) && candidate.reduced < much * stated;
    constexpr double as_good = 1.25;
    if (explains && candidate.reduced < as_good * candidates.front().reduced)
      causes.push_back(candidate.cause);
  }
  if (causes.empty()) return;
  result.notices.add(
      "data-misread",
      fmt::format(
          "the misfit goes away (chi-square over degrees of freedom {:.2f} instead of {:.1f}) if {}{}: check "
          "the source before anything is used",
          candidates.front().reduced, stated, joined(causes, ", or if "),
          causes.size() > 1 ? " (the data cannot tell these apart)" : ""));
}

}  // namespace jampot
