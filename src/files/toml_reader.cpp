#include "toml_reader.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <sstream>

#include "jampot/basis/text.hpp"

namespace jampot {

toml::table TomlReader::parse(std::string_view text) const {
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
  return *node.value<std::string>();
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
