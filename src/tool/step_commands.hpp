#pragma once
// The commands of the tool as steps of jobs.
#include "jampot/job/job.hpp"

namespace jampot::tool {

/// Reads what there is from the description of the command line itself, so that a job knows every command.
class CommandLineSteps final : public StepCommands {
 public:
  CommandLineSteps();
  const std::vector<StepCommand>& list() const override { return list_; }
  StepResult run(const std::vector<std::string>& words) const override;

 private:
  std::vector<StepCommand> list_;
};

}  // namespace jampot::tool
