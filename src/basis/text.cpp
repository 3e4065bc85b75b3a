#include "jampot/basis/text.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstdint>
#include <numeric>
#include <utility>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {

std::string_view trimmed(std::string_view text) {
  // Of signs of a text that is not blank the first comparison is the only one.
  const auto blank = [](char c) {
    return static_cast<unsigned char>(c) <= ' ' && (c == ' ' || c == '\t' || c == '\r' || c == '\n');
  };
  while (!text.empty() && blank(text.front())) text.remove_prefix(1);
  while (!text.empty() && blank(text.back())) text.remove_suffix(1);
  return text;
}

std::string with_keys_as(std::string_view before, std::string_view text) {
  std::string shown(text);
  for (std::size_t mark = 0; (mark = shown.find('`', mark)) != std::string::npos; ++mark) {
    const std::size_t end = shown.find_first_not_of("abcdefghijklmnopqrstuvwxyz-", mark + 1);
    if (end == std::string::npos || shown[end] != '`' || end == mark + 1 || shown[mark + 1] == '-') continue;
    shown.erase(end, 1).replace(mark, 1, before);
  }
  return shown;
}

std::string lower_case(std::string_view text) {
  std::string lower(text);
  for (char& c : lower) {
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  }
  return lower;
}

std::vector<std::string> split(std::string_view text, char separator) {
  std::vector<std::string> pieces;
  while (true) {
    const auto end = text.find(separator);
    pieces.emplace_back(trimmed(text.substr(0, end)));
    if (end == std::string_view::npos) return pieces;
    text.remove_prefix(end + 1);
  }
}

std::string joined(std::span<const std::string_view> pieces, std::string_view separator) {
  std::string text;
  for (const std::string_view piece : pieces) {
    if (!text.empty()) text += separator;
    text += piece;
  }
  return text;
}

std::string joined(const std::vector<std::string>& pieces, std::string_view separator) {
  const std::vector<std::string_view> views(pieces.begin(), pieces.end());
  return joined(std::span(views), separator);
}

std::string counted(std::size_t number, std::string_view one, std::string_view many) {
  if (number == 1) return fmt::format("1 {}", one);
  return many.empty() ? fmt::format("{} {}s", number, one) : fmt::format("{} {}", number, many);
}

std::string times_text(std::size_t number) {
  return number == 1 ? "once" : number == 2 ? "twice" : fmt::format("{} times", number);
}

std::string numbers_text(std::span<const double> numbers, int decimals) {
  std::vector<std::string> list;
  for (const double number : numbers) list.push_back(fmt::format("{:.{}f}", number, decimals));
  return joined(list, ", ");
}

std::vector<NamedValue> named_values(std::string_view text) {
  std::vector<NamedValue> list;
  while (true) {
    const std::size_t equals = text.find('=');
    if (equals == std::string_view::npos) {
      list.push_back({std::string(trimmed(text)), {}, false});
      return list;
    }
    const std::size_t comma = text.find(',', equals);
    list.push_back({std::string(trimmed(text.substr(0, equals))),
                    std::string(trimmed(text.substr(
                        equals + 1, comma == std::string_view::npos ? comma : comma - equals - 1))),
                    true});
    if (comma == std::string_view::npos) return list;
    text.remove_prefix(comma + 1);
  }
}

std::string one_line(std::string text) {
  std::replace_if(
      text.begin(), text.end(), [](char c) { return c == '\n' || c == '\r' || c == '\t'; }, ' ');
  return text;
}

std::optional<double> parse_number(std::string_view text) {
  text = trimmed(text);
  if (text.starts_with('+')) text.remove_prefix(1);
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::string temperatures_text(double Tmin_K, double Tmax_K) {
  const std::string low = fmt::format("{:.1f}", Tmin_K - celsius_zero),
                    high = fmt::format("{:.1f}", Tmax_K - celsius_zero);
  return low == high ? fmt::format("at {} degC", low) : fmt::format("between {} and {} degC", low, high);
}

std::size_t edit_distance(std::string_view a, std::string_view b, std::size_t most) {
  if (std::max(a.size(), b.size()) - std::min(a.size(), b.size()) > most) return most + 1;
  // Each letter that the other lacks costs an error of its own; letters that share a bit hide one.
  const auto letters = [](std::string_view text) {
    std::uint64_t bits = 0;
    for (const char c : text) bits |= std::uint64_t{1} << (static_cast<unsigned char>(c) & 63U);
    return bits;
  };
  const std::uint64_t in_a = letters(a), in_b = letters(b);
  if (static_cast<std::size_t>(std::max(std::popcount(in_a & ~in_b), std::popcount(in_b & ~in_a))) > most)
    return most + 1;
  // Three rows of a table; names are short, and thousands of pairs are compared for one search.
  constexpr std::size_t short_name = 64;
  std::array<std::size_t, 3 * short_name> small;
  std::vector<std::size_t> large(b.size() < short_name ? 0 : 3 * (b.size() + 1));
  std::size_t* before = b.size() < short_name ? small.data() : large.data();
  std::size_t *previous = before + b.size() + 1, *current = previous + b.size() + 1;
  std::iota(previous, previous + b.size() + 1, std::size_t{0});
  std::size_t least_before = 0;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    current[0] = i;
    std::size_t least = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      const std::size_t substitution = previous[j - 1] + (a[i - 1] == b[j - 1] ? 0 : 1);
      current[j] = std::min({previous[j] + 1, current[j - 1] + 1, substitution});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1]) {
        current[j] = std::min(current[j], before[j - 2] + 1);
      }
      least = std::min(least, current[j]);
    }
    if (std::min(least, least_before) > most) return most + 1;  // every way leads through one of two rows
    least_before = least;
    std::swap(before, previous);  // and what was before that is written over
    std::swap(previous, current);
  }
  return previous[b.size()] > most ? most + 1 : previous[b.size()];
}

std::vector<std::string> nearest(std::string_view wanted, const std::vector<std::string>& candidates,
                                 std::size_t count) {
  struct Scored {
    std::size_t distance;
    const std::string* candidate;
  };
  const std::string wanted_lower = lower_case(trimmed(wanted));
  std::vector<Scored> scored;
  for (const std::string& candidate : candidates) {
    const std::string lower = lower_case(candidate);
    std::size_t distance = edit_distance(wanted_lower, lower);
    // Someone who types the beginning of a name means that name, however long its rest is.
    if (wanted_lower.size() >= 3 && lower.find(wanted_lower) != std::string::npos) distance = 1;
    if (distance <= std::max<std::size_t>(2, wanted_lower.size() / 3))
      scored.push_back({distance, &candidate});
  }
  std::stable_sort(scored.begin(), scored.end(),
                   [](const Scored& a, const Scored& b) { return a.distance < b.distance; });
  std::vector<std::string> best;
  for (const Scored& entry : scored) {
    if (best.size() == count) break;
    best.push_back(*entry.candidate);
  }
  return best;
}

std::string did_you_mean(std::string_view wanted, const std::vector<std::string>& candidates) {
  const std::vector<std::string> near = nearest(wanted, candidates);
  if (near.empty()) return {};
  std::string text = " Did you mean ";
  for (std::size_t k = 0; k < near.size(); ++k) {
    if (k > 0) text += k + 1 == near.size() ? " or " : ", ";
    text += near[k];
  }
  return text + "?";
}

double positive_number(std::string_view what, std::string_view text, std::string_view unit) {
  const std::string_view whole = trimmed(text);
  const auto value = parse_number(
      trimmed(unit.empty() || !whole.ends_with(unit) ? whole : whole.substr(0, whole.size() - unit.size())));
  if (!value || !(*value > 0) || !std::isfinite(*value))
    throw RequestError(fmt::format("{} '{}': expected a positive number{}{}", what, text,
                                   unit.empty() ? "" : ", in ", unit));
  return *value;
}

std::string wrapped(std::string text, std::size_t width) {
  for (std::size_t begin = 0; text.size() - begin > width;) {
    const std::size_t space = text.rfind(' ', begin + width);
    if (space == std::string::npos || space <= begin) break;
    text[space] = '\n';
    begin = space + 1;
  }
  return text;
}

}  // namespace jampot
