#include "command_line.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <sstream>

#include "commands.hpp"
#include "fault.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/job/file_use.hpp"
#include "jampot/version.hpp"
#include "manual.hpp"
#include "screen.hpp"

namespace jampot::tool {
namespace {

// The gate for what is typed: readable, one line, and of a length that somebody may have meant.
void demand_words(const std::vector<std::string>& words) {
  constexpr std::size_t longest = 4000, most = 1000;
  if (words.size() > most)
    throw jampot::RequestError(fmt::format("{} words are too many; at most {} are read", words.size(), most));
  for (std::size_t k = 0; k < words.size(); ++k) {
    const std::string& word = words[k];
    const std::string why =
        word.size() > longest ? fmt::format("it has {} characters; at most {} are read", word.size(), longest)
                              : jampot::unreadable(word, jampot::Lines::one);
    if (!why.empty())
      throw jampot::RequestError(
          fmt::format("word {} of the command line, '{}': {}", k + 1, jampot::shortened(word, 40), why));
  }
}

// Of a command whose words have been parsed.
jampot::FileUse file_use(const CLI::App& command) {
  jampot::FileUse use;
  for (const CLI::Option* option : command.get_options()) {
    const bool writes = !option->get_lnames().empty() && jampot::writes_file(option->get_lnames().front());
    for (const std::string& value : option->results()) {
      const std::vector<std::string> files = writes ? std::vector{value} : jampot::files_in(value);
      auto& list = writes ? use.writes : use.reads;
      list.insert(list.end(), files.begin(), files.end());
    }
  }
  return use;
}

void add_help(CLI::App& tool, std::string& form) {
  CLI::App* help = tool.add_subcommand(
      "help", "Show this text, write it for man or for the completion of bash, or list all notices");
  help->add_option("FORM", form, "text (default), a command, man, bash or notices")->type_name("");
  help->callback([&tool, &form] {
    const auto commands = tool.get_subcommands({});
    const auto command = std::find_if(commands.begin(), commands.end(),
                                      [&](const CLI::App* known) { return known->get_name() == form; });
    if (command != commands.end()) {
      print_out((*command)->help(tool.get_name()));
    } else if (form == "man") {
      print_out(manual_page(tool, jampot::version));
    } else if (form == "bash") {
      print_out(bash_completion(tool));
    } else if (form == "notices") {
      print_out(list_of_notices());
    } else if (form != "text") {
      std::vector<std::string> names{"text", "man", "bash", "notices"};
      for (const CLI::App* known : commands) names.push_back(known->get_name());
      throw jampot::RequestError(
          fmt::format("help '{}': there is no such command.{}", form, jampot::did_you_mean(form, names)));
    } else {
      print_out(tool.get_formatter()->make_help(&tool, tool.get_name(), CLI::AppFormatMode::Normal));
    }
  });
}

}  // namespace

int run(const std::vector<std::string>& words) {
  prepare_streams();
  CLI::App tool{"Jam Pot: fit, predict and draw phase equilibria of polar solvent mixtures", "jampot"};
  tool.set_version_flag("--version", std::string("jampot ") + jampot::version);
  tool.require_subcommand(1);
  tool.footer(
      "Example (made-up data; writes into the folder jampot-demo):\n  jampot demo\n\n"
      "Every command explains itself: 'jampot COMMAND --help'. Quantities carry their unit (\"1.3 bar\",\n"
      "\"20 to 80 by 5 degC\"). Exit status: 0 done, 1 cannot be done, 2 the request or a file is wrong.");
  ScreenPresenter screen;
  add_calculations(tool, screen);
  add_job(tool, screen);
  add_demo(tool, screen);
  std::string form = "text";
  add_help(tool, form);
  tool.parse_complete_callback([&tool] {
    for (const CLI::App* command : tool.get_subcommands()) jampot::demand_separate(file_use(*command));
  });
  try {
    try {
      demand_words(words);
      tool.parse(std::vector<std::string>(words.rbegin(), words.rend()));  // as CLI11 wants them
      return 0;
    } catch (const CLI::Success& success) {  // help and version
      std::ostringstream text;
      tool.exit(success, text, text);
      print_out(text.str());
      return 0;
    }
  } catch (...) {
    const Fault fault = fault_of(std::current_exception(), tool, words);
    print_error(fmt::format("jampot: {}\n", fault.message));
    return fault.status;
  }
}

}  // namespace jampot::tool
