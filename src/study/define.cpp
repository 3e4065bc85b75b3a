#include "jampot/study/define.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/unifac_division.hpp"

namespace jampot {
namespace {

// Where no division into UNIFAC groups is possible the substance is made without them, and a notice says why.
DividedMolecule divide(const DefineRequest& request, Notices& notices) {
  DividedMolecule divided{parse_smiles(request.smiles), {}, {}};
  divided.groups = divide_into_groups(divided.molecule);
  notices.add(divided.groups.notices);
  if (request.known.unifac_groups.contains(UnifacTable::vle)) return divided;
  try {
    divided.unifac = divide_into_unifac_groups(divided.molecule);
    notices.add(divided.unifac->notices);
  } catch (const CalculationError& error) {
    notices.add("no-unifac-groups", fmt::format("{}; `unifac-groups` may give them", error.what()));
  }
  return divided;
}

// Constants and saturation properties of both.
std::vector<QuantityOfBoth> compare_both(const Substance& own, const Substance& other) {
  std::vector<QuantityOfBoth> list;
  const auto add = [&](const std::string& name, std::optional<double> a, std::optional<double> b) {
    if (a || b) list.push_back({name, a, b});
  };
  const auto plain = [](const MaybeSourced& value) {
    return value ? std::optional<double>(*value) : std::nullopt;
  };
  add("molar mass [g/mol]", 1000 * own.molar_mass_kg_mol, 1000 * other.molar_mass_kg_mol);
  add("Tb [K]", plain(own.Tb_K), plain(other.Tb_K));
  add("Tc [K]", plain(own.Tc_K), plain(other.Tc_K));
  add("Pc [Pa]", plain(own.Pc_Pa), plain(other.Pc_Pa));
  add("Vc [m3/mol]", plain(own.Vc_m3_mol), plain(other.Vc_m3_mol));
  add("acentric factor", plain(own.acentric_factor), plain(other.acentric_factor));
  add("Hvap at Tb [J/mol]", plain(own.Hvap_Tb_J_mol), plain(other.Hvap_Tb_J_mol));
  if (!other.vapour_pressure) return list;
  for (const double share : {0.8, 0.9, 1.0, 1.1}) {
    if (!other.Tb_K) break;
    const double T_K = share * *other.Tb_K;
    const auto P = [&](const Substance& s) -> std::optional<double> {
      if (!s.vapour_pressure || (s.Tc_K && T_K > *s.Tc_K)) return std::nullopt;
      return s.vapour_pressure->P_Pa(T_K);
    };
    add(fmt::format("vapour pressure at {:.1f} K [Pa]", T_K), P(own), P(other));
    add(fmt::format("Hvap at {:.1f} K [J/mol]", T_K), enthalpy_of_vaporisation(own, T_K).value,
        enthalpy_of_vaporisation(other, T_K).value);
    add(fmt::format("liquid volume at {:.1f} K [m3/mol]", T_K), liquid_molar_volume(own, T_K).value,
        liquid_molar_volume(other, T_K).value);
    add(fmt::format("gas heat capacity at {:.1f} K [J/(mol K)]", T_K), gas_heat_capacity(own, T_K).value,
        gas_heat_capacity(other, T_K).value);
    add(fmt::format("liquid heat capacity at {:.1f} K [J/(mol K)]", T_K),
        liquid_heat_capacity(own, T_K).value, liquid_heat_capacity(other, T_K).value);
  }
  return list;
}

}  // namespace

DefineStudy study(const DefineRequest& request) {
  const Bank& bank = request.bank != nullptr ? *request.bank : Bank::built_in();
  if (bank.find(request.name) != nullptr)
    throw RequestError(
        fmt::format("'{}' is already the name of a substance in the databank; choose another", request.name));
  if (!request.known.groups.empty() && !request.smiles.empty())
    throw RequestError("`groups` and `smiles` both describe the molecule; give one of them");
  DefineStudy study;
  study.known = request.known;
  study.smiles = request.smiles;
  study.against = request.against;
  if (!request.smiles.empty()) {
    study.divided = divide(request, study.notices);
    study.known.groups = study.divided->groups.groups;
    if (study.divided->unifac) study.known.unifac_groups[UnifacTable::vle] = study.divided->unifac->groups;
  }
  study.defined = define_substance(request.name, study.known);
  study.notices.add(study.defined.notices);
  if (request.against) study.comparison = compare_both(study.defined.substance, *request.against);
  return study;
}

}  // namespace jampot
