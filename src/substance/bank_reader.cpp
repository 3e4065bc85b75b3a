#include "bank_reader.hpp"

#include <algorithm>
#include <span>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/unifac_groups.hpp"

namespace jampot {
namespace {

constexpr const char* handbooks = "handbook values on which editions agree";

struct Quantity {
  const char* column;
  MaybeSourced Substance::*member;
  double to_si;
  const char* grade_column;
};

constexpr std::array<Quantity, 12> constants{
    {{"Tb_K", &Substance::Tb_K, 1, "Tb_K_grade"},
     {"Tm_K", &Substance::Tm_K, 1, "Tm_K_grade"},
     {"Tc_K", &Substance::Tc_K, 1, "Tc_K_grade"},
     {"Pc_bar", &Substance::Pc_Pa, 1e5, "Pc_bar_grade"},
     {"Vc_cm3_mol", &Substance::Vc_m3_mol, 1e-6, "Vc_cm3_mol_grade"},
     {"acentric_factor", &Substance::acentric_factor, 1, "acentric_factor_grade"},
     {"dipole_D", &Substance::dipole_D, 1, "dipole_D_grade"},
     {"Z_RA", &Substance::Z_RA, 1, "Z_RA_grade"},
     {"molar_volume_25C_cm3_mol", &Substance::molar_volume_25C_m3_mol, 1e-6,
      "molar_volume_25C_cm3_mol_grade"},
     {"Hvap_Tb_kJ_mol", &Substance::Hvap_Tb_J_mol, 1e3, "Hvap_Tb_kJ_mol_grade"},
     {"Hvap_25C_kJ_mol", &Substance::Hvap_25C_J_mol, 1e3, "Hvap_25C_kJ_mol_grade"},
     {"Cp_liquid_25C_J_mol_K", &Substance::Cp_liquid_25C_J_mol_K, 1, "Cp_liquid_25C_J_mol_K_grade"}}};

constexpr std::array<Quantity, 2> densities{{{"rho_20C", &Substance::density_20C_kg_m3, 1, "rho_20C_grade"},
                                             {"rho_25C", &Substance::density_25C_kg_m3, 1, "rho_25C_grade"}}};

constexpr std::array<Quantity, 1> viscosities{
    {{"viscosity_25C", &Substance::viscosity_25C_Pa_s, 1e-3, "grade"}}};

void add_quantities(const BankRow& row, std::span<const Quantity> quantities, Substance& substance) {
  for (const Quantity& quantity : quantities) {
    const auto value = row.number_if_any(quantity.column);
    if (!value) continue;
    const std::string_view grade = row.text(quantity.grade_column);
    substance.*quantity.member =
        Sourced{*value * quantity.to_si, grade.empty() ? 'C' : grade.front(), handbooks};
  }
}

std::vector<SubstanceIdentity> identities_of(const CsvTable& table) {
  const std::size_t name = table.column("name"), formula = table.column("formula"), cas = table.column("cas"),
                    aliases = table.column("aliases"), mass = table.column("molar_mass_g_mol");
  std::vector<SubstanceIdentity> identities;
  identities.reserve(table.rows());
  for (std::size_t row = 0; row < table.rows(); ++row) {
    SubstanceIdentity one{.name = std::string(table.text(row, name)),
                          .formula = std::string(table.text(row, formula)),
                          .cas = std::string(table.text(row, cas)),
                          .aliases = split(table.text(row, aliases), '|'),
                          .molar_mass_kg_mol = table.number(row, mass) / 1000};
    std::erase(one.aliases, "");
    identities.push_back(std::move(one));
  }
  return identities;
}

BankTable::Numbers numbers_of(const std::vector<SubstanceIdentity>& identities) {
  BankTable::Numbers numbers;
  numbers.reserve(identities.size());
  for (std::size_t k = 0; k < identities.size(); ++k) numbers.emplace(identities[k].name, k);
  return numbers;
}

}  // namespace

BankTable::BankTable(std::string_view csv, std::string file, const Numbers& substances)
    : table_(csv, std::move(file), TextLife::longer), row_of_(substances.size(), table_.rows()) {
  const std::size_t column = table_.column("name");
  for (std::size_t row = 0; row < table_.rows(); ++row) {
    const std::string_view name = table_.text(row, column);
    const auto found = substances.find(name);
    if (found == substances.end()) {
      throw RequestError(table_.place(row, column), "'" + std::string(name) + "' is not in substances.csv");
    }
    std::size_t& own = row_of_[found->second];
    if (own != table_.rows()) {
      throw RequestError(table_.place(row, column), "'" + std::string(name) + "' has a row above");
    }
    own = row;
  }
}

std::optional<BankRow> BankTable::of(std::size_t substance) const {
  const std::size_t row = row_of_[substance];
  return row == table_.rows() ? std::nullopt : std::optional(BankRow(table_, row));
}

BankReader::BankReader(const BankTables& tables)
    : constants_(tables.substances, "substances.csv", TextLife::longer),
      identities_(identities_of(constants_)),
      numbers_(numbers_of(identities_)),
      liquid_densities_(tables.liquid_density, "liquid_density.csv", numbers_),
      liquid_viscosities_(tables.liquid_viscosity, "liquid_viscosity.csv", numbers_),
      groups_(tables.groups, "groups.csv", numbers_),
      mosced_(tables.mosced, "mosced.csv", numbers_),
      pc_saft_(tables.pc_saft, "pc_saft.csv", numbers_),
      hayden_oconnell_(tables.hayden_oconnell, "hayden_oconnell.csv", numbers_),
      dimers_(tables.dimerisation, "dimerisation.csv", numbers_),
      gas_heat_capacity_cubics_(tables.gas_heat_capacity, "gas_heat_capacity.csv", numbers_),
      gas_heat_capacity_curves_(tables.gas_heat_capacity_curve, "gas_heat_capacity_curve.csv", numbers_),
      gas_heat_capacity_points_(tables.gas_heat_capacity_point, "gas_heat_capacity_point.csv", numbers_),
      constant_groups_(tables.constant_groups, "constant_groups.csv", numbers_),
      liquid_heat_capacities_(tables.liquid_heat_capacity, "liquid_heat_capacity.csv", numbers_),
      vaporisation_(tables.vaporisation_curve, "vaporisation_curve.csv", numbers_),
      liquid_density_curves_(tables.liquid_density_curve, "liquid_density_curve.csv", numbers_),
      antoine_(tables.vapour_pressure, "vapour_pressure.csv", numbers_),
      vapour_pressure_curves_(tables.vapour_pressure_curve, "vapour_pressure_curve.csv", numbers_) {}

Substance BankReader::make(std::size_t number) const {
  const SubstanceIdentity& identity = identities_.at(number);
  Substance substance;
  substance.name = identity.name;
  substance.formula = identity.formula;
  substance.cas = identity.cas;
  substance.aliases = identity.aliases;
  substance.molar_mass_kg_mol = identity.molar_mass_kg_mol;
  add_constants(number, substance);
  add_groups(number, substance);
  add_model_parameters(number, substance);
  add_curves(number, substance);
  return substance;
}

void BankReader::add_constants(std::size_t number, Substance& substance) const {
  add_quantities({constants_, number}, constants, substance);
  if (const auto row = liquid_densities_.of(number)) add_quantities(*row, densities, substance);
  if (const auto row = liquid_viscosities_.of(number)) add_quantities(*row, viscosities, substance);
}

// A make-up with a subgroup that its table has not is left out: nothing can be calculated with it.
void BankReader::add_groups(std::size_t number, Substance& substance) const {
  const auto row = groups_.of(number);
  if (!row) return;
  for (const UnifacTable model : all_unifac_tables) {
    std::string column = name_of(model);
    std::replace(column.begin(), column.end(), '-', '_');
    const std::string_view make_up = row->text(column);
    if (make_up.empty()) continue;
    std::vector<GroupCount> groups;
    try {
      groups = UnifacGroups::of(model).parse(make_up);
    } catch (const RequestError&) {
      continue;
    }
    substance.groups[name_of(model)] = make_up;
    if (model != UnifacTable::vle) continue;
    const MoleculeSize size = molecule_size(groups, model);
    const char grade = row->text("unifac_grade").front();
    substance.uniquac_r = Sourced{size.r, grade, "sum over UNIFAC groups"};
    substance.uniquac_q = Sourced{size.q, grade, "sum over UNIFAC groups"};
  }
}

void BankReader::add_model_parameters(std::size_t number, Substance& substance) const {
  if (const auto row = mosced_.of(number)) {
    substance.mosced =
        MoscedParameters{row->number("v"),     row->number("lambda"),
                         row->number("tau"),   row->number("q"),
                         row->number("alpha"), row->number("beta"),
                         row->grade(),         "Lazzaroni et al., Ind. Eng. Chem. Res. 44 (2005) 4075"};
  }
  if (const auto row = pc_saft_.of(number)) {
    const auto given = [&](const char* column) { return row->number_if_any(column).value_or(0); };
    substance.pc_saft = PcSaftParameters{given("m"),
                                         given("sigma_A"),
                                         given("dispersion_K"),
                                         std::string(row->text("scheme")),
                                         given("association_K"),
                                         given("association_volume"),
                                         row->grade(),
                                         row->source()};
  }
  if (const auto row = hayden_oconnell_.of(number)) {
    substance.hayden_oconnell = HaydenOConnellParameters{row->number("radius_A"), row->number("dipole_D"),
                                                         row->number("eta"), row->grade(), row->source()};
  }
  if (const auto row = dimers_.of(number)) {
    substance.dimer = DimerConstant{row->number("A"), row->number("B"), row->grade(), row->source()};
  }
}

std::vector<Substance> read_bank(const BankTables& tables) {
  const BankReader reader(tables);
  std::vector<Substance> substances;
  substances.reserve(reader.identities().size());
  for (std::size_t k = 0; k < reader.identities().size(); ++k) substances.push_back(reader.make(k));
  return substances;
}

}  // namespace jampot
