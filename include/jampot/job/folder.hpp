#pragma once
// Many jobs, one after the other or side by side, and what became of them.
#include <string>
#include <vector>

#include "jampot/job/job.hpp"

namespace jampot {

/// A job that a name stands for, or a folder that should hold jobs and cannot be read.
struct FoundJob {
  std::string file;   ///< its path
  std::string fault;  ///< why it cannot be read; empty where it can
};

/// The job files that names stand for: a file is itself, a folder all *.job.toml in it and below, by name.
/// @throws RequestError for a folder without jobs
std::vector<FoundJob> job_files(const std::vector<std::string>& names);

/// How many jobs are run.
struct FolderRun {
  bool check_only = false;  ///< validate them and list their steps
  int threads = 0;          ///< cores used by all jobs together; 0 for as many as there are
  JobRules rules{};         ///< what a job may write; `threads` in them is for a job run by itself
  /// What runs one job: a program that takes the words of `jampot`. The default is the program that calls.
  std::string program = "/proc/self/exe";
};

/// Runs each job in a process of its own, as many at a time as there are cores: a fault in one does not touch
/// the others. The answer is a table with a line for each.
/// @param progress counts jobs, where given
JobOutcome run_jobs(const std::vector<FoundJob>& jobs, const FolderRun& run, Progress* progress = nullptr);

}  // namespace jampot
