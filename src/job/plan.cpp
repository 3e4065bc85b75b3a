#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/job/file_use.hpp"
#include "jampot/job/job.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/phase/vapour_models.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

class Planner {
 public:
  Planner(const Job& job, const JobRules& rules, const StepCommands& commands)
      : job_(job), rules_(rules), commands_(commands), folder_(fs::path(job.file).parent_path()) {}

  JobPlan run() {
    for (const JobStep& step : job_.steps) {
      mixture_used_.push_back(false);
      steps_.push_back({&step, words(step), {}, {}, {}});
    }
    collect_outputs();
    for (std::size_t k = 0; k < steps_.size(); ++k) wait(k);
    free_of_circles_.assign(steps_.size(), false);
    for (std::size_t k = 0; k < steps_.size(); ++k) {
      std::vector<std::size_t> way;
      check_circle(k, way);
    }
    JobPlan plan;
    plan.steps = std::move(steps_);
    for (const JobSetting& setting : job_.mixture) {
      if (!mixture_keys_used_.contains(setting.key)) plan.unused.push_back(&setting);
    }
    return plan;
  }

 private:
  [[noreturn]] void fail(int line, const std::string& what) const {
    throw RequestError(Place{job_.file, line, {}}, what);
  }

  const StepCommand& command_of(const JobStep& step) const {
    std::vector<std::string> names;
    for (const StepCommand& known : commands_.list()) {
      if (known.name == step.command) return known;
      names.push_back(known.name);
    }
    fail(step.line, fmt::format("'{}' is not a command that can be a step; there are {}.{}", step.command,
                                joined(names, ", "), did_you_mean(step.command, names)));
  }

  std::vector<std::string> words(const JobStep& step) {
    const auto& [name, argument, options] = command_of(step);
    std::vector<std::string> keys;
    for (const auto& [key, option] : options) keys.push_back(key);
    if (!argument.empty()) keys.push_back(argument);

    std::vector<std::string> result{step.command}, about;
    std::set<std::string> said;
    const auto say = [&, &argument = argument, &options = options](const JobSetting& setting) {
      said.insert(setting.key);
      if (setting.key == argument) {
        about = setting.values;
        return;
      }
      const auto& [is_flag, repeated] = options.at(setting.key);
      if (setting.flag != is_flag)
        fail(setting.line, is_flag ? fmt::format("'{}' is either true or false", setting.key)
                                   : fmt::format("'{}' needs a value", setting.key));
      if (is_flag && setting.given) result.push_back("--" + setting.key);
      // A list of an option that is given once is what stands between commas on a command line.
      const std::vector<std::string> values =
          repeated || is_flag ? setting.values : std::vector<std::string>{joined(setting.values, ", ")};
      for (const std::string& value : values) {
        check_value(setting, value);
        result.push_back(fmt::format("--{}={}", setting.key, value));
      }
    };
    for (const JobSetting& setting : step.settings) {
      if (setting.key != argument && !options.contains(setting.key))
        fail(setting.line, fmt::format("'{}' is not a key of a step with {}; there are {}.{}", setting.key,
                                       step.command, joined(keys, ", "), did_you_mean(setting.key, keys)));
      say(setting);
    }
    // The mixture of the job, unless the step has substances of its own; what a command has no use for (a
    // vapour in a diagram of liquids) is left out; what none of them has a use for is said.
    if (argument == "substances" && !said.contains("substances")) {
      mixture_used_.back() = true;
      for (const JobSetting& setting : job_.mixture) {
        const bool known = setting.key == argument || options.contains(setting.key);
        if (known) mixture_keys_used_.insert(setting.key);
        if (known && !said.contains(setting.key)) say(setting);
      }
    }
    if (!job_.units.empty() && options.contains("units") && !said.contains("units"))
      result.push_back("--units=" + job_.units);
    if (!about.empty()) {
      result.emplace_back("--");
      result.insert(result.end(), about.begin(), about.end());
    }
    return result;
  }

  // Reads a value as its command will, where that needs nothing but the value: conditions, models, units.
  void check_value(const JobSetting& setting, const std::string& value) const {
    const std::string& key = setting.key;
    try {
      if (key == "pressure" || key == "feed-pressure") parse_quantities(value, Dimension::pressure);
      if (key == "feed-temperature" || (key == "temperature" && !value.empty()))
        parse_quantities(value, Dimension::temperature);
      if (key == "units") parse_display_units(value);
      if (key == "basis") parse_basis(value);
      if (key == "missing-pairs") parse_missing_pairs(value);
      if (key == "doubtful-groups") parse_doubtful_groups(value);
      if (key == "objective") parse_objective(value);
      if (key == "liquid") demand_word(key, value, liquid_words());
      if (key == "vapour") demand_word(key, value, vapour_model_names());
      if (key == "model") {
        for (const std::string& model : split(value, ',')) terms_for_fit(model);
      }
    } catch (const RequestError& error) {
      fail(setting.line, fmt::format("{}: {}", key, error.what()));
    }
  }

  static std::vector<std::string> liquid_words() {
    std::vector<std::string> words = liquid_model_names();
    words.emplace_back("eos");
    for (const std::string& name : equation_names()) words.push_back(name);
    return words;
  }

  static void demand_word(const std::string& key, const std::string& value,
                          const std::vector<std::string>& words) {
    if (std::find(words.begin(), words.end(), value) == words.end())
      throw RequestError(fmt::format("'{}' is not a {} model; there are {}.{}", value, key,
                                     joined(words, ", "), did_you_mean(value, words)));
  }

  // A file by its whole name, links followed, so that "f", "./f" and a link to it are one.
  std::string whole(const std::string& name) const {
    std::error_code failed;
    const fs::path full = fs::absolute(folder_ / name, failed);
    const fs::path path = fs::weakly_canonical(full, failed);
    return (failed ? full.lexically_normal() : path).string();
  }

  bool inside(const std::string& whole_name) const {
    std::string folder = whole(".");
    if (folder.size() > 1 && folder.ends_with('/')) folder.pop_back();
    return folder == "/" || whole_name.starts_with(folder + "/");
  }

  // Claims a file for a writer: inside the folder, and nobody else's.
  void claim(const std::string& name, int line, const std::string& writer) {
    const std::string file = whole(name);
    if (!rules_.allow_outside && !inside(file))
      fail(line, fmt::format("'{}' lies outside of the folder of the job, where a job does not write; "
                             "`allow-outside` lets it",
                             name));
    if (file == whole(fs::path(job_.file).filename().string()))
      fail(line, fmt::format("'{}' is the job itself and would be overwritten", name));
    const auto [taken, is_new] = writers_.emplace(file, writer);
    if (!is_new) fail(line, fmt::format("'{}' is written by {} too", name, taken->second));
  }

  void collect_outputs() {
    for (std::size_t k = 0; k < steps_.size(); ++k) {
      const JobStep& step = *steps_[k].step;
      for (const JobSetting& setting : step.settings) {
        if (!writes_file(setting.key)) continue;
        for (const std::string& name : setting.values) {
          claim(name, setting.line, fmt::format("the step '{}'", step.name));
          outputs_[whole(name)] = k;
          steps_[k].writes.push_back(name);
        }
      }
    }
    for (const std::string& report : job_.reports) {
      const std::string ending = lower_case(fs::path(report).extension().string());
      if (ending != ".md" && ending != ".html")
        fail(job_.report_line,
             fmt::format("'{}': the file name of a report must end in .md or .html", report));
      claim(report, job_.report_line, "a report");
      if (ending != ".md") continue;
      for (std::size_t k = 1; k <= steps_.size(); ++k)  // a figure at most of each step
        claim(report_figure(report, static_cast<int>(k)).string(), job_.report_line, "a report");
    }
  }

  // A step waits for those that it names and those that write a file which it reads.
  void wait(std::size_t k) {
    const JobStep& step = *steps_[k].step;
    std::set<std::size_t> before;
    std::vector<std::string> names;
    for (const JobStep& other : job_.steps) names.push_back(other.name);
    for (const std::string& name : step.after) {
      const auto found = std::find(names.begin(), names.end(), name);
      if (found == names.end())
        fail(step.line, fmt::format("'{}' waits for '{}', which is not a step; there are {}.{}", step.name,
                                    name, joined(names, ", "), did_you_mean(name, names)));
      before.insert(static_cast<std::size_t>(found - names.begin()));
    }
    const auto read = [&](const std::vector<JobSetting>& settings) {
      for (const JobSetting& setting : settings) {
        if (writes_file(setting.key)) continue;
        for (const std::string& value : setting.values) {
          for (const std::string& name : possible_files(value)) note_reading(k, name, setting.line, before);
        }
      }
    };
    read(step.settings);
    if (mixture_used_[k]) read(job_.mixture);
    steps_[k].waits_for.assign(before.begin(), before.end());
  }

  // Of a word that may name a file: the file is read if a step writes it or if it is there.
  void note_reading(std::size_t k, const std::string& name, int line, std::set<std::size_t>& before) {
    const std::string file = whole(name);
    const auto writer = outputs_.find(file);
    std::error_code failed;
    if (writer == outputs_.end() && !fs::is_regular_file(file, failed)) return;
    if (writer != outputs_.end() && writer->second == k)
      fail(line, fmt::format("'{}' is read by the step '{}' and would be overwritten by it; give the output "
                             "another name",
                             name, steps_[k].step->name));
    if (writers_.contains(file) && writer == outputs_.end())
      fail(line, fmt::format("'{}' is read by the step '{}' and would be overwritten by a report", name,
                             steps_[k].step->name));
    if (writer != outputs_.end()) before.insert(writer->second);
    if (std::find(steps_[k].reads.begin(), steps_[k].reads.end(), name) == steps_[k].reads.end())
      steps_[k].reads.push_back(name);
    if (name.ends_with(".mixture.toml")) {
      for (const std::string& other : named_in_mixture(name, (folder_ / name).string()))
        note_reading(k, other, line, before);
    }
  }

  void check_circle(std::size_t k, std::vector<std::size_t>& way) {
    if (free_of_circles_[k]) return;
    if (std::find(way.begin(), way.end(), k) != way.end())
      fail(steps_[k].step->line, fmt::format("the step '{}' waits for itself by way of '{}'",
                                             steps_[k].step->name, steps_[way.back()].step->name));
    way.push_back(k);
    for (const std::size_t before : steps_[k].waits_for) check_circle(before, way);
    way.pop_back();
    free_of_circles_[k] = true;
  }

  const Job& job_;
  const JobRules& rules_;
  const StepCommands& commands_;
  fs::path folder_;
  std::vector<PlannedStep> steps_;
  std::vector<bool> mixture_used_;  ///< by each step
  std::set<std::string> mixture_keys_used_;
  std::map<std::string, std::string> writers_;  ///< by whole name: who writes it
  std::map<std::string, std::size_t> outputs_;  ///< of steps
  std::vector<bool> free_of_circles_;           ///< steps whose ways back are known to end
};

}  // namespace

JobPlan plan(const Job& job, const JobRules& rules, const StepCommands& commands) {
  return Planner(job, rules, commands).run();
}

}  // namespace jampot
