#include "jampot/basis/readable.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <boost/nowide/utf/utf.hpp>

namespace jampot {
namespace {

namespace utf = boost::nowide::utf;

bool allowed(utf::code_point c, Lines lines) {
  if (c == '\t' || c == '\n' || c == '\r') return lines == Lines::several;
  if (c < 0x20 || (c >= 0x7F && c < 0xA0)) return false;             // control characters
  if (c >= 0x202A && c <= 0x202E) return false;                      // these and the next turn the direction
  if (c >= 0x2066 && c <= 0x2069) return false;                      //   of what follows
  if (c == 0x2028 || c == 0x2029) return false;                      // line ends to some programs only
  return !((c & 0xFFFE) == 0xFFFE || (c >= 0xFDD0 && c <= 0xFDEF));  // no characters
}

// The next code point; `text` begins after it. A byte that begins none is one of its own.
utf::code_point next(std::string_view& text) {
  const char* at = text.data();
  const utf::code_point c = utf::utf_traits<char>::decode(at, text.data() + text.size());
  const bool valid = c != utf::illegal && c != utf::incomplete;
  text.remove_prefix(valid ? static_cast<std::size_t>(at - text.data()) : 1);
  return valid ? c : utf::illegal;
}

std::string hint(std::string_view whole, utf::code_point c) {
  if (whole.starts_with("\xFF\xFE") || whole.starts_with("\xFE\xFF"))
    return "this is UTF-16; save it as UTF-8";
  if (whole.find('\0') != std::string_view::npos) return "this is no text but binary data";
  if (c == utf::illegal)
    return "this is not UTF-8; a text in Latin-1 or Windows-1252 must be saved as UTF-8 first";
  return fmt::format("the character U+{:04X} is not allowed in a text; remove it", c);
}

}  // namespace

namespace {

// How much of the beginning of a text is plain; whole blocks first, which the compiler takes many bytes at
// once.
std::size_t plain_prefix(std::string_view text, bool with_line_ends) {
  constexpr std::size_t block = 64;
  const auto strange = [&](char c) {
    return static_cast<unsigned>(static_cast<unsigned char>(c - ' ') >= 0x7F - ' ') &
           static_cast<unsigned>(!with_line_ends || c != '\n');
  };
  std::size_t at = 0;
  for (; at + block <= text.size(); at += block) {
    unsigned found = 0;
    for (std::size_t k = 0; k < block; ++k) found |= strange(text[at + k]);
    if (found != 0) break;
  }
  while (at < text.size() && strange(text[at]) == 0) ++at;
  return at;
}

}  // namespace

std::string unreadable(std::string_view text, Lines lines, int* line) {
  std::string_view rest = text;
  while (true) {
    rest.remove_prefix(plain_prefix(rest, lines == Lines::several));
    if (rest.empty()) return {};
    const std::size_t at = text.size() - rest.size();
    const utf::code_point c = next(rest);
    if (c != utf::illegal && allowed(c, lines)) continue;
    if (line != nullptr)
      *line = 1 + static_cast<int>(
                      std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(at), '\n'));
    return hint(text, c);
  }
}

void demand_readable(std::string_view text, const Place& place, Lines lines) {
  Place found = place;
  int line = 0;
  const std::string why = unreadable(text, lines, &line);
  if (why.empty()) return;
  if (found.line == 0) found.line = line;
  throw RequestError(found, why);
}

std::string readable(std::string_view text, Lines lines) {
  constexpr std::string_view replacement = "\xEF\xBF\xBD";
  std::string out;
  out.reserve(text.size());
  while (!text.empty()) {
    const std::string_view before = text;
    const utf::code_point c = next(text);
    if (c != utf::illegal && allowed(c, lines)) {
      out += before.substr(0, before.size() - text.size());
    } else {
      out += replacement;
    }
  }
  return out;
}

std::string shortened(std::string_view text, std::size_t most) {
  if (text.size() <= most) return std::string(text);
  while (most > 0 && (static_cast<unsigned char>(text[most]) & 0xC0) == 0x80) --most;  // no half character
  return std::string(text.substr(0, most)) + "...";
}

}  // namespace jampot
