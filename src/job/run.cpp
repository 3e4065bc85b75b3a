#include <fmt/format.h>
#include <oneapi/tbb/flow_graph.h>
#include <oneapi/tbb/global_control.h>

#include <deque>
#include <optional>

#include "jampot/basis/error.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/job/job.hpp"
#include "jampot/report/presentation.hpp"

namespace jampot {
std::vector<StepResult> run_steps(const std::vector<PlannedStep>& steps, const StepCommands& commands,
                                  const std::function<void(std::size_t)>& finished, int threads) {
  using namespace oneapi::tbb::flow;
  std::optional<oneapi::tbb::global_control> limit;
  if (threads > 0)
    limit.emplace(oneapi::tbb::global_control::max_allowed_parallelism, static_cast<std::size_t>(threads));
  std::vector<StepResult> results(steps.size());
  graph all;
  broadcast_node<continue_msg> start(all);
  std::deque<continue_node<continue_msg>> nodes;
  for (std::size_t k = 0; k < steps.size(); ++k) {
    nodes.emplace_back(all, [&, k](const continue_msg&) {
      for (const std::size_t before : steps[k].waits_for) {
        if (results[before].outcome == StepResult::Outcome::done) continue;
        results[k].outcome = StepResult::Outcome::skipped;
        results[k].message = fmt::format("waits for '{}', which was not done", steps[before].step->name);
      }
      if (results[k].outcome == StepResult::Outcome::waiting) results[k] = commands.run(steps[k].words);
      finished(k);
    });
  }
  for (std::size_t k = 0; k < steps.size(); ++k) {
    if (steps[k].waits_for.empty()) make_edge(start, nodes[k]);
    for (const std::size_t before : steps[k].waits_for) make_edge(nodes[before], nodes[k]);
  }
  start.try_put(continue_msg());
  all.wait_for_all();
  return results;
}

std::vector<std::string> write_report(const Job& job, const std::vector<StepResult>& results,
                                      const std::string& path, const DisplayUnits& units) {
  Report report(job.title.empty() ? "Jam Pot" : job.title);
  if (!job.note.empty()) report.text(job.note);
  for (std::size_t k = 0; k < results.size(); ++k) {
    const JobStep& step = job.steps[k];
    const StepResult& result = results[k];
    report.heading(step.heading.empty() ? step.name : step.heading);
    if (!step.note.empty()) report.text(step.note);
    if (result.outcome != StepResult::Outcome::done) {
      report.notice({"not-done", result.message});
      continue;
    }
    add_answer(report, result.answer);
  }
  std::vector<std::string> files;
  for (const auto& file : report.write(path, units)) files.push_back(file.string());
  return files;
}

}  // namespace jampot
