#include "jampot/job/job.hpp"

#include <fmt/format.h>

#include <filesystem>
#include <nlohmann/json.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

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

JobOutcome run_job(const std::string& file, bool check_only, const JobRules& rules,
                   const StepCommands& commands, Progress* progress) {
  JobOutcome outcome;
  const Job job = parse_job(read_file(file), file);
  const auto [steps, unused] = plan(job, rules, commands);
  Answer& answer = outcome.answer;
  for (const JobSetting* setting : unused)
    answer.notices.add("mixture-key-unused",
                       fmt::format("'{}' of the mixture (line {}) is not used by any step: each step has its "
                                   "own substances or a command without this option",
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
    if (progress != nullptr) progress->expected = static_cast<long>(steps.size());
    results = run_steps(
        steps, commands,
        [&](std::size_t) {
          if (progress != nullptr) ++progress->done;
        },
        rules.threads);
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

}  // namespace jampot
