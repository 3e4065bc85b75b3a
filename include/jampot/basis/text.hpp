#pragma once
// Small helpers for text that people type.
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

std::string_view trimmed(std::string_view text);
/// Messages name what may be asked for by its key, as files do: `missing-pairs`. Here such keys are written
/// as a caller calls them, with this before their names: "--missing-pairs".
std::string with_keys_as(std::string_view before, std::string_view text);

/// Letters of ASCII; others stay as they are.
std::string lower_case(std::string_view text);
std::vector<std::string> split(std::string_view text, char separator);  ///< pieces are trimmed
std::string joined(const std::vector<std::string>& pieces, std::string_view separator);
std::string joined(std::span<const std::string_view> pieces, std::string_view separator);

/// "1 point", "3 points"; where the plural takes more than an s, `many` is it.
std::string counted(std::size_t number, std::string_view one, std::string_view many = {});
/// "once", "twice", "3 times".
std::string times_text(std::size_t number);

/// "0.1234, 0.5000": so many decimals of each.
std::string numbers_text(std::span<const double> numbers, int decimals);

/// "1,4-dioxane=0.2, water=0.3" as names and values: a name runs up to its equals sign, commas in it and all,
/// a value up to the next comma. A piece without an equals sign is a name without a value.
struct NamedValue {
  std::string name,       ///< text before the sign of equality
      value;              ///< text behind it
  bool has_value = true;  ///< false where there is no sign of equality
};
std::vector<NamedValue> named_values(std::string_view text);

/// The text with its line ends and tabs as blanks.
std::string one_line(std::string text);

/// A finite number written with a decimal point, the whole of `text` (spaces around it allowed); nothing
/// otherwise.
std::optional<double> parse_number(std::string_view text);

/// "between 25.0 and 50.0 degC", or "at 25.0 degC" where both ends read the same.
std::string temperatures_text(double Tmin_K, double Tmax_K);

/// How many single-letter changes, insertions, deletions or swaps of neighbours turn `a` into `b`
/// (optimal string alignment distance). More than `most` of them are not counted: then `most` + 1.
std::size_t edit_distance(std::string_view a, std::string_view b, std::size_t most = std::string_view::npos);

/// The candidates nearest to `wanted` (case does not count), at most `count`, best first; empty if none is
/// near.
std::vector<std::string> nearest(std::string_view wanted, const std::vector<std::string>& candidates,
                                 std::size_t count = 3);

/// " Did you mean a, b or c?", or nothing where no candidate is near.
std::string did_you_mean(std::string_view wanted, const std::vector<std::string>& candidates);

/// A positive number in its one usual unit, which may be left out: "86.13 g/mol" or "86.13".
/// @param what how the message names the value @throws RequestError where it is none
double positive_number(std::string_view what, std::string_view text, std::string_view unit);

/// The text with line ends in the place of spaces, so that no line is longer than `width` unless a word is.
std::string wrapped(std::string text, std::size_t width);

}  // namespace jampot
