#pragma once
// The tables of data/ taken apart, from which a substance is made when somebody asks for it.
#include <array>
#include <cstddef>
#include <optional>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "jampot/basis/csv_table.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/bank_tables.hpp"

namespace jampot {

/// One row of a table.
class BankRow {
 public:
  BankRow(const CsvTable& table, std::size_t row) : table_(&table), row_(row) {}

  std::string_view text(std::string_view column) const { return table_->text(row_, table_->column(column)); }
  double number(std::string_view column) const { return table_->number(row_, table_->column(column)); }
  std::optional<double> number_if_any(std::string_view column) const {
    return table_->number_if_any(row_, table_->column(column));
  }
  /// The coefficients C1, C2, ...
  template <std::size_t count>
  std::array<double, count> coefficients() const {
    static_assert(count < 10);
    std::array<double, count> values{};
    std::string column = "C1";
    for (double& value : values) {
      value = number(column);
      ++column.back();
    }
    return values;
  }
  std::string source() const { return std::string(text("source")); }
  char grade() const { return text("grade").front(); }
  Place place(std::string_view column) const { return table_->place(row_, table_->column(column)); }

 private:
  const CsvTable* table_;
  std::size_t row_;
};

/// A table with at most one row for each substance.
class BankTable {
 public:
  using Numbers = std::unordered_map<std::string_view, std::size_t>;

  /// @throws RequestError where a row names no substance of the bank, or one that has a row already
  BankTable(std::string_view csv, std::string file, const Numbers& substances);

  /// The row of a substance, counted as in substances.csv.
  std::optional<BankRow> of(std::size_t substance) const;

 private:
  CsvTable table_;
  std::vector<std::size_t> row_of_;  ///< of each substance; one beyond the table where it has none
};

/// Reads substances one by one. The texts of the tables live longer.
class BankReader {
 public:
  /// @throws RequestError as `read_bank`, but for what is wrong inside of a row
  explicit BankReader(const BankTables& tables);
  BankReader(const BankReader&) = delete;  // the numbers point to the names
  BankReader& operator=(const BankReader&) = delete;

  const std::vector<SubstanceIdentity>& identities() const { return identities_; }
  /// @throws RequestError naming the table, line and column that is wrong
  Substance make(std::size_t number) const;

 private:
  void add_constants(std::size_t number, Substance& substance) const;
  void add_groups(std::size_t number, Substance& substance) const;
  void add_model_parameters(std::size_t number, Substance& substance) const;
  // Vapour pressures, heat capacities, enthalpies of vaporisation and densities against temperature, of a
  // substance whose constants have been read; what is not in the tables is estimated.
  void add_curves(std::size_t number, Substance& substance) const;
  void add_gas_heat_capacity(std::size_t number, Substance& substance) const;
  void add_vapour_pressure(std::size_t number, Substance& substance) const;

  CsvTable constants_;
  std::vector<SubstanceIdentity> identities_;
  BankTable::Numbers numbers_;
  BankTable liquid_densities_, liquid_viscosities_, groups_, mosced_, pc_saft_, hayden_oconnell_, dimers_,
      gas_heat_capacity_cubics_, gas_heat_capacity_curves_, gas_heat_capacity_points_, constant_groups_,
      liquid_heat_capacities_, vaporisation_, liquid_density_curves_, antoine_, vapour_pressure_curves_;
};

}  // namespace jampot
