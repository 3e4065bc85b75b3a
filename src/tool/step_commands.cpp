#include "step_commands.hpp"

#include "commands.hpp"
#include "fault.hpp"
#include "parser.hpp"

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

StepCommand description_of(const Command& command) {
  StepCommand step{command.name, {}, {}};
  for (const Option& option : command.options) {
    if (option.is_argument())
      step.argument = key_of_argument(option.name);
    else if (option.name != "--json" && option.name != "--jsonl")
      step.options[option.plain_name()] = {option.is_flag(), option.is_repeated};
    for (const std::string& alias : option.aliases)
      step.options[alias.substr(2)] = {option.is_flag(), option.is_repeated};
  }
  return step;
}

}  // namespace

CommandLineSteps::CommandLineSteps() {
  Commands commands;
  NoPresenter nobody;
  add_calculations(commands, nobody);
  for (const Command& command : commands.list) list_.push_back(description_of(command));
}

StepResult CommandLineSteps::run(const std::vector<std::string>& words) const {
  StepResult result;
  Commands commands;
  Collector collector(result);
  add_calculations(commands, collector, words.empty() ? "" : words.front());
  try {
    Parser(commands).run(words);
    result.outcome = StepResult::Outcome::done;
  } catch (...) {
    const Fault fault = fault_of(std::current_exception());
    result.outcome = StepResult::Outcome::failed;
    result.message = fault.message.substr(0, fault.message.find('\n'));  // without the way to --help
    result.wrong_request = fault.status == wrong_request;
  }
  return result;
}

}  // namespace jampot::tool
