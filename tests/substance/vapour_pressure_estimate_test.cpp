// The estimate of a vapour pressure, held against the substances of the bank whose vapour pressure is known.
#include "jampot/substance/vapour_pressure_estimate.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <string>
#include <vector>

#include "jampot/basis/constants.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/saturation.hpp"

namespace jampot {
namespace {

constexpr double room_T_K = 298.15;

CorrespondingStates::Critical critical_of(const Substance& s) {
  return {*s.Tc_K, *s.Pc_Pa, CorrespondingStates::acentric_factor(*s.Tb_K, *s.Tc_K, *s.Pc_Pa)};
}

// What is known of a vapour pressure at 25 degC, with an enthalpy of vaporisation that is a number of its
// own; carboxylic acids associate in the vapour.
std::vector<Substance> known_at_room_temperature() {
  std::vector<Substance> found;
  for (const Substance& s : Bank::built_in().all()) {
    if (!s.Tb_K || *s.Tb_K < 330 || !s.Tc_K || !s.Pc_Pa || s.name.find("acid") != std::string::npos) continue;
    if (!s.vapour_pressure || s.vapour_pressure->estimated() || !s.vapour_pressure->covers(room_T_K))
      continue;
    if (s.Hvap_Tb_J_mol || s.Hvap_25C_J_mol) found.push_back(s);
  }
  return found;
}

struct Spread {
  double median, nine_in_ten;
};

// Factor by which an estimate misses the known pressure at 25 degC.
template <class Strip>
Spread spread(const std::vector<Substance>& substances, const Strip& strip) {
  std::vector<double> off;
  for (Substance s : substances) {
    const double known = s.vapour_pressure->P_Pa(room_T_K);
    s.vapour_pressure.reset();
    s.vaporisation.reset();
    strip(s);
    const double estimate = estimate_vapour_pressure(s, critical_of(s)).P_Pa(room_T_K);
    off.push_back(std::exp(std::abs(std::log(estimate / known))));
  }
  std::sort(off.begin(), off.end());
  return {off[off.size() / 2], off[off.size() * 9 / 10]};
}

std::vector<Substance> with_both(std::vector<Substance> substances) {
  std::erase_if(substances, [](const Substance& s) { return !s.Hvap_Tb_J_mol || !s.Hvap_25C_J_mol; });
  return substances;
}

TEST(VapourPressureEstimate, IsBetterByFarWhereTheEnthalpyOfVaporisationIsKnown) {
  const auto known = with_both(known_at_room_temperature());
  ASSERT_GT(known.size(), 60u);
  const auto at_room = [](Substance& s) { s.Hvap_Tb_J_mol.reset(); };
  const auto at_boiling_point = [](Substance& s) { s.Hvap_25C_J_mol.reset(); };
  const auto nowhere = [](Substance& s) {
    s.Hvap_25C_J_mol.reset();
    s.Hvap_Tb_J_mol.reset();
  };
  const Spread both = spread(known, [](Substance&) {});
  EXPECT_LT(both.median, 1.02);
  EXPECT_LT(both.nine_in_ten, 1.12);
  const Spread room = spread(known, at_room);
  EXPECT_LT(room.median, 1.02);
  EXPECT_LT(room.nine_in_ten, 1.12);
  const Spread boiling = spread(known, at_boiling_point);
  EXPECT_LT(boiling.median, 1.03);
  EXPECT_LT(boiling.nine_in_ten, 1.25);
  const Spread without = spread(known, nowhere);
  EXPECT_GT(without.median, 1.03);
  EXPECT_GT(without.nine_in_ten, 1.3);
}

TEST(VapourPressureEstimate, MeetsTheBoilingPoint) {
  for (const Substance& s : Bank::built_in().all()) {
    if (!s.vapour_pressure || !s.vapour_pressure->estimated() || !s.Tb_K) continue;
    EXPECT_NEAR(s.vapour_pressure->P_Pa(*s.Tb_K) / standard_atmosphere, 1, 1e-6) << s.name;
    double before = 0;
    for (double T_K = s.vapour_pressure->lowest_K(); T_K < *s.vapour_pressure->Tc_K(); T_K += 5) {
      const double P = s.vapour_pressure->P_Pa(T_K);
      EXPECT_GT(P, before) << s.name << " at " << T_K << " K";
      before = P;
    }
  }
}

}  // namespace
}  // namespace jampot
