#include "command_line.hpp"

#include <fmt/format.h>

#include "commands.hpp"
#include "fault.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/job/file_use.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/version.hpp"
#include "manual.hpp"
#include "parser.hpp"
#include "screen.hpp"

namespace jampot::tool {
namespace {

// The gate for what is typed: readable, one line, and of a length that somebody may have meant.
void demand_words(const std::vector<std::string>& words) {
  constexpr std::size_t longest = 4000, most = 1000;
  if (words.size() > most)
    throw RequestError(fmt::format("{} words are too many; at most {} are read", words.size(), most));
  for (std::size_t k = 0; k < words.size(); ++k) {
    const std::string& word = words[k];
    const std::string why =
        word.size() > longest ? fmt::format("it has {} characters; at most {} are read", word.size(), longest)
                              : unreadable(word, Lines::one);
    if (!why.empty())
      throw RequestError(
          fmt::format("word {} of the command line, '{}': {}", k + 1, shortened(word, 40), why));
  }
}

FileUse file_use(const Command& command) {
  FileUse use;
  for (const Option& option : command.options) {
    const bool writes = !option.is_argument() && writes_file(option.plain_name());
    for (const std::string& value : option.given) {
      const std::vector<std::string> files = writes ? std::vector{value} : files_in(value);
      auto& list = writes ? use.writes : use.reads;
      list.insert(list.end(), files.begin(), files.end());
    }
  }
  return use;
}

std::string help_in(const std::string& form, const Commands& commands, const Parser& parser) {
  if (form == "text") return parser.help();
  if (form == "man") return manual_page(commands, version);
  if (form == "bash") return bash_completion(commands);
  if (form == "notices") return list_of_notices();
  std::vector<std::string> names{"text", "man", "bash", "notices"};
  for (const Command& command : commands.list) {
    if (command.name == form) return parser.help(form);
    names.push_back(command.name);
  }
  throw RequestError(fmt::format("help '{}': there is no such command.{}", form, did_you_mean(form, names)));
}

}  // namespace

int run(const std::vector<std::string>& words) {
  prepare_streams();
  Commands commands;
  commands.about = "Jam Pot: fit, predict and draw phase equilibria of polar solvent mixtures";
  commands.footer =
      "Example (made-up data; writes into the folder jampot-demo):\n  jampot demo\n\n"
      "Help on a command: 'jampot COMMAND --help'. Write quantities with their unit (\"1.3 bar\",\n"
      "\"20 to 80 by 5 degC\"). Exit status: 0 done, 1 cannot be done, 2 the request or a file is wrong.";
  ScreenPresenter screen;
  add_calculations(commands, screen, words.empty() ? "" : words.front());
  add_collect(commands, screen);
  add_job(commands, screen);
  add_demo(commands, screen);
  std::string form = "text";
  Command& help = commands.add(
      "help", "Show this text, the manual page, the completion for bash, or the list of notices");
  help.option("FORM", form, "", "text (default), a command, man, bash or notices");
  try {
    demand_words(words);
    Parser parser(commands, fmt::format("jampot {}, data {}", version, data_version()));
    help.run = [&] { print_out(help_in(form, commands, parser)); };
    const Parser::Parsed parsed = parser.parse(words);
    if (parsed.command == nullptr) {
      print_out(parsed.text);
      return 0;
    }
    if (parsed.command->expand) parsed.command->expand();
    demand_separate(file_use(*parsed.command));
    parsed.command->run();
    return 0;
  } catch (...) {
    const Fault fault = fault_of(std::current_exception());
    print_error(fmt::format("jampot: {}\n", fault.message));
    return fault.status;
  }
}

}  // namespace jampot::tool
