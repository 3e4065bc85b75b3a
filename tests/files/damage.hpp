#pragma once
// Texts damaged at random, as typing, copying and bad disks do.
#include <random>
#include <string>

namespace jampot::test {

inline std::string damaged(std::string text, std::mt19937_64& generator) {
  const auto up_to = [&](std::size_t most) {
    return std::uniform_int_distribution<std::size_t>(0, most)(generator);
  };
  const std::size_t changes = 1 + up_to(4);
  for (std::size_t change = 0; change < changes && !text.empty(); ++change) {
    const std::size_t at = up_to(text.size() - 1);
    switch (up_to(4)) {
      case 0:
        text.erase(at, 1 + up_to(10));
        break;
      case 1:
        text.insert(at, 1, static_cast<char>(up_to(255)));
        break;
      case 2:
        text[at] = static_cast<char>(up_to(255));
        break;
      case 3:
        text.resize(at);
        break;
      default:
        text.insert(at, text.substr(up_to(text.size() - 1), up_to(40)));
        break;
    }
  }
  return text;
}

}  // namespace jampot::test
