#pragma once
// The substances of the bank while its tables are read, found by name.
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/substance/bank_tables.hpp"

namespace jampot {

class BankIndex {
 public:
  void expect(std::size_t count) { substances_.reserve(count); }
  void add(Substance substance) {
    by_name_[substance.name] = substances_.size();
    substances_.push_back(std::move(substance));
  }

  /// The substance that a row of another table names in its column "name".
  Substance& named(const CsvTable& table, std::size_t row) {
    const std::size_t column = table.column("name");
    const auto found = by_name_.find(table.text(row, column));
    if (found != by_name_.end()) return substances_[found->second];
    throw RequestError(table.place(row, column),
                       "'" + table.text(row, column) + "' is not in substances.csv");
  }

  std::vector<Substance>& all() { return substances_; }
  std::vector<Substance> take() { return std::move(substances_); }

 private:
  std::vector<Substance> substances_;
  std::unordered_map<std::string, std::size_t> by_name_;
};

inline char grade_of(const CsvTable& table, std::size_t row) {
  return table.text(row, table.column("grade")).front();
}

/// Vapour pressures, heat capacities, enthalpies of vaporisation and densities against temperature, of
/// substances whose constants have been read; what is not in the tables is estimated.
void read_curves(const BankTables& tables, BankIndex& index);

}  // namespace jampot
