#pragma once
// JSON Schemas of the answers: described from many answers, and held against others.
#include <algorithm>
#include <array>
#include <set>

#include "pasted.hpp"
#include "requests.hpp"

namespace jampot::test {

using Json = nlohmann::json;

/// Objects whose keys are names (of parameters, quantities, groups, models), not words of ours.
inline bool has_names_as_keys(const std::string& key) {
  static const std::set<std::string> keys{
      "values", "standard_errors", "groups",          "deviations", "rms",          "runs",          "models",
      "unifac", "unifac-lle",      "unifac-dortmund", "constants",  "standardised", "rms_adjustment"};
  return keys.contains(key);
}

/// What a number is given in, by the end of its key; empty where the key has no unit.
inline std::string unit_of(const std::string& key) {
  static const std::vector<std::pair<std::string, std::string>> ends{{"_J_mol_K", "J/(mol K)"},
                                                                     {"_J_mol", "J/mol"},
                                                                     {"_m3_mol", "m3/mol"},
                                                                     {"_cm3_mol", "cm3/mol"},
                                                                     {"_kg_m3", "kg/m3"},
                                                                     {"_kg_mol", "kg/mol"},
                                                                     {"_mol_s", "mol/s"},
                                                                     {"_kg_s", "kg/s"},
                                                                     {"_Pa_s", "Pa s"},
                                                                     {"_Pa", "Pa"},
                                                                     {"_mol", "mol"},
                                                                     {"_kg", "kg"},
                                                                     {"_K", "K"},
                                                                     {"_W", "W"},
                                                                     {"_J", "J"},
                                                                     {"_D", "debye"},
                                                                     {"_A", "angstrom"}};
  for (const auto& [end, unit] : ends) {
    if (key.ends_with(end)) return unit;
  }
  return {};
}

inline std::string type_of(const Json& value) {
  if (value.is_null()) return "null";
  if (value.is_boolean()) return "boolean";
  if (value.is_number()) return "number";
  if (value.is_string()) return "string";
  return value.is_array() ? "array" : "object";
}

/// What all of these values obey. A key that says what an object is, or its state, is required where all have
/// it; objects with names as keys have values of one kind.
inline Json schema_of(const std::vector<const Json*>& values, const std::string& key) {
  std::set<std::string> types;
  std::vector<const Json*> items, objects;
  for (const Json* value : values) {
    types.insert(type_of(*value));
    if (value->is_array())
      for (const Json& item : *value) items.push_back(&item);
    if (value->is_object()) objects.push_back(value);
  }
  Json schema = Json::object();
  if (types.size() == 1) schema["type"] = *types.begin();
  if (types.size() > 1) schema["type"] = types;
  if (const std::string unit = unit_of(key);
      !unit.empty() && (types.contains("number") || types.contains("array")))
    schema["description"] = "in " + unit;
  if (!items.empty()) schema["items"] = schema_of(items, "");
  if (objects.empty()) return schema;
  std::map<std::string, std::vector<const Json*>> members;
  for (const Json* object : objects)
    for (const auto& [name, value] : object->items()) members[name].push_back(&value);
  if (has_names_as_keys(key)) {
    std::vector<const Json*> all;
    for (const auto& [name, of_name] : members) all.insert(all.end(), of_name.begin(), of_name.end());
    schema["additionalProperties"] = schema_of(all, "");
    return schema;
  }
  schema["properties"] = Json::object();
  static const std::set<std::string> always{
      "name", "code", "text",    "kind",  "between", "source", "model",   "file", "number",  "T_K",
      "P_Pa", "x",    "members", "group", "pair",    "solute", "solvent", "what", "command", "property"};
  for (const auto& [name, of_name] : members) {
    schema["properties"][name] = schema_of(of_name, name);
    if (of_name.size() == objects.size() && always.contains(name)) schema["required"].push_back(name);
  }
  return schema;
}

/// Answers of every command: those of the requests, of tests/tool/schema_requests.txt, and of the commands in
/// README, tour and guide. By command.
inline std::map<std::string, std::vector<Json>> answers_of_all_commands() {
  const Workplace workplace;
  prepare_for_pages(workplace);
  std::vector<std::string> commands;
  for (const Request& request : requests()) commands.push_back(request.arguments);
  // Lines that brought out keys which no other request has.
  workplace.write(
      "lle.csv",
      "# substances: 1-butanol, water\nT [degC], x1_alpha, x1_beta\n20, 0.49, 0.02\n40, 0.46, 0.018\n");
  workplace.put_data();
  std::istringstream lines(read_file(JAMPOT_SOURCE_DIR "/tests/tool/schema_requests.txt"));
  for (std::string line; std::getline(lines, line);) {
    if (const std::size_t at = line.find("SOURCE/"); at != std::string::npos)
      line.replace(at, 7, JAMPOT_SOURCE_DIR "/");
    if (!line.empty()) commands.push_back(line);
  }
  for (const char* page : {"README.md", "docs/guide/tour.md", "docs/guide/README.md",
                           "docs/guide/which-model.md", "docs/guide/which-solvent.md",
                           "docs/guide/is-this-azeotrope-real.md", "docs/guide/can-it-be-distilled-apart.md",
                           "docs/guide/why-does-my-fit-split.md", "docs/many-systems.md"}) {
    const Pasted all = pasted(page);
    for (const auto& [name, text] : all.files) workplace.write(name, text);
    commands.insert(commands.end(), all.commands.begin(), all.commands.end());
  }
  std::map<std::string, std::vector<Json>> answers;
  for (const std::string& command : commands) {
    const std::string name = command.substr(0, command.find(' '));
    if (name == "help") continue;
    const Ran ran = workplace.run(command + " --json");
    EXPECT_EQ(ran.status, 0) << command << "\n" << ran.err;
    if (ran.status == 0) answers[name].push_back(Json::parse(ran.out));
  }
  return answers;
}

}  // namespace jampot::test
