#include "fault.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/core/demangle.hpp>
#include <new>
#include <typeinfo>

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
  if (positional && too_many)
    return fmt::format("{} takes {}; {} were given", command.get_name(),
                       noun_of(name, option->get_items_expected_max()), option->results().size());
  if (positional)
    return fmt::format(
        "{} needs {}; {} given", command.get_name(), noun_of(name, option->get_items_expected_min()),
        option->results().size() == 1 ? "1 was" : fmt::format("{} were", option->results().size()));
  if (error.get_name() == "ArgumentMismatch")
    return too_many ? fmt::format("{} is given more often than it may be", name)
                    : fmt::format("{} needs a value", name);
  const std::string value = option != nullptr && !option->results().empty() ? option->results().back() : "";
  return fmt::format("{} '{}': expected {}", name, shortened(value, 60),
                     option != nullptr ? lower_case(option->get_type_name()) : "another value");
}

}  // namespace

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
    if (!(used.empty() ? k == 0 : words[k].starts_with("--") && words[k] != "--")) continue;
    if (std::find(known.begin(), known.end(), name) != known.end()) continue;
    text = used.empty()
               ? fmt::format("'{}' is not a command.", shortened(words[k], 60))
               : fmt::format("'{}' is not an option of {}.", shortened(name, 60), command.get_name());
    text += did_you_mean(name, known);
  }
  if (text.empty()) {
    if (error.get_name() == "ExtrasError") {
      text = fmt::format("{} has more arguments than it takes", command.get_name());
    } else {
      text = about_option(command, error);
    }
    text += ".";
  }
  if (words.empty()) text = "give a command and what it is about.";
  return text + fmt::format("\n'jampot{}{} --help' shows an example.", used.empty() ? "" : " ",
                            used.empty() ? "" : command.get_name());
}

Fault fault_of(std::exception_ptr thrown, const CLI::App& tool, const std::vector<std::string>& words) {
  try {
    std::rethrow_exception(std::move(thrown));
  } catch (const CLI::ParseError& error) {
    return {message_of(tool, error, words), wrong_request};
  } catch (const RequestError& error) {
    return {error.what(), wrong_request};
  } catch (const CalculationError& error) {
    return {error.what(), cannot_be_done};
  } catch (const std::bad_alloc&) {
    return {"there is not enough memory for this request; ask for less at a time", cannot_be_done};
  } catch (const std::exception& error) {
    return {fmt::format("this calculation met a fault of the program ({}); please report the request",
                        boost::core::demangle(typeid(error).name())),
            cannot_be_done};
  } catch (...) {
    return {"this calculation met a fault of the program; please report the request", cannot_be_done};
  }
}

}  // namespace jampot::tool
