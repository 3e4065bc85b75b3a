#include "jampot/files/json_text.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>

namespace jampot {

namespace {

std::string written(const Json& json, int indent) {
  return json.dump(indent, ' ', false, Json::error_handler_t::replace);
}

}  // namespace

std::string json_text(const Json& json, int indent) {
  return written(json, indent) + "\n";
}

std::string json_line(const Json& json) {
  return written(json, -1);
}

Json parsed_json(std::string_view text) {
  return Json::parse(text, nullptr, false);
}

namespace {

bool is_list_of_objects(const Json& value) {
  return value.is_array() && !value.empty() &&
         std::all_of(value.begin(), value.end(), [](const Json& one) { return one.is_object(); });
}

void add_lines(const Json& object, const std::string& record, const Json& of, std::string& text) {
  Json line{{"record", record}};
  if (!of.empty()) line["of"] = of;
  for (const auto& [key, value] : object.items()) {
    if (!is_list_of_objects(value)) line[key] = value;
  }
  text += json_line(line) + "\n";
  for (const auto& [key, value] : object.items()) {
    if (!is_list_of_objects(value)) continue;
    for (std::size_t k = 0; k < value.size(); ++k) {
      Json path = of;
      path[key] = k;
      add_lines(value[k], key, path, text);
    }
  }
}

}  // namespace

std::string json_lines(const Json& json) {
  std::string text;
  add_lines(json, "answer", Json::object(), text);
  return text;
}

}  // namespace jampot
