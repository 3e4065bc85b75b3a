#include "jampot/files/substance_toml.hpp"

#include <fmt/format.h>

#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"
#include "toml_reader.hpp"

namespace jampot {
namespace {

struct KnownKey {
  const char* key;
  std::optional<double> KnownConstants::*member;
  double to_si;
};

const std::vector<KnownKey>& known_keys() {
  static const std::vector<KnownKey> keys{{"molar_mass_g_mol", &KnownConstants::molar_mass_kg_mol, 1e-3},
                                          {"Tb_K", &KnownConstants::Tb_K, 1},
                                          {"Tc_K", &KnownConstants::Tc_K, 1},
                                          {"Pc_Pa", &KnownConstants::Pc_Pa, 1},
                                          {"acentric_factor", &KnownConstants::acentric_factor, 1},
                                          {"density_25C_kg_m3", &KnownConstants::density_25C_kg_m3, 1}};
  return keys;
}

}  // namespace

DefinedSubstance parse_substance(std::string_view text, const std::string& file) {
  const TomlReader reader(file);
  const toml::table root = reader.parse(text);
  reader.allow(root, {"name", "groups", "known", "estimates"});
  const std::string name = reader.text_of(reader.require(root, "name"), "name");
  if (trimmed(name).empty()) reader.fail(reader.require(root, "name"), "the name is empty");
  KnownConstants known;
  if (const toml::node* groups = root.get("groups")) {
    if (!groups->is_table())
      reader.fail(*groups, "'groups' must be a table: [groups] and lines GROUP = COUNT");
    for (const auto& [group, count] : *groups->as_table()) {
      const std::string entry =
          fmt::format("{}={}", group.str(), reader.number_of(count, std::string(group.str())));
      reader.at(count, [&] { known.groups.push_back(parse_groups(entry).front()); });
    }
  }
  if (const toml::node* given = root.get("known")) {
    if (!given->is_table()) reader.fail(*given, "'known' must be a table");
    std::vector<std::string> keys;
    for (const KnownKey& key : known_keys()) keys.emplace_back(key.key);
    reader.allow(*given->as_table(), keys);
    for (const KnownKey& key : known_keys()) {
      const toml::node* node = given->as_table()->get(key.key);
      if (node == nullptr) continue;
      const double value = reader.number_of(*node, key.key);
      if (!(value > 0)) reader.fail(*node, fmt::format("'{}' must be positive", key.key));
      known.*key.member = value * key.to_si;
    }
  }
  try {
    return define_substance(name, known);
  } catch (const RequestError& error) {
    throw RequestError({file, 0, {}}, error.what());
  }
}

DefinedSubstance read_substance(const std::filesystem::path& path) {
  return parse_substance(read_file(path), path.string());
}

std::string substance_text(const DefinedSubstance& defined, const KnownConstants& known) {
  std::string text =
      "# A substance of one's own for Jam Pot. [estimates] is for information; they are made anew when the\n"
      "# file is read.\n";
  text += fmt::format("name = {}\n", toml_text(defined.substance.name));
  if (!known.groups.empty()) {
    text += "\n[groups]\n";
    for (const GroupCount& entry : known.groups)
      text += fmt::format("{} = {}\n", toml_text(entry.group), entry.count);
  }
  text += "\n[known]\n";
  for (const KnownKey& key : known_keys()) {
    if (const auto& value = known.*key.member)
      text += fmt::format("{} = {}\n", key.key, toml_number(*value / key.to_si));
  }
  text += "\n[estimates]\n";
  for (const DefinedConstant& constant : defined.constants) {
    if (!constant.estimated) continue;
    text += fmt::format("{} = {}  # {}; typical error {}\n", constant.name, toml_number(constant.value),
                        constant.method, constant.typical_error);
  }
  return text;
}

}  // namespace jampot
