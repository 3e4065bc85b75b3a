#include "jampot/substance/define.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {
namespace {

const char* const joback = "Joback, Reid 1987";

class Definition {
 public:
  Definition(const std::string& name, const KnownConstants& known) : known_(known) {
    result_.substance.name = name;
  }

  DefinedSubstance make() {
    if (!known_.vapour_pressure_equation.empty() && !known_.vapour_pressure_points.empty()) {
      throw RequestError("a vapour-pressure equation and vapour-pressure points are given; give one of them");
    }
    if (!known_.vapour_pressure_equation.empty()) {
      equation_ = parse_vapour_pressure_equation(known_.vapour_pressure_equation);
    }
    points_ = known_.vapour_pressure_points;
    if (known_.non_volatile && (equation_ || !points_.empty()))
      throw RequestError("a vapour pressure is given for a substance that is marked as non-volatile");
    result_.substance.non_volatile = known_.non_volatile;
    if (known_.Tb_K && !points_.empty()) points_.push_back({*known_.Tb_K, standard_atmosphere});
    mass();
    constants();
    acentric_factor();
    vapour_pressure();
    density();
    enthalpy_of_vaporisation();
    sizes();
    result_.substance.mosced = known_.mosced;
    return std::move(result_);
  }

 private:
  MaybeSourced take(const std::string& name, std::optional<double> known, std::optional<double> estimate,
                    const std::string& method, const std::string& typical_error) {
    if (known) {
      result_.constants.push_back({name, *known, "given", false, ""});
      return Sourced{*known, 'C', "given by the user"};
    }
    if (!estimate) return std::nullopt;
    result_.constants.push_back({name, *estimate, method, true, typical_error});
    return Sourced{*estimate, 'C', "estimated: " + method};
  }

  void mass() {
    std::optional<double> from_groups;
    if (!known_.groups.empty()) {
      result_.substance.formula = formula_of(known_.groups);
      from_groups = molar_mass_from_formula(result_.substance.formula);
    }
    if (!known_.molar_mass_kg_mol && !from_groups) {
      throw CalculationError(
          "neither groups nor a molar mass are given; one of them is needed (`groups`, `molar-mass`)");
    }
    constexpr double rounding = 0.01;
    if (known_.molar_mass_kg_mol && from_groups &&
        std::abs(*known_.molar_mass_kg_mol / *from_groups - 1) > rounding) {
      throw RequestError(
          fmt::format("the molar mass given, {:.3f} g/mol, is not that of the groups ({}, {:.3f} g/mol)",
                      1000 * *known_.molar_mass_kg_mol, result_.substance.formula, 1000 * *from_groups));
    }
    const MaybeSourced mass =
        take("molar_mass_kg_mol", known_.molar_mass_kg_mol, from_groups, "sum over the groups", "none");
    result_.substance.molar_mass_kg_mol = *mass;
  }

  // Groups, critical point and vapour pressure at one boiling point.
  struct Trial {
    GroupEstimate groups;
    std::optional<double> Tc_K, Pc_Pa;
  };
  Trial trial(std::optional<double> Tb_K) const {
    Trial at;
    if (!known_.groups.empty()) at.groups = estimate_from_groups(known_.groups, Tb_K);
    at.Tc_K = known_.Tc_K ? known_.Tc_K : at.groups.Tc_K;
    at.Pc_Pa = known_.Pc_Pa ? known_.Pc_Pa : at.groups.Pc_Pa;
    return at;
  }

  // Where the equation or the points reach one atmosphere. The critical temperature of the group method rests
  // on the boiling point, and the curve through points on the critical temperature: both are found in turn.
  std::optional<double> boiling_point() const {
    if (known_.Tb_K) return known_.Tb_K;
    if (equation_) return VapourPressure(*equation_, "", 'C').T_K(standard_atmosphere);
    if (points_.empty()) return std::nullopt;
    std::optional<double> Tb_K = trial(std::nullopt).groups.Tb_K;
    for (int turn = 0; turn < 100; ++turn) {
      const Trial at = trial(Tb_K);
      if (!at.Tc_K || !at.Pc_Pa)
        return VapourPressure(fit_antoine(points_), "", 'C').T_K(standard_atmosphere);
      double highest = 0;
      for (const VapourPressurePoint& point : points_) highest = std::max(highest, point.T_K);
      // A poor first estimate may put the critical point below the points.
      const double Tc_K = known_.Tc_K ? *at.Tc_K : std::max(*at.Tc_K, 1.05 * highest);
      const CorrespondingStates curve = fit_corresponding_states(points_, Tc_K, *at.Pc_Pa);
      const double next = VapourPressure(curve, Tc_K, 1, 0, "").T_K(standard_atmosphere);
      const bool settled = Tb_K && std::abs(next - *Tb_K) < 1e-9 * next;
      Tb_K = next;
      if (settled) break;
    }
    return Tb_K;
  }

  void constants() {
    Substance& substance = result_.substance;
    const std::optional<double> Tb_K = boiling_point();
    groups_ = trial(Tb_K).groups;
    const bool from_pressure = Tb_K && !known_.Tb_K;
    substance.Tb_K = take("Tb_K", known_.Tb_K, from_pressure ? Tb_K : groups_.Tb_K,
                          from_pressure ? "from the vapour pressure given" : joback,
                          from_pressure ? "that of the data" : "13 K");
    substance.Tm_K = take("Tm_K", known_.Tm_K, groups_.Tm_K, joback, "23 K");
    substance.Tc_K =
        take("Tc_K", known_.Tc_K, groups_.Tc_K, joback, Tb_K ? "1 %" : "that of the boiling point");
    substance.Pc_Pa = take("Pc_Pa", known_.Pc_Pa, groups_.Pc_Pa, joback, "5 %");
    substance.Vc_m3_mol = take("Vc_m3_mol", std::nullopt, groups_.Vc_m3_mol, joback, "2 %");
    substance.Hf_J_mol = take("Hf_J_mol", std::nullopt, groups_.Hf_J_mol, joback, "8 kJ/mol");
    substance.Gf_J_mol = take("Gf_J_mol", std::nullopt, groups_.Gf_J_mol, joback, "8 kJ/mol");
    substance.Cp_liquid_25C_J_mol_K =
        take("Cp_liquid_25C_J_mol_K", known_.Cp_liquid_25C_J_mol_K, std::nullopt, "", "");
    substance.gas_heat_capacity = groups_.gas_heat_capacity;
    substance.carboxyl_group = std::any_of(known_.groups.begin(), known_.groups.end(),
                                           [](const GroupCount& entry) { return entry.group == "COOH"; });
    substance.liquid_viscosity = groups_.liquid_viscosity;
    if (substance.liquid_viscosity) {
      take("viscosity_25C_Pa_s", std::nullopt, substance.liquid_viscosity->value(298.15), joback, "18 %");
    }
    if (substance.Tb_K && substance.Tc_K && !(*substance.Tb_K < *substance.Tc_K)) {
      throw RequestError(
          fmt::format("the boiling point, {:.1f} K, is not below the critical temperature, {:.1f} K",
                      substance.Tb_K->value, substance.Tc_K->value));
    }
  }

  std::optional<CorrespondingStates> curve_through_points() const {
    const Substance& substance = result_.substance;
    if (points_.empty() || !substance.Tc_K || !substance.Pc_Pa) return std::nullopt;
    return fit_corresponding_states(points_, *substance.Tc_K, *substance.Pc_Pa);
  }

  void acentric_factor() {
    Substance& substance = result_.substance;
    std::optional<double> estimate;
    std::string method = "boiling point and Ambrose, Walton 1989";
    if (substance.Tb_K && substance.Tc_K && substance.Pc_Pa) {
      estimate = CorrespondingStates::acentric_factor(*substance.Tb_K, *substance.Tc_K, *substance.Pc_Pa);
    }
    if (const auto curve = curve_through_points()) {  // by its definition
      estimate = -(curve->ln_P(0.7 * *substance.Tc_K) - std::log(*substance.Pc_Pa)) / std::log(10.0) - 1;
      method = "its definition, from the vapour-pressure points";
    }
    substance.acentric_factor =
        take("acentric_factor", known_.acentric_factor, estimate, method, "that of the critical point");
  }

  void density() {
    if (!known_.density) return;
    Substance& substance = result_.substance;
    const LiquidDensity& density = *known_.density;
    result_.constants.push_back(
        {fmt::format("density_kg_m3 at {:.2f} K", density.T_K), density.kg_m3, "given", false, ""});
    const double volume = substance.molar_mass_kg_mol / density.kg_m3;
    double at_25C = volume;
    std::string source = "from the density given";
    if (std::abs(density.T_K - room_T_K) > 0.01) {
      // The Rackett equation is exact at its known point wherever that lies: carry it to 25 degC and back.
      substance.molar_volume_25C_m3_mol = Sourced{volume, 'C', source};
      const auto known_at = liquid_molar_volume(substance, density.T_K),
                 at_room = liquid_molar_volume(substance, room_T_K);
      if (known_at.value && at_room.value) {
        at_25C = volume * *at_room.value / *known_at.value;
        source = fmt::format("from the density given at {:.2f} K by the Rackett equation", density.T_K);
      } else {
        result_.notices.add(
            "density-temperature",
            fmt::format("the density of {} is given at {:.2f} K and used at 25 degC as it is: "
                        "without a critical point it cannot be carried there",
                        substance.name, density.T_K));
      }
    }
    substance.molar_volume_25C_m3_mol = Sourced{at_25C, 'C', source};
    substance.density_25C_kg_m3 = Sourced{substance.molar_mass_kg_mol / at_25C, 'C', source};
  }

  void enthalpy_of_vaporisation() {
    Substance& substance = result_.substance;
    std::optional<double> estimate = groups_.Hvap_Tb_J_mol;
    std::string method = joback, error = "4 %";
    if (!estimate && substance.Tb_K && substance.vapour_pressure && !substance.vapour_pressure->estimated()) {
      estimate = enthalpy_from_slope(substance, *substance.Tb_K);
      method = "slope of the vapour pressure";
    }
    substance.Hvap_Tb_J_mol = take("Hvap_Tb_J_mol", known_.Hvap_Tb_J_mol, estimate, method, error);
  }

  void vapour_pressure() {
    Substance& substance = result_.substance;
    if (known_.non_volatile) return;
    std::optional<CorrespondingStates::Critical> critical;
    if (substance.Tc_K && substance.Pc_Pa && substance.acentric_factor) {
      critical = {*substance.Tc_K, *substance.Pc_Pa, *substance.acentric_factor};
    }
    if (equation_) {
      substance.vapour_pressure.emplace(*equation_, "given: " + known_.vapour_pressure_equation, 'C',
                                        critical);
    } else if (const auto curve = curve_through_points()) {
      double low = points_.front().T_K, high = low;
      for (const VapourPressurePoint& point : points_) {
        low = std::min(low, point.T_K);
        high = std::max(high, point.T_K);
      }
      substance.vapour_pressure.emplace(
          *curve, *substance.Tc_K, low, high,
          fmt::format("corresponding states (Ambrose, Walton 1989) fitted to {} given points",
                      points_.size()));
    } else if (!points_.empty()) {
      substance.vapour_pressure.emplace(
          fit_antoine(points_), fmt::format("Antoine equation fitted to {} given points", points_.size()),
          'C');
    } else if (critical) {
      substance.vapour_pressure.emplace(*critical, "estimated: corresponding states (Ambrose, Walton 1989)");
    } else {
      result_.notices.add(
          "no-vapour-pressure",
          fmt::format("{} has no vapour pressure: it needs a boiling point, a critical temperature and a "
                      "critical pressure, or points or an equation of its own. It can still be used where "
                      "none is needed, or be marked as non-volatile",
                      substance.name));
      return;
    }
    result_.notices.add("estimated",
                        fmt::format("constants of {} are estimated; the tables and `against` show how far "
                                    "such estimates can be trusted",
                                    substance.name));
  }

  void sizes() {
    Substance& substance = result_.substance;
    std::optional<MoleculeSize> size;
    for (const auto& [table, groups] : known_.unifac_groups) {
      substance.groups[name_of(table)] = unifac_text(groups);
      if (table == UnifacTable::vle || (table == UnifacTable::lle && !size))
        size = molecule_size(groups, table);
    }
    const auto part = [&](double MoleculeSize::*member) {
      return size ? std::optional<double>((*size).*member) : std::nullopt;
    };
    substance.uniquac_r =
        take("uniquac_r", known_.uniquac_r, part(&MoleculeSize::r), "sum over UNIFAC groups", "none");
    substance.uniquac_q =
        take("uniquac_q", known_.uniquac_q, part(&MoleculeSize::q), "sum over UNIFAC groups", "none");
  }

  const KnownConstants& known_;
  std::optional<VapourPressure::Coefficients> equation_;
  std::vector<VapourPressurePoint> points_;
  GroupEstimate groups_;
  DefinedSubstance result_;
};

}  // namespace

DefinedSubstance define_substance(const std::string& name, const KnownConstants& known) {
  return Definition(name, known).make();
}

}  // namespace jampot
