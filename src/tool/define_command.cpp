// define: a user-defined component from groups and what is known, beside one from the bank on request.

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/mosced_csv.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/files/vapour_points.hpp"
#include "jampot/report/define.hpp"
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

KnownConstants read_known(const DefineOptions& options) {
  KnownConstants known;
  if (!options.groups.empty()) known.groups = parse_groups(options.groups);
  const auto quantity = [](const std::string& text, Dimension dimension, std::optional<double>& target) {
    if (!text.empty()) target = parse_quantity(text, dimension);
  };
  quantity(options.boiling_point, Dimension::temperature, known.Tb_K);
  quantity(options.critical_temperature, Dimension::temperature, known.Tc_K);
  quantity(options.critical_pressure, Dimension::pressure, known.Pc_Pa);
  quantity(options.melting_point, Dimension::temperature, known.Tm_K);
  const auto plain = [](const char* option, const std::string& text, const char* unit, double to_si,
                        std::optional<double>& target) {
    if (!text.empty()) target = positive_number(option, text, unit) * to_si;
  };
  plain("--molar-mass", options.molar_mass, "g/mol", 1e-3, known.molar_mass_kg_mol);
  plain("--acentric-factor", options.acentric_factor, "", 1, known.acentric_factor);
  plain("--enthalpy-of-vaporisation", options.heat_of_vaporisation, "kJ/mol", 1000, known.Hvap_Tb_J_mol);
  plain("--liquid-heat-capacity", options.liquid_heat_capacity, "J/(mol K)", 1, known.Cp_liquid_25C_J_mol_K);
  plain("--uniquac-r", options.uniquac_r, "", 1, known.uniquac_r);
  plain("--uniquac-q", options.uniquac_q, "", 1, known.uniquac_q);
  if (!options.density.empty() && !options.specific_gravity.empty()) {
    throw RequestError("--density and --specific-gravity are two forms of one value; give one of them");
  }
  if (!options.density.empty()) known.density = parse_density(options.density);
  if (!options.specific_gravity.empty()) known.density = parse_specific_gravity(options.specific_gravity);
  known.vapour_pressure_equation = options.equation;
  if (!options.points.empty()) known.vapour_pressure_points = read_vapour_pressure_points(options.points);
  known.non_volatile = options.non_volatile;
  if (!options.mosced.empty()) known.mosced = parse_mosced(options.mosced);
  for (const auto& [table, text] : {std::pair(UnifacTable::vle, &options.unifac_groups),
                                    std::pair(UnifacTable::lle, &options.unifac_lle_groups),
                                    std::pair(UnifacTable::dortmund, &options.unifac_dortmund_groups)}) {
    if (!text->empty()) known.unifac_groups[table] = UnifacGroups::of(table).parse(*text);
  }
  return known;
}

DefineStudy define(const DefineOptions& options) {
  const auto bank = bank_with(options.substance_files);
  DefineRequest request{options.name, read_known(options), options.smiles, std::nullopt, bank.get()};
  if (!options.against.empty()) request.against = bank->require(options.against);
  return study(request);
}

}  // namespace

void add_define(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<DefineOptions>();
  Command& command =
      tool.add("define", "Define a component from its groups and the properties that you know");
  command.option("NAME", options->name, "", "Name of the component").needed();
  const auto add = [&](const char* name, std::string& target, const char* about, const char* type) {
    command.option(name, target, type, about);
  };
  add("--groups", options->groups, "Groups: \"CH3=2, CH2=3, OH=1\", \"ring =CH=6\"; those of Joback and Reid",
      "LIST");
  add("--smiles", options->smiles, "The molecule as a SMILES string, divided into those groups", "TEXT");
  add("--molar-mass", options->molar_mass, "Molar mass in g/mol", "NUMBER");
  add("--boiling-point", options->boiling_point, "Normal boiling point (at 1 atm)", "QUANTITY");
  add("--critical-temperature", options->critical_temperature, "Critical temperature", "QUANTITY");
  add("--critical-pressure", options->critical_pressure, "Critical pressure", "QUANTITY");
  add("--acentric-factor", options->acentric_factor, "Acentric factor", "NUMBER");
  add("--melting-point", options->melting_point, "Melting point", "QUANTITY");
  add("--density", options->density,
      "Density of the liquid: \"867 kg/m3 at 20 degC\"; without a temperature at 25 degC", "QUANTITY");
  add("--specific-gravity", options->specific_gravity,
      "Specific gravity, with the temperatures of liquid and water: \"0.867 at 20/4 degC\"", "TEXT");
  add("--enthalpy-of-vaporisation", options->heat_of_vaporisation,
      "Enthalpy of vaporisation at the boiling point, in kJ/mol", "NUMBER");
  add("--liquid-heat-capacity", options->liquid_heat_capacity,
      "Heat capacity of the liquid at 25 degC, in J/(mol K)", "NUMBER");
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
  command.flag("--non-volatile", options->non_volatile,
               "The component stays in the liquid at any temperature");
  add("--uniquac-r", options->uniquac_r, "Volume parameter, where no UNIFAC groups are given", "NUMBER");
  add("--uniquac-q", options->uniquac_q, "Surface parameter, where no UNIFAC groups are given", "NUMBER");
  add("--mosced", options->mosced,
      "MOSCED parameters: \"v=92, lambda=15.8, tau=1.9, q=1, alpha=8.4, beta=11\"", "LIST");
  add("--against", options->against,
      "Compare with this substance of the databank, in tables and in the figure", "NAME");
  add("--out", options->out, "Write it to this file, which --substance of the other commands reads",
      "FILE.substance.toml");
  add_substance_files(command, options->substance_files);
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example (compares the estimates with a known substance):\n"
      "  jampot define try --groups \"CH3=4, C=1, O=1\" --boiling-point \"55.2 degC\" --against MTBE";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    const DefineStudy defined = define(*options);
    Answer told = answer(defined, {presentation.units, Basis::mole, presentation.draws()});
    if (!options->out.empty())
      told.files.emplace_back(options->out, substance_text(defined.defined, defined.known));
    return told;
  });
}

}  // namespace jampot::tool
