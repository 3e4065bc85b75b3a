#include "answer_schema.hpp"

#include <nlohmann/json.hpp>
#include <valijson/adapters/nlohmann_json_adapter.hpp>
#include <valijson/schema.hpp>
#include <valijson/schema_parser.hpp>
#include <valijson/validator.hpp>

#include "jampot/files/text_file.hpp"

// The library for schemas takes ten seconds to compile: here, once for all that hold answers against one.
namespace jampot::test {
namespace {

using valijson::adapters::NlohmannJsonAdapter;

nlohmann::json closed(nlohmann::json schema) {
  if (schema.contains("properties")) {
    schema["additionalProperties"] = false;
    for (auto& [name, value] : schema["properties"].items()) value = closed(value);
  }
  for (const char* below : {"items", "additionalProperties"}) {
    if (schema.contains(below) && schema[below].is_object()) schema[below] = closed(schema[below]);
  }
  return schema;
}

}  // namespace

AnswerSchema::AnswerSchema(const nlohmann::json& document) {
  const auto schema = std::make_shared<valijson::Schema>();
  valijson::SchemaParser().populateSchema(NlohmannJsonAdapter(document), *schema);
  schema_ = schema;
}

std::string AnswerSchema::fault_of(const nlohmann::json& answer) const {
  valijson::ValidationResults results;
  valijson::Validator validator;
  if (validator.validate(*schema_, NlohmannJsonAdapter(answer), &results)) return {};
  std::string text;
  valijson::ValidationResults::Error error;
  while (results.popError(error)) {
    for (const std::string& place : error.context) text += place;
    text += ": " + error.description + "\n";
  }
  return text;
}

std::filesystem::path schema_file(const std::string& command) {
  return std::filesystem::path(JAMPOT_SOURCE_DIR) / "docs/schemas" / (command + ".schema.json");
}

AnswerSchema schema_of_command(const std::string& command) {
  return AnswerSchema(closed(nlohmann::json::parse(read_file(schema_file(command)))));
}

}  // namespace jampot::test
