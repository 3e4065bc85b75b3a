#include "step_commands.hpp"

#include "commands.hpp"
#include "fault.hpp"

namespace jampot::tool {
namespace {

class NoPresenter final : public Presenter {
  void show(const Answer&, const Presentation&) override {}
};

// Writes the files of an answer and keeps it.
class Collector final : public Presenter {
 public:
  explicit Collector(StepResult& result) : result_(result) {}
  bool shows_progress() const override { return false; }  // the job has a line of its own

 private:
  void show(const Answer& answer, const Presentation& presentation) override {
    result_.files = write_files(answer, presentation);
    result_.answer = answer;
  }

  StepResult& result_;
};

// What a command is about, by the placeholder of its argument.
std::string key_of_argument(const std::string& placeholder) {
  if (placeholder == "MIX") return "substances";
  return placeholder == "FILE" ? "data" : "about";
}

StepCommand description_of(const CLI::App& command) {
  StepCommand step{command.get_name(), {}, {}};
  for (const CLI::Option* option : command.get_options()) {
    for (const std::string& name : option->get_lnames()) {
      if (name != "help" && name != "json")
        step.options[name] = {option->get_expected_max() == 0,
                              option->get_multi_option_policy() == CLI::MultiOptionPolicy::TakeAll};
    }
    if (option->get_positional()) step.argument = key_of_argument(option->get_name(true));
  }
  return step;
}

}  // namespace

CommandLineSteps::CommandLineSteps() {
  CLI::App tool("jampot");
  NoPresenter nobody;
  add_calculations(tool, nobody);
  for (const CLI::App* command : tool.get_subcommands({})) list_.push_back(description_of(*command));
}

StepResult CommandLineSteps::run(const std::vector<std::string>& words) const {
  StepResult result;
  CLI::App tool("jampot");
  Collector collector(result);
  add_calculations(tool, collector);
  tool.require_subcommand(1);
  try {
    tool.parse(std::vector<std::string>(words.rbegin(), words.rend()));  // as CLI11 wants them
    result.outcome = StepResult::Outcome::done;
  } catch (...) {
    const Fault fault = fault_of(std::current_exception(), tool, words);
    result.outcome = StepResult::Outcome::failed;
    result.message = fault.message.substr(0, fault.message.find('\n'));  // without the way to --help
    result.wrong_request = fault.status == wrong_request;
  }
  return result;
}

}  // namespace jampot::tool
