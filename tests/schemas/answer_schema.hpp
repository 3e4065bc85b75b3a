#pragma once
// An answer of the tool held against the JSON Schema of its command.
#include <filesystem>
#include <memory>
#include <nlohmann/json_fwd.hpp>
#include <string>

namespace valijson {
class Schema;
}

namespace jampot::test {

class AnswerSchema {
 public:
  explicit AnswerSchema(const nlohmann::json& document);
  /// Empty where the answer obeys it.
  std::string fault_of(const nlohmann::json& answer) const;

 private:
  std::shared_ptr<const valijson::Schema> schema_;
};

std::filesystem::path schema_file(const std::string& command);

/// The schema in docs/schemas with no key allowed that it does not name: for programs it is open, so that an
/// answer may have more, but for the tests a new key must be described.
AnswerSchema schema_of_command(const std::string& command);

}  // namespace jampot::test
