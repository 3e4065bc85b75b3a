#pragma once
// A long sentence in the lines of a page.
#include <algorithm>
#include <string>

namespace jampot {

/// Text in lines of at most 118 characters, those behind the first indented.
inline std::string wrapped(const std::string& text) {
  constexpr std::size_t most = 118;
  std::string result;
  std::size_t line = 0;
  for (std::size_t from = 0; from < text.size();) {
    const std::size_t space = std::min(text.find(' ', from), text.size());
    const std::string word = text.substr(from, space - from);
    if (line > 0 && line + 1 + word.size() > most) {
      result += "\n  ";
      line = 2;
    } else if (line > 0) {
      result += ' ';
      ++line;
    }
    result += word;
    line += word.size();
    from = space + 1;
  }
  return result;
}

}  // namespace jampot
