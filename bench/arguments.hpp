#pragma once
// The few options of the programs here. The parser stands in one source file: it takes seconds to compile.
#include <memory>
#include <optional>
#include <string>

namespace jampot::bench {

class Arguments {
 public:
  explicit Arguments(const std::string& about);
  ~Arguments();
  Arguments(const Arguments&) = delete;
  Arguments& operator=(const Arguments&) = delete;

  /// `value` holds what is taken where the option is not given.
  void count(const std::string& name, int& value, const std::string& help);  ///< above zero
  void text(const std::string& name, std::string& value, const std::string& help);
  /// The status to end with where help was asked for or something is wrong; both are told.
  std::optional<int> read(int argc, char** argv);

 private:
  struct Parser;
  std::unique_ptr<Parser> parser_;
};

}  // namespace jampot::bench
