// jampot: reads words, calls the library, prints.
#include <fmt/format.h>

#include <CLI/CLI.hpp>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "manual.hpp"

namespace {

constexpr int cannot_be_done = 1, wrong_request = 2;

// What CLI11 says, with the nearest option or command where one was misspelt.
std::string with_suggestion(const CLI::App& tool, const CLI::ParseError& error, int argc, char** argv) {
  std::string text = error.what();
  std::vector<std::string> known;
  const auto used = tool.get_subcommands();
  const CLI::App& command = used.empty() ? tool : *used.front();
  for (const CLI::Option* option : command.get_options()) {
    for (const std::string& name : option->get_lnames()) known.push_back("--" + name);
  }
  if (used.empty()) {
    for (const CLI::App* subcommand : tool.get_subcommands({})) known.push_back(subcommand->get_name());
  }
  for (int k = 1; k < argc; ++k) {
    const std::string word(argv[k]);
    const std::string name = word.substr(0, word.find('='));
    if (!(used.empty() ? k == 1 : word.starts_with("--"))) continue;
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    text = used.empty() ? fmt::format("'{}' is not a command.", word)
                        : fmt::format("'{}' is not an option of {}.", name, command.get_name());
    text += jampot::did_you_mean(name, known);
    break;
  }
  if (argc == 1) text = "say what to do: a command and what it is about.";
  return text + fmt::format("\n'jampot{}{} --help' shows an example.", used.empty() ? "" : " ",
                            used.empty() ? "" : command.get_name());
}

}  // namespace

int main(int argc, char** argv) {
  CLI::App tool{"Jam Pot: fit, predict and draw phase equilibria of polar solvent mixtures", "jampot"};
  tool.set_version_flag("--version", "jampot " JAMPOT_VERSION);
  tool.require_subcommand(1);
  tool.footer(
      "Example (made-up data; writes into the folder jampot-demo):\n  jampot demo\n\n"
      "Every command explains itself: 'jampot COMMAND --help'. Quantities carry their unit (\"1.3 bar\",\n"
      "\"20 to 80 by 5 degC\"). Exit status: 0 done, 1 cannot be done, 2 the request or a file is wrong.");
  jampot::tool::ScreenPresenter screen;
  jampot::tool::add_calculations(tool, screen);
  jampot::tool::add_job(tool, screen);
  jampot::tool::add_demo(tool, screen);
  std::string form = "text";
  CLI::App* help =
      tool.add_subcommand("help", "Show this text, or write it for man or for the completion of bash");
  help->add_option("FORM", form, "text (default), man or bash")
      ->type_name("")
      ->check(CLI::IsMember({"text", "man", "bash"}));
  help->callback([&] {
    if (form == "man") {
      fmt::print("{}", jampot::tool::manual_page(tool, JAMPOT_VERSION));
    } else if (form == "bash") {
      fmt::print("{}", jampot::tool::bash_completion(tool));
    } else {
      fmt::print("{}", tool.get_formatter()->make_help(&tool, tool.get_name(), CLI::AppFormatMode::Normal));
    }
  });

  try {
    tool.parse(argc, argv);
    return 0;
  } catch (const CLI::Success& success) {  // help and version
    return tool.exit(success);
  } catch (const CLI::ParseError& error) {
    fmt::print(stderr, "jampot: {}\n", with_suggestion(tool, error, argc, argv));
    return wrong_request;
  } catch (const jampot::RequestError& error) {
    fmt::print(stderr, "jampot: {}\n", error.what());
    return wrong_request;
  } catch (const jampot::CalculationError& error) {
    fmt::print(stderr, "jampot: {}\n", error.what());
    return cannot_be_done;
  } catch (const std::exception& error) {
    fmt::print(stderr, "jampot: unexpected: {}\n", error.what());
    return cannot_be_done;
  }
}
