#include "jampot/substance/bank_check.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "jampot/basis/constants.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {
namespace {

constexpr double unbounded = std::numeric_limits<double>::infinity();

class Checker {
 public:
  explicit Checker(const Substance& substance) : substance_(substance) {}

  std::vector<BankFinding> check() {
    vapour_pressure();
    critical_point();
    sizes();
    heat_capacities();
    return std::move(findings_);
  }

 private:
  void add(const char* check, double value, double low, double high, std::string says,
           std::string exempt = "") {
    findings_.push_back({substance_.name, check, value, low, high, std::move(exempt), std::move(says)});
  }

  bool acid() const { return pairs_up(substance_); }

  void vapour_pressure() {
    const auto& curve = substance_.vapour_pressure;
    if (!curve || !substance_.Tb_K) return;
    const double Tb = *substance_.Tb_K, P = curve->P_Pa(Tb);
    add("boiling point", P / standard_atmosphere, 0.99, 1.01,
        fmt::format("{:.3f} kPa at {:.2f} K", P / 1000, Tb));
    if (!substance_.Hvap_Tb_J_mol || curve->estimated()) return;
    const double Hvap = enthalpy_from_slope(substance_, Tb);
    add("enthalpy of vaporisation", Hvap / *substance_.Hvap_Tb_J_mol, 0.96, 1.04,
        fmt::format("{:.2f} kJ/mol from the slope, {:.2f} known", Hvap / 1000,
                    *substance_.Hvap_Tb_J_mol / 1000),
        acid() ? "the vapour associates" : "");
  }

  void critical_point() {
    const auto& curve = substance_.vapour_pressure;
    if (curve && curve->Tc_K() && substance_.Pc_Pa) {
      const double P = curve->P_Pa(*curve->Tc_K());
      add("critical point", P / *substance_.Pc_Pa, 0.999, 1.001,
          fmt::format("{:.3f} bar at the critical temperature", P / 1e5));
    }
    if (substance_.Tc_K && substance_.Pc_Pa && substance_.Vc_m3_mol) {
      const double Zc = *substance_.Pc_Pa * *substance_.Vc_m3_mol / (gas_constant * *substance_.Tc_K);
      add("critical compressibility", Zc, 0.19, 0.32, fmt::format("Zc = {:.3f}", Zc),
          acid() ? "it associates" : "");
    }
  }

  void sizes() {
    const double mass = molar_mass_from_formula(substance_.formula);
    add("molar mass", substance_.molar_mass_kg_mol / mass, 1 - 3e-4, 1 + 3e-4,
        fmt::format("{:.3f} g/mol, {:.3f} from the formula", 1000 * substance_.molar_mass_kg_mol,
                    1000 * mass));
    const MaybeSourced& volume = substance_.molar_volume_25C_m3_mol;
    if (!volume) return;
    if (substance_.density_25C_kg_m3) {
      const double ratio = *substance_.density_25C_kg_m3 * *volume / substance_.molar_mass_kg_mol;
      add("density", ratio, 0.99, 1.01, fmt::format("density times volume over mass is {:.4f}", ratio));
    }
    // Near its critical point a liquid is expanded; r says nothing about it then.
    const bool expanded = substance_.Tc_K && *substance_.Tc_K < 1.5 * room_T_K;
    if (substance_.uniquac_r && !expanded) {
      const double ratio = 1e6 * *volume / *substance_.uniquac_r;
      add("groups", ratio, 15, 33, fmt::format("{:.1f} cm3/mol to one unit of r", ratio));
    }
    if (substance_.mosced) {
      const double ratio = substance_.mosced->v_cm3_mol / (1e6 * *volume);
      const bool fitted = expanded || substance_.name == "water";
      add("MOSCED volume", ratio, 0.98, 1.02, fmt::format("{:.3f} of the molar volume", ratio),
          fitted ? "fitted by the authors" : "");
    }
  }

  void heat_capacities() {
    if (!substance_.gas_heat_capacity) return;
    double least_rise = unbounded, before = 0, lowest = unbounded;
    for (const double T_K : {273.15, 350.0, 450.0, 600.0, 800.0}) {
      const double Cp = substance_.gas_heat_capacity->value(T_K);
      lowest = std::min(lowest, Cp);
      least_rise = std::min(least_rise, Cp - before);
      before = Cp;
    }
    add("gas heat capacity, positive", lowest / gas_constant, 2.49, unbounded,
        fmt::format("at least {:.1f} J/(mol K) between 273 and 800 K", lowest));
    add("gas heat capacity, rising", least_rise, -1, unbounded,
        fmt::format("least step {:.2f} J/(mol K)", least_rise));
    if (!substance_.Cp_liquid_25C_J_mol_K) return;
    const double ratio = *substance_.Cp_liquid_25C_J_mol_K / substance_.gas_heat_capacity->value(room_T_K);
    add("liquid heat capacity", ratio, 1, unbounded, fmt::format("{:.2f} times that of the gas", ratio));
  }

  const Substance& substance_;
  std::vector<BankFinding> findings_;
};

}  // namespace

std::vector<BankFinding> check_substance(const Substance& substance) {
  return Checker(substance).check();
}

}  // namespace jampot
