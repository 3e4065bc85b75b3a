#pragma once
// What went wrong, as a sentence and an exit status.
#include <CLI/CLI.hpp>
#include <exception>
#include <string>

namespace jampot::tool {

inline constexpr int cannot_be_done = 1, wrong_request = 2;

struct Fault {
  std::string message;
  int status = cannot_be_done;
};

/// What a command line lacks or has too much of, in words of ours, with the nearest option or command where
/// one is misspelt. `words` are those of the command line behind the name of the program.
std::string message_of(const CLI::App& tool, const CLI::ParseError& error,
                       const std::vector<std::string>& words);

/// Of anything that was thrown. The words of a library that we use are not repeated: they mean nothing to
/// whoever asked.
Fault fault_of(std::exception_ptr thrown, const CLI::App& tool, const std::vector<std::string>& words);

}  // namespace jampot::tool
