#include <fmt/format.h>

#include "bank_index.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/substance/group_contributions.hpp"
#include "jampot/substance/vapour_pressure_estimate.hpp"

namespace jampot {
namespace {

const char* const perry = "Perry's Chemical Engineers' Handbook";

template <std::size_t count>
std::array<double, count> coefficients(const CsvTable& table, std::size_t row) {
  std::array<double, count> values{};
  for (std::size_t k = 0; k < count; ++k)
    values[k] = table.number(row, table.column(fmt::format("C{}", k + 1)));
  return values;
}

double number(const CsvTable& table, std::size_t row, const char* column) {
  return table.number(row, table.column(column));
}

// The curves first, then the cubics of what has none.
void read_gas_heat_capacities(const BankTables& tables, BankIndex& index) {
  const CsvTable cubics(tables.gas_heat_capacity, "gas_heat_capacity.csv");
  for (std::size_t row = 0; row < cubics.rows(); ++row) {
    index.named(cubics, row).gas_heat_capacity =
        GasHeatCapacity{{number(cubics, row, "a"), number(cubics, row, "b"), number(cubics, row, "c"),
                         number(cubics, row, "d")},
                        "Reid, Prausnitz, Poling, The Properties of Gases and Liquids, 4th ed.",
                        grade_of(cubics, row),
                        std::nullopt};
  }
  const CsvTable curves(tables.gas_heat_capacity_curve, "gas_heat_capacity_curve.csv");
  for (std::size_t row = 0; row < curves.rows(); ++row) {
    auto C = coefficients<5>(curves, row);
    for (const std::size_t k : {0u, 1u, 3u}) C[k] /= 1000;
    index.named(curves, row).gas_heat_capacity = GasHeatCapacity{{}, perry, grade_of(curves, row), C};
  }
}

// From groups, and where the heat capacity at 25 degC is known, scaled to it.
void estimate_gas_heat_capacities(const BankTables& tables, BankIndex& index) {
  const CsvTable groups(tables.constant_groups, "constant_groups.csv"),
      points(tables.gas_heat_capacity_point, "gas_heat_capacity_point.csv");
  for (std::size_t row = 0; row < groups.rows(); ++row) {
    Substance& substance = index.named(groups, row);
    if (substance.gas_heat_capacity) continue;
    substance.gas_heat_capacity =
        gas_heat_capacity_from_groups(parse_groups(groups.text(row, groups.column("groups"))));
  }
  for (std::size_t row = 0; row < points.rows(); ++row) {
    auto& known = index.named(points, row).gas_heat_capacity;
    if (!known || known->hyperbolic) {
      throw RequestError(points.place(row, points.column("name")), "needs groups in constant_groups.csv");
    }
    const double factor = number(points, row, "Cp_25C") / known->value(room_T_K);
    for (double& coefficient : known->cubic) coefficient *= factor;
    known->source = "handbook value at 25 degC, carried by groups (Joback, Reid 1987)";
  }
}

void read_liquid_heat_capacities(std::string_view csv, BankIndex& index) {
  const CsvTable table(csv, "liquid_heat_capacity.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    index.named(table, row).liquid_heat_capacity =
        LiquidHeatCapacity{coefficients<5>(table, row), number(table, row, "Tmin_K"),
                           number(table, row, "Tmax_K"), perry, grade_of(table, row)};
  }
}

void read_vaporisation(std::string_view csv, BankIndex& index) {
  const CsvTable table(csv, "vaporisation_curve.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    index.named(table, row).vaporisation =
        VaporisationCurve{coefficients<4>(table, row), number(table, row, "Tc_K"),
                          number(table, row, "Tmin_K"), perry, grade_of(table, row)};
  }
}

void read_liquid_densities(std::string_view csv, BankIndex& index) {
  const CsvTable table(csv, "liquid_density_curve.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    index.named(table, row).liquid_density =
        LiquidDensityCurve{coefficients<4>(table, row), number(table, row, "Tmin_K"),
                           number(table, row, "Tmax_K"), perry, grade_of(table, row)};
  }
}

std::optional<double> melting_point(const Substance& substance) {
  return substance.Tm_K ? std::optional<double>(*substance.Tm_K) : std::nullopt;
}

// With the acentric factor of the boiling point, where there is one.
std::optional<CorrespondingStates::Critical> critical(const Substance& substance) {
  if (!substance.Tc_K || !substance.Pc_Pa) return std::nullopt;
  const double Tc_K = *substance.Tc_K, Pc_Pa = *substance.Pc_Pa;
  if (substance.Tb_K)
    return CorrespondingStates::Critical{Tc_K, Pc_Pa,
                                         CorrespondingStates::acentric_factor(*substance.Tb_K, Tc_K, Pc_Pa)};
  if (!substance.acentric_factor) return std::nullopt;
  return CorrespondingStates::Critical{Tc_K, Pc_Pa, *substance.acentric_factor};
}

using CriticalPoints = std::unordered_map<std::string, CorrespondingStates::Critical>;

// Of what has a boiling point but no whole critical point: that from groups, for the vapour pressure alone.
CriticalPoints critical_points_from_groups(std::string_view csv, BankIndex& index) {
  CriticalPoints known;
  const CsvTable table(csv, "constant_groups.csv");
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const Substance& substance = index.named(table, row);
    if (!substance.Tb_K || (substance.Tc_K && substance.Pc_Pa)) continue;
    const GroupEstimate estimate =
        estimate_from_groups(parse_groups(table.text(row, table.column("groups"))), *substance.Tb_K);
    const double Tc_K = substance.Tc_K ? *substance.Tc_K : estimate.Tc_K.value(),
                 Pc_Pa = substance.Pc_Pa ? *substance.Pc_Pa : estimate.Pc_Pa.value();
    known.emplace(substance.name,
                  CorrespondingStates::Critical{
                      Tc_K, Pc_Pa, CorrespondingStates::acentric_factor(*substance.Tb_K, Tc_K, Pc_Pa)});
  }
  return known;
}

// The rows of Antoine coefficients first; then the curves, which keep a row where they confirm it.
void read_vapour_pressures(const BankTables& tables, const CriticalPoints& from_groups, BankIndex& index) {
  struct Row {
    VapourPressure::Coefficients coefficients;
    std::string source;
    char grade;
  };
  std::unordered_map<std::string, Row> antoine;
  const CsvTable rows(tables.vapour_pressure, "vapour_pressure.csv");
  for (std::size_t row = 0; row < rows.rows(); ++row) {
    Substance& substance = index.named(rows, row);
    const Row known{{number(rows, row, "A"), number(rows, row, "B"), number(rows, row, "C"),
                     number(rows, row, "Tmin_C") + celsius_zero, number(rows, row, "Tmax_C") + celsius_zero},
                    rows.text(row, rows.column("source")),
                    grade_of(rows, row)};
    auto end = critical(substance);
    if (const auto estimate = from_groups.find(substance.name); !end && estimate != from_groups.end())
      end = estimate->second;
    substance.vapour_pressure.emplace(known.coefficients, known.source, known.grade, end,
                                      melting_point(substance));
    antoine.emplace(substance.name, known);
  }
  const CsvTable curves(tables.vapour_pressure_curve, "vapour_pressure_curve.csv");
  for (std::size_t row = 0; row < curves.rows(); ++row) {
    Substance& substance = index.named(curves, row);
    const double scale = number(curves, row, "scale");
    LongCurve curve(
        {coefficients<5>(curves, row), number(curves, row, "Tmin_K"), number(curves, row, "Tmax_K"), scale});
    std::string source = perry;
    if (scale != 1) source += fmt::format(", times {} to meet the boiling point", scale);
    char grade = scale == 1 ? grade_of(curves, row) : 'C';
    std::optional<VapourPressure::Coefficients> kept;
    if (const auto from = curves.number_if_any(row, curves.column("row_from_K"))) {
      const Row& known = antoine.at(substance.name);
      kept = known.coefficients;
      kept->Tmin_K = *from;
      kept->Tmax_K = number(curves, row, "row_to_K");
      source = fmt::format("{} (Antoine) from {:.0f} to {:.0f} K, beyond it {}", known.source, kept->Tmin_K,
                           kept->Tmax_K, source);
      grade = known.grade;
    }
    substance.vapour_pressure.emplace(std::move(curve), kept, source, grade, critical(substance));
  }
}

void estimate(const CriticalPoints& from_groups, Substance& substance) {
  if (substance.vapour_pressure) return;
  const auto known = critical(substance);
  const auto grouped = from_groups.find(substance.name);
  if (known && substance.Tb_K) {
    substance.vapour_pressure = estimate_vapour_pressure(substance, *known);
  } else if (known) {
    substance.vapour_pressure.emplace(
        *known, "estimated: corresponding states (Ambrose, Walton 1989) with the acentric factor",
        melting_point(substance));
  } else if (grouped != from_groups.end()) {
    substance.vapour_pressure =
        estimate_vapour_pressure(substance, grouped->second, "groups (Joback, Reid 1987)");
  }
}

}  // namespace

void read_curves(const BankTables& tables, BankIndex& index) {
  read_gas_heat_capacities(tables, index);
  estimate_gas_heat_capacities(tables, index);
  read_liquid_heat_capacities(tables.liquid_heat_capacity, index);
  read_vaporisation(tables.vaporisation_curve, index);
  read_liquid_densities(tables.liquid_density_curve, index);
  const CriticalPoints from_groups = critical_points_from_groups(tables.constant_groups, index);
  read_vapour_pressures(tables, from_groups, index);
  for (Substance& substance : index.all()) estimate(from_groups, substance);
}

}  // namespace jampot
