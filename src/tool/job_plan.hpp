#pragma once
// A job as command lines, with what each waits for.
#include <string>
#include <vector>

#include "jampot/files/job_toml.hpp"

namespace jampot::tool {

struct PlannedStep {
  const JobStep* step = nullptr;
  std::vector<std::string> words;      ///< as on a command line
  std::vector<std::size_t> waits_for;  ///< steps before it
};

struct JobPlan {
  std::vector<PlannedStep> steps;
  std::vector<const JobSetting*> unused;  ///< of the mixture: no step's command knows them
};

/// @throws RequestError naming file, line and key for an unknown command, option or step, a flag that is
/// none, two steps that write one file, or steps that wait for each other
JobPlan plan(const Job& job);

}  // namespace jampot::tool
