#pragma once
// Command lines made up at random: every command, every option, values that make sense and values that do
// not.
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "command.hpp"

namespace jampot::fuzz {

/// Decisions taken from a text of bytes, one after the other; at its end always the first possibility.
class Choices {
 public:
  explicit Choices(std::string_view bytes) : bytes_(bytes) {}
  /// Below `count`, which is at most 65536.
  std::size_t below(std::size_t count);
  bool one_in(std::size_t count) { return below(count) == 1; }
  /// Up to `most` bytes as they are.
  std::string raw(std::size_t most);

 private:
  std::string_view bytes_;
};

/// The words of a command line for one of the commands of `tool`; nothing of `unwanted` among them.
std::vector<std::string> random_words(Choices& choices, const tool::Commands& all,
                                      const std::vector<std::string>& unwanted = {});

}  // namespace jampot::fuzz
