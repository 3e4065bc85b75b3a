#pragma once
// The steps of a job, done.
#include <functional>

#include "job_plan.hpp"
#include "presenter.hpp"

namespace jampot::tool {

struct StepResult {
  enum class Outcome { waiting, done, failed, skipped };
  Outcome outcome = Outcome::waiting;
  bool wrong_request = false;  ///< of a failed one: the request or a file is wrong
  std::string message;         ///< why it failed or was skipped
  Answer answer;
  std::vector<std::string> files;
};

/// Runs the steps in the current folder: side by side on all cores (oneTBB), each after those that it waits
/// for. One that fails lets those that wait for it be skipped; the others go on. `finished` is told the
/// number of each step that is over, from any thread.
std::vector<StepResult> run_steps(const std::vector<PlannedStep>& steps,
                                  const std::function<void(std::size_t)>& finished);

/// Writes what was found as a report. @returns the files written
std::vector<std::string> write_report(const Job& job, const std::vector<StepResult>& results,
                                      const std::string& path, const DisplayUnits& units);

}  // namespace jampot::tool
