#pragma once
// An answer of the tool held against the JSON Schema of its command.
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include "jampot/files/text_file.hpp"

namespace jampot::test {

/// The same schema with no key allowed that it does not name: for programs it is open, so that an answer may
/// have more, but for the tests a new key must be described.
inline nlohmann::json closed(nlohmann::json schema) {
  if (schema.contains("properties")) {
    schema["additionalProperties"] = false;
    for (auto& [name, value] : schema["properties"].items()) value = closed(value);
  }
  for (const char* below : {"items", "additionalProperties"}) {
    if (schema.contains(below) && schema[below].is_object()) schema[below] = closed(schema[below]);
  }
  return schema;
}

class AnswerSchema {
 public:
  explicit AnswerSchema(const nlohmann::json& document) {
    valijson::SchemaParser().populateSchema(valijson::adapters::NlohmannJsonAdapter(document), schema_);
  }
  /// Empty where the answer obeys it.
  std::string fault_of(const nlohmann::json& answer) const {
    valijson::ValidationResults results;
    valijson::Validator validator;
    if (validator.validate(schema_, valijson::adapters::NlohmannJsonAdapter(answer), &results)) return {};
    std::string text;
    valijson::ValidationResults::Error error;
    while (results.popError(error)) {
      for (const std::string& place : error.context) text += place;
      text += ": " + error.description + "\n";
    }
    return text;
  }

 private:
  valijson::Schema schema_;
};

inline std::filesystem::path schema_file(const std::string& command) {
  return std::filesystem::path(JAMPOT_SOURCE_DIR) / "docs/schemas" / (command + ".schema.json");
}

inline AnswerSchema schema_of_command(const std::string& command) {
  return AnswerSchema(closed(nlohmann::json::parse(read_file(schema_file(command)))));
}

}  // namespace jampot::test
