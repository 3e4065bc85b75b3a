// job: a whole piece of work in one file.
#include <fmt/format.h>

#include <filesystem>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/job/folder.hpp"
#include "options.hpp"
#include "progress_line.hpp"
#include "step_commands.hpp"

namespace jampot::tool {
namespace {

namespace fs = std::filesystem;

struct JobOptions {
  std::vector<std::string> files;
  bool check = false;
  JobRules rules;
  PresentationOptions presentation;
};

JobOutcome run_one(const JobOptions& options, const std::string& file) {
  const CommandLineSteps commands;
  Progress progress;
  const ProgressLine line("steps", progress);
  return run_job(file, options.check, options.rules, commands, &progress);
}

JobOutcome run_all(const JobOptions& options, const std::vector<FoundJob>& found) {
  Progress progress;
  const ProgressLine line("jobs", progress);
  return run_jobs(found, {options.check, options.rules.threads, options.rules}, &progress);
}

}  // namespace

void add_job(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<JobOptions>();
  Command& command = tool.add("job", "Run a job file: data, fits, diagrams, report");
  command
      .option("FILE", options->files, "FILE.job.toml",
              "Job files (docs/files.md), or a folder of them; several give a summary")
      .needed();
  command.flag("--check", options->check,
               "Validate it and list the steps and their files without running them");
  command.flag("--allow-outside", options->rules.allow_outside,
               "Let the job write outside of its own folder");
  command.option("--threads", options->rules.threads, "NUMBER",
                 "How many cores are used, at most 256 (default: all)");
  add_presentation(command, options->presentation, false);
  command.footer = "Example ('jampot demo' writes it):\n  jampot job jampot-demo/saltmarsh.job.toml";
  command.run = [options, &presenter] {
    const Presentation presentation = options->presentation.read();
    constexpr int most_threads = 256;
    if (options->rules.threads < 0 || options->rules.threads > most_threads)
      throw RequestError(fmt::format("--threads: expected a number from 1 to {}", most_threads));
    const std::vector<FoundJob> found = job_files(options->files);
    std::error_code failed;
    const bool one = found.size() == 1 && !fs::is_directory(options->files.front(), failed);
    const JobOutcome outcome = one ? run_one(*options, found.front().file) : run_all(*options, found);
    presenter.present(outcome.answer, presentation);
    outcome.throw_failures();
  };
}

}  // namespace jampot::tool
