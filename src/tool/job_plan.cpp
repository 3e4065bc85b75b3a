#include "job_plan.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot::tool {
namespace {

class NoPresenter final : public Presenter {
  void present(const Answer&, const Presentation&) override {}
};

// What a command is about, by the placeholder of its argument.
std::string key_of_argument(const std::string& placeholder) {
  if (placeholder == "MIX") return "substances";
  return placeholder == "FILE" ? "data" : "about";
}

class Planner {
 public:
  explicit Planner(const Job& job) : job_(job), tool_("jampot") { add_calculations(tool_, nobody_); }

  JobPlan run() {
    for (const JobStep& step : job_.steps) {
      mixture_used_.push_back(false);
      steps_.push_back({&step, words(step), {}});
    }
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

  std::vector<std::string> words(const JobStep& step) {
    std::vector<std::string> commands;
    CLI::App* command = nullptr;
    for (CLI::App* known : tool_.get_subcommands({})) {
      commands.push_back(known->get_name());
      if (known->get_name() == step.command) command = known;
    }
    if (command == nullptr)
      fail(step.line, fmt::format("'{}' is not a command that can be a step; there are {}.{}", step.command,
                                  joined(commands, ", "), did_you_mean(step.command, commands)));
    std::map<std::string, const CLI::Option*> options;
    std::string argument;
    for (const CLI::Option* option : command->get_options()) {
      for (const std::string& name : option->get_lnames()) {
        if (name != "help" && name != "json") options[name] = option;
      }
      if (option->get_positional()) argument = key_of_argument(option->get_name(true));
    }
    std::vector<std::string> keys;
    for (const auto& [name, option] : options) keys.push_back(name);
    if (!argument.empty()) keys.push_back(argument);

    std::vector<std::string> result{step.command}, about;
    std::set<std::string> said;
    const auto say = [&](const JobSetting& setting) {
      said.insert(setting.key);
      if (setting.key == argument) {
        about = setting.values;
        return;
      }
      const bool is_flag = options.at(setting.key)->get_expected_max() == 0;
      if (setting.flag != is_flag)
        fail(setting.line, is_flag ? fmt::format("'{}' is either true or false", setting.key)
                                   : fmt::format("'{}' needs a value", setting.key));
      if (is_flag && setting.given) result.push_back("--" + setting.key);
      for (const std::string& value : setting.values)
        result.push_back(fmt::format("--{}={}", setting.key, value));
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

  static const std::vector<std::string>& writing_keys() {
    static const std::vector<std::string> keys{"out", "figure", "csv", "xlsx", "report"};
    return keys;
  }
  static bool writes(const JobSetting& setting) {
    return std::find(writing_keys().begin(), writing_keys().end(), setting.key) != writing_keys().end();
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
        if (writes(setting)) continue;
        for (const std::string& value : setting.values) {
          if (const auto writer = writer_of(value); writer && *writer != k) before.insert(*writer);
        }
      }
    };
    read(step.settings);
    if (mixture_used_[k]) read(job_.mixture);
    steps_[k].waits_for.assign(before.begin(), before.end());
    for (const JobSetting& setting : step.settings) {
      if (!writes(setting)) continue;
      for (const std::string& value : setting.values) {
        const auto writer = writer_of(value);
        if (writer && *writer != k)
          fail(setting.line, fmt::format("'{}' is written by the step '{}' too", value, names[*writer]));
      }
    }
  }

  // "fit.pairs.toml" also within "nrtl, fit.pairs.toml", a list of models and files.
  std::optional<std::size_t> writer_of(const std::string& value) const {
    const std::vector<std::string> pieces = split(value, ',');
    for (std::size_t k = 0; k < job_.steps.size(); ++k) {
      for (const JobSetting& setting : job_.steps[k].settings) {
        if (!writes(setting)) continue;
        for (const std::string& written : setting.values) {
          if (value == written || std::find(pieces.begin(), pieces.end(), written) != pieces.end()) return k;
        }
      }
    }
    return std::nullopt;
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
  NoPresenter nobody_;
  CLI::App tool_;
  std::vector<PlannedStep> steps_;
  std::vector<bool> mixture_used_;  ///< by each step
  std::set<std::string> mixture_keys_used_;
  std::vector<bool> free_of_circles_;  ///< steps whose ways back are known to end
};

}  // namespace

JobPlan plan(const Job& job) {
  return Planner(job).run();
}

}  // namespace jampot::tool
