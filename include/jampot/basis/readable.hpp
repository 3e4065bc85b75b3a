#pragma once
// The one gate for text that comes from outside, and the one way to show text whose origin is unknown.
//
// A text that enters is UTF-8 without control characters. A terminal, a figure, a page or a workbook may then
// show it without giving it a meaning of its own.
#include <string>
#include <string_view>

#include "jampot/basis/error.hpp"

namespace jampot {

/// Whether a text may have several lines (line feeds, carriage returns and tabs) or is one line.
enum class Lines { one, several };

/// Nothing where the text is readable, else what is wrong with it and what would help, with the line in
/// `line` (counted from 1). Refused are bytes that are not UTF-8, control characters, marks that turn the
/// direction of writing, and code points that are no characters.
std::string unreadable(std::string_view text, Lines lines, int* line = nullptr);

/// @throws RequestError naming `place.file` and the line of the first character that `unreadable` refuses
void demand_readable(std::string_view text, const Place& place, Lines lines = Lines::several);

/// The text with everything that `unreadable` refuses as U+FFFD (the replacement character): for output.
std::string readable(std::string_view text, Lines lines = Lines::several);

/// The text, or its beginning and "..." where it has more than `most` bytes: for messages that quote it.
std::string shortened(std::string_view text, std::size_t most = 200);

}  // namespace jampot
