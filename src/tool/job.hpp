#pragma once
// A job from file to answer, as the commands job and demo run it.
#include <string>
#include <utility>
#include <vector>

#include "job_plan.hpp"
#include "presenter.hpp"

namespace jampot::tool {

struct JobOutcome {
  Answer answer;
  std::vector<std::pair<std::string, bool>> failures;  ///< messages, and whether the request was wrong

  /// @throws RequestError or CalculationError with all messages, where there are any
  void throw_failures() const;
};

/// Reads, plans and runs a job file in its own folder.
/// @throws RequestError for a fault in the file, before anything is done
JobOutcome run_job(const std::string& file, bool check_only, const JobRules& rules = {});

}  // namespace jampot::tool
