#pragma once
// The tables of data/ as substances.
#include <string_view>
#include <vector>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// The texts of the tables in data/ (see data/README.md for their columns).
struct BankTables {
  std::string_view substances,  ///< text of the table
      vapour_pressure,          ///< text of data/vapour_pressure.csv
      gas_heat_capacity,        ///< text of data/gas_heat_capacity.csv
      liquid_density,           ///< text of data/liquid_density.csv
      liquid_viscosity,         ///< text of data/liquid_viscosity.csv
      groups,                   ///< text of data/groups.csv
      mosced,                   ///< text of data/mosced.csv
      pc_saft,                  ///< text of data/pc_saft.csv
      hayden_oconnell,          ///< text of data/hayden_oconnell.csv
      constant_groups,          ///< text of data/constant_groups.csv
      liquid_heat_capacity,     ///< text of data/liquid_heat_capacity.csv
      vapour_pressure_curve,    ///< text of data/vapour_pressure_curve.csv
      vaporisation_curve,       ///< text of data/vaporisation_curve.csv
      liquid_density_curve,     ///< text of data/liquid_density_curve.csv
      gas_heat_capacity_curve,  ///< text of data/gas_heat_capacity_curve.csv
      gas_heat_capacity_point,  ///< text of data/gas_heat_capacity_point.csv
      dimerisation;             ///< text of data/dimerisation.csv
};

/// Reads the tables. A vapour pressure that has no curve to the critical point is joined to corresponding
/// states where the critical point is known, and estimated by them where no coefficients are. UNIQUAC r and q
/// are sums over the groups of the first UNIFAC table.
/// @throws RequestError naming the table, line and column that is wrong.
std::vector<Substance> read_bank(const BankTables& tables);

}  // namespace jampot
