#pragma once
// Many jobs, one after the other or side by side, and what became of them.
#include <string>
#include <vector>

#include "job.hpp"

namespace jampot::tool {

/// The job files that names stand for: a file is itself, a folder all *.job.toml in it and below, by name.
/// @throws RequestError for a name that is neither, or a folder without jobs
std::vector<std::string> job_files(const std::vector<std::string>& names);

/// Runs each job in a process of its own, as many at a time as there are cores: a fault in one does not touch
/// the others. The answer is a table with a line for each.
JobOutcome run_jobs(const std::vector<std::string>& files, bool check_only, int threads);

}  // namespace jampot::tool
