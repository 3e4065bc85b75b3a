#pragma once
// Words of a command line into a table of commands. Nothing else knows the library that does it.
#include <memory>
#include <string>
#include <vector>

#include "command.hpp"

namespace jampot::tool {

class Parser {
 public:
  /// @param commands must outlive the parser; @param version what --version prints, none where empty
  explicit Parser(Commands& commands, const std::string& version = "");
  ~Parser();
  Parser(const Parser&) = delete;
  Parser& operator=(const Parser&) = delete;

  struct Parsed {
    Command* command = nullptr;  ///< what is asked for, its values in place
    std::string text{};          ///< or what --help and --version print
  };
  /// @param words those behind the name of the program
  /// @throws RequestError saying what is missing or too much, with the nearest name where one is misspelt
  Parsed parse(const std::vector<std::string>& words);
  /// The same, expanded and run. @return what --help and --version print
  std::string run(const std::vector<std::string>& words);

  /// What --help prints of all commands.
  std::string help() const;
  /// What it prints of one. @pre it is one of them
  std::string help(const std::string& command) const;

 private:
  struct Tree;
  std::unique_ptr<Tree> tree_;
};

}  // namespace jampot::tool
