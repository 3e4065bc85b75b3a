// define: a substance of one's own from groups and what is known, beside one from the bank on request.
#include <fmt/format.h>

#include <cmath>
#include <map>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/saturation_figure.hpp"
#include "jampot/draw/substance_figure.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/smiles.hpp"
#include "jampot/substance/unifac_division.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct DefineOptions {
  std::string name, groups, unifac_groups, unifac_lle_groups, unifac_dortmund_groups, smiles, molar_mass,
      boiling_point, melting_point, critical_temperature, critical_pressure, acentric_factor, density,
      specific_gravity, heat_of_vaporisation, liquid_heat_capacity, uniquac_r, uniquac_q, equation, points,
      mosced;
  std::string against, out;
  bool non_volatile = false;
  std::vector<std::string> substance_files;
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

// "40 degC = 10.2 kPa, 60 degC = 25 kPa", or a CSV file with the columns T and P.
std::vector<VapourPressurePoint> read_points(const std::string& text) {
  std::vector<VapourPressurePoint> points;
  if (lower_case(text).ends_with(".csv")) {
    const CsvTable table(read_file(text), text);
    const auto unit_of = [&](const std::string& name, Dimension dimension) {
      for (std::size_t column = 0; column < table.header().size(); ++column) {
        const std::string& heading = table.header()[column];
        const std::size_t open = heading.find('['), close = heading.find(']');
        if (trimmed(heading.substr(0, open)) != name) continue;
        if (open == std::string::npos || close == std::string::npos) {
          throw RequestError(table.header_place(),
                             fmt::format("the column {} needs its unit, \"{} [{}]\"", name, name,
                                         dimension == Dimension::pressure ? "kPa" : "degC"));
        }
        return std::pair(column, heading.substr(open + 1, close - open - 1));
      }
      throw RequestError(table.header_place(),
                         fmt::format("no column {}; expected \"T [degC], P [kPa]\"", name));
    };
    const auto [T, T_unit] = unit_of("T", Dimension::temperature);
    const auto [P, P_unit] = unit_of("P", Dimension::pressure);
    for (std::size_t row = 0; row < table.rows(); ++row) {
      points.push_back({to_si(table.number(row, T), T_unit, Dimension::temperature),
                        to_si(table.number(row, P), P_unit, Dimension::pressure)});
      if (!(points.back().T_K > 0)) throw RequestError(table.place(row, T), "below absolute zero");
      if (!(points.back().P_Pa > 0)) throw RequestError(table.place(row, P), "a pressure must be positive");
    }
  } else {
    for (const std::string& piece : split(text, ',')) {
      const std::size_t equals = piece.find('=');
      if (equals == std::string::npos) {
        throw RequestError(fmt::format(
            "--vapour-pressure-points '{}': expected \"40 degC = 10.2 kPa, 60 degC = 25 kPa\" or a .csv file",
            piece));
      }
      points.push_back({parse_quantity(piece.substr(0, equals), Dimension::temperature),
                        parse_quantity(piece.substr(equals + 1), Dimension::pressure)});
    }
  }
  if (points.empty()) throw RequestError("--vapour-pressure-points: there is no point");
  return points;
}

// "v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, beta=11"
MoscedParameters read_mosced(const std::string& text) {
  MoscedParameters own;
  own.source = "given by the user";
  std::map<std::string, double*> wanted{{"v", &own.v_cm3_mol}, {"lambda", &own.lambda}, {"tau", &own.tau},
                                        {"q", &own.q},         {"alpha", &own.alpha},   {"beta", &own.beta}};
  for (const std::string& piece : split(text, ',')) {
    const std::size_t equals = piece.find('=');
    const auto target =
        wanted.find(std::string(trimmed(std::string_view(piece).substr(0, std::min(equals, piece.size())))));
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(piece.substr(equals + 1));
    if (target == wanted.end() || !value) break;
    *target->second = *value;
    wanted.erase(target);
  }
  if (!wanted.empty()) {
    throw RequestError(
        fmt::format("--mosced '{}': expected all six once, \"v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, "
                    "beta=11\"",
                    text));
  }
  check_mosced(own);
  return own;
}

// How the curve meets the points that were given.
Table points_table(const Substance& substance, const std::vector<VapourPressurePoint>& points, Json& json) {
  Table table{"Vapour-pressure points and the curve",
              {{"T", Dimension::temperature, 2},
               {"P given", Dimension::pressure, 4},
               {"P curve", Dimension::pressure, 4},
               {"deviation [%]", Dimension::number, 2}},
              {}};
  for (const VapourPressurePoint& point : points) {
    const double P = substance.vapour_pressure->P_Pa(point.T_K), deviation = 100 * (P / point.P_Pa - 1);
    table.rows.push_back({point.T_K, point.P_Pa, P, deviation});
    json["vapour_pressure_points"].push_back({{"T_K", point.T_K}, {"P_Pa", point.P_Pa}, {"curve_P_Pa", P}});
  }
  return table;
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
  if (!options.melting_point.empty())
    known.Tm_K = parse_quantity(options.melting_point, Dimension::temperature);
  const auto plain = [](const char* option, const std::string& text, const char* unit, double to_si,
                        std::optional<double>& target) {
    if (!text.empty()) target = number_with_unit(option, text, unit) * to_si;
  };
  plain("--acentric-factor", options.acentric_factor, "", 1, known.acentric_factor);
  plain("--enthalpy-of-vaporisation", options.heat_of_vaporisation, "kJ/mol", 1000, known.Hvap_Tb_J_mol);
  plain("--liquid-heat-capacity", options.liquid_heat_capacity, "J/(mol K)", 1, known.Cp_liquid_25C_J_mol_K);
  plain("--uniquac-r", options.uniquac_r, "", 1, known.uniquac_r);
  plain("--uniquac-q", options.uniquac_q, "", 1, known.uniquac_q);
  if (!options.density.empty() && !options.specific_gravity.empty()) {
    throw RequestError("--density and --specific-gravity say the same; give one of them");
  }
  if (!options.density.empty()) known.density = parse_density(options.density);
  if (!options.specific_gravity.empty()) known.density = parse_specific_gravity(options.specific_gravity);
  known.vapour_pressure_equation = options.equation;
  if (!options.points.empty()) known.vapour_pressure_points = read_points(options.points);
  known.non_volatile = options.non_volatile;
  if (!options.mosced.empty()) known.mosced = read_mosced(options.mosced);
  for (const auto& [table, text] : {std::pair(UnifacTable::vle, &options.unifac_groups),
                                    std::pair(UnifacTable::lle, &options.unifac_lle_groups),
                                    std::pair(UnifacTable::dortmund, &options.unifac_dortmund_groups)}) {
    if (!text->empty()) known.unifac_groups[table] = UnifacGroups::of(table).parse(*text);
  }
  return known;
}

// Which atoms of the string went into which group.
Table division_table(const std::string& title, const Molecule& molecule, const GroupDivision& division,
                     Json& json) {
  Table table{title, {{"group"}, {"atoms (position in the string)"}}, {}};
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
    json.push_back({{"group", part.group}, {"atoms", members}});
  }
  return table;
}

// The UNIFAC groups of the SMILES string, unless the user gave them. Where no division is possible the
// substance is made without them, and a notice says why.
std::vector<GroupCount> unifac_groups(const Molecule& molecule, const DefineOptions& options,
                                      Answer& answer) {
  if (!options.unifac_groups.empty()) return {};
  try {
    const GroupDivision division = divide_into_unifac_groups(molecule);
    answer.tables.push_back(
        division_table("Subgroups of UNIFAC", molecule, division, answer.json["unifac_division"]));
    answer.notices.add(division.notices);
    return division.groups;
  } catch (const CalculationError& error) {
    answer.notices.add("no-unifac-groups", fmt::format("{}; --unifac-groups may give them", error.what()));
    return {};
  }
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

// Where the figure of a substance without a comparison begins: well below its boiling point.
double figure_from(const Substance& substance) {
  if (!substance.vapour_pressure) {
    throw CalculationError(fmt::format("{} has no vapour pressure to draw", substance.name));
  }
  return std::max(substance.vapour_pressure->lowest_K(),
                  0.75 * substance.vapour_pressure->T_K(standard_atmosphere));
}

Answer define(const DefineOptions& options, const Presentation& presentation) {
  const bool draws = !presentation.figure.empty();
  const std::shared_ptr<const Bank> bank = bank_with(options.substance_files);
  if (bank->find(options.name) != nullptr) {
    throw RequestError(
        fmt::format("'{}' is already the name of a substance in the bank; give yours another", options.name));
  }
  if (!options.groups.empty() && !options.smiles.empty()) {
    throw RequestError("--groups and --smiles both say what the molecule is; give one of them");
  }
  Answer answer;
  answer.json = plain_header("define");
  std::optional<GroupDivision> division;
  std::vector<GroupCount> known_unifac;
  if (!options.smiles.empty()) {
    const Molecule molecule = parse_smiles(options.smiles);
    division = divide_into_groups(molecule);
    answer.tables.push_back(
        division_table(fmt::format("Groups of {} ({})", options.smiles, molecule.formula()), molecule,
                       *division, answer.json["division"]));
    answer.notices.add(division->notices);
    known_unifac = unifac_groups(molecule, options, answer);
  }
  KnownConstants known = read_known(options, division ? &*division : nullptr);
  if (!known_unifac.empty()) known.unifac_groups[UnifacTable::vle] = known_unifac;
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
  if (!known.vapour_pressure_points.empty() && defined.substance.vapour_pressure) {
    answer.tables.push_back(points_table(defined.substance, known.vapour_pressure_points, answer.json));
  }
  answer.notices.add(defined.notices);
  if (!options.against.empty()) {
    Json comparison = Json::array();
    answer.tables.push_back(comparison_table(defined.substance, bank->require(options.against), comparison));
    answer.json["against"] = std::move(comparison);
    if (draws) {
      answer.figure =
          substance_comparison_figure(defined.substance, bank->require(options.against), presentation.units);
    }
  } else if (draws) {
    const SaturationPoint from = saturation_at_temperature(defined.substance, figure_from(defined.substance));
    answer.figure =
        saturation_figure(defined.substance, {from, saturation_at_pressure(defined.substance, 2e5)},
                          SaturationAxes::log_P_against_inverse_T, presentation.units);
  }
  if (!options.out.empty()) answer.files.emplace_back(options.out, substance_text(defined, known));
  return answer;
}

}  // namespace

void add_define(CLI::App& tool, Presenter& presenter) {
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
  add("--melting-point", options->melting_point, "", "QUANTITY");
  add("--density", options->density, "Of the liquid: \"867 kg/m3 at 20 degC\"; 25 degC if none is given",
      "QUANTITY");
  add("--specific-gravity", options->specific_gravity,
      "With the temperatures of liquid and water: \"0.867 at 20/4 degC\"", "TEXT");
  add("--enthalpy-of-vaporisation", options->heat_of_vaporisation, "At the boiling point, in kJ/mol",
      "NUMBER");
  add("--liquid-heat-capacity", options->liquid_heat_capacity, "At 25 degC, in J/(mol K)", "NUMBER");
  add("--vapour-pressure", options->equation,
      "The printed equation: \"log10(P/mmHg) = 8.07131 - 1730.63/(T/degC + 233.426), 1 to 100 degC\"",
      "TEXT");
  add("--vapour-pressure-points", options->points,
      "Points to fit: \"40 degC = 10.2 kPa, 60 degC = 25 kPa\", or a .csv file with the columns T and P",
      "LIST");
  add("--unifac-groups", options->unifac_groups,
      "Subgroups of UNIFAC (vapour-liquid table): \"CH3=2, CH2=1\"", "LIST");
  add("--unifac-lle-groups", options->unifac_lle_groups, "Subgroups of the liquid-liquid table", "LIST");
  add("--unifac-dortmund-groups", options->unifac_dortmund_groups, "Subgroups of modified UNIFAC (Dortmund)",
      "LIST");
  command->add_flag("--non-volatile", options->non_volatile, "It stays in the liquid at any temperature");
  add("--uniquac-r", options->uniquac_r, "Volume parameter, where no UNIFAC groups are given", "NUMBER");
  add("--uniquac-q", options->uniquac_q, "Surface parameter, where no UNIFAC groups are given", "NUMBER");
  add("--mosced", options->mosced,
      "MOSCED parameters: \"v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, beta=11\"", "LIST");
  add("--against", options->against, "Tabulate (and with --figure draw) beside this substance of the bank",
      "NAME");
  add("--out", options->out, "Write it to this file, which --substance of the other commands reads",
      "FILE.substance.toml");
  add_substance_files(*command, options->substance_files);
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example (what the estimates are worth, on a substance that is known):\n"
      "  jampot define try --groups \"CH3=4, C=1, O=1\" --boiling-point \"55.2 degC\" --against MTBE");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(define(*options, presentation), presentation);
  });
}

}  // namespace jampot::tool
