#include "toml_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <sstream>

#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {

namespace {

// The library takes a key of many parts apart by recursion: one of 40,000 parts would end the program. Dots
// outside of quotes are counted from one separator to the next, which takes keys and headers in, and decimal
// points of at most one number.
void demand_shallow_keys(std::string_view text, const std::string& file) {
  constexpr int most = 30;
  int line = 1, dots = 0;
  char quote = 0;
  for (std::size_t k = 0; k < text.size(); ++k) {
    const char c = text[k];
    line += c == '\n';
    if (quote != 0) {
      if (c == '\\' && quote == '"') ++k;
      if (c == quote || c == '\n') quote = 0;  // texts of several lines begin anew on each
    } else if (c == '"' || c == '\'') {
      quote = c;
    } else if (std::string_view("\n=,{}[]#").find(c) != std::string_view::npos) {
      dots = 0;
    } else if (c == '.' && ++dots > most) {
      throw RequestError({file, line, {}}, fmt::format("a key has at most {} parts here", most));
    }
  }
}

}  // namespace

toml::table TomlReader::parse(std::string_view text) const {
  demand_readable(text, {file_, 0, {}});
  demand_shallow_keys(text, file_);
  try {
    return toml::parse(text, file_);
  } catch (const toml::parse_error& error) {
    throw RequestError({file_, static_cast<int>(error.source().begin.line), {}},
                       fmt::format("not valid TOML: {}", error.description()));
  }
}

void TomlReader::fail(const toml::node& node, const std::string& what) const {
  throw RequestError({file_, static_cast<int>(node.source().begin.line), {}}, what);
}

void TomlReader::allow(const toml::table& table, const std::vector<std::string>& keys) const {
  for (const auto& [key, node] : table) {
    const std::string name(key.str());
    if (std::find(keys.begin(), keys.end(), name) != keys.end()) continue;
    throw RequestError({file_, static_cast<int>(key.source().begin.line), {}},
                       fmt::format("'{}' is not a key here; there are {}.{}", name, joined(keys, ", "),
                                   did_you_mean(name, keys)));
  }
}

const toml::node& TomlReader::require(const toml::table& table, const std::string& key) const {
  const toml::node* node = table.get(key);
  if (node == nullptr) fail(table, fmt::format("the key '{}' is missing", key));
  return *node;
}

std::string TomlReader::text_of(const toml::node& node, const std::string& key) const {
  if (!node.is_string()) fail(node, fmt::format("'{}' must be a text in quotes", key));
  std::string text = *node.value<std::string>();
  // An escape such as \u0007 brings in what the file itself may not hold.
  demand_readable(text, {file_, static_cast<int>(node.source().begin.line), key});
  return text;
}

std::string TomlReader::line_of(const toml::node& node, const std::string& key) const {
  constexpr std::size_t longest = 10000;
  std::string text = text_of(node, key);
  if (text.find_first_of("\r\n") != std::string::npos)
    fail(node, fmt::format("'{}' must be a text in one line", key));
  if (text.size() > longest)
    fail(node, fmt::format("'{}' has {} characters; at most {} are read", key, text.size(), longest));
  return text;
}

double TomlReader::number_of(const toml::node& node, const std::string& key) const {
  const auto value = node.value<double>();
  if (!node.is_number() || !value || !std::isfinite(*value)) {
    fail(node, fmt::format("'{}' must be a finite number", key));
  }
  return *value;
}

std::string toml_text(const std::string& text) {
  std::ostringstream out;
  out << toml::value<std::string>(text);
  return out.str();
}

std::string toml_number(double value) {
  std::string text = fmt::format("{}", value);
  if (text.find_first_of(".e") == std::string::npos)
    text += ".0";  // a float in TOML has a point or an exponent
  return text;
}

}  // namespace jampot
