#pragma once
// Jobs: many requests in one file, in the order that their files ask for, with a report.
#include <functional>
#include <map>
#include <string>
#include <utility>
#include <vector>

#include "jampot/basis/progress.hpp"
#include "jampot/files/job_toml.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {

/// How an option of a command is given.
struct StepOption {
  bool flag = false;      ///< true or false, without a value
  bool repeated = false;  ///< several values, one each time; else a list stands between commas
};

/// What a job has to know of a command.
struct StepCommand {
  std::string name;      ///< as users write it
  std::string argument;  ///< the key of what it is about: "substances", "data", "about"; empty: nothing
  std::map<std::string, StepOption> options;  ///< by name
};

/// What became of a step.
struct StepResult {
  /// How far a step came.
  enum class Outcome { waiting, done, failed, skipped };
  Outcome outcome = Outcome::waiting;  ///< how far it came
  bool wrong_request = false;          ///< of a failed one: the request or a file is wrong
  std::string message{};               ///< why it failed or was skipped
  Answer answer{};                     ///< tables, figure and notices
  std::vector<std::string> files{};    ///< files it wrote
};

/// Who knows the commands and runs them. The command-line tool is one.
class StepCommands {
 public:
  virtual ~StepCommands() = default;
  /// All commands a job can use.
  virtual const std::vector<StepCommand>& list() const = 0;
  /// Runs "COMMAND --key=value ... -- about ..." and writes its files; several at a time, from any thread.
  virtual StepResult run(const std::vector<std::string>& words) const = 0;
};

/// One step with its words and what it waits for.
struct PlannedStep {
  const JobStep* step = nullptr;         ///< as it stands in the file
  std::vector<std::string> words{};      ///< as on a command line
  std::vector<std::size_t> waits_for{};  ///< steps before it
  std::vector<std::string> reads{};      ///< files, as named
  std::vector<std::string> writes{};     ///< files it will write
};

/// The steps of a job in their order.
struct JobPlan {
  std::vector<PlannedStep> steps{};         ///< in the order of the file
  std::vector<const JobSetting*> unused{};  ///< of the mixture: no step's command knows them
};

/// What a job may do.
struct JobRules {
  bool allow_outside = false;  ///< write outside of the job's own folder
  int threads = 0;             ///< steps at a time, at most; 0 for as many as there are cores
};

/// @throws RequestError naming file, line and key for an unknown command, option or step, a flag that is
/// none, an output outside of the job's folder, over a file that is read or over another output, a report
/// with another ending, or steps that wait for each other
JobPlan plan(const Job& job, const JobRules& rules, const StepCommands& commands);

/// Runs the steps in the current folder: side by side (oneTBB), each after those that it waits for. One that
/// fails lets those that wait for it be skipped; the others go on. `finished` is told the number of each step
/// that is over, from any thread.
/// @param threads steps at a time, at most; 0 for as many as there are cores
std::vector<StepResult> run_steps(const std::vector<PlannedStep>& steps, const StepCommands& commands,
                                  const std::function<void(std::size_t)>& finished, int threads = 0);

/// Writes what was found as a report. @returns the files written
std::vector<std::string> write_report(const Job& job, const std::vector<StepResult>& results,
                                      const std::string& path, const DisplayUnits& units);

/// A job from file to answer.
struct JobOutcome {
  Answer answer{};                                       ///< of the job as a whole
  std::vector<std::pair<std::string, bool>> failures{};  ///< messages, and whether the request was wrong

  /// @throws RequestError or CalculationError with all messages, where there are any
  void throw_failures() const;
};

/// Reads, plans and (unless it is only checked) runs a job file in its own folder.
/// @param progress counts the steps, where somebody watches
/// @throws RequestError for a fault in the file, before anything is done
JobOutcome run_job(const std::string& file, bool check_only, const JobRules& rules,
                   const StepCommands& commands, Progress* progress = nullptr);

}  // namespace jampot
