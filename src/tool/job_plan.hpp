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
  std::vector<std::string> reads;      ///< files, as named
  std::vector<std::string> writes;
};

struct JobPlan {
  std::vector<PlannedStep> steps;
  std::vector<const JobSetting*> unused;  ///< of the mixture: no step's command knows them
};

/// What a job may do.
struct JobRules {
  bool allow_outside = false;  ///< write outside of the job's own folder
};

/// @throws RequestError naming file, line and key for an unknown command, option or step, a flag that is
/// none, an output outside of the job's folder, over a file that is read or over another output, a report
/// with another ending, or steps that wait for each other
JobPlan plan(const Job& job, const JobRules& rules);

}  // namespace jampot::tool
