#include "jampot/job/folder.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "../basis/side_by_side.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/program.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

struct Summary {
  int done = 0, failed = 0, skipped = 0, planned = 0;
  std::size_t notices = 0;
  std::string outcome, message;
  bool wrong_request = false;
  Json title;
};

// What a job run by itself says of its own.
Summary summary_of(const ProgramOutput& output) {
  Summary summary;
  const Json answer = parsed_json(output.out);
  if (!answer.is_discarded()) {
    summary.title = answer["title"];
    summary.notices = answer["notices"].size();
    for (const Json& step : answer["steps"]) {
      const std::string outcome = step["outcome"];
      ++(outcome == "done"      ? summary.done
         : outcome == "failed"  ? summary.failed
         : outcome == "planned" ? summary.planned
                                : summary.skipped);
    }
  }
  summary.wrong_request = output.status == 2;
  if (output.interrupted || output.status != 0) {
    for (const std::string& line : split(output.said, '\n')) {
      if (!line.starts_with("jampot: ")) continue;
      summary.message = line.substr(8);
      break;
    }
    if (output.interrupted) summary.message = "ended by a signal";
  }
  summary.outcome = output.status == 0 ? (summary.planned > 0 ? "planned" : "done") : "failed";
  return summary;
}

// Walks down by hand: a folder that cannot be read is a fault of its own and ends nothing else.
void find_jobs(const fs::path& folder, std::vector<FoundJob>& found) {
  std::error_code failed;
  const fs::directory_iterator entries(folder, failed);
  if (failed) {
    found.push_back({folder.string(), "the folder cannot be read: " + system_reason(failed.value())});
    return;
  }
  std::vector<fs::path> below;
  for (const auto& entry : entries) {
    if (entry.is_directory(failed) && !entry.is_symlink(failed)) below.push_back(entry.path());
    if (entry.is_regular_file(failed) && entry.path().string().ends_with(".job.toml"))
      found.push_back({entry.path().string(), {}});
  }
  for (const fs::path& path : below) find_jobs(path, found);
}

}  // namespace

std::vector<FoundJob> job_files(const std::vector<std::string>& names) {
  std::vector<FoundJob> found;
  for (const std::string& name : names) {
    std::error_code failed;
    if (!fs::is_directory(name, failed)) {
      found.push_back({name, {}});
      continue;
    }
    const std::size_t before = found.size();
    find_jobs(name, found);
    if (found.size() == before)
      throw RequestError(fmt::format("{}: there is no *.job.toml in this folder", name));
    std::sort(found.begin() + static_cast<std::ptrdiff_t>(before), found.end(),
              [](const FoundJob& a, const FoundJob& b) { return a.file < b.file; });
  }
  return found;
}

JobOutcome run_jobs(const std::vector<FoundJob>& jobs, const FolderRun& run, Progress* progress) {
  std::vector<Summary> summaries(jobs.size());
  const std::size_t threads = run.threads > 0 ? static_cast<std::size_t>(run.threads) : cores();
  const std::size_t at_once = std::min(threads, jobs.size());
  if (progress != nullptr) progress->expected = static_cast<long>(jobs.size());
  const auto one = [&](std::size_t k) {
    if (jobs[k].fault.empty()) {
      std::vector<std::string> words{run.program, "job", "--json", "--threads",
                                     std::to_string(std::max<std::size_t>(1, threads / at_once))};
      if (run.check_only) words.emplace_back("--check");
      if (run.rules.allow_outside) words.emplace_back("--allow-outside");
      words.emplace_back("--");  // the name of a file may begin with a dash
      words.push_back(jobs[k].file);
      summaries[k] = summary_of(run_program(words));
    } else {
      summaries[k].outcome = "failed";
      summaries[k].message = jobs[k].fault;
    }
    if (progress != nullptr) ++progress->done;
  };
  for_each_number(jobs.size(), one, at_once);
  JobOutcome outcome;
  Answer& answer = outcome.answer;
  *answer.json = plain_header("job");
  (*answer.json)["jobs"] = Json::array();
  Table table{jobs.size() == 1 ? "1 job" : fmt::format("{} jobs", jobs.size()),
              {{"job"}, {"outcome"}, {"steps done"}, {"failed"}, {"skipped"}, {"notices"}, {"first fault"}},
              {}};
  for (std::size_t k = 0; k < jobs.size(); ++k) {
    const Summary& s = summaries[k];
    table.rows.push_back({jobs[k].file, s.outcome, std::to_string(s.done), std::to_string(s.failed),
                          std::to_string(s.skipped), std::to_string(s.notices), s.message});
    (*answer.json)["jobs"].push_back({{"file", jobs[k].file},
                                      {"title", s.title},
                                      {"outcome", s.outcome},
                                      {"steps_done", s.done},
                                      {"steps_failed", s.failed},
                                      {"steps_skipped", s.skipped},
                                      {"steps_planned", s.planned},
                                      {"notices", s.notices},
                                      {"message", s.message}});
    if (s.outcome != "failed") continue;
    const bool names_file = s.message.starts_with(jobs[k].file);
    outcome.failures.push_back(
        {names_file ? s.message : fmt::format("{}: {}", jobs[k].file, s.message), s.wrong_request});
  }
  answer.tables.push_back(std::move(table));
  return outcome;
}

}  // namespace jampot
