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
  static const std::vector<KnownKey> keys{
      {"molar_mass_g_mol", &KnownConstants::molar_mass_kg_mol, 1e-3},
      {"Tb_K", &KnownConstants::Tb_K, 1},
      {"Tm_K", &KnownConstants::Tm_K, 1},
      {"Tc_K", &KnownConstants::Tc_K, 1},
      {"Pc_Pa", &KnownConstants::Pc_Pa, 1},
      {"acentric_factor", &KnownConstants::acentric_factor, 1},
      {"Hvap_Tb_J_mol", &KnownConstants::Hvap_Tb_J_mol, 1},
      {"Cp_liquid_25C_J_mol_K", &KnownConstants::Cp_liquid_25C_J_mol_K, 1},
      {"uniquac_r", &KnownConstants::uniquac_r, 1},
      {"uniquac_q", &KnownConstants::uniquac_q, 1}};
  return keys;
}

constexpr const char *density_key = "density_kg_m3", *density_T_key = "density_T_K",
                     *non_volatile_key = "non_volatile", *equation_key = "vapour_pressure_equation",
                     *points_key = "vapour_pressure_points";

class SubstanceReader {
 public:
  explicit SubstanceReader(const std::string& file) : reader_(file) {}

  DefinedSubstance read(std::string_view text) {
    const toml::table root = reader_.parse(text);
    std::vector<std::string> keys{"name", "groups", "known", "estimates", "mosced", non_volatile_key};
    for (const UnifacTable table : all_unifac_tables) keys.push_back(name_of(table));
    reader_.allow(root, keys);
    const std::string name = reader_.line_of(reader_.require(root, "name"), "name");
    if (trimmed(name).empty()) reader_.fail(reader_.require(root, "name"), "the name is empty");
    if (const toml::node* node = root.get("groups")) {
      known_.groups = groups(*node, "groups", [](const std::string& entry) { return parse_groups(entry); });
    }
    for (const UnifacTable table : all_unifac_tables) {
      const std::string key = name_of(table);
      if (const toml::node* node = root.get(key)) {
        known_.unifac_groups[table] = groups(
            *node, key, [&](const std::string& entry) { return UnifacGroups::of(table).parse(entry); });
      }
    }
    if (const toml::node* node = root.get(non_volatile_key)) {
      if (!node->is_boolean())
        reader_.fail(*node, fmt::format("'{}' is either true or false", non_volatile_key));
      known_.non_volatile = node->as_boolean()->get();
    }
    if (const toml::node* given = root.get("known")) {
      if (!given->is_table()) reader_.fail(*given, "'known' must be a table");
      constants(*given->as_table());
    }
    if (const toml::node* node = root.get("mosced")) mosced(*node);
    try {
      return define_substance(name, known_);
    } catch (const RequestError& error) {
      throw RequestError({reader_.file(), 0, {}}, error.what());
    }
  }

 private:
  template <class Parse>
  std::vector<GroupCount> groups(const toml::node& node, const std::string& key, Parse&& parse) {
    if (!node.is_table()) {
      reader_.fail(node, fmt::format("'{0}' must be a table: [{0}] and lines GROUP = COUNT", key));
    }
    std::vector<GroupCount> list;
    for (const auto& [group, count] : *node.as_table()) {
      const std::string entry =
          fmt::format("{}={}", group.str(), reader_.number_of(count, std::string(group.str())));
      reader_.at(count, [&] { list.push_back(parse(entry).front()); });
    }
    return list;
  }

  double positive(const toml::node& node, const std::string& key) {
    const double value = reader_.number_of(node, key);
    if (!(value > 0)) reader_.fail(node, fmt::format("'{}' must be positive", key));
    return value;
  }

  void constants(const toml::table& given) {
    std::vector<std::string> keys{density_key, density_T_key, equation_key, points_key};
    for (const KnownKey& key : known_keys()) keys.emplace_back(key.key);
    reader_.allow(given, keys);
    for (const KnownKey& key : known_keys()) {
      if (const toml::node* node = given.get(key.key))
        known_.*key.member = positive(*node, key.key) * key.to_si;
    }
    if (const toml::node* node = given.get(density_key)) {
      known_.density = LiquidDensity{positive(*node, density_key)};
      if (const toml::node* at = given.get(density_T_key)) known_.density->T_K = positive(*at, density_T_key);
    } else if (const toml::node* alone = given.get(density_T_key)) {
      reader_.fail(*alone, fmt::format("'{}' is given without '{}'", density_T_key, density_key));
    }
    if (const toml::node* node = given.get(equation_key)) {
      known_.vapour_pressure_equation = reader_.line_of(*node, equation_key);
      reader_.at(*node, [&] { parse_vapour_pressure_equation(known_.vapour_pressure_equation); });
    }
    if (const toml::node* node = given.get(points_key)) {
      const toml::array* points = node->as_array();
      if (points == nullptr || points->empty()) reader_.fail(*node, expected_points());
      for (const toml::node& entry : *points) {
        const toml::array* pair = entry.as_array();
        if (pair == nullptr || pair->size() != 2) reader_.fail(entry, expected_points());
        known_.vapour_pressure_points.push_back(
            {positive(*pair->get(0), points_key), positive(*pair->get(1), points_key)});
      }
    }
  }

  void mosced(const toml::node& node) {
    if (!node.is_table()) reader_.fail(node, "'mosced' must be a table");
    const toml::table& table = *node.as_table();
    reader_.allow(table, {"v_cm3_mol", "lambda", "tau", "q", "alpha", "beta"});
    const auto number = [&](const char* key) { return reader_.number_of(reader_.require(table, key), key); };
    known_.mosced =
        MoscedParameters{number("v_cm3_mol"), number("lambda"), number("tau"), number("q"),
                         number("alpha"),     number("beta"),   'C',           "given by the user"};
    reader_.at(node, [&] { check_mosced(*known_.mosced); });
  }

  static std::string expected_points() {
    return fmt::format("'{}' must be a list of pairs [T_K, P_Pa]", points_key);
  }

  TomlReader reader_;
  KnownConstants known_;
};

std::string group_lines(const std::string& key, const std::vector<GroupCount>& groups) {
  std::string text = fmt::format("\n[{}]\n", key);
  for (const GroupCount& entry : groups)
    text += fmt::format("{} = {}\n", toml_text(entry.group), entry.count);
  return text;
}

}  // namespace

DefinedSubstance parse_substance(std::string_view text, const std::string& file) {
  return SubstanceReader(file).read(text);
}

DefinedSubstance read_substance(const std::filesystem::path& path) {
  return parse_substance(read_file(path), path.string());
}

std::string substance_text(const DefinedSubstance& defined, const KnownConstants& known) {
  std::string text =
      "# A user-defined component for Jam Pot. [estimates] is for information; the values are recalculated "
      "when the\n"
      "# file is read.\n";
  text += fmt::format("name = {}\n", toml_text(defined.substance.name));
  if (known.non_volatile) text += fmt::format("{} = true\n", non_volatile_key);
  if (!known.groups.empty()) text += group_lines("groups", known.groups);
  for (const auto& [table, groups] : known.unifac_groups) text += group_lines(name_of(table), groups);
  if (known.mosced) {
    const MoscedParameters& own = *known.mosced;
    text += fmt::format("\n[mosced]\nv_cm3_mol = {}\nlambda = {}\ntau = {}\nq = {}\nalpha = {}\nbeta = {}\n",
                        toml_number(own.v_cm3_mol), toml_number(own.lambda), toml_number(own.tau),
                        toml_number(own.q), toml_number(own.alpha), toml_number(own.beta));
  }
  text += "\n[known]\n";
  for (const KnownKey& key : known_keys()) {
    if (const auto& value = known.*key.member)
      text += fmt::format("{} = {}\n", key.key, toml_number(*value / key.to_si));
  }
  if (known.density) {
    text += fmt::format("{} = {}\n{} = {}\n", density_key, toml_number(known.density->kg_m3), density_T_key,
                        toml_number(known.density->T_K));
  }
  if (!known.vapour_pressure_equation.empty()) {
    text += fmt::format("{} = {}\n", equation_key, toml_text(known.vapour_pressure_equation));
  }
  if (!known.vapour_pressure_points.empty()) {
    text += fmt::format("{} = [", points_key);
    for (std::size_t k = 0; k < known.vapour_pressure_points.size(); ++k) {
      const VapourPressurePoint& point = known.vapour_pressure_points[k];
      text += fmt::format("{}[{}, {}]", k > 0 ? ", " : "", toml_number(point.T_K), toml_number(point.P_Pa));
    }
    text += "]\n";
  }
  text += "\n[estimates]\n";
  for (const DefinedConstant& constant : defined.constants) {
    if (!constant.estimated) continue;
    text += fmt::format("{} = {:.6g}  # {}; typical error {}\n", constant.name, constant.value,
                        constant.method, constant.typical_error);
  }
  return text;
}

}  // namespace jampot
