#include "jampot/substance/define.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

const char* const joback = "Joback, Reid 1987";

class Definition {
 public:
  Definition(const std::string& name, const KnownConstants& known) : known_(known) {
    result_.substance.name = name;
  }

  DefinedSubstance make() {
    if (!known_.groups.empty()) groups_ = estimate_from_groups(known_.groups, known_.Tb_K);
    mass();
    Substance& substance = result_.substance;
    substance.Tb_K = take("Tb_K", known_.Tb_K, groups_.Tb_K, joback, "13 K");
    substance.Tc_K =
        take("Tc_K", known_.Tc_K, groups_.Tc_K, joback, known_.Tb_K ? "1 %" : "that of the boiling point");
    substance.Pc_Pa = take("Pc_Pa", known_.Pc_Pa, groups_.Pc_Pa, joback, "5 %");
    substance.Vc_m3_mol = take("Vc_m3_mol", std::nullopt, groups_.Vc_m3_mol, joback, "2 %");
    substance.Tm_K = take("Tm_K", std::nullopt, groups_.Tm_K, joback, "23 K");
    substance.Hvap_Tb_J_mol = take("Hvap_Tb_J_mol", std::nullopt, groups_.Hvap_Tb_J_mol, joback, "4 %");
    take("Hf_J_mol", std::nullopt, groups_.Hf_J_mol, joback, "8 kJ/mol");
    take("Gf_J_mol", std::nullopt, groups_.Gf_J_mol, joback, "8 kJ/mol");
    substance.gas_heat_capacity = groups_.gas_heat_capacity;
    check_order();
    acentric_factor();
    density();
    vapour_pressure();
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
          "neither groups nor a molar mass are given; one of them is needed (--groups, --molar-mass)");
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

  void check_order() const {
    const Substance& substance = result_.substance;
    if (substance.Tb_K && substance.Tc_K && !(*substance.Tb_K < *substance.Tc_K)) {
      throw RequestError(
          fmt::format("the boiling point, {:.1f} K, is not below the critical temperature, {:.1f} K",
                      substance.Tb_K->value, substance.Tc_K->value));
    }
  }

  void acentric_factor() {
    Substance& substance = result_.substance;
    std::optional<double> estimate;
    if (substance.Tb_K && substance.Tc_K && substance.Pc_Pa) {
      estimate = CorrespondingStates::acentric_factor(*substance.Tb_K, *substance.Tc_K, *substance.Pc_Pa);
    }
    substance.acentric_factor = take("acentric_factor", known_.acentric_factor, estimate,
                                     "boiling point and Ambrose, Walton 1989", "that of the critical point");
  }

  void density() {
    Substance& substance = result_.substance;
    if (known_.density_25C_kg_m3) {
      substance.density_25C_kg_m3 = take("density_25C_kg_m3", known_.density_25C_kg_m3, std::nullopt, "", "");
      substance.molar_volume_25C_m3_mol =
          Sourced{substance.molar_mass_kg_mol / *known_.density_25C_kg_m3, 'C', "from the density given"};
    }
  }

  void vapour_pressure() {
    Substance& substance = result_.substance;
    if (!substance.Tc_K || !substance.Pc_Pa || !substance.acentric_factor) {
      result_.notices.add(
          "no-vapour-pressure",
          fmt::format("{} has no vapour pressure: it needs a boiling point, a critical temperature and a "
                      "critical pressure. It can still take part where none is needed",
                      substance.name));
      return;
    }
    substance.vapour_pressure.emplace(
        CorrespondingStates::Critical{*substance.Tc_K, *substance.Pc_Pa, *substance.acentric_factor},
        "estimated: corresponding states (Ambrose, Walton 1989)");
    result_.notices.add("estimated",
                        fmt::format("constants of {} are estimated; the tables and '--against' show how far "
                                    "such estimates can be trusted",
                                    substance.name));
  }

  const KnownConstants& known_;
  GroupEstimate groups_;
  DefinedSubstance result_;
};

}  // namespace

DefinedSubstance define_substance(const std::string& name, const KnownConstants& known) {
  return Definition(name, known).make();
}

}  // namespace jampot
