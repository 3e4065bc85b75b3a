// job: a whole piece of work in one file.
#include <fmt/format.h>
#include <oneapi/tbb/global_control.h>

#include <atomic>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <optional>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"
#include "job.hpp"
#include "job_folder.hpp"
#include "job_run.hpp"
#include "options.hpp"
#include "progress_line.hpp"

namespace jampot::tool {
namespace {

namespace fs = std::filesystem;

struct JobOptions {
  std::vector<std::string> files;
  bool check = false;
  JobRules rules;
  int threads = 0;
  PresentationOptions presentation;
};

const char* word_of(StepResult::Outcome outcome) {
  switch (outcome) {
    case StepResult::Outcome::done:
      return "done";
    case StepResult::Outcome::failed:
      return "failed";
    case StepResult::Outcome::skipped:
      return "skipped";
    default:
      return "waiting";
  }
}

// The folder of the job, in which its files are read and written, while it lives.
class InFolder {
 public:
  explicit InFolder(const fs::path& folder) : before_(fs::current_path()) {
    if (!folder.empty()) fs::current_path(folder);
  }
  ~InFolder() {
    std::error_code ignored;
    fs::current_path(before_, ignored);
  }
  InFolder(const InFolder&) = delete;
  InFolder& operator=(const InFolder&) = delete;

 private:
  fs::path before_;
};

}  // namespace

JobOutcome run_job(const std::string& file, bool check_only, const JobRules& rules) {
  JobOutcome outcome;
  const Job job = parse_job(read_file(file), file);
  const auto [steps, unused] = plan(job, rules);
  Answer& answer = outcome.answer;
  for (const JobSetting* setting : unused)
    answer.notices.add(
        "mixture-key-unused",
        fmt::format("'{}' of the mixture (line {}) is used by no step: each has substances of its "
                    "own or a command that does not know it",
                    setting->key, setting->line));
  *answer.json = plain_header("job");
  (*answer.json)["title"] = job.title;
  (*answer.json)["steps"] = Json::array();
  Table table{job.title.empty() ? "Steps" : job.title,
              {{"step"}, {"command"}, {"waits for"}, {"outcome"}, {"notices"}, {"wrote"}},
              {}};
  if (check_only) table.columns = {{"step"}, {"command"}, {"waits for"}, {"reads"}, {"writes"}};
  std::vector<StepResult> results(steps.size());
  const DisplayUnits units = job.units.empty() ? DisplayUnits{} : parse_display_units(job.units);
  const InFolder in(fs::path(file).parent_path());
  std::vector<std::string> reports;
  if (!check_only) {
    Progress progress;
    const ProgressLine line("steps", progress);
    progress.expected = static_cast<long>(steps.size());
    results = run_steps(steps, [&](std::size_t) { ++progress.done; });
    for (const std::string& path : job.reports) {
      for (std::string& written : write_report(job, results, path, units))
        reports.push_back(std::move(written));
    }
  }
  for (std::size_t k = 0; k < steps.size(); ++k) {
    const JobStep& step = *steps[k].step;
    const StepResult& result = results[k];
    std::vector<std::string> before;
    for (const std::size_t other : steps[k].waits_for) before.push_back(job.steps[other].name);
    if (check_only) {
      table.rows.push_back({step.name, step.command, joined(before, ", "), joined(steps[k].reads, ", "),
                            joined(steps[k].writes, ", ")});
    } else {
      table.rows.push_back(
          {step.name, step.command, joined(before, ", "), std::string(word_of(result.outcome)),
           std::to_string(std::distance(result.answer.notices.begin(), result.answer.notices.end())),
           joined(result.files, ", ")});
    }
    Json json{{"name", step.name}, {"command", step.command}, {"line", step.line}, {"waits_for", before}};
    json["outcome"] = check_only ? "planned" : word_of(result.outcome);
    json["reads"] = steps[k].reads;
    json["files"] = check_only ? steps[k].writes : result.files;
    if (!result.message.empty()) json["message"] = result.message;
    if (result.outcome == StepResult::Outcome::done) {
      json["result"] = *result.answer.json;
      json["result"]["notices"] = to_json(result.answer.notices);
    }
    (*answer.json)["steps"].push_back(std::move(json));
    for (const Notice& notice : result.answer.notices)
      answer.notices.add(notice.code, step.name + ": " + notice.text);
    if (result.outcome != StepResult::Outcome::failed) continue;
    const std::string message =
        fmt::format("{}, line {}, step '{}': {}", file, step.line, step.name, result.message);
    outcome.failures.push_back({message, result.wrong_request});
  }
  for (const std::string& path : reports) answer.lines.push_back("wrote " + path);
  if (check_only && !job.reports.empty()) answer.lines.push_back("report: " + joined(job.reports, ", "));
  (*answer.json)["files"] = check_only ? job.reports : reports;
  answer.tables.push_back(std::move(table));
  return outcome;
}

void add_job(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<JobOptions>();
  CLI::App* command =
      tool.add_subcommand("job", "A whole piece of work in one file: data, fits, diagrams, report");
  command
      ->add_option(
          "FILE", options->files,
          "What is to be done (docs/files.md), in the folder of the file; several, or a folder of them: "
          "a summary")
      ->required()
      ->type_name("FILE.job.toml");
  command->add_flag("--check", options->check,
                    "Validate it and list the steps and their files without running them");
  command->add_flag("--allow-outside", options->rules.allow_outside,
                    "Let the job write outside of its own folder");
  command->add_option("--threads", options->threads, "How many cores are used, at most 256 (default: all)")
      ->type_name("NUMBER");
  add_presentation(*command, options->presentation, false);
  command->footer("Example ('jampot demo' writes it):\n  jampot job jampot-demo/saltmarsh.job.toml");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    constexpr int most_threads = 256;
    if (options->threads < 0 || options->threads > most_threads)
      throw RequestError(fmt::format("--threads: expected a number from 1 to {}", most_threads));
    const std::vector<FoundJob> found = job_files(options->files);
    std::optional<oneapi::tbb::global_control> limit;
    if (options->threads > 0)
      limit.emplace(oneapi::tbb::global_control::max_allowed_parallelism,
                    static_cast<std::size_t>(options->threads));
    std::error_code failed;
    const bool one = found.size() == 1 && !fs::is_directory(options->files.front(), failed);
    const JobOutcome outcome = one ? run_job(found.front().file, options->check, options->rules)
                                   : run_jobs(found, options->check, options->threads, options->rules);
    presenter.present(outcome.answer, presentation);
    outcome.throw_failures();
  });
}

void JobOutcome::throw_failures() const {
  if (failures.empty()) return;
  std::vector<std::string> messages;
  bool wrong = false;
  for (const auto& [message, wrong_request] : failures) {
    messages.push_back(message);
    wrong = wrong || wrong_request;
  }
  const std::string all = joined(messages, "\njampot: ");
  if (wrong) throw RequestError(all);
  throw CalculationError(all);
}

}  // namespace jampot::tool
