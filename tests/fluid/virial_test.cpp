// Virial vapours: measured second virial coefficients, derivatives, identities, dimers; and beside them a
// liquid.
#include <gtest/gtest.h>

#include <boost/math/quadrature/gauss_kronrod.hpp>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/flash.hpp"
#include "jampot/liquid/henry.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/virial_vapour.hpp"
#include "jampot/regression/fit.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using test::derivative;

double B_cm3(VirialCoefficients& coefficients, double T_K) {
  coefficients.set_temperature(T_K);
  return 1e6 * coefficients.total(0, 0).value;
}

// Printed with the exercises on the virial equation in J. M. Smith, H. C. Van Ness, M. M. Abbott,
// Introduction to Chemical Engineering Thermodynamics, 5th ed. (1996), chapter 3.
TEST(SecondVirial, MeasuredCoefficients) {
  for (const auto& [name, T, B] :
       {std::tuple("ethylene", 298.15, -140.0), std::tuple("ethane", 323.15, -156.7),
        std::tuple("2-propanol", 473.15, -388.0)}) {
    HaydenOConnellVirial polar(substances_named({name}));
    TsonopoulosVirial simple(substances_named({name}));
    EXPECT_NEAR(B_cm3(polar, T), B, 0.05 * std::abs(B)) << name;
    EXPECT_NEAR(B_cm3(simple, T), B, 0.05 * std::abs(B)) << name;
  }
}

// Nitrogen and methane, 40 mol-% nitrogen, 200 K and 30 bar: the printed coefficients -35.2, -105.0 and -59.8
// cm3/mol give phi 0.9511 and 0.8324 (the same book, example 11.7). Predicted coefficients come within nine
// per cent, phi within one.
TEST(SecondVirial, NitrogenAndMethane) {
  auto coefficients = std::make_unique<TsonopoulosVirial>(substances_named({"nitrogen", "methane"}));
  coefficients->set_temperature(200);
  EXPECT_NEAR(1e6 * coefficients->total(0, 0).value, -35.2, 3);
  EXPECT_NEAR(1e6 * coefficients->total(1, 1).value, -105.0, 3);
  EXPECT_NEAR(1e6 * coefficients->total(0, 1).value, -59.8, 0.09 * 59.8);
  VirialVapour vapour(std::move(coefficients));
  PhaseValues values(2);
  vapour.evaluate(200, 30e5, std::vector<double>{0.4, 0.6}, {}, values);
  EXPECT_NEAR(std::exp(values.ln_phi[0]), 0.9511, 0.01);
  EXPECT_NEAR(std::exp(values.ln_phi[1]), 0.8324, 0.01);
}

// The unlike coefficient follows from the pure ones where both substances are the same.
TEST(SecondVirial, UnlikePairsOfAlikeSubstances) {
  for (const char* name : {"propane", "benzene", "n-hexane"}) {
    const Substance one = substances_named({name})[0];
    Substance other = one;
    other.name = "the same";
    TsonopoulosVirial simple({one, other});
    HaydenOConnellVirial polar({one, other});
    for (VirialCoefficients* c : std::initializer_list<VirialCoefficients*>{&simple, &polar}) {
      c->set_temperature(350);
      EXPECT_NEAR(c->total(0, 1).value, c->total(0, 0).value, 2e-3 * std::abs(c->total(0, 0).value)) << name;
    }
  }
}

class AnyVirial : public ::testing::TestWithParam<std::vector<std::string>> {
 protected:
  VirialVapour vapour{std::make_unique<HaydenOConnellVirial>(substances_named(GetParam()))};
  std::mt19937_64 generator{3};
};

TEST_P(AnyVirial, DerivativesAndIdentities) {
  const std::size_t n = GetParam().size();
  std::uniform_real_distribution<double> T(300, 450), lnP(std::log(2e3), std::log(1.5e5));
  for (int k = 0; k < 40; ++k) {
    const double T_K = T(generator), P = std::exp(lnP(generator));
    const auto y = test::random_composition(generator, n);
    PhaseValues values(n), there(n);
    vapour.evaluate(T_K, P, y, {true, true, true}, values);
    const auto ln_phi = [&](double t, double p, const std::vector<double>& amounts, std::size_t i) {
      std::vector<double> x = amounts;
      double sum = 0;
      for (const double value : x) sum += value;
      for (double& value : x) value /= sum;
      vapour.evaluate(t, p, x, {}, there);
      return there.ln_phi[i];
    };
    double duhem_P = 0, Z = 1;
    for (std::size_t i = 0; i < n; ++i) {
      EXPECT_NEAR(values.dT[i], derivative([&](double t) { return ln_phi(t, P, y, i); }, T_K, 0.02),
                  1e-6 * (std::abs(values.dT[i]) + 1e-3));
      EXPECT_NEAR(values.dln_P[i],
                  derivative([&](double t) { return ln_phi(T_K, P * std::exp(t), y, i); }, 0, 1e-3),
                  1e-6 * (std::abs(values.dln_P[i]) + 1e-3));
      Z += y[i] * values.dln_P[i];
      duhem_P += y[i] * values.ln_phi[i];
      double duhem = 0;
      for (std::size_t j = 0; j < n; ++j) {
        duhem += y[j] * values.dn[j * n + i];
        EXPECT_NEAR(values.dn[i * n + j], values.dn[j * n + i], 1e-9 + 1e-7 * std::abs(values.dn[i * n + j]));
        const auto moved = [&](double change) {
          std::vector<double> amounts = y;
          amounts[j] += change;
          return ln_phi(T_K, P, amounts, i);
        };
        EXPECT_NEAR(values.dn[i * n + j], derivative(moved, 0, 1e-4 * std::min(1.0, y[j])),
                    1e-6 * (std::abs(values.dn[i * n + j]) + 1e-2));
      }
      EXPECT_NEAR(duhem, 0, 1e-10);
    }
    // Residual Gibbs energy as the integral of the residual volume over the pressure.
    // In the fourth root of the pressure, because thin vapours fall apart steeply.
    const auto residual = [&](double t) {
      vapour.evaluate(T_K, P * t * t * t * t, y, {false, true, false}, there);
      double sum = 0;
      for (std::size_t i = 0; i < n; ++i) sum += y[i] * there.dln_P[i];
      return 4 * sum / t;
    };
    const double integral =
        boost::math::quadrature::gauss_kronrod<double, 31>::integrate(residual, 1e-6, 1.0, 8, 1e-9);
    EXPECT_NEAR(duhem_P, integral, 1e-6 * std::abs(duhem_P) + 1e-9);
    EXPECT_LE(Z, 1.0);
  }
}

INSTANTIATE_TEST_SUITE_P(Mixtures, AnyVirial,
                         ::testing::Values(std::vector<std::string>{"acetone", "methanol", "benzene"},
                                           std::vector<std::string>{"acetic acid", "water"},
                                           std::vector<std::string>{"acetic acid", "ethanol", "water",
                                                                    "ethyl acetate"}));

// Of a saturated vapour of acetic acid at its boiling point about 0.63 mol of molecules are left of a mole;
// thin and hot it falls apart.
TEST(Dimers, AceticAcid) {
  VirialVapour vapour(std::make_unique<HaydenOConnellVirial>(substances_named({"acetic acid"})));
  const std::vector<double> pure{1.0};
  const double boiling = vapour.true_moles(391.05, 101325, pure);
  EXPECT_GT(boiling, 0.58);
  EXPECT_LT(boiling, 0.68);
  EXPECT_GT(vapour.true_moles(391.05, 10, pure), 0.995);
  EXPECT_LT(vapour.true_moles(300, 2000, pure), 0.58);
}

// Water and acetic acid at 101.325 kPa: R. H. Perry, D. W. Green, Perry's Chemical Engineers' Handbook, 7th
// ed. (1997), table 13-1. t/degC, x and y of water.
DataSet acetic_acid_water() {
  DataSet data;
  data.name = "handbook";
  data.kind = DataKind::txy;
  data.substances = substances_named({"water", "acetic acid"});
  for (const auto& [t, x, y] : {std::tuple(110.6, 0.1881, 0.3063), std::tuple(107.8, 0.3084, 0.4467),
                                std::tuple(105.2, 0.4498, 0.5973), std::tuple(104.3, 0.5195, 0.6580),
                                std::tuple(103.5, 0.5824, 0.7112), std::tuple(102.8, 0.6750, 0.7797),
                                std::tuple(102.1, 0.7261, 0.8239), std::tuple(101.5, 0.7951, 0.8671),
                                std::tuple(100.8, 0.8556, 0.9042), std::tuple(100.8, 0.8787, 0.9186),
                                std::tuple(100.5, 0.9134, 0.9409), std::tuple(100.2, 0.9578, 0.9708)}) {
    DataPoint point;
    point.T_K = t + celsius_zero;
    point.P_Pa = standard_atmosphere;
    point.x = {x, 1 - x};
    point.y = {y, 1 - y};
    point.u_T_K = 0.1;
    point.u_P_Pa = 100;
    point.u_x = 0.002;
    point.u_y = 0.005;
    data.points.push_back(point);
  }
  return data;
}

TEST(Dimers, AceticAcidAndWaterAreFittedToTheHandbook) {
  FitOptions options;
  options.vapour.model = "virial";
  const Fit fitted = fit({acetic_acid_water()}, options);
  Mixture mixture = fitted.mixture();
  const Comparison comparison = compare(mixture, acetic_acid_water());
  EXPECT_LT(comparison.T_K->mean_absolute, 0.5);
  EXPECT_LT(comparison.y[0].mean_absolute, 0.01);
  const BinaryCurve curve = txy(mixture, standard_atmosphere);
  EXPECT_TRUE(curve.azeotropes.empty());
  EXPECT_FALSE(curve.notices.has("associating-vapour"));
  EXPECT_EQ(fitted.pairs().front().vapour, "virial");

  // Without association the vapours come out worse, and it is said.
  options.vapour.model = "ideal";
  Mixture ideal = fit({acetic_acid_water()}, options).mixture();
  EXPECT_GT(compare(ideal, acetic_acid_water()).y[0].mean_absolute, 1.5 * comparison.y[0].mean_absolute);
  EXPECT_TRUE(txy(ideal, standard_atmosphere).notices.has("associating-vapour"));
}

// Predicted by groups beside an ideal vapour the pair has an azeotrope that does not exist; with association
// it has none.
TEST(Dimers, NoFalseAzeotrope) {
  const auto substances = substances_named({"water", "acetic acid"});
  Mixture ideal(substances, "unifac", {});
  EXPECT_FALSE(txy(ideal, standard_atmosphere).azeotropes.empty());
  VapourChoice choice;
  choice.model = "virial";
  Mixture associating(substances, "unifac", {}, choice);
  EXPECT_TRUE(txy(associating, standard_atmosphere).azeotropes.empty());
}

// The pure liquid beside its own vapour boils at its vapour pressure, whatever the vapour model: saturation
// fugacity and Poynting factor cancel there. Off, it does not.
TEST(RealVapour, PureLiquidsBoilAtTheirVapourPressure) {
  for (const char* model : {"virial", "tsonopoulos", "srk", "pr", "pc-saft"}) {
    VapourChoice choice;
    choice.model = model;
    Mixture mixture(substances_named({"acetone", "methanol"}), "ideal", {}, choice);
    const VlePoint point = bubble_pressure(mixture, 330, std::vector<double>{1, 0});
    const double Psat = mixture.substances()[0].vapour_pressure->P_Pa(330);
    EXPECT_NEAR(point.P_Pa / Psat, 1, 1e-9) << model;
    EXPECT_LT(point.phi[0], 0.99) << model;
    EXPECT_NEAR(point.phi[0], point.phi_saturated[0], 1e-9) << model;
    EXPECT_NEAR(point.poynting[0], 1, 1e-9) << model;
    choice.saturation_fugacity = false;
    Mixture without(substances_named({"acetone", "methanol"}), "ideal", {}, choice);
    EXPECT_GT(std::abs(bubble_pressure(without, 330, std::vector<double>{1, 0}).P_Pa / Psat - 1), 0.01)
        << model;
  }
}

// Derivatives of a corrected liquid with T and P.
TEST(RealVapour, LiquidsKnowTheirSlopes) {
  VapourChoice choice;
  choice.model = "virial";
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("acetone", "methanol", 90, 70, 0.3));
  Mixture mixture(substances_named({"acetone", "methanol"}), "nrtl", parameters, choice);
  const std::vector<double> x{0.4, 0.6};
  PhaseValues values(2), there(2);
  mixture.liquid().evaluate(330, 3e6, x, {true, true, false}, values);
  for (std::size_t i = 0; i < 2; ++i) {
    const auto at = [&](double T, double P) {
      mixture.liquid().evaluate(T, P, x, {}, there);
      return there.ln_phi[i];
    };
    EXPECT_NEAR(values.dT[i], derivative([&](double T) { return at(T, 3e6); }, 330, 0.05), 1e-8);
    EXPECT_NEAR(values.dln_P[i], derivative([&](double t) { return at(330, 3e6 * std::exp(t)); }, 0, 1e-3),
                1e-8);
  }
}

// Derivatives, Gibbs-Duhem and the limits of gases after Henry's law in a mixed solvent.
TEST(Henry, IsConsistent) {
  const auto substances = substances_named({"carbon dioxide", "ethanol", "nitrogen", "water"});
  std::vector<HenryConstant> constants;
  for (const char* text : {"carbon dioxide in water = 1640 bar at 25 degC, 2360 bar at 40 degC",
                           "CO2 in ethanol = 160 bar at 25 degC, 190 bar at 40 degC",
                           "nitrogen in water = 86000 bar", "nitrogen in ethanol = 2800 bar"})
    constants.push_back(parse_henry(text, substances));
  EXPECT_NEAR(std::exp(constants[0].ln_H(298.15)), 1640e5, 1);
  HenrySolution solution(substances, make_activity_model("unifac", {substances[1], substances[3]}, {}),
                         constants);
  std::mt19937_64 generator(8);
  for (int k = 0; k < 20; ++k) {
    const auto x = test::random_composition(generator, 4);
    std::vector<double> ln(4), dT(4), dn(16), there(4), unused(4);
    solution.set_temperature(310);
    solution.evaluate(x, ln, dT, dn);
    for (std::size_t i = 0; i < 4; ++i) {
      double duhem = 0;
      for (std::size_t j = 0; j < 4; ++j) {
        duhem += x[j] * dn[j * 4 + i];
        EXPECT_NEAR(dn[i * 4 + j], dn[j * 4 + i], 1e-8 * (1 + std::abs(dn[i * 4 + j])));
        const double difference = derivative(
            [&](double change) {
              std::vector<double> n = x;
              n[j] += change;
              solution.evaluate(n, there, {}, {});
              return there[i];
            },
            0, 1e-4 * x[j]);
        EXPECT_NEAR(dn[i * 4 + j], difference, 1e-5 * (1 + std::abs(difference)));
      }
      EXPECT_NEAR(duhem, 0, 1e-8);
      EXPECT_NEAR(dT[i],
                  derivative(
                      [&](double T) {
                        solution.set_temperature(T);
                        solution.evaluate(x, there, {}, {});
                        return there[i];
                      },
                      310, 0.05),
                  1e-7);
      solution.set_temperature(310);
    }
  }
  EXPECT_THROW(HenrySolution(substances, nullptr, {constants[0]}), RequestError);
  EXPECT_THROW(parse_henry("argon in water = 4 bar", substances), RequestError);
  EXPECT_THROW(parse_henry("CO2 in water = 4 degC", substances), RequestError);
}

// A gas over water: its share in the liquid is its partial pressure over Henry's constant.
TEST(Henry, GasOverWater) {
  const auto substances = substances_named({"nitrogen", "water"});
  Mixture mixture(substances,
                  std::make_unique<HenrySolution>(
                      substances, nullptr,
                      std::vector<HenryConstant>{parse_henry("nitrogen in water = 86000 bar", substances)}),
                  {});
  const Flashed flashed =
      flash(mixture.kinds(), {Kelvin(298.15), Pascal(10e5)}, std::vector<double>{0.3, 0.7});
  ASSERT_EQ(flashed.phases.size(), 2u);
  const auto& liquid = flashed.phases[flashed.phases[0].vapour ? 1 : 0];
  const auto& vapour = flashed.phases[flashed.phases[0].vapour ? 0 : 1];
  EXPECT_NEAR(liquid.x[0], vapour.x[0] * 10e5 / 86000e5, 1e-10);
}

}  // namespace
}  // namespace jampot
