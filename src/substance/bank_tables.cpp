#include "jampot/substance/bank_tables.hpp"

#include <fmt/format.h>

#include <unordered_map>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/text.hpp"

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
    read_gas_heat_capacity(tables.gas_heat_capacity);
    read_groups(tables.groups, tables.unifac_groups);
    read_vapour_pressure(tables.vapour_pressure);
    for (Substance& substance : substances_) estimate_vapour_pressure(substance);
    return std::move(substances_);
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
      by_name_[substance.name] = substances_.size();
      substances_.push_back(std::move(substance));
    }
  }

  Substance& named(const CsvTable& table, std::size_t row) {
    const std::size_t column = table.column("name");
    const auto found = by_name_.find(table.text(row, column));
    if (found == by_name_.end()) {
      throw RequestError(table.place(row, column),
                         fmt::format("'{}' is not in substances.csv", table.text(row, column)));
    }
    return substances_[found->second];
  }

  void read_liquid(std::string_view csv, const std::string& file, const std::vector<Quantity>& quantities) {
    const CsvTable table(csv, file);
    for (std::size_t row = 0; row < table.rows(); ++row) {
      Substance& substance = named(table, row);
      for (const Quantity& quantity : quantities) substance.*quantity.member = sourced(table, row, quantity);
    }
  }

  void read_gas_heat_capacity(std::string_view csv) {
    const CsvTable table(csv, "gas_heat_capacity.csv");
    const std::array<std::size_t, 4> columns{table.column("a"), table.column("b"), table.column("c"),
                                             table.column("d")};
    for (std::size_t row = 0; row < table.rows(); ++row) {
      GasHeatCapacity heat_capacity;
      for (std::size_t k = 0; k < 4; ++k) heat_capacity.coefficients[k] = table.number(row, columns[k]);
      heat_capacity.grade = table.text(row, table.column("grade")).front();
      heat_capacity.source = "Reid, Prausnitz, Poling, The Properties of Gases and Liquids, 4th ed.";
      named(table, row).gas_heat_capacity = std::move(heat_capacity);
    }
  }

  void read_groups(std::string_view groups_csv, std::string_view unifac_csv) {
    const CsvTable subgroups(unifac_csv, "unifac_groups.csv");
    struct Size {
      double R, Q;
    };
    std::unordered_map<std::string, Size> sizes;
    for (std::size_t row = 0; row < subgroups.rows(); ++row) {
      sizes[subgroups.text(row, subgroups.column("subgroup"))] = {
          subgroups.number(row, subgroups.column("R")), subgroups.number(row, subgroups.column("Q"))};
    }
    const CsvTable table(groups_csv, "groups.csv");
    for (std::size_t row = 0; row < table.rows(); ++row) {
      Substance& substance = named(table, row);
      for (const char* model : {"unifac", "unifac_lle", "unifac_dortmund"}) {
        const std::string& groups = table.text(row, table.column(model));
        if (!groups.empty()) substance.groups[model] = groups;
      }
      double r = 0, q = 0;
      bool known = substance.groups.contains("unifac");
      for (const std::string& group : split(table.text(row, table.column("unifac")), '|')) {
        const std::size_t colon = group.rfind(':');
        const auto size = sizes.find(group.substr(0, colon));
        const auto count = colon == std::string::npos ? std::nullopt : parse_number(group.substr(colon + 1));
        known = known && size != sizes.end() && count;
        if (!known) break;
        r += *count * size->second.R;
        q += *count * size->second.Q;
      }
      if (!known) continue;
      const char grade = table.text(row, table.column("unifac_grade")).front();
      substance.uniquac_r = Sourced{r, grade, "sum over UNIFAC groups"};
      substance.uniquac_q = Sourced{q, grade, "sum over UNIFAC groups"};
    }
  }

  static std::optional<CorrespondingStates::Critical> critical(const Substance& substance) {
    if (!substance.Tc_K || !substance.Pc_Pa) return std::nullopt;
    if (substance.Tb_K) {
      return CorrespondingStates::Critical{
          *substance.Tc_K, *substance.Pc_Pa,
          CorrespondingStates::acentric_factor(*substance.Tb_K, *substance.Tc_K, *substance.Pc_Pa)};
    }
    if (!substance.acentric_factor) return std::nullopt;
    return CorrespondingStates::Critical{*substance.Tc_K, *substance.Pc_Pa, *substance.acentric_factor};
  }

  static std::optional<double> melting_point(const Substance& substance) {
    return substance.Tm_K ? std::optional<double>(*substance.Tm_K) : std::nullopt;
  }

  void read_vapour_pressure(std::string_view csv) {
    const CsvTable table(csv, "vapour_pressure.csv");
    const auto number = [&](std::size_t row, const char* column) {
      return table.number(row, table.column(column));
    };
    for (std::size_t row = 0; row < table.rows(); ++row) {
      Substance& substance = named(table, row);
      const VapourPressure::Coefficients coefficients{number(row, "A"), number(row, "B"), number(row, "C"),
                                                      number(row, "Tmin_C") + celsius_zero,
                                                      number(row, "Tmax_C") + celsius_zero};
      substance.vapour_pressure.emplace(coefficients, table.text(row, table.column("source")),
                                        table.text(row, table.column("grade")).front(), critical(substance),
                                        melting_point(substance));
    }
  }

  static void estimate_vapour_pressure(Substance& substance) {
    const auto known = critical(substance);
    if (substance.vapour_pressure || !known) return;
    substance.vapour_pressure.emplace(
        *known,
        substance.Tb_K
            ? "estimated: corresponding states (Ambrose, Walton 1989) through the normal boiling point"
            : "estimated: corresponding states (Ambrose, Walton 1989) with the acentric factor",
        melting_point(substance));
  }

  std::vector<Substance> substances_;
  std::unordered_map<std::string, std::size_t> by_name_;
};

}  // namespace

std::vector<Substance> read_bank(const BankTables& tables) {
  return Reader().read(tables);
}

}  // namespace jampot
