#include "jampot/substance/enthalpy_path.hpp"

#include <algorithm>
#include <cmath>
#include <vector>

#include "../basis/integral.hpp"
#include "jampot/basis/constants.hpp"
#include "liquid_heat.hpp"

namespace jampot {
namespace {

// 1 below, 0 above, with two continuous derivatives.
double share_of_heat_capacity(double Tr) {
  const double t = std::clamp((Tr - path_leaves_at) / (path_ends_at - path_leaves_at), 0.0, 1.0);
  return 1 - t * t * t * (10 - t * (15 - 6 * t));
}

std::optional<double> critical_temperature(const Substance& substance) {
  return substance.Tc_K ? std::optional<double>(*substance.Tc_K) : substance.vapour_pressure->Tc_K();
}

}  // namespace

EnthalpyPath::EnthalpyPath(const Substance& substance, Departure departure)
    : substance_(substance), departure_(std::move(departure)) {
  const auto Tc = critical_temperature(substance_);
  constexpr double far_below = 0.8;
  if (Tc && room_T_K > far_below * *Tc) anchor_K_ = substance_.Tb_K ? *substance_.Tb_K : 0.6 * *Tc;
  if (!Tc || !substance_.gas_heat_capacity || !known_liquid_heat_capacity(substance_, anchor_K_).value)
    return;
  anchor_ = base(anchor_K_);
}

double EnthalpyPath::vaporisation(double T_K) const {
  const auto known = enthalpy_of_vaporisation(substance_, T_K).value;
  return known ? *known : enthalpy_from_slope(substance_, T_K);
}

EnthalpyPath::Levels EnthalpyPath::base(double T_K) const {
  const double Psat = substance_.vapour_pressure->P_Pa(T_K), Hvap = vaporisation(T_K);
  const Levels departure = departure_(T_K, Psat);
  return {departure.h - Hvap, departure.s - gas_constant * std::log(Psat / standard_atmosphere) - Hvap / T_K};
}

// The base, and how far the path lies above it.
const EnthalpyPath::Gap& EnthalpyPath::at(double T_K) const {
  if (T_K == last_.T_K) return last_;
  last_ = {T_K, {}, {}};
  const auto Tc = critical_temperature(substance_);
  if (Tc && T_K >= *Tc) return last_;
  last_.base = base(T_K);
  const double share = anchor_ ? share_of_heat_capacity(T_K / *Tc) : 0;
  if (share == 0) return last_;
  // Piece by piece, because the heat capacity has kinks where its correlation ends.
  std::vector<double> ends{anchor_K_};
  if (const auto& known = substance_.liquid_heat_capacity) {
    for (const double end : {known->Tmin_K, known->Tmax_K})
      if (end > std::min(anchor_K_, T_K) && end < std::max(anchor_K_, T_K)) ends.push_back(end);
    if (T_K < anchor_K_ && ends.size() == 3) std::swap(ends[1], ends[2]);
  }
  ends.push_back(T_K);
  const auto beyond_gas = [&](double t) {
    return known_liquid_heat_capacity(substance_, t).value.value_or(0) -
           substance_.gas_heat_capacity->value(t);
  };
  Levels path = *anchor_;
  for (std::size_t k = 1; k < ends.size(); ++k) {
    path.h += integral(beyond_gas, ends[k - 1], ends[k]);
    path.s += integral([&](double t) { return beyond_gas(t) / t; }, ends[k - 1], ends[k]);
  }
  last_.gap = {share * (path.h - last_.base.h), share * (path.s - last_.base.s)};
  return last_;
}

EnthalpyPath::Levels EnthalpyPath::liquid(double T_K) const {
  const Gap& here = at(T_K);
  return {here.base.h + here.gap.h, here.base.s + here.gap.s};
}

EnthalpyPath::Levels EnthalpyPath::vapour(double T_K, double P_Pa) const {
  const Gap& here = at(T_K);
  const double share = std::min(1.0, P_Pa / substance_.vapour_pressure->P_Pa(T_K));
  return {share * here.gap.h, share * here.gap.s};
}

double EnthalpyPath::vapour_Cp(double T_K, double P_Pa) const {
  if (at(T_K).gap.h == 0) return 0;
  return derivative([&](double t) { return vapour(t, P_Pa).h; }, T_K);
}

Property EnthalpyPath::liquid_Cp(double T_K) const {
  const auto Tc = critical_temperature(substance_);
  if (!Tc || T_K <= path_leaves_at * *Tc) return known_liquid_heat_capacity(substance_, T_K);
  if (!anchor_ || T_K > path_known_to * *Tc) return {std::nullopt, "too near to the critical point"};
  const double above_gas = derivative([&](double t) { return liquid(t).h; }, T_K);
  return {substance_.gas_heat_capacity->value(T_K) + above_gas,
          "slope of the enthalpy, which goes over between 0.85 and 0.95 Tc to ideal gas, departure and Hvap"};
}

std::optional<EnthalpyPath> virial_path(const Substance& substance) {
  if (!substance.vapour_pressure || !substance.gas_heat_capacity || !second_virial(substance, room_T_K))
    return std::nullopt;
  return EnthalpyPath(substance, [substance](double T_K, double P_Pa) {
    const SecondVirial virial = *second_virial(substance, T_K);
    return EnthalpyPath::Levels{(virial.B_m3_mol - T_K * virial.dB_dT) * P_Pa, -virial.dB_dT * P_Pa};
  });
}

}  // namespace jampot
