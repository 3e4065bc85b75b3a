#include "parser.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <algorithm>
#include <cctype>
#include <map>
#include <sstream>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot::tool {
namespace {

// "MIX" of "MIX: At Most 2 required but received 3" and of "MIX is required".
std::string option_in(std::string what) {
  what.resize(std::min({what.find(':'), what.find(" is required"), what.size()}));
  return std::string(trimmed(what));
}

const CLI::Option* option_named(const CLI::App& command, const std::string& name) {
  for (const CLI::Option* option : command.get_options()) {
    if (option->get_name() == name || option->get_name(true) == name || option->get_name(false, true) == name)
      return option;
  }
  return nullptr;
}

// What an argument of a command is called in a sentence.
std::string noun_of(const std::string& name, int count) {
  const std::string noun = name == "MIX" ? "substance" : name == "FILE" ? "file" : "argument";
  static const std::vector<std::string> numbers{"no", "one", "two", "three", "four", "five"};
  const std::string number =
      count >= 0 && count < 6 ? numbers[static_cast<std::size_t>(count)] : std::to_string(count);
  return fmt::format("{} {}{}", number, noun, count == 1 ? "" : "s");
}

std::string about_option(const CLI::App& command, const CLI::ParseError& error) {
  const std::string name = option_in(error.what());
  const CLI::Option* const option = option_named(command, name);
  const bool positional = option != nullptr && option->get_positional();
  const bool too_many =
      option != nullptr && static_cast<int>(option->results().size()) > option->get_items_expected_max();
  if (error.get_name() == "RequiredError")
    return positional ? fmt::format("{} needs {} at least", command.get_name(),
                                    noun_of(name, option->get_items_expected_min()))
                      : fmt::format("{} is missing", name.empty() ? "something" : name);
  if (positional) {
    const std::size_t given = option->results().size();
    return fmt::format(
        "{} {} {}; {} {} given", command.get_name(), too_many ? "takes" : "needs",
        noun_of(name, too_many ? option->get_items_expected_max() : option->get_items_expected_min()), given,
        given == 1 ? "was" : "were");
  }
  if (error.get_name() == "ArgumentMismatch")
    return too_many ? fmt::format("{} is given more often than it may be", name)
                    : fmt::format("{} needs a value", name);
  const std::string value = option != nullptr && !option->results().empty() ? option->results().back() : "";
  return fmt::format("{} '{}': expected {}", name, shortened(value, 60),
                     option != nullptr ? lower_case(option->get_type_name()) : "another value");
}

// What a command line lacks or has too much of, with the nearest option or command where one is misspelt.
std::string message_of(const CLI::App& tool, const CLI::ParseError& error,
                       const std::vector<std::string>& words) {
  std::vector<std::string> known;
  const auto used = tool.get_subcommands();
  const CLI::App& command = used.empty() ? tool : *used.front();
  for (const CLI::Option* option : command.get_options()) {
    for (const std::string& name : option->get_lnames()) known.push_back("--" + name);
  }
  if (used.empty()) {
    for (const CLI::App* subcommand : tool.get_subcommands({})) known.push_back(subcommand->get_name());
  }
  std::string text;
  for (std::size_t k = 0; k < words.size() && text.empty(); ++k) {
    const std::string name = words[k].substr(0, words[k].find('='));
    const bool is_option = name.size() > 1 && name[0] == '-' && name != "--" && name[1] != '.' &&
                           std::isdigit(static_cast<unsigned char>(name[1])) == 0;
    if (!(used.empty() ? k == 0 : is_option)) continue;
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    text = used.empty()
               ? fmt::format("'{}' is not a command.", shortened(words[k], 60))
               : fmt::format("'{}' is not an option of {}.", shortened(name, 60), command.get_name());
    text += is_option && name.size() == 2 ? " Options are whole words behind two dashes."
                                          : did_you_mean(name, known);
  }
  if (text.empty()) {
    const bool too_much = error.get_exit_code() == static_cast<int>(CLI::ExitCodes::ExtrasError);
    text = too_much ? fmt::format("{} has more arguments than it takes", command.get_name())
                    : about_option(command, error);
    text += ".";
  }
  if (words.empty()) text = "give a command and what it is about.";
  return text + fmt::format("\n'jampot{}{} --help' shows an example.", used.empty() ? "" : " ",
                            used.empty() ? "" : command.get_name());
}

// Names and types alone: what is needed and how often stands in the text.
class HelpFormatter final : public CLI::Formatter {
  std::string make_option_desc(const CLI::Option* option) const override {
    constexpr std::size_t width = 70;  // behind the names, on a terminal of 100 columns
    return wrapped(option->get_description(), width);
  }
  std::string make_option_usage(const CLI::Option* option) const override {
    const std::string name =
        option->get_items_expected_max() > 1 ? option->get_name() + "..." : option->get_name();
    return option->get_required() ? name : "[" + name + "]";
  }
  std::string make_option_opts(const CLI::Option* option) const override {
    return option->get_type_size() == 0 || option->get_positional() || option->get_type_name().empty()
               ? ""
               : " " + option->get_type_name();
  }
};

CLI::Option* added(CLI::App& app, Option& option) {
  if (option.is_flag()) return app.add_flag(option.name, *std::get<bool*>(option.into), option.help);
  std::string names = option.name;
  for (const std::string& alias : option.aliases) names += "," + alias;
  CLI::Option* const one =
      std::visit([&](auto* into) { return app.add_option(names, *into, option.help); }, option.into);
  one->type_name(option.type)->required(option.is_needed);
  if (option.is_repeated)
    one->expected(1)->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  else if (option.most > 1)
    one->expected(option.least, option.most);
  return one;
}

}  // namespace

struct Parser::Tree {
  Tree(Commands& all, const std::string& version) : app(all.about, "jampot") {
    if (!version.empty()) app.set_version_flag("--version", version);
    app.require_subcommand(1);
    app.footer(all.footer);
    app.formatter(std::make_shared<HelpFormatter>());
    for (Command& command : all.list) {
      CLI::App& sub = *app.add_subcommand(command.name, command.about);
      sub.footer(command.footer);
      commands[&sub] = &command;
    }
  }

  /// Gives a command its options: only the one that is asked for needs them, and all of them take
  /// milliseconds.
  void fill(const std::string& name) {
    for (const auto& [sub, command] : commands) {
      if (command->name != name || sub->get_options().size() > 1) continue;
      for (Option& option : command->options) options[&option] = added(*sub, option);
    }
  }

  CLI::App app;
  std::map<CLI::App*, Command*> commands;
  std::map<Option*, const CLI::Option*> options;
};

Parser::Parser(Commands& commands, const std::string& version)
    : tree_(std::make_unique<Tree>(commands, version)) {}
Parser::~Parser() = default;

Parser::Parsed Parser::parse(const std::vector<std::string>& words) {
  CLI::App& app = tree_->app;
  for (const std::string& word : words) tree_->fill(word);
  try {
    app.parse(std::vector<std::string>(words.rbegin(), words.rend()));  // as it wants them
  } catch (const CLI::Success& success) {                               // help and version
    std::ostringstream text;
    app.exit(success, text, text);
    return {nullptr, text.str()};
  } catch (const CLI::ParseError& error) {
    throw RequestError(message_of(app, error, words));
  }
  Command& command = *tree_->commands.at(app.get_subcommands().front());
  for (Option& option : command.options) option.given = tree_->options.at(&option)->results();
  return {&command, {}};
}

std::string Parser::run(const std::vector<std::string>& words) {
  const Parsed parsed = parse(words);
  if (parsed.command == nullptr) return parsed.text;
  if (parsed.command->expand) parsed.command->expand();
  parsed.command->run();
  return {};
}

std::string Parser::help() const {
  return tree_->app.get_formatter()->make_help(&tree_->app, tree_->app.get_name(),
                                               CLI::AppFormatMode::Normal);
}

std::string Parser::help(const std::string& command) const {
  tree_->fill(command);
  return tree_->app.get_subcommand(command)->help(tree_->app.get_name());
}

}  // namespace jampot::tool
