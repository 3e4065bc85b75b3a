#include "jampot/substance/bank_tables.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "bank_index.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/substance/unifac_groups.hpp"

namespace jampot {
namespace {

const char* const handbooks = "handbook values on which editions agree";

class Reader {
 public:
  std::vector<Substance> read(const BankTables& tables) {
    read_constants(tables.substances);
    read_liquid(tables.liquid_density, "liquid_density.csv",
                {{"rho_20C", &Substance::density_20C_kg_m3, 1, "rho_20C_grade"},
                 {"rho_25C", &Substance::density_25C_kg_m3, 1, "rho_25C_grade"}});
    read_liquid(tables.liquid_viscosity, "liquid_viscosity.csv",
                {{"viscosity_25C", &Substance::viscosity_25C_Pa_s, 1e-3, "grade"}});
    read_groups(tables.groups);
    read_mosced(tables.mosced);
    read_pc_saft(tables.pc_saft);
    read_hayden_oconnell(tables.hayden_oconnell);
    read_dimers(tables.dimerisation);
    read_curves(tables, index_);
    return index_.take();
  }

 private:
  struct Quantity {
    const char* column;
    MaybeSourced Substance::*member;
    double to_si;
    const char* grade_column;
  };

  static MaybeSourced sourced(const CsvTable& table, std::size_t row, const Quantity& quantity) {
    const auto value = table.number_if_any(row, table.column(quantity.column));
    if (!value) return std::nullopt;
    const std::string& grade = table.text(row, table.column(quantity.grade_column));
    return Sourced{*value * quantity.to_si, grade.empty() ? 'C' : grade.front(), handbooks};
  }

  void read_constants(std::string_view csv) {
    static const std::vector<Quantity> quantities{
        {"Tb_K", &Substance::Tb_K, 1, "Tb_K_grade"},
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
        {"Cp_liquid_25C_J_mol_K", &Substance::Cp_liquid_25C_J_mol_K, 1, "Cp_liquid_25C_J_mol_K_grade"}};
    const CsvTable table(csv, "substances.csv");
    const std::size_t name = table.column("name"), formula = table.column("formula"),
                      cas = table.column("cas"), aliases = table.column("aliases"),
                      mass = table.column("molar_mass_g_mol");
    index_.expect(table.rows());
    for (std::size_t row = 0; row < table.rows(); ++row) {
      Substance substance;
      substance.name = table.text(row, name);
      substance.formula = table.text(row, formula);
      substance.cas = table.text(row, cas);
      for (std::string& alias : split(table.text(row, aliases), '|')) {
        if (!alias.empty()) substance.aliases.push_back(std::move(alias));
      }
      substance.molar_mass_kg_mol = table.number(row, mass) / 1000;
      for (const Quantity& quantity : quantities) substance.*quantity.member = sourced(table, row, quantity);
      index_.add(std::move(substance));
    }
  }

  void read_liquid(std::string_view csv, const std::string& file, const std::vector<Quantity>& quantities) {
    const CsvTable table(csv, file);
    for (std::size_t row = 0; row < table.rows(); ++row) {
      Substance& substance = named(table, row);
      for (const Quantity& quantity : quantities) substance.*quantity.member = sourced(table, row, quantity);
    }
  }

  // A make-up with a subgroup that its table has not is left out: nothing can be calculated with it.
  void read_groups(std::string_view groups_csv) {
    const CsvTable table(groups_csv, "groups.csv");
    for (std::size_t row = 0; row < table.rows(); ++row) {
      Substance& substance = named(table, row);
      for (const UnifacTable model : all_unifac_tables) {
        std::string column = name_of(model);
        std::replace(column.begin(), column.end(), '-', '_');
        const std::string& make_up = table.text(row, table.column(column));
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
        const char grade = table.text(row, table.column("unifac_grade")).front();
        substance.uniquac_r = Sourced{size.r, grade, "sum over UNIFAC groups"};
        substance.uniquac_q = Sourced{size.q, grade, "sum over UNIFAC groups"};
      }
    }
  }

  void read_mosced(std::string_view csv) {
    const CsvTable table(csv, "mosced.csv");
    for (std::size_t row = 0; row < table.rows(); ++row) {
      const auto number = [&](const char* column) { return table.number(row, table.column(column)); };
      named(table, row).mosced =
          MoscedParameters{number("v"),          number("lambda"),
                           number("tau"),        number("q"),
                           number("alpha"),      number("beta"),
                           grade_of(table, row), "Lazzaroni et al., Ind. Eng. Chem. Res. 44 (2005) 4075"};
    }
  }

  void read_pc_saft(std::string_view csv) {
    const CsvTable table(csv, "pc_saft.csv");
    for (std::size_t row = 0; row < table.rows(); ++row) {
      const auto number = [&](const char* column) {
        return table.number_if_any(row, table.column(column)).value_or(0);
      };
      named(table, row).pc_saft = PcSaftParameters{number("m"),
                                                   number("sigma_A"),
                                                   number("dispersion_K"),
                                                   table.text(row, table.column("scheme")),
                                                   number("association_K"),
                                                   number("association_volume"),
                                                   grade_of(table, row),
                                                   table.text(row, table.column("source"))};
    }
  }

  void read_hayden_oconnell(std::string_view csv) {
    const CsvTable table(csv, "hayden_oconnell.csv");
    for (std::size_t row = 0; row < table.rows(); ++row) {
      const auto number = [&](const char* column) { return table.number(row, table.column(column)); };
      named(table, row).hayden_oconnell =
          HaydenOConnellParameters{number("radius_A"), number("dipole_D"), number("eta"),
                                   grade_of(table, row), table.text(row, table.column("source"))};
    }
  }

  void read_dimers(std::string_view csv) {
    const CsvTable table(csv, "dimerisation.csv");
    for (std::size_t row = 0; row < table.rows(); ++row) {
      named(table, row).dimer =
          DimerConstant{table.number(row, table.column("A")), table.number(row, table.column("B")),
                        grade_of(table, row), table.text(row, table.column("source"))};
    }
  }

  Substance& named(const CsvTable& table, std::size_t row) { return index_.named(table, row); }

  BankIndex index_;
};

}  // namespace

std::vector<Substance> read_bank(const BankTables& tables) {
  return Reader().read(tables);
}

}  // namespace jampot
