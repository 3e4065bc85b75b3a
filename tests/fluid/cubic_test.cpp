// Cubic equations of state: a second implementation from the printed formula of ln phi, critical and boiling
// points.
#include "jampot/fluid/cubic.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <numeric>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/phase/mixture.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using Form = CubicEquation::Form;

const std::vector<std::string>& names() {
  static const std::vector<std::string> list{"propane", "n-hexane", "methanol", "acetone", "water"};
  return list;
}

InteractionTable some_interactions() {
  InteractionTable table;
  table.set("propane", "n-hexane", 0.01);
  table.set("water", "propane", 0.48);
  table.set("methanol", "acetone", -0.03);
  return table;
}

class Cubic : public ::testing::TestWithParam<Form> {
 protected:
  CubicEquation equation{GetParam(), substances_named(names()), some_interactions()};
  std::mt19937_64 generator{11};

  // A random state of random composition, liquid-like or vapour-like.
  struct State {
    double T_K, v;
    std::vector<double> x;
  };
  State random_state() {
    std::uniform_real_distribution<double> T(220, 600), packing(1.15, 60);
    State state{T(generator), 0, test::random_composition(generator, names().size())};
    double b = 0;
    for (std::size_t i = 0; i < state.x.size(); ++i) b += state.x[i] * equation.b(i);
    state.v = b * packing(generator);
    return state;
  }
};

// ln phi_i = b_i/b (Z - 1) - ln(Z - B) - A/(B (d1 - d2)) (2 sum_j x_j a_ij/a - b_i/b) ln((Z + d1 B)/(Z + d2
// B)), as printed in R. C. Reid, J. M. Prausnitz, B. E. Poling, The Properties of Gases and Liquids, 4th ed.
// (1987).
TEST_P(Cubic, FugacityCoefficientsAreThoseOfThePrintedFormula) {
  const bool pr = GetParam() == Form::peng_robinson;
  const double d1 = pr ? 1 + std::sqrt(2) : 1, d2 = pr ? 1 - std::sqrt(2) : 0;
  int with_two = 0;
  for (int k = 0; k < 60; ++k) {
    const State state = random_state();
    std::uniform_real_distribution<double> lnP(std::log(1e4), std::log(2e7));
    const double P = std::exp(lnP(generator));
    const auto roots = equation.volumes(state.T_K, P, state.x);
    ASSERT_FALSE(roots.empty());
    with_two += roots.size() == 2 ? 1 : 0;
    const auto m = equation.mixed(state.T_K, P, state.x);
    for (const VolumeRoot& root : roots) {
      FluidState fluid(state.x.size());
      fluid_state(equation, state.T_K, root.v_m3_mol, state.x, false, fluid);
      EXPECT_NEAR(fluid.P_Pa / P, 1, 1e-7);
      const double Z = root.Z;
      for (std::size_t i = 0; i < state.x.size(); ++i) {
        double sum = 0;
        for (std::size_t j = 0; j < state.x.size(); ++j)
          sum += state.x[j] * std::sqrt(equation.a(i, state.T_K) * equation.a(j, state.T_K)) *
                 (1 - equation.k(i, j));
        const double share = equation.b(i) / m.b;
        const double printed =
            share * (Z - 1) - std::log(Z - m.B) -
            m.A / (m.B * (d1 - d2)) * (2 * sum / m.a - share) * std::log((Z + d1 * m.B) / (Z + d2 * m.B));
        EXPECT_NEAR(fluid.ln_phi[i], printed, 1e-6 * (1 + std::abs(printed)));
      }
    }
  }
  EXPECT_GT(with_two, 3);
}

// The pure component's closed form is the mixture's ln phi where nothing else is there.
TEST_P(Cubic, PureLnPhiInClosedForm) {
  const auto substances = substances_named({"methane", "propane", "n-hexane"});
  CubicEquation of_state(GetParam(), substances, {}, true);
  FluidState fluid(3);
  int liquids = 0;
  for (const double T : {180.0, 290.0, 350.0, 520.0}) {
    for (const double P : {1e4, 1e6, 2e7}) {
      for (std::size_t i = 0; i < 3; ++i) {
        std::vector<double> x(3, 0.0);
        x[i] = 1;
        const VolumeRoot root = of_state.volumes(T, P, x).stable();
        liquids += root.Z < 0.3;
        fluid_state(of_state, T, root.v_m3_mol, x, false, fluid, P);
        ASSERT_TRUE(of_state.ln_phi_pure(i, T, P));
        EXPECT_NEAR(*of_state.ln_phi_pure(i, T, P), fluid.ln_phi[i], 1e-9) << T << " " << P << " " << i;
      }
    }
  }
  EXPECT_GT(liquids, 5);
}

INSTANTIATE_TEST_SUITE_P(Both, Cubic, ::testing::Values(Form::soave_redlich_kwong, Form::peng_robinson));

// The isotherm through the critical point: its compressibility there is the textbook's.
TEST(CubicEquation, ThePureCriticalPointIsTheirs) {
  for (const auto& [form, Zc] :
       {std::pair(Form::soave_redlich_kwong, 1.0 / 3), std::pair(Form::peng_robinson, 0.3074)}) {
    const auto substances = substances_named({"propane"});
    CubicEquation equation(form, substances);
    const double Tc = *substances[0].Tc_K, Pc = *substances[0].Pc_Pa;
    const double v = Zc * gas_constant * Tc / Pc;
    FluidState fluid(1);
    fluid_state(equation, Tc, v, std::vector<double>{1.0}, false, fluid);
    EXPECT_NEAR(fluid.P_Pa / Pc, 1, 1e-4);
  }
}

// The saturation pressure of an equation whose alpha was made for it: equal fugacities at the boiling point,
// nearly.
TEST(CubicEquation, BoilingPointsOfNormalFluids) {
  for (const char* name : {"propane", "n-hexane", "benzene", "toluene"}) {
    const auto substances = substances_named({name});
    CubicEquation equation(Form::peng_robinson, substances);
    const auto roots = equation.volumes(*substances[0].Tb_K, standard_atmosphere, std::vector<double>{1.0});
    ASSERT_EQ(roots.size(), 2u) << name;
    EXPECT_NEAR(roots[0].gibbs, roots[1].gibbs, 0.03) << name;  // d ln P of three per cent
  }
}

TEST(CubicEquation, SaysWhatItTookForGranted) {
  const CubicEquation bare(Form::peng_robinson, substances_named({"propane", "n-hexane"}));
  EXPECT_TRUE(bare.notices().has("no-interaction"));
  InteractionTable table;
  table.set("n-hexane", "propane", 0.0);
  EXPECT_FALSE(CubicEquation(Form::peng_robinson, substances_named({"propane", "n-hexane"}), table)
                   .notices()
                   .has("no-interaction"));
}

}  // namespace
}  // namespace jampot
