// The curves of a substance against temperature, from the tables of the bank or estimated.
#include <fmt/format.h>

#include "bank_reader.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/substance/group_contributions.hpp"
#include "jampot/substance/vapour_pressure_estimate.hpp"

namespace jampot {
namespace {

const char* const perry = "Perry's Chemical Engineers' Handbook";

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

// Of what has a boiling point but no whole critical point: that from groups, for the vapour pressure alone.
std::optional<CorrespondingStates::Critical> critical_from_groups(const Substance& substance,
                                                                  const std::optional<BankRow>& row) {
  if (!row || !substance.Tb_K || (substance.Tc_K && substance.Pc_Pa)) return std::nullopt;
  const GroupEstimate estimate = estimate_from_groups(parse_groups(row->text("groups")), *substance.Tb_K);
  const double Tc_K = substance.Tc_K ? *substance.Tc_K : estimate.Tc_K.value(),
               Pc_Pa = substance.Pc_Pa ? *substance.Pc_Pa : estimate.Pc_Pa.value();
  return CorrespondingStates::Critical{Tc_K, Pc_Pa,
                                       CorrespondingStates::acentric_factor(*substance.Tb_K, Tc_K, Pc_Pa)};
}

VapourPressure::Coefficients antoine_of(const BankRow& row) {
  return {row.number("A"), row.number("B"), row.number("C"), row.number("Tmin_C") + celsius_zero,
          row.number("Tmax_C") + celsius_zero};
}

// A row of Antoine coefficients is kept where the curve confirms it.
VapourPressure vapour_pressure_along(const BankRow& curve, const std::optional<BankRow>& antoine,
                                     const Substance& substance) {
  const double scale = curve.number("scale");
  const LongCurve equation({curve.coefficients<5>(), curve.number("Tmin_K"), curve.number("Tmax_K"), scale});
  std::string source = perry;
  if (scale != 1) source += fmt::format(", times {} to meet the boiling point", scale);
  char grade = scale == 1 ? curve.grade() : 'C';
  std::optional<VapourPressure::Coefficients> kept;
  if (const auto from = curve.number_if_any("row_from_K")) {
    if (!antoine) throw RequestError(curve.place("row_from_K"), "needs a row in vapour_pressure.csv");
    kept = antoine_of(*antoine);
    kept->Tmin_K = *from;
    kept->Tmax_K = curve.number("row_to_K");
    source = fmt::format("{} (Antoine) from {:.0f} to {:.0f} K, beyond it {}", antoine->source(),
                         kept->Tmin_K, kept->Tmax_K, source);
    grade = antoine->grade();
  }
  return {equation, kept, source, grade, critical(substance)};
}

}  // namespace

void BankReader::add_curves(std::size_t number, Substance& substance) const {
  add_gas_heat_capacity(number, substance);
  if (const auto row = liquid_heat_capacities_.of(number)) {
    substance.liquid_heat_capacity = LiquidHeatCapacity{row->coefficients<5>(), row->number("Tmin_K"),
                                                        row->number("Tmax_K"), perry, row->grade()};
  }
  if (const auto row = vaporisation_.of(number)) {
    substance.vaporisation = VaporisationCurve{row->coefficients<4>(), row->number("Tc_K"),
                                               row->number("Tmin_K"), perry, row->grade()};
  }
  if (const auto row = liquid_density_curves_.of(number)) {
    substance.liquid_density = LiquidDensityCurve{row->coefficients<4>(), row->number("Tmin_K"),
                                                  row->number("Tmax_K"), perry, row->grade()};
  }
  add_vapour_pressure(number, substance);
}

// By the curve, else by the cubic, else from groups; where the heat capacity at 25 degC is known, what comes
// from groups is scaled to it.
void BankReader::add_gas_heat_capacity(std::size_t number, Substance& substance) const {
  auto& known = substance.gas_heat_capacity;
  if (const auto curve = gas_heat_capacity_curves_.of(number)) {
    auto C = curve->coefficients<5>();
    for (const std::size_t k : {0u, 1u, 3u}) C[k] /= 1000;
    known = GasHeatCapacity{{}, perry, curve->grade(), C};
  } else if (const auto cubic = gas_heat_capacity_cubics_.of(number)) {
    known = GasHeatCapacity{{cubic->number("a"), cubic->number("b"), cubic->number("c"), cubic->number("d")},
                            "Reid, Prausnitz, Poling, The Properties of Gases and Liquids, 4th ed.",
                            cubic->grade(),
                            std::nullopt};
  } else if (const auto groups = constant_groups_.of(number)) {
    known = gas_heat_capacity_from_groups(parse_groups(groups->text("groups")));
  }
  if (const auto point = gas_heat_capacity_points_.of(number)) {
    if (!known || known->hyperbolic)
      throw RequestError(point->place("name"), "needs groups in constant_groups.csv");
    const double factor = point->number("Cp_25C") / known->value(room_T_K);
    for (double& coefficient : known->cubic) coefficient *= factor;
    known->source = "handbook value at 25 degC, carried by groups (Joback, Reid 1987)";
  }
}

// By the long curve, else by a row of Antoine coefficients, else estimated from the critical point.
void BankReader::add_vapour_pressure(std::size_t number, Substance& substance) const {
  const auto antoine = antoine_.of(number);
  if (const auto curve = vapour_pressure_curves_.of(number)) {
    substance.vapour_pressure = vapour_pressure_along(*curve, antoine, substance);
    return;
  }
  const auto known = critical(substance);
  const auto grouped = critical_from_groups(substance, constant_groups_.of(number));
  if (antoine) {
    substance.vapour_pressure.emplace(antoine_of(*antoine), antoine->source(), antoine->grade(),
                                      known ? known : grouped, melting_point(substance));
  } else if (known && substance.Tb_K) {
    substance.vapour_pressure = estimate_vapour_pressure(substance, *known);
  } else if (known) {
    substance.vapour_pressure.emplace(
        *known, "estimated: corresponding states (Ambrose, Walton 1989) with the acentric factor",
        melting_point(substance));
  } else if (grouped) {
    substance.vapour_pressure = estimate_vapour_pressure(substance, *grouped, "groups (Joback, Reid 1987)");
  }
}

}  // namespace jampot
