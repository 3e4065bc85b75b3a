#pragma once
// The tables of data/ as substances.
#include <string_view>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// The texts of the tables in data/ (see data/README.md for their columns).
struct BankTables {
  std::string_view substances, vapour_pressure, gas_heat_capacity, liquid_density, liquid_viscosity, groups,
      mosced, pc_saft, hayden_oconnell, constant_groups, liquid_heat_capacity, vapour_pressure_curve,
      vaporisation_curve, liquid_density_curve, gas_heat_capacity_curve, gas_heat_capacity_point,
      dimerisation;
};

/// Reads the tables. A vapour pressure that has no curve to the critical point is joined to corresponding
/// states where the critical point is known, and estimated by them where no coefficients are. UNIQUAC r and q
/// are sums over the groups of the first UNIFAC table.
/// @throws RequestError naming the table, line and column that is wrong.
std::vector<Substance> read_bank(const BankTables& tables);

}  // namespace jampot
