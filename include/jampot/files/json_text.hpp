#pragma once
// JSON as text, and text as JSON: compiled once, for readers and writers are much code.
#include <nlohmann/json_fwd.hpp>
#include <string>
#include <string_view>

namespace jampot {

using Json = nlohmann::ordered_json;

/// The text of a file or of standard output: on lines of their own, with a line end; a byte that is not UTF-8
/// as U+FFFD.
std::string json_text(const Json& json, int indent = 2);

/// The same as JSON Lines, for programs that read line by line: one object a line. The first line has
/// `"record": "answer"` and everything that is not a list of objects. Each object of a list is a line below
/// it, with the name of the list as its `record` and its number, from 0, in `of`; so are the objects of lists
/// within it:
/// `{"record": "points", "of": {"curves": 0, "points": 3}, ...}`.
std::string json_lines(const Json& json);

/// On one line, without a line end.
std::string json_line(const Json& json);

/// What the text says; a discarded value where it is not JSON.
Json parsed_json(std::string_view text);

}  // namespace jampot
