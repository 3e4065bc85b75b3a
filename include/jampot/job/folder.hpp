#pragma once
// Many jobs, one after the other or side by side, and what became of them.
#include <string>
#include <vector>

#include "jampot/job/job.hpp"

namespace jampot::tool {

/// A job that a name stands for, or a folder that should hold jobs and cannot be read.
struct FoundJob {
  std::string file;
  std::string fault;  ///< why it cannot be read; empty where it can
};

/// The job files that names stand for: a file is itself, a folder all *.job.toml in it and below, by name.
/// @throws RequestError for a folder without jobs
std::vector<FoundJob> job_files(const std::vector<std::string>& names);

/// Runs each job in a process of its own, as many at a time as there are cores: a fault in one does not touch
/// the others. The answer is a table with a line for each.
JobOutcome run_jobs(const std::vector<FoundJob>& jobs, bool check_only, int threads, const JobRules& rules);

}  // namespace jampot::tool
