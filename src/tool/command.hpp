#pragma once
// The commands of the tool as a table: names, options, what they mean and where their values go.
#include <deque>
#include <functional>
#include <string>
#include <variant>
#include <vector>

namespace jampot::tool {

/// An option (--name VALUE) or an argument (a name without dashes) of a command.
struct Option {
  using Target = std::variant<bool*, int*, double*, std::string*, std::vector<std::string>*>;

  std::string name;                  ///< "--feed"; of an argument as it is shown, "MIX"
  Target into;                       ///< where its value goes
  std::string type;                  ///< what its value is called, "QUANTITY"; of a flag empty
  std::string help;                  ///< one sentence
  bool is_needed = false;            ///< it must be given
  bool is_repeated = false;          ///< it may be given several times, one value each
  int least = 1, most = 1;           ///< number of values; `most` is negative where there is no limit
  std::vector<std::string> given{};  ///< as typed, once the words are read

  std::vector<std::string> aliases{};  ///< further names, "--temperature"

  bool is_flag() const { return std::holds_alternative<bool*>(into); }
  bool is_argument() const { return name.front() != '-'; }
  /// Without dashes.
  std::string plain_name() const { return is_argument() ? name : name.substr(2); }

  Option& needed();
  Option& repeated();
  Option& between(int fewest, int highest);
};

/// A command. Pointers to its options stay valid.
class Command {
 public:
  Command(std::string command_name, std::string command_about)
      : name(std::move(command_name)), about(std::move(command_about)) {}

  std::string name, about, footer{};
  std::deque<Option> options{};
  std::function<void()> expand{};  ///< files among the words become what they say; before `run`
  std::function<void()> run{};     ///< does it

  /// @param option_name one name, or several parted by commas
  template <class Value>
  Option& option(std::string option_name, Value& into, std::string type, std::string help) {
    return added({std::move(option_name), &into, std::move(type), std::move(help)});
  }
  Option& flag(std::string option_name, bool& into, std::string help);
  /// Nothing where it has none of this name.
  const Option* find(const std::string& option_name) const;

 private:
  Option& added(Option option);
};

/// All commands. Pointers to them stay valid.
struct Commands {
  std::string about{}, footer{};
  std::deque<Command> list{};

  Command& add(std::string name, std::string command_about);
};

}  // namespace jampot::tool
