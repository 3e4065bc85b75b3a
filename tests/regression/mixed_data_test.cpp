// Fits of what is measured in liquids, alone and beside boiling points; ranking; intervals; exclusions.
#include <fmt/format.h>
#include <gtest/gtest.h>

#include <Eigen/Cholesky>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/ranking.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "jampot/substance/define.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

// 1-butanol and water with parameters that follow temperature: the truth behind the made-up data below.
PairParameters truth() {
  PairParameters pair = test::nrtl_pair("1-butanol", "water", 550, 1100, 0.4);
  pair.terms["tau_12"].constant = -1.2;
  pair.terms["tau_21"].constant = 0.6;
  return pair;
}

Mixture true_mixture() {
  ParameterCollection parameters;
  parameters.add(truth());
  return {substances_named({"1-butanol", "water"}), "nrtl", parameters};
}

DataSet empty(DataKind kind) {
  DataSet data;
  data.name = std::string(name_of(kind));
  data.kind = kind;
  data.substances = substances_named({"1-butanol", "water"});
  return data;
}

DataSet solubilities(double noise = 0, unsigned seed = 1) {
  DataSet data = empty(DataKind::lle);
  Mixture mixture = true_mixture();
  std::mt19937_64 generator(seed);
  std::normal_distribution<double> normal;
  for (double T = 290; T < 371; T += 10) {
    const BinarySplit split = binary_splits(mixture.activity(), T).at(0);
    DataPoint point{T,
                    0,
                    {split.x1_alpha, 1 - split.x1_alpha},
                    {split.x1_beta, 1 - split.x1_beta},
                    0.1,
                    0,
                    0.001,
                    0.001,
                    static_cast<int>(T)};
    point.x[0] += noise * 0.001 * normal(generator);
    point.y[0] += noise * 0.001 * normal(generator);
    point.x[1] = 1 - point.x[0];
    point.y[1] = 1 - point.y[0];
    data.points.push_back(point);
  }
  return data;
}

DataSet enthalpies() {
  DataSet data = empty(DataKind::excess_enthalpy);
  Mixture mixture = true_mixture();
  for (double x = 0.6; x < 0.99; x += 0.1) {
    DataPoint point{310, 0, {x, 1 - x}, {}, 0.1, 0, 0.001, 0, 1};
    point.value = gamma_at(mixture.activity(), 310, point.x).hE_J_mol;
    point.u_value = 10;
    data.points.push_back(point);
  }
  return data;
}

DataSet limits() {
  DataSet data = empty(DataKind::gamma_inf);
  Mixture mixture = true_mixture();
  for (const std::size_t solute : {0u, 1u}) {
    DataPoint point{340, 0, {solute == 0 ? 0.0 : 1.0, solute == 0 ? 1.0 : 0.0}, {}, 0.1, 0, 0, 0, 1};
    point.solute = solute;
    point.solvent = 1 - solute;
    point.value = std::exp(limiting_ln_gamma(mixture.activity(), 340, solute, 1 - solute));
    point.u_value = 0.02 * point.value;
    data.points.push_back(point);
  }
  return data;
}

DataSet coefficients() {
  DataSet data = empty(DataKind::gamma);
  Mixture mixture = true_mixture();
  for (const double T : {300.0, 350.0}) {
    for (const double x : {0.02, 0.4, 0.7, 0.97}) {
      DataPoint point{T, 0, {x, 1 - x}, {}, 0.1, 0, 0.001, 0, 1};
      point.solute = x < 0.5 ? 1 : 0;
      point.value = std::exp(gamma_at(mixture.activity(), T, point.x).ln_gamma[point.solute]);
      point.u_value = 0.01 * point.value;
      data.points.push_back(point);
    }
  }
  return data;
}

FitOptions both_coefficients() {
  FitOptions options;
  options.form = {Coefficient::constant, Coefficient::inverse_T};
  options.hold = {{"alpha", 0.4}};
  return options;
}

double value_of(const Fit& result, const std::string& name) {
  for (const FittedParameter& parameter : result.parameters) {
    if (parameter.name == name) return parameter.value;
  }
  ADD_FAILURE() << "no parameter " << name;
  return 0;
}

void expect_truth(const Fit& result) {
  EXPECT_NEAR(value_of(result, "tau_12.constant"), -1.2, 2e-3);
  EXPECT_NEAR(value_of(result, "tau_12.inverse_T"), 550, 0.6);
  EXPECT_NEAR(value_of(result, "tau_21.constant"), 0.6, 2e-3);
  EXPECT_NEAR(value_of(result, "tau_21.inverse_T"), 1100, 0.6);
  EXPECT_LT(result.objective, 1e-4);
}

TEST(MixedData, SolubilitiesAloneGiveTheirParametersBack) {
  const Fit result = fit({solubilities()}, both_coefficients());
  expect_truth(result);
  EXPECT_EQ(result.fitted_to(), "lle");
  for (const LiquidRow& row : result.liquid_residuals) {
    ASSERT_EQ(row.alpha.size(), 2u);
    EXPECT_NEAR(row.alpha[0], row.measured.x[0], 1e-5);
    EXPECT_NEAR(row.beta[0], row.measured.y[0], 1e-5);
  }
}

TEST(MixedData, ActivityCoefficientsAtCompositionsGiveTheirParametersBack) {
  const Fit result = fit({coefficients()}, both_coefficients());
  expect_truth(result);
  EXPECT_EQ(result.comparisons, 8);
}

// Every value of a liquid in every model: its derivatives with the coefficients are those of its differences,
// and what it is in words is complete.
TEST(DataKinds, DescribeThemselvesAndTheirDerivativesAreRight) {
  std::mt19937_64 generator(5);
  std::uniform_real_distribution<double> unit(0.1, 0.9);
  ASSERT_GE(liquid_value_kinds().size(), 3u);
  for (const KindDescription& kind : data_kinds()) {
    EXPECT_EQ(&describe(kind.kind), &kind);
    EXPECT_FALSE(kind.name.empty());
    EXPECT_FALSE(kind.uncertainties.empty());
    EXPECT_EQ(kind.value != nullptr, kind.family == DataFamily::liquid_value);
    if (!kind.value) continue;
    EXPECT_FALSE(kind.value->json_key.empty() || kind.value->assumed_text.empty() ||
                 kind.value->thing.empty());
    for (const char* name : {"nrtl", "uniquac", "wilson", "margules", "redlich-kister"}) {
      const auto model = make_activity_model_to_fit(name, substances_named({"ethanol", "water"}));
      for (std::size_t t = 0; t < model->terms().size(); ++t)
        model->set_coefficient(t, Coefficient::constant, 0.3 + 0.1 * static_cast<double>(t));
      const bool follows = std::string_view(name) != "wilson";
      const Coefficient moved = Coefficient::inverse_T;
      for (std::size_t t = 0; t < model->terms().size(); ++t) {
        if (!terms_for_fit(name)[t].follows_T) continue;
        const double x = unit(generator);
        DataPoint point{320, 0, {x, 1 - x}, {}};
        point.solute = t % 2;
        point.solvent = 1 - point.solute;
        if (kind.value->dilute) point.x = {point.solvent == 0 ? 1.0 : 0.0, point.solvent == 1 ? 1.0 : 0.0};
        const auto at = [&](double coefficient, bool derivatives) {
          model->set_coefficient(t, moved, coefficient);
          ModelValue out;
          kind.value->evaluate(*model, point, derivatives, out);
          return out;
        };
        const ModelValue here = at(follows ? 50 : 20, true);
        EXPECT_NEAR(here.value, at(follows ? 50 : 20, false).value, 1e-9 * (1 + std::abs(here.value)));
        const double center = follows ? 50 : 20, step = 0.01;
        const double slope = (at(center + step, false).value - at(center - step, false).value) / (2 * step);
        const double exact = here.by_term[t] * TemperatureFunction::basis(moved, point.T_K) +
                             here.by_term_dT[t] * TemperatureFunction::basis_dT(moved, point.T_K);
        EXPECT_NEAR(exact, slope, 1e-6 * (1e-3 + std::abs(slope)))
            << kind.name << " " << name << " term " << t;
      }
    }
  }
}

// Mutual solubilities alone often leave two sets of parameters that describe them alike: the intervals hold
// both.
TEST(MixedData, AnotherMinimumAsLowBelongsToTheIntervals) {
  FitOptions options = both_coefficients();
  options.profiles = Profiles::when_nonlinear;
  const PairParameters pair = truth();
  int covered = 0, intervals = 0, rivals = 0;
  for (unsigned seed = 1; seed <= 60; ++seed) {
    const Fit result = fit({solubilities(1, seed)}, options);
    const bool rival = result.notices.has("rival-minimum");
    rivals += rival;
    for (std::size_t p = 0; p < result.free().size(); ++p) {
      const FittedParameter& parameter = *result.free()[p];
      const double exact = pair.terms.at(parameter.term)[parameter.coefficient];
      ++intervals;
      covered += parameter.low <= exact && exact <= parameter.high;
      if (rival) {
        EXPECT_LE(parameter.low, result.minima[1].values[p]);
        EXPECT_GE(parameter.high, result.minima[1].values[p]);
      }
    }
  }
  EXPECT_GT(rivals, 0);
  EXPECT_GE(covered, 0.92 * intervals);
}

TEST(MixedData, WhichLiquidIsNamedFirstDoesNotMatter) {
  DataSet turned = solubilities();
  for (DataPoint& point : turned.points) std::swap(point.x, point.y);
  expect_truth(fit({turned}, both_coefficients()));
}

TEST(MixedData, BoilingPointsSolubilitiesEnthalpiesAndLimitsTogether) {
  DataSet boiling = empty(DataKind::txy);
  Mixture mixture = true_mixture();
  for (const double x1 : {0.002, 0.005, 0.01, 0.55, 0.65, 0.75, 0.85, 0.95}) {
    const VlePoint exact = bubble_temperature(mixture, 101325, std::vector<double>{x1, 1 - x1});
    boiling.points.push_back({exact.T_K, exact.P_Pa, exact.x, exact.y, 0.05, 50, 0.0005, 0.004, 1});
  }
  const Fit result = fit({boiling, solubilities(), enthalpies(), limits()}, both_coefficients());
  expect_truth(result);
  EXPECT_EQ(result.fitted_to(), "vle+lle");
  EXPECT_EQ(result.comparisons, 16 + 2 * 9 + static_cast<int>(enthalpies().points.size()) + 2);
  // Both the split and the boiling curve come out of one set of parameters.
  Mixture fitted = result.mixture();
  EXPECT_NEAR(binary_splits(fitted.activity(), 330).at(0).x1_alpha,
              binary_splits(mixture.activity(), 330).at(0).x1_alpha, 1e-5);
  EXPECT_NEAR(txy(fitted, 101325).azeotropes.at(0).T_K, txy(mixture, 101325).azeotropes.at(0).T_K, 1e-3);
}

TEST(MixedData, EnthalpiesAndLimitsFixTheTemperatureDependence) {
  FitOptions options = both_coefficients();
  DataSet more = enthalpies();
  for (const double T : {300.0, 350.0}) {
    Mixture mixture = true_mixture();
    for (double x = 0.1; x < 0.95; x += 0.2) {
      DataPoint point{T, 0, {x, 1 - x}, {}, 0.1, 0, 0.001, 0, 1};
      point.value = gamma_at(mixture.activity(), T, point.x).hE_J_mol;
      point.u_value = 10;
      more.points.push_back(point);
    }
  }
  expect_truth(fit({more, limits()}, options));
}

TEST(MixedData, TheDistanceOfTwoLiquidsIsAChiSquare) {
  // Noise of the stated size must give a chi-square near its degrees of freedom, and intervals that hold the
  // truth.
  double sum = 0, degrees = 0;
  int covered = 0, intervals = 0;
  for (unsigned seed = 1; seed <= 40; ++seed) {
    FitOptions options = both_coefficients();
    options.starts = 4;
    const Fit result = fit({solubilities(1, seed)}, options);
    sum += result.objective;
    degrees += result.degrees_of_freedom;
    for (const auto& [name, value] :
         {std::pair("tau_12.inverse_T", 550.0), std::pair("tau_21.inverse_T", 1100.0)}) {
      for (const FittedParameter& parameter : result.parameters) {
        if (parameter.name != name) continue;
        ++intervals;
        covered += parameter.low < value && value < parameter.high;
      }
    }
  }
  EXPECT_NEAR(sum / degrees, 1, 0.2);
  EXPECT_GT(covered, 0.88 * intervals);
}

TEST(MixedData, AWilsonFitToTwoLiquidsSaysThatItCannot) {
  FitOptions options;
  options.model = "wilson";
  const Fit result = fit({solubilities()}, options);
  EXPECT_TRUE(result.notices.has("no-split"));
}

TEST(Ranking, TheModelBehindTheDataIsNotRuledOut) {
  const DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 25, 3);
  const auto ranked = rank_models({data}, {}, {"wilson", "nrtl", "uniquac"});
  ASSERT_EQ(ranked.size(), 3u);
  EXPECT_EQ(ranked[0].aicc_above_best, 0);
  for (std::size_t k = 1; k < 3; ++k) EXPECT_GE(ranked[k].fit.aicc, ranked[k - 1].fit.aicc);
  for (const RankedFit& entry : ranked) {
    ASSERT_TRUE(entry.cross_validation);
    if (entry.fit.options.model == "nrtl") {
      EXPECT_LT(entry.aicc_above_best, 7);
      EXPECT_NEAR(*entry.cross_validation, 1, 0.35);
    }
    // The definition, by hand.
    const double n = entry.fit.comparisons, k = static_cast<double>(entry.fit.free().size());
    EXPECT_NEAR(entry.fit.aicc, entry.fit.objective + 2 * k + 2 * k * (k + 1) / (n - k - 1), 1e-9);
  }
}

TEST(Intervals, ProfilesAgreeWithStandardErrorsWhereTheProblemIsNearlyLinear) {
  FitOptions options;
  options.profiles = Profiles::always;
  const Fit result = fit({test::synthetic(test::mtbe_methanol(), DataKind::txy, 40, 5)}, options);
  for (const FittedParameter* parameter : result.free()) {
    EXPECT_TRUE(parameter->profiled);
    EXPECT_NEAR((parameter->high - parameter->low) / (2 * 1.96 * parameter->std_error), 1, 0.1)
        << parameter->name;
    EXPECT_LT(parameter->low, parameter->value);
    EXPECT_GT(parameter->high, parameter->value);
  }
  FitOptions free = options;
  free.release = {"alpha"};
  free.profiles = Profiles::when_nonlinear;
  const Fit with_alpha = fit({test::synthetic(test::mtbe_methanol(), DataKind::txy, 40, 5)}, free);
  for (const FittedParameter* parameter : with_alpha.free()) {
    EXPECT_TRUE(parameter->profiled);  // alpha free: visibly nonlinear
  }
}

TEST(Fit, AnExcludedPointHasNoSayAndStaysInTheOutput) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 20, 5);
  const Fit clean = fit({data});
  data.points[7].T_K += 5;
  data.points[7].excluded = "thermometer touched the wall";
  const Fit result = fit({data});
  EXPECT_EQ(result.points, clean.points - 1);
  EXPECT_NEAR(value_of(result, "tau_12.inverse_T"), value_of(clean, "tau_12.inverse_T"), 8);
  EXPECT_TRUE(result.notices.has("points-excluded"));
  EXPECT_EQ(result.residuals.size(), data.points.size());
  EXPECT_FALSE(result.residuals[7].used());
  EXPECT_GT(std::abs(result.residuals[7].standardised_P), 20);
}

TEST(Fit, RobustLossIsPulledLessByAnOutlier) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 20, 5, 0.2);
  data.points[3].T_K += 3;
  FitOptions robust;
  robust.robust = true;
  const double plain_off = std::abs(value_of(fit({data}), "tau_12.inverse_T") - 236);
  const Fit gentle = fit({data}, robust);
  EXPECT_LT(std::abs(value_of(gentle, "tau_12.inverse_T") - 236), plain_off);
  EXPECT_TRUE(gentle.notices.has("robust-loss"));
}

TEST(MeasuredCsv, MassFractionsMolalityAndTwoLiquidsAreRead) {
  const DataSet mass = parse_measured(
      "# substances: ethanol, water\n# P: 1 atm\n# u(w): 0.002\nT [degC], w1 [%]\n80, 50\n", "m.csv");
  EXPECT_NEAR(mass.points[0].x[0], (50 / 46.069) / (50 / 46.069 + 50 / 18.015), 1e-4);
  EXPECT_GT(mass.points[0].u_x, 0);
  const DataSet molal =
      parse_measured("# substances: water, ethanol\n# P: 1 atm\nT [degC], m2 [mol/kg]\n99, 2\n", "m.csv");
  EXPECT_NEAR(molal.points[0].x[1], 2 * 0.018015 / (1 + 2 * 0.018015), 1e-6);
  const DataSet two = parse_measured(
      "# substances: 1-butanol, water\nT [degC], w1_alpha [%], w1_beta [%]\n25, 7.3, 79.5\n", "l.csv");
  EXPECT_EQ(two.kind, DataKind::lle);
  EXPECT_NEAR(two.points[0].x[0], (7.3 / 74.123) / (7.3 / 74.123 + 92.7 / 18.015), 1e-4);
  const DataSet gamma =
      parse_measured("# substances: ethanol, water\nT [degC], solute, gamma\n60, water, 2.5\n", "g.csv");
  EXPECT_EQ(gamma.kind, DataKind::gamma_inf);
  EXPECT_EQ(gamma.points[0].solute, 1u);
  const DataSet h = parse_measured(
      "# substances: ethanol, water\nT [degC], x1, hE [kJ/mol], exclude\n25, 0.2, -0.7, \n25, 0.4, -0.5, "
      "stirrer stopped\n",
      "h.csv");
  EXPECT_NEAR(h.points[0].value, -700, 1e-9);
  EXPECT_EQ(h.points[1].excluded, "stirrer stopped");
  for (const char* bad :
       {"# substances: ethanol, water\nT [degC], solute, gamma\n60, toluene, 2.5\n",
        "# substances: ethanol, water\nT [degC], solute, gamma\n60, water, -1\n",
        "# substances: ethanol, water\nT [degC], gamma\n60, 2.5\n",
        "# substances: ethanol, water\nT [degC], x1, hE\n25, 0.2, -700\n",
        "# substances: ethanol, water\nT [degC], x1_alpha\n25, 0.2\n",
        "# substances: ethanol, water\n# kind: txy\nT [degC], x1, hE [J/mol]\n25, 0.2, -700\n",
        "# substances: ethanol, water\n# P: 1 atm\nT [degC], w1\n80, 50\n"}) {
    EXPECT_THROW(parse_measured(bad, "bad.csv"), RequestError) << bad;
  }
}

// Made-up boiling points of a solution of what does not boil.
TEST(NonVolatile, BoilingPointsOfASolutionAreFitted) {
  KnownConstants known;
  known.molar_mass_kg_mol = 0.3423;
  known.uniquac_r = 14.5;
  known.uniquac_q = 13.8;
  const Substance solute = define_substance("made-up sugar", known).substance;
  ASSERT_FALSE(solute.vapour_pressure);
  std::vector<Substance> bank(Bank::built_in().all().begin(), Bank::built_in().all().end());
  bank.push_back(solute);
  const DataSet data = parse_measured(
      "# substances: made-up sugar, water\n# kind: boiling-elevation\n# P: 1 atm\n# u(T): 0.1 K\n# u(P): 50 "
      "Pa\n# u(w): 0.001\n"
      "T [degC], w1 [%]\n100.1,10\n100.3,20\n100.65,30\n101.15,40\n102,50\n103.4,60\n105.8,70\n110.5,80\n",
      "sugar.csv", Bank(bank));
  EXPECT_EQ(data.kind, DataKind::tx);
  for (const char* model : {"uniquac", "nrtl"}) {
    FitOptions options;
    options.model = model;
    const Fit result = fit({data}, options);
    EXPECT_LT(*result.deviation.T_K, 1) << model;
    for (const ResidualRow& row : result.residuals) EXPECT_EQ(row.y[0], 0);
  }
  FitOptions options;
  options.model = "uniquac";
  Mixture mixture = fit({data}, options).mixture();
  // Between the points the liquid is one: far more stable than an ideal one, which must not be taken for a
  // split.
  const VlePoint point = bubble_temperature(mixture, 101325, std::vector<double>{0.09, 0.91});
  EXPECT_FALSE(point.notices.has("liquid-splits"));
  EXPECT_EQ(point.K[0], 0);
  EXPECT_NEAR(point.y[1], 1, 1e-12);
  EXPECT_THROW(dew_temperature(mixture, 101325, std::vector<double>{0.1, 0.9}), CalculationError);
  EXPECT_THROW(txy(mixture, 101325), CalculationError);
  EXPECT_THROW(bubble_temperature(mixture, 101325, std::vector<double>{1, 0}), CalculationError);
}

// The 95 % intervals cover the truth of random systems as often as they say (slow; CI runs it once).
TEST(SlowCoverage, IntervalsOfRandomSystemsWithAlphaFixed) {
  std::mt19937_64 generator(2026);
  std::uniform_real_distribution<double> energy(-100, 500);
  int covered = 0, intervals = 0;
  for (int system = 0; system < 200; ++system) {
    const double b12 = energy(generator), b21 = energy(generator);
    ParameterCollection parameters;
    parameters.add(test::nrtl_pair("methyl tert-butyl ether", "methanol", b12, b21, 0.3));
    const Mixture mixture(substances_named({"MTBE", "methanol"}), "nrtl", parameters);
    FitOptions options;
    options.starts = 6;
    const Fit result =
        fit({test::synthetic(mixture, DataKind::txy, 20, 1000 + static_cast<unsigned>(system))}, options);
    for (const auto& [name, truth] :
         {std::pair("tau_12.inverse_T", b12), std::pair("tau_21.inverse_T", b21)}) {
      for (const FittedParameter& parameter : result.parameters) {
        if (parameter.name != name) continue;
        ++intervals;
        covered += parameter.low <= truth && truth <= parameter.high;
      }
    }
  }
  EXPECT_EQ(intervals, 400);
  EXPECT_GE(covered, 0.90 * intervals);
  EXPECT_LE(covered, 0.98 * intervals);
  RecordProperty("coverage_per_cent", 100 * covered / intervals);
}

TEST(SlowCoverage, ProfilesOfRandomSystemsWithAlphaFree) {
  std::mt19937_64 generator(77);
  std::uniform_real_distribution<double> energy(100, 600), alpha(0.2, 0.45);
  int covered = 0, intervals = 0;
  for (int system = 0; system < 200; ++system) {
    const double b12 = energy(generator), b21 = energy(generator), a = alpha(generator);
    ParameterCollection parameters;
    parameters.add(test::nrtl_pair("methyl tert-butyl ether", "methanol", b12, b21, a));
    const Mixture mixture(substances_named({"MTBE", "methanol"}), "nrtl", parameters);
    FitOptions options;
    options.starts = 6;
    options.release = {"alpha"};
    options.profiles = Profiles::when_nonlinear;
    std::optional<Fit> result;
    try {
      result = fit({test::synthetic(mixture, DataKind::txy, 30, 5000 + static_cast<unsigned>(system), 1,
                                    {0.025, 25, 0.001, 0.002})},
                   options);
    } catch (const CalculationError&) {
      continue;  // said so
    }
    for (const auto& [name, truth] :
         {std::pair("tau_12.inverse_T", b12), std::pair("tau_21.inverse_T", b21), std::pair("alpha", a)}) {
      for (const FittedParameter& parameter : result->parameters) {
        if (parameter.name != name || !parameter.profiled) continue;
        ++intervals;
        covered += parameter.low <= truth && truth <= parameter.high;
      }
    }
  }
  RecordProperty("coverage_per_cent", 100 * covered / std::max(1, intervals));
  EXPECT_GT(intervals, 400);
  EXPECT_GE(covered, 0.90 * intervals);
}

// The band from the covariance against a seeded bootstrap: data made anew from the fit, fitted again.
TEST(Uncertainty, TheBandIsThatOfABootstrap) {
  const Fit first = fit({test::synthetic(test::mtbe_methanol(), DataKind::txy, 25, 9)});
  Mixture mixture = first.mixture();
  CurveOptions coarse;
  coarse.points = 11;
  const BinaryCurve curve = txy(mixture, 101325, coarse);
  const UncertaintyBand band = uncertainty_band(mixture, curve);
  std::vector<std::vector<double>> T(11), y(11);
  std::vector<double> azeotrope;
  for (unsigned seed = 1; seed <= 150; ++seed) {
    FitOptions quick;
    quick.starts = 1;
    Mixture again = fit({test::synthetic(first.mixture(), DataKind::txy, 25, 100 + seed)}, quick).mixture();
    const BinaryCurve resampled = txy(again, 101325, coarse);
    for (std::size_t k = 0; k < 11; ++k) {
      T[k].push_back(resampled.points[k].T_K);
      y[k].push_back(resampled.points[k].y[0]);
    }
    azeotrope.push_back(resampled.azeotropes.at(0).x1);
  }
  const auto spread = [](const std::vector<double>& values) {
    double mean = 0, square = 0;
    for (const double value : values) mean += value / static_cast<double>(values.size());
    for (const double value : values)
      square += (value - mean) * (value - mean) / static_cast<double>(values.size() - 1);
    return std::sqrt(square);
  };
  // Where the curve turns, the spread of T has a node; there only its size counts.
  double largest = 0;
  for (const BandPoint& point : band.points) largest = std::max(largest, point.u_T_K);
  for (std::size_t k = 1; k + 1 < 11; ++k) {
    EXPECT_NEAR(band.points[k].u_T_K, spread(T[k]), 0.25 * spread(T[k]) + 0.05 * largest) << k;
    EXPECT_NEAR(band.points[k].u_y1, spread(y[k]), 0.3 * spread(y[k]) + 1e-5) << k;
  }
  EXPECT_NEAR(band.azeotropes.at(0).u_x1 / spread(azeotrope), 1, 0.2);
  EXPECT_EQ(band.points.front().u_T_K, 0);
  // It travels through the file, also when the pair is seen from the other side.
  ParameterCollection read;
  parse_pairs(pairs_text(first), "fit.pairs.toml", read);
  const Mixture turned(substances_named({"methanol", "MTBE"}), "nrtl", read);
  Mixture turned_copy = turned;
  const UncertaintyBand mirrored = uncertainty_band(turned, txy(turned_copy, 101325, coarse));
  for (std::size_t k = 0; k < 11; ++k) EXPECT_NEAR(mirrored.points[k].u_T_K, band.points[10 - k].u_T_K, 1e-9);
  Mixture without = test::mtbe_methanol();
  EXPECT_THROW(uncertainty_band(without, curve), CalculationError);
}

// Measured, published data: 2-butanone (1) and toluene (2) at 323.15 K, J. M. Smith, H. C. Van Ness, M. M.
// Abbott, Introduction to Chemical Engineering Thermodynamics, the table behind its fits of gE; there the
// Margules equation is fitted with A12 = 0.372, A21 = 0.198. A fit here must describe the pressures at least
// as well.
TEST(PublishedData, AreFittedAtLeastAsWellAsInPrint) {
  DataSet data;
  data.name = "2-butanone and toluene";
  data.kind = DataKind::pxy;
  data.substances = substances_named({"2-butanone", "toluene"});
  const double rows[][3] = {{15.51, 0.0895, 0.2716}, {18.61, 0.1981, 0.4565}, {21.63, 0.3193, 0.5934},
                            {24.01, 0.4232, 0.6815}, {25.92, 0.5119, 0.7440}, {27.96, 0.6096, 0.8050},
                            {30.12, 0.7135, 0.8639}, {31.75, 0.7934, 0.9048}, {34.15, 0.9102, 0.9590}};
  for (const auto& [P_kPa, x, y] : rows) {
    data.points.push_back({323.15, 1000 * P_kPa, {x, 1 - x}, {y, 1 - y}, 0.02, 40, 0.001, 0.003, 1});
  }
  Mixture printed(data.substances, std::make_unique<test::Margules>((0.372 + 0.198) / 2, (0.198 - 0.372) / 2),
                  {});
  double in_print = 0;
  for (const DataPoint& point : data.points) {
    const double off = bubble_pressure(printed, point.T_K, point.x).P_Pa - point.P_Pa;
    in_print += off * off / static_cast<double>(data.points.size());
  }
  for (const std::string& model : pair_model_names()) {
    FitOptions options;
    options.model = model;
    options.objective = Objective::bubble_pressure;
    const Fit result = fit({data}, options);
    EXPECT_LE(*result.deviation.P_Pa, 1.05 * std::sqrt(in_print)) << model;
    EXPECT_LT(*result.deviation.y, 0.01) << model;
  }
}

// Three binaries in files of their own, and tie lines of the three together: one fit for all three pairs.
// Aqueous sucrose at 25 degC: the pressure under which solutions of these molalities boil there, from the
// osmotic coefficients in R. A. Robinson, R. H. Stokes, Electrolyte Solutions, 2nd ed., Butterworths, London
// 1959, appendix 8.6: P = Psat exp(-phi m M_w).
TEST(PublishedData, ANonVolatileSoluteIsFittedToHundredthsOfAKelvin) {
  const std::vector<std::array<double, 2>> osmotic{{0.5, 1.041}, {1.0, 1.088}, {1.4, 1.129}, {2.0, 1.189},
                                                   {2.5, 1.240}, {3.0, 1.288}, {3.5, 1.334}, {4.0, 1.375},
                                                   {4.5, 1.414}, {5.0, 1.450}, {5.5, 1.482}, {6.0, 1.511}};
  KnownConstants known;
  known.molar_mass_kg_mol = 0.3423;
  known.uniquac_r = 14.5;
  known.uniquac_q = 13.8;
  std::vector<Substance> bank(Bank::built_in().all().begin(), Bank::built_in().all().end());
  bank.push_back(define_substance("sucrose", known).substance);
  const double P_water = substances_named({"water"})[0].vapour_pressure->P_Pa(298.15);
  std::string text =
      "# substances: sucrose, water\n# kind: boiling-elevation\nT [degC], P [Pa], m1 [mol/kg]\n";
  for (const auto& [molality, phi] : osmotic)
    text += fmt::format("25, {:.4f}, {}\n", P_water * std::exp(-phi * molality * 0.0180153), molality);
  const DataSet data = parse_measured(text, "sucrose.csv", Bank(bank));
  for (const char* model : {"uniquac", "nrtl"}) {
    FitOptions options;
    options.model = model;
    options.objective = Objective::bubble_temperature;
    options.form = {Coefficient::constant};
    const Fit result = fit({data}, options);
    EXPECT_LT(*result.deviation.T_K, 0.02) << model;
    // Ideal, the solutions would boil this far off: the fit has something to do.
    const double ideal = P_water * 55.508 / (55.508 + 6);
    EXPECT_GT(std::log(ideal / data.points.back().P_Pa) / 0.06, 0.9);  // d ln P/dT is about 0.06 1/K
  }
}

// One number serves two terms: the fit has a parameter less, and the two stay equal.
TEST(Fit, TiedTermsShareTheirCoefficients) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("acetone", "methanol", 90, 90, 0.3));
  const Mixture symmetric(substances_named({"acetone", "methanol"}), "nrtl", parameters);
  const DataSet data = test::synthetic(symmetric, DataKind::txy, 15, 3);
  FitOptions options;
  options.tie = {{"tau_21", "tau_12"}};
  const Fit tied = fit({data}, options), loose = fit({data}, FitOptions{});
  ASSERT_EQ(tied.free().size(), 1u);
  ASSERT_EQ(tied.fitted().size(), 2u);
  EXPECT_EQ(tied.fitted()[0]->value, tied.fitted()[1]->value);
  EXPECT_NEAR(tied.fitted()[0]->value, 90, 4 * tied.fitted()[0]->std_error);
  EXPECT_EQ(tied.degrees_of_freedom, loose.degrees_of_freedom + 1);
  EXPECT_GE(tied.objective, loose.objective);
  EXPECT_LT(tied.fitted()[0]->std_error, loose.fitted()[0]->std_error);
  // The pair carries both, perfectly correlated.
  const PairParameters pair = tied.pairs().front();
  ASSERT_EQ(pair.covariance.size(), 4u);
  EXPECT_EQ(pair.covariance[0], pair.covariance[1]);

  options.tie = {{"tau_21", "alpha"}};
  EXPECT_THROW(fit({data}, options), RequestError);
  options.tie = {{"alpha", "alpha"}};  // held by default
  EXPECT_THROW(fit({data}, options), RequestError);
  options.tie = {{"tau_21", "tau_12"}};
  options.hold = {{"tau_21", 50}};
  EXPECT_THROW(fit({data}, options), RequestError);
}

// One alpha for all three pairs of a ternary.
TEST(Fit, ATermCanBeTheSameForAllPairs) {
  const std::vector<std::string> names{"acetone", "methanol", "water"};
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("acetone", "methanol", 90, 120, 0.42));
  parameters.add(test::nrtl_pair("acetone", "water", 300, 500, 0.42));
  parameters.add(test::nrtl_pair("methanol", "water", -80, 300, 0.42));
  Mixture mixture(substances_named(names), "nrtl", parameters);
  DataSet data;
  data.kind = DataKind::pxy;
  data.substances = mixture.substances();
  std::mt19937_64 generator(11);
  for (int k = 0; k < 25; ++k) {
    const std::vector<double> x = test::random_composition(generator, 3);
    const VlePoint exact = bubble_pressure(mixture, 330, x);
    data.points.push_back({exact.T_K, exact.P_Pa, exact.x, exact.y, 0.05, 50, 0.001, 0.004, 1});
  }
  FitOptions options;
  options.release = {"alpha"};
  options.tie = {{"alpha", "alpha"}};
  const Fit result = fit({data}, options);
  EXPECT_EQ(result.free().size(), 7u);
  EXPECT_LT(result.objective, 1e-3);
  for (const PairParameters& pair : result.pairs()) EXPECT_NEAR(pair.terms.at("alpha").constant, 0.42, 1e-3);
}

// Ternary tie lines alone: the fit gives them back, reports its own beside the measured ones, and its
// covariance, through a file, moves the tie lines as sampled parameters do.
TEST(MixedData, TernaryTieLinesAndTheirUncertainty) {
  const std::vector<std::string> names{"water", "ethanol", "ethyl acetate"};
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("water", "ethanol", 400, 50, 0.3));
  parameters.add(test::nrtl_pair("water", "ethyl acetate", 1250, 450, 0.3));
  parameters.add(test::nrtl_pair("ethanol", "ethyl acetate", 150, 160, 0.3));
  Mixture mixture(substances_named(names), "nrtl", parameters);
  const TernaryDiagram diagram = ternary_diagram(mixture.activity(), 298.15);
  DataSet data;
  data.name = "tie lines";
  data.kind = DataKind::lle;
  data.substances = mixture.substances();
  for (std::size_t k = 1; k < diagram.tie_lines.size(); k += 2) {
    const TieLine& line = diagram.tie_lines[k].line;
    DataPoint point;
    point.T_K = 298.15;
    point.x.assign(line.alpha.begin(), line.alpha.end());
    point.y.assign(line.beta.begin(), line.beta.end());
    point.u_T_K = 0.05;
    point.u_x = point.u_y = 0.002;
    data.points.push_back(point);
  }
  FitOptions options;
  options.form = {Coefficient::constant};
  const Fit result = fit({data}, options);
  EXPECT_LT(result.objective, 1e-4);
  for (const LiquidRow& row : result.liquid_residuals) {
    ASSERT_EQ(row.alpha.size(), 3u);
    for (std::size_t i = 0; i < 3; ++i) {
      EXPECT_NEAR(row.alpha[i], row.measured.x[i], 2e-4);
      EXPECT_NEAR(row.beta[i], row.measured.y[i], 2e-4);
    }
  }
  // Through a file, all pairs with their joint covariance.
  ParameterCollection read;
  parse_pairs(pairs_text(result), "own.pairs.toml", read, Bank::built_in());
  const Mixture again(substances_named(names), "nrtl", read);
  const TieLine line = diagram.tie_lines[8].line;
  const TieLineUncertainty u = tie_line_uncertainties(again, 298.15, {line}).front();
  // Parameters drawn from the covariance of the fit.
  const auto n = static_cast<Eigen::Index>(result.covariance.rows());
  const Eigen::LLT<Eigen::MatrixXd> root(Eigen::Map<const Eigen::MatrixXd>(result.covariance.data(), n, n));
  ASSERT_EQ(root.info(), Eigen::Success);
  std::mt19937_64 generator(3);
  std::normal_distribution<double> normal;
  std::array<double, 3> squares{};
  constexpr int draws = 400;
  for (int draw = 0; draw < draws; ++draw) {
    Eigen::VectorXd z(n);
    for (double& value : z) value = normal(generator);
    Eigen::VectorXd change = root.matrixL() * z;
    change *= 0.1;  // small, so that first order is enough
    Mixture moved = result.mixture();
    const auto free = result.free();
    for (std::size_t p = 0; p < free.size(); ++p) {
      moved.activity().set_coefficient(free[p]->term_index, free[p]->coefficient,
                                       free[p]->value + change[static_cast<Eigen::Index>(p)]);
    }
    const auto found = tie_line_through(moved.activity(), 298.15, line.middle());
    ASSERT_TRUE(found);
    const bool same =
        std::abs(found->line.alpha[0] - line.alpha[0]) < std::abs(found->line.beta[0] - line.alpha[0]);
    const auto& alpha = same ? found->line.alpha : found->line.beta;
    for (std::size_t i = 0; i < 3; ++i) squares[i] += std::pow((alpha[i] - line.alpha[i]) / 0.1, 2) / draws;
  }
  for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(std::sqrt(squares[i]), u.u_alpha[i], 0.12 * u.u_alpha[i]);
}

TEST(MixedData, BinariesAndATernaryTogether) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("ethanol", "ethyl acetate", 150, 160, 0.3));
  parameters.add(test::nrtl_pair("ethanol", "water", -50, 600, 0.3));
  parameters.add(test::nrtl_pair("ethyl acetate", "water", 400, 1250, 0.3));
  const auto binary = [&](const std::vector<std::string>& names, double from, double to) {
    Mixture mixture(substances_named(names), "nrtl", parameters);
    DataSet data;
    data.name = names[0] + " and " + names[1];
    data.kind = DataKind::pxy;
    data.substances = mixture.substances();
    for (int k = 0; k < 9; ++k) {
      const double x = from + (to - from) * k / 8;
      const VlePoint exact = bubble_pressure(mixture, 330, std::vector<double>{x, 1 - x});
      data.points.push_back({exact.T_K, exact.P_Pa, exact.x, exact.y, 0.05, 50, 0.001, 0.004, k + 1});
    }
    return data;
  };
  DataSet solubility;
  solubility.name = "ethyl acetate and water";
  solubility.kind = DataKind::lle;
  solubility.substances = substances_named({"water", "ethyl acetate"});  // in another order
  Mixture pair(solubility.substances, "nrtl", parameters);
  for (const double T : {300.0, 320.0}) {
    const BinarySplit split = binary_splits(pair.activity(), T).at(0);
    solubility.points.push_back({T,
                                 0,
                                 {split.x1_alpha, 1 - split.x1_alpha},
                                 {split.x1_beta, 1 - split.x1_beta},
                                 0.1,
                                 0,
                                 0.001,
                                 0.001,
                                 1});
  }
  // A ternary boiling point with all three, one with the last of them absent.
  Mixture three(substances_named({"water", "ethanol", "ethyl acetate"}), "nrtl", parameters);
  DataSet ternary;
  ternary.name = "all three";
  ternary.kind = DataKind::pxy;
  ternary.substances = three.substances();
  for (const std::vector<double>& x :
       {std::vector<double>{0.1, 0.3, 0.6}, std::vector<double>{0.5, 0.5, 0}}) {
    const VlePoint exact = bubble_pressure(three, 330, x);
    ternary.points.push_back({exact.T_K, exact.P_Pa, exact.x, exact.y, 0.05, 50, 0.001, 0.004, 1});
  }
  const Fit result = fit({binary({"ethanol", "ethyl acetate"}, 0.1, 0.9),
                          binary({"water", "ethanol"}, 0.1, 0.9), solubility, ternary});
  ASSERT_EQ(result.substances.size(), 3u);
  EXPECT_LT(result.objective, 1e-4);
  EXPECT_EQ(result.comparisons, 2 * 9 + 2 * 9 + 2 * 2 + 3 + 2);
  for (const PairParameters& truth_pair : parameters.all()) {
    bool seen = false;
    for (const PairParameters& found : result.pairs()) {
      const bool same = found.between == truth_pair.between;
      if (!same && found.swapped().between != truth_pair.between) continue;
      seen = true;
      const PairParameters turned = same ? found : found.swapped();
      EXPECT_NEAR(turned.terms.at("tau_12").inverse_T, truth_pair.terms.at("tau_12").inverse_T, 0.5)
          << truth_pair.between[0];
      EXPECT_NEAR(turned.terms.at("tau_21").inverse_T, truth_pair.terms.at("tau_21").inverse_T, 0.5)
          << truth_pair.between[0];
    }
    EXPECT_TRUE(seen);
  }
  // Without data on one of the pairs its parameters are not determined, and that is said.
  EXPECT_THROW(fit({binary({"ethanol", "ethyl acetate"}, 0.1, 0.9), binary({"water", "ethanol"}, 0.1, 0.9)}),
               CalculationError);
}

}  // namespace
}  // namespace jampot
