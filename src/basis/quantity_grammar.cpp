#include "quantity_grammar.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

bool is_digit(char c) {
  return c >= '0' && c <= '9';
}

std::size_t digits_from(std::string_view text, std::size_t at) {
  while (at < text.size() && is_digit(text[at])) ++at;
  return at;
}

std::size_t after_sign(std::string_view text, std::size_t at) {
  return at < text.size() && (text[at] == '+' || text[at] == '-') ? at + 1 : at;
}

// Where the number at the beginning of the text ends; 0 where there is none.
std::size_t end_of_number(std::string_view text) {
  const std::size_t begin = after_sign(text, 0);
  std::size_t end = digits_from(text, begin), digits = end - begin;
  if (end < text.size() && text[end] == '.') {
    const std::size_t fraction = digits_from(text, end + 1);
    digits += fraction - (end + 1);
    if (digits > 0) end = fraction;
  }
  if (digits == 0) return 0;
  if (end < text.size() && (text[end] == 'e' || text[end] == 'E')) {
    const std::size_t exponent = after_sign(text, end + 1), last = digits_from(text, exponent);
    if (last > exponent) end = last;
  }
  return end;
}

// A letter of a unit; the bytes of ° and µ (in both of its forms) and · are looked at by their callers.
std::size_t letter_at(std::string_view text, std::size_t at) {
  if (at >= text.size()) return 0;
  const char c = text[at];
  if (std::isalpha(static_cast<unsigned char>(c)) != 0 || c == '%' || c == '\'' || c == '_') return 1;
  for (const std::string_view sign : {"\xC2\xB0", "\xC2\xB5", "\xCE\xBC", "\xE2\x84\x83", "\xE2\x84\x89"}) {
    if (text.substr(at).starts_with(sign)) return sign.size();
  }
  return 0;
}

// Past one factor; `at` itself where there is none.
std::size_t after_factor(std::string_view text, std::size_t at) {
  std::size_t end = at;
  while (const std::size_t size = letter_at(text, end)) end += size;
  if (end == at) return at;
  for (const std::string_view bracket : {"(g)", "(a)"}) {
    if (text.substr(end).starts_with(bracket)) return end + bracket.size();
  }
  std::size_t exponent = end;
  if (text.substr(exponent).starts_with("**")) {
    exponent += 2;
  } else if (text.substr(exponent).starts_with('^')) {
    ++exponent;
  }
  const std::size_t digit = after_sign(text, exponent), last = digits_from(text, digit);
  if (last == digit + 1) return last;
  return exponent == end && last == digit ? end : at;  // "m^" and "m12" are nothing
}

[[noreturn]] void refuse(std::string_view text, std::string_view what, std::string_view examples,
                         const std::string& why) {
  throw RequestError(
      fmt::format("'{}' is not a {}: {} ({})", shortened(trimmed(text), 80), what, why, examples));
}

// What was probably meant by a number that another number follows.
std::string meant_by(std::string_view number, std::string_view rest) {
  const std::size_t end = end_of_number(rest);
  const std::string_view second = rest.substr(0, end), unit = trimmed(rest.substr(end));
  const std::string list =
      fmt::format("a list, \"{}, {}{}{}\"", number, second, unit.empty() ? "" : " ", unit);
  const bool thousands = second.size() == 3 && digits_from(second, 0) == 3;
  return thousands ? fmt::format("expected one number and a unit; \"{}{}{}{}\", or {}?", number, second,
                                 unit.empty() ? "" : " ", unit, list)
                   : fmt::format("expected one number and a unit; {}?", list);
}

}  // namespace

bool is_unit(std::string_view text) {
  text = trimmed(text);
  if (text.empty() || text == "-") return true;
  std::size_t at = 0;
  while (true) {
    const std::size_t end = after_factor(text, at);
    if (end == at) return false;
    at = end;
    if (at == text.size()) return true;
    while (at < text.size() && text[at] == ' ') ++at;
    for (const std::string_view separator : {"/", "*", ".", "\xC2\xB7"}) {
      if (!text.substr(at).starts_with(separator)) continue;
      at += separator.size();
      break;
    }
    while (at < text.size() && text[at] == ' ') ++at;
  }
}

bool has_close_comma(std::string_view text) {
  for (std::size_t k = 1; k + 1 < text.size(); ++k) {
    if (text[k] == ',' && is_digit(text[k - 1]) && is_digit(text[k + 1])) return true;
  }
  return false;
}

WrittenQuantity read_quantity(std::string_view text, std::string_view what, std::string_view examples) {
  const std::string_view whole = text;
  text = trimmed(text);
  if (has_close_comma(text)) {
    std::string point(text), list(text), plain(text);
    std::replace(point.begin(), point.end(), ',', '.');
    std::erase(plain, ',');
    for (std::size_t at = 0; (at = list.find(',', at)) != std::string::npos; at += 2)
      list.insert(at + 1, 1, ' ');
    const bool one = std::count(text.begin(), text.end(), ',') == 1;
    refuse(whole, what, examples,
           one ? fmt::format("a comma separates values of a list; \"{}\", \"{}\", or a list, \"{}\"?", point,
                             plain, list)
               : fmt::format("separate the values of a list by commas, as in \"{}\"", list));
  }
  const std::size_t end = end_of_number(text);
  if (end == 0) refuse(whole, what, examples, "expected a number and a unit");
  const std::string_view number = text.substr(0, end), rest = text.substr(end), unit = trimmed(rest);
  if (unit.starts_with('.'))
    refuse(whole, what, examples,
           "dots do not make a range; write a range as \"1 to 3 by 0.5\" or \"1 to 3 in 5\", with a unit");
  if (end_of_number(unit) > 0) refuse(whole, what, examples, meant_by(number, unit));
  if (!is_unit(unit))
    refuse(whole, what, examples,
           fmt::format("'{}' is not a unit; expected a number and a unit", shortened(unit, 40)));
  const auto value = parse_number(number);
  if (!value) refuse(whole, what, examples, "expected a number of ordinary size and a unit");
  return {*value, std::string(unit)};
}

}  // namespace jampot
