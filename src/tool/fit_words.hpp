#pragma once
// The words that say what is fitted and how: of `regress` and `next`.

#include "jampot/regression/fit.hpp"
#include "options.hpp"

namespace jampot::tool {

struct FitWords {
  std::vector<std::string> files, substance_files, non_volatile;
  std::string model = "nrtl", objective = "maximum-likelihood", form = "inverse_T", errors = "stated",
              pure = "bank", u_pure;
  std::vector<std::string> hold, release, tie, exclude, priors, known, offsets, bounds;
  int starts = 0;
  VapourWords vapour;
  bool robust = false, profile = false, no_split = false;

  /// How, but for the model. @param data  whose substances the points that are known belong to
  /// @throws RequestError for a word that is none
  FitOptions options(const std::vector<DataSet>& data) const;
  /// The data, with what is excluded and what stays in the liquid. @throws as `read_measured_files`
  std::vector<DataSet> sets() const;
};

void add_fit_words(Command& command, FitWords& words);

}  // namespace jampot::tool
