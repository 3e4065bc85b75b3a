// Every equation of state: derivatives against differences at random states, thermodynamic identities.
#include "jampot/fluid/equation_of_state.hpp"

#include <gtest/gtest.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/fluid/pc_saft.hpp"
#include "jampot/phase/mixture.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::derivative;

struct Kind {
  std::string name;
  std::vector<std::string> substances;
};
void PrintTo(const Kind& kind, std::ostream* out) {
  *out << kind.name;
}

std::unique_ptr<EquationOfState> make(const Kind& kind) {
  InteractionTable table;
  table.set("propane", "n-hexane", 0.01);
  table.set("water", "propane", 0.2);
  table.set("methanol", "acetone", -0.03);
  const auto substances = substances_named(kind.substances);
  if (kind.name == "pc_saft" || kind.name == "pc_saft_associating")
    return std::make_unique<PcSaft>(substances, table);
  return std::make_unique<CubicEquation>(
      kind.name == "srk" ? CubicEquation::Form::soave_redlich_kwong : CubicEquation::Form::peng_robinson,
      substances, table, kind.name == "pr_translated");
}

class AnyEquation : public ::testing::TestWithParam<Kind> {
 protected:
  std::unique_ptr<EquationOfState> equation = make(GetParam());
  std::mt19937_64 generator{11};

  std::size_t size() const { return equation->size(); }
  // A random state of random composition, liquid-like or vapour-like.
  struct State {
    double T_K, v;
    std::vector<double> x;
  };
  State random_state() {
    std::uniform_real_distribution<double> T(250, 600), thinner(1, 60);
    State state{T(generator), 0, test::random_composition(generator, size())};
    // The densest volume: that of the fluid under ten thousand atmospheres.
    state.v = equation->volumes(state.T_K, 1e9, state.x).front().v_m3_mol * thinner(generator);
    return state;
  }
  Helmholtz at(double T_K, double V, const std::vector<double>& n) {
    Helmholtz F(n.size());
    equation->evaluate(T_K, V, n, {true, true, true, true}, F);
    return F;
  }
};

TEST_P(AnyEquation, DerivativesOfTheHelmholtzEnergyAreExact) {
  for (int k = 0; k < 30; ++k) {
    const State state =
        random_state();  // not taken apart: lambdas capture no structured bindings in every compiler
    const double T = state.T_K, V = state.v;
    const std::vector<double>& n = state.x;
    const Helmholtz F = at(T, V, n);
    const auto near = [](double exact, double difference) {
      EXPECT_NEAR(exact, difference, 1e-6 * std::abs(exact) + 1e-9);
    };
    near(F.V * V, derivative([&](double v) { return at(T, v * V, n).F; }, 1, 1e-4));
    near(F.VV * V, derivative([&](double v) { return at(T, v * V, n).V; }, 1, 1e-4));
    near(F.T * T, derivative([&](double t) { return at(t * T, V, n).F; }, 1, 1e-3));
    near(F.TV * T, derivative([&](double t) { return at(t * T, V, n).V; }, 1, 1e-3));
    near(F.TT * T, derivative([&](double t) { return at(t * T, V, n).T; }, 1, 1e-3));
    for (std::size_t i = 0; i < n.size(); ++i) {
      const auto along = [&](double change) {
        std::vector<double> moved = n;
        moved[i] += change;
        return moved;
      };
      const double step = 1e-4;
      near(F.i[i], derivative([&](double c) { return at(T, V, along(c)).F; }, 0, step));
      near(F.iV[i] * V, V * derivative([&](double c) { return at(T, V, along(c)).V; }, 0, step));
      near(F.iT[i] * T, T * derivative([&](double c) { return at(T, V, along(c)).T; }, 0, step));
      for (std::size_t j = 0; j < n.size(); ++j)
        near(F.ij[i * size() + j], derivative([&](double c) { return at(T, V, along(c)).i[j]; }, 0, step));
    }
    // Homogeneous of degree one: F = V F_V + sum n_i F_i.
    double euler = V * F.V;
    for (std::size_t i = 0; i < n.size(); ++i) euler += n[i] * F.i[i];
    EXPECT_NEAR(euler, F.F, 1e-11 * (1 + std::abs(F.F)));
  }
}

// At constant P: derivatives of ln phi by differences, Gibbs-Helmholtz, Gibbs-Duhem, symmetry.
TEST_P(AnyEquation, FugacityCoefficientsHangTogether) {
  for (int k = 0; k < 25; ++k) {
    const State state = random_state();
    std::uniform_real_distribution<double> lnP(std::log(2e4), std::log(2e7));
    const double P = std::exp(lnP(generator));
    const auto roots = equation->volumes(state.T_K, P, state.x);
    const std::size_t n = state.x.size();
    for (std::size_t r = 0; r < roots.size(); ++r) {
      FluidState fluid(n);
      fluid_state(*equation, state.T_K, roots[r].v_m3_mol, state.x, true, fluid);
      if (roots.size() == 2 && roots[1].Z - roots[0].Z < 0.05)
        continue;  // too near the spinodal for differences
      const auto ln_phi = [&](double T, double p, const std::vector<double>& x, std::size_t i) {
        const auto found = equation->volumes(T, p, x);
        const VolumeRoot& root = r == 0 ? found.front() : found.back();
        FluidState there(n);
        fluid_state(*equation, T, root.v_m3_mol, x, false, there);
        return there.ln_phi[i];
      };
      double helmholtz = 0;
      for (std::size_t i = 0; i < n; ++i) {
        EXPECT_NEAR(fluid.dT[i],
                    derivative([&](double T) { return ln_phi(T, P, state.x, i); }, state.T_K, 0.01),
                    1e-5 * (std::abs(fluid.dT[i]) + 0.01));
        EXPECT_NEAR(
            fluid.dln_P[i],
            derivative([&](double t) { return ln_phi(state.T_K, P * std::exp(t), state.x, i); }, 0, 1e-4),
            1e-5 * (std::abs(fluid.dln_P[i]) + 0.1));
        helmholtz += state.x[i] * fluid.dT[i];
        double duhem = 0;
        for (std::size_t j = 0; j < n; ++j) {
          duhem += state.x[j] * fluid.dn[j * n + i];
          EXPECT_NEAR(fluid.dn[i * n + j], fluid.dn[j * n + i], 1e-8 * (1 + std::abs(fluid.dn[i * n + j])));
        }
        EXPECT_NEAR(duhem, 0, 1e-7);
      }
      EXPECT_NEAR(helmholtz, -fluid.h_residual_J_mol / (gas_constant * state.T_K * state.T_K),
                  1e-8 * (1 + std::abs(helmholtz)));
      double g = 0;
      for (std::size_t i = 0; i < n; ++i) g += state.x[i] * fluid.ln_phi[i];
      EXPECT_NEAR(
          g, (fluid.h_residual_J_mol - state.T_K * fluid.s_residual_J_mol_K) / (gas_constant * state.T_K),
          1e-9 * (1 + std::abs(g)));
    }
  }
}

TEST_P(AnyEquation, ThinGasesAreIdeal) {
  const std::vector<double> x(size(), 1.0 / static_cast<double>(size()));
  const auto roots = equation->volumes(350, 0.1, x);
  FluidState fluid(size());
  fluid_state(*equation, 350, roots.back().v_m3_mol, x, false, fluid);
  for (const double value : fluid.ln_phi) EXPECT_NEAR(value, 0, 1e-6);
}

const std::vector<std::string> mixed{"propane", "n-hexane", "methanol", "acetone", "water"};
INSTANTIATE_TEST_SUITE_P(
    All, AnyEquation,
    ::testing::Values(Kind{"srk", mixed}, Kind{"pr", mixed}, Kind{"pr_translated", mixed},
                      Kind{"pc_saft", {"propane", "n-hexane", "toluene"}},
                      Kind{"pc_saft_associating",
                           {"propane", "methanol", "1-butanol", "acetic acid", "water"}}),
    [](const auto& kind) { return kind.param.name; });

}  // namespace
}  // namespace jampot
