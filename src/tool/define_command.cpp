// define: a substance of one's own from groups and what is known, beside one from the bank on request.
#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/draw/saturation_figure.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/smiles.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct DefineOptions {
  std::string name, groups, smiles, molar_mass, boiling_point, critical_temperature, critical_pressure,
      acentric_factor, density;
  std::string against, out;
  PresentationOptions presentation;
};

// "86.13 g/mol" and "860 kg/m3" have one usual unit each; it may be left out.
double number_with_unit(const std::string& option, std::string text, const std::string& unit) {
  if (text.ends_with(unit)) text.resize(text.size() - unit.size());
  std::size_t used = 0;
  double value = 0;
  try {
    value = std::stod(text, &used);
  } catch (const std::exception&) {
    used = 0;
  }
  if (used == 0 || text.find_first_not_of(' ', used) != std::string::npos || !(value > 0) ||
      !std::isfinite(value)) {
    throw RequestError(fmt::format("{} '{}': expected a positive number, in {}", option, text, unit));
  }
  return value;
}

KnownConstants read_known(const DefineOptions& options, const GroupDivision* division) {
  KnownConstants known;
  if (!options.groups.empty()) known.groups = parse_groups(options.groups);
  if (division != nullptr) known.groups = division->groups;
  if (!options.molar_mass.empty()) {
    known.molar_mass_kg_mol = number_with_unit("--molar-mass", options.molar_mass, "g/mol") / 1000;
  }
  if (!options.boiling_point.empty())
    known.Tb_K = parse_quantity(options.boiling_point, Dimension::temperature);
  if (!options.critical_temperature.empty()) {
    known.Tc_K = parse_quantity(options.critical_temperature, Dimension::temperature);
  }
  if (!options.critical_pressure.empty())
    known.Pc_Pa = parse_quantity(options.critical_pressure, Dimension::pressure);
  if (!options.acentric_factor.empty()) {
    known.acentric_factor = number_with_unit("--acentric-factor", options.acentric_factor, "");
  }
  if (!options.density.empty())
    known.density_25C_kg_m3 = number_with_unit("--density", options.density, "kg/m3");
  return known;
}

// Which atoms of the string went into which group.
Table division_table(const Molecule& molecule, const GroupDivision& division, const std::string& smiles,
                     Json& json) {
  Table table{fmt::format("Groups of {} ({})", smiles, molecule.formula()),
              {{"group"}, {"atoms (position in the string)"}},
              {}};
  for (const GroupDivision::Part& part : division.parts) {
    std::string atoms;
    Json members = Json::array();
    for (const std::size_t atom : part.atoms) {
      atoms += fmt::format("{}{} ({})", atoms.empty() ? "" : ", ", molecule.atoms[atom].element,
                           molecule.atoms[atom].position);
      members.push_back(
          {{"element", molecule.atoms[atom].element}, {"position", molecule.atoms[atom].position}});
    }
    table.rows.push_back({part.group, atoms});
    json["division"].push_back({{"group", part.group}, {"atoms", members}});
  }
  return table;
}

Table constants_table(const DefinedSubstance& defined) {
  Table table{fmt::format("{}  {}", defined.substance.name, defined.substance.formula),
              {{"constant"}, {"value"}, {"method"}, {"typical error"}},
              {}};
  for (const DefinedConstant& constant : defined.constants) {
    table.rows.push_back({constant.name, fmt::format("{:.6g}", constant.value),
                          std::string(constant.estimated ? "estimated: " : "") + constant.method,
                          constant.typical_error});
  }
  return table;
}

// Constants and saturation properties side by side, with the deviation from the one in the bank.
Table comparison_table(const Substance& own, const Substance& other, Json& json) {
  Table table{fmt::format("{} against {}", own.name, other.name),
              {{"quantity"}, {own.name}, {other.name}, {"deviation"}},
              {}};
  const auto add = [&](const std::string& what, std::optional<double> a, std::optional<double> b) {
    if (!a && !b) return;
    const auto text = [](std::optional<double> value) {
      return value ? fmt::format("{:.5g}", *value) : "none";
    };
    const bool both = a && b && *b != 0;
    table.rows.push_back(
        {what, text(a), text(b), both ? fmt::format("{:+.1f} %", 100 * (*a / *b - 1)) : std::string()});
    json.push_back(
        {{"quantity", what}, {"own", a ? Json(*a) : Json(nullptr)}, {"other", b ? Json(*b) : Json(nullptr)}});
  };
  const auto plain = [](const MaybeSourced& value) {
    return value ? std::optional<double>(*value) : std::nullopt;
  };
  add("molar mass [g/mol]", 1000 * own.molar_mass_kg_mol, 1000 * other.molar_mass_kg_mol);
  add("Tb [K]", plain(own.Tb_K), plain(other.Tb_K));
  add("Tc [K]", plain(own.Tc_K), plain(other.Tc_K));
  add("Pc [Pa]", plain(own.Pc_Pa), plain(other.Pc_Pa));
  add("Vc [m3/mol]", plain(own.Vc_m3_mol), plain(other.Vc_m3_mol));
  add("acentric factor", plain(own.acentric_factor), plain(other.acentric_factor));
  add("Hvap at Tb [J/mol]", plain(own.Hvap_Tb_J_mol), plain(other.Hvap_Tb_J_mol));
  if (!other.vapour_pressure) return table;
  for (const double share : {0.8, 0.9, 1.0, 1.1}) {
    if (!other.Tb_K) break;
    const double T_K = share * *other.Tb_K;
    const auto P = [&](const Substance& s) -> std::optional<double> {
      if (!s.vapour_pressure || (s.Tc_K && T_K > *s.Tc_K)) return std::nullopt;
      return s.vapour_pressure->P_Pa(T_K);
    };
    add(fmt::format("vapour pressure at {:.1f} K [Pa]", T_K), P(own), P(other));
    add(fmt::format("Hvap at {:.1f} K [J/mol]", T_K), enthalpy_of_vaporisation(own, T_K).value,
        enthalpy_of_vaporisation(other, T_K).value);
    add(fmt::format("liquid volume at {:.1f} K [m3/mol]", T_K), liquid_molar_volume(own, T_K).value,
        liquid_molar_volume(other, T_K).value);
    add(fmt::format("gas heat capacity at {:.1f} K [J/(mol K)]", T_K), gas_heat_capacity(own, T_K).value,
        gas_heat_capacity(other, T_K).value);
    add(fmt::format("liquid heat capacity at {:.1f} K [J/(mol K)]", T_K),
        liquid_heat_capacity(own, T_K).value, liquid_heat_capacity(other, T_K).value);
  }
  return table;
}

Answer define(const DefineOptions& options) {
  if (Bank::built_in().find(options.name) != nullptr) {
    throw RequestError(
        fmt::format("'{}' is already the name of a substance in the bank; give yours another", options.name));
  }
  if (!options.groups.empty() && !options.smiles.empty()) {
    throw RequestError("--groups and --smiles both say what the molecule is; give one of them");
  }
  Answer answer;
  answer.json = plain_header("define");
  std::optional<GroupDivision> division;
  if (!options.smiles.empty()) {
    const Molecule molecule = parse_smiles(options.smiles);
    division = divide_into_groups(molecule);
    answer.tables.push_back(division_table(molecule, *division, options.smiles, answer.json));
    answer.notices.add(division->notices);
  }
  const KnownConstants known = read_known(options, division ? &*division : nullptr);
  const DefinedSubstance defined = define_substance(options.name, known);
  answer.json["substances"].push_back(jampot::to_json(defined.substance));
  for (const DefinedConstant& constant : defined.constants) {
    answer.json[constant.estimated ? "estimates" : "given"].push_back(
        {{"property", constant.name},
         {"value", constant.value},
         {"method", constant.method},
         {"typical_error", constant.typical_error}});
  }
  answer.tables.push_back(constants_table(defined));
  answer.notices.add(defined.notices);
  if (!options.against.empty()) {
    Json comparison = Json::array();
    answer.tables.push_back(
        comparison_table(defined.substance, Bank::built_in().require(options.against), comparison));
    answer.json["against"] = std::move(comparison);
  }
  if (!options.out.empty()) answer.files.emplace_back(options.out, substance_text(defined, known));
  return answer;
}

}  // namespace

void add_define(CLI::App& tool) {
  auto options = std::make_shared<DefineOptions>();
  CLI::App* command =
      tool.add_subcommand("define", "A substance of your own from its groups and what you know of it");
  command->add_option("NAME", options->name, "Its name")->required()->type_name("");
  const auto add = [&](const char* name, std::string& target, const char* about, const char* type) {
    command->add_option(name, target, about)->type_name(type);
  };
  add("--groups", options->groups, "Groups: \"CH3=2, CH2=3, OH=1\", \"ring =CH=6\"; those of Joback and Reid",
      "LIST");
  add("--smiles", options->smiles, "The molecule as a SMILES string, divided into those groups", "TEXT");
  add("--molar-mass", options->molar_mass, "In g/mol", "NUMBER");
  add("--boiling-point", options->boiling_point, "At 1 atm", "QUANTITY");
  add("--critical-temperature", options->critical_temperature, "", "QUANTITY");
  add("--critical-pressure", options->critical_pressure, "", "QUANTITY");
  add("--acentric-factor", options->acentric_factor, "", "NUMBER");
  add("--density", options->density, "Of the liquid at 25 degC, in kg/m3", "NUMBER");
  add("--against", options->against, "Tabulate beside this substance of the bank", "NAME");
  add("--out", options->out, "Write it to this file, which --substance of the other commands reads",
      "FILE.substance.toml");
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example (what the estimates are worth, on a substance that is known):\n"
      "  jampot define try --groups \"CH3=4, C=1, O=1\" --boiling-point \"55.2 degC\" --against MTBE");
  command->callback([options] {
    const Presentation presentation = options->presentation.read();
    present(define(*options), presentation);
  });
}

}  // namespace jampot::tool
