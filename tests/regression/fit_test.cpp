#include "jampot/regression/fit.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

using test::synthetic;

double value_of(const Fit& result, const std::string& name) {
  for (const FittedParameter& parameter : result.parameters) {
    if (parameter.name == name) return parameter.value;
  }
  ADD_FAILURE() << "no parameter " << name;
  return 0;
}

TEST(Fit, ExactDataGiveTheirParametersBack) {
  for (const DataKind kind : {DataKind::txy, DataKind::pxy, DataKind::tx, DataKind::px}) {
    for (const Objective objective :
         {Objective::maximum_likelihood, Objective::bubble_pressure, Objective::bubble_temperature}) {
      FitOptions options;
      options.objective = objective;
      options.release = {"alpha"};
      const Fit result = fit({synthetic(test::mtbe_methanol(), kind, 15, 1, 0)}, options);
      EXPECT_NEAR(value_of(result, "tau_12.inverse_T"), 236, 0.02)
          << name_of(kind) << ' ' << name_of(objective);
      EXPECT_NEAR(value_of(result, "tau_21.inverse_T"), 194, 0.02);
      EXPECT_NEAR(value_of(result, "alpha"), 0.3, 2e-4);
      EXPECT_LT(result.objective, 1e-6);
    }
  }
}

TEST(Fit, TemperatureDependenceOfChosenOrder) {
  // Two temperatures 40 K apart tell the constant from the slope.
  PairParameters truth = test::nrtl_pair("methyl tert-butyl ether", "methanol", 500, -100, 0.3);
  truth.terms["tau_12"].constant = -0.8;
  truth.terms["tau_21"].constant = 0.9;
  ParameterCollection parameters;
  parameters.add(truth);
  Mixture mixture(substances_named({"MTBE", "methanol"}), "nrtl", parameters);
  DataSet data = synthetic(mixture, DataKind::pxy, 12, 1, 0);
  for (const double T : {300.0, 345.0}) {
    for (int k = 1; k < 10; ++k) {
      const VlePoint point = bubble_pressure(mixture, T, std::vector<double>{0.1 * k, 1 - 0.1 * k});
      data.points.push_back({point.T_K, point.P_Pa, point.x, point.y, 0.05, 50, 0.002, 0.004});
    }
  }
  FitOptions options;
  options.form = {Coefficient::constant, Coefficient::inverse_T};
  const Fit result = fit({data}, options);
  EXPECT_NEAR(value_of(result, "tau_12.constant"), -0.8, 1e-3);
  EXPECT_NEAR(value_of(result, "tau_12.inverse_T"), 500, 0.5);
  EXPECT_NEAR(value_of(result, "tau_21.constant"), 0.9, 1e-3);
  EXPECT_NEAR(value_of(result, "tau_21.inverse_T"), -100, 0.5);
}

TEST(Fit, IntervalsCoverTheTruth) {
  // 120 sets of the same truth with fresh noise: 95 % intervals of both parameters and of the azeotrope must
  // cover about 95 % of the time (binomial standard error 2 %), and chi-square must average its degrees of
  // freedom.
  Mixture truth = test::mtbe_methanol();
  const Azeotrope hidden = txy(truth, 101325).azeotropes.at(0);
  constexpr int sets = 120;
  int covered_12 = 0, covered_21 = 0, covered_x = 0, covered_T = 0;
  double chi_square = 0;
  FitOptions options;
  options.starts = 1;
  for (int set = 0; set < sets; ++set) {
    const Fit result = fit({synthetic(truth, DataKind::txy, 20, 1000 + static_cast<unsigned>(set))}, options);
    const auto inside = [](double estimate, double error, double value) {
      return std::abs(estimate - value) < 1.96 * error;
    };
    covered_12 += inside(result.parameters[0].value, result.parameters[0].std_error, 236);
    covered_21 += inside(result.parameters[1].value, result.parameters[1].std_error, 194);
    Mixture fitted = result.mixture();
    const Azeotrope azeotrope = txy(fitted, 101325).azeotropes.at(0);
    const AzeotropeUncertainty u = azeotrope_uncertainty(result, Sought::temperature, azeotrope);
    covered_x += inside(azeotrope.x1, u.u_x1, hidden.x1);
    covered_T += inside(azeotrope.T_K, u.u_T_K, hidden.T_K);
    chi_square += result.objective / result.degrees_of_freedom / sets;
  }
  for (const int covered : {covered_12, covered_21, covered_x, covered_T}) {
    EXPECT_GE(covered, 0.89 * sets);
    EXPECT_LE(covered, 0.995 * sets);
  }
  EXPECT_NEAR(chi_square, 1, 0.06);  // standard error sqrt(2/38)/sqrt(120) = 0.021
}

TEST(Fit, ThreeSubstancesAtOnce) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("ethanol", "acetone", 150, 60, 0.3));
  parameters.add(test::nrtl_pair("ethanol", "toluene", 220, 350, 0.3));
  parameters.add(test::nrtl_pair("acetone", "toluene", 140, 40, 0.3));
  Mixture mixture(substances_named({"ethanol", "acetone", "toluene"}), "nrtl", parameters);
  DataSet data;
  data.name = "ternary";
  data.substances = mixture.substances();
  std::mt19937_64 generator(3);
  for (int k = 0; k < 40; ++k) {
    const VlePoint exact = bubble_temperature(mixture, 101325, test::random_composition(generator, 3));
    data.points.push_back({exact.T_K, exact.P_Pa, exact.x, exact.y, 0.05, 50, 0.002, 0.004});
  }
  const Fit result = fit({data});
  EXPECT_EQ(result.parameters[0].name, "ethanol - acetone: tau_12.inverse_T");
  EXPECT_NEAR(value_of(result, "ethanol - acetone: tau_12.inverse_T"), 150, 0.05);
  EXPECT_NEAR(value_of(result, "ethanol - toluene: tau_21.inverse_T"), 350, 0.05);
  EXPECT_NEAR(value_of(result, "acetone - toluene: tau_12.inverse_T"), 140, 0.05);
  EXPECT_EQ(result.pairs().size(), 3u);
}

TEST(Fit, TheOrderOfTheSubstancesDoesNotMatter) {
  DataSet data = synthetic(test::mtbe_methanol(), DataKind::txy, 20, 5);
  const Fit forward = fit({data});
  std::swap(data.substances[0], data.substances[1]);
  for (DataPoint& point : data.points) {
    std::swap(point.x[0], point.x[1]);
    std::swap(point.y[0], point.y[1]);
  }
  const Fit backward = fit({data});
  EXPECT_NEAR(forward.objective, backward.objective, 1e-6);
  EXPECT_NEAR(value_of(forward, "tau_12.inverse_T"), value_of(backward, "tau_21.inverse_T"), 1e-3);
  EXPECT_NEAR(forward.parameters[0].std_error, backward.parameters[1].std_error, 1e-4);
}

TEST(Fit, SaysWhenTheModelCannotDoTheJob) {
  Mixture other(substances_named({"MTBE", "methanol"}), std::make_unique<test::Margules>(1.1, -0.5), {});
  const Fit result = fit({synthetic(other, DataKind::txy, 30, 2)});
  EXPECT_TRUE(result.notices.has("misfit"));
  EXPECT_TRUE(result.notices.has("systematic-residuals"));
  EXPECT_LT(result.chi_square_probability, 1e-6);
  const Fit good = fit({synthetic(test::mtbe_methanol(), DataKind::txy, 30, 2)});
  EXPECT_FALSE(good.notices.has("misfit"));
  EXPECT_FALSE(good.notices.has("systematic-residuals"));
}

TEST(Fit, SaysWhenUncertaintiesAreStatedTooLarge) {
  EXPECT_TRUE(fit({synthetic(test::mtbe_methanol(), DataKind::txy, 30, 2, 0.2)})
                  .notices.has("uncertainties-too-large"));
}

TEST(Fit, SaysWhenASplitIsInvented) {
  // Points taken from a liquid that does split, but only where it does not: the fit is right and must still
  // say so.
  Mixture splitting = test::butanol_water();
  DataSet data = synthetic(test::mtbe_methanol(), DataKind::txy, 3, 1);
  data.substances = splitting.substances();
  data.points.clear();
  for (const double x1 : {0.004, 0.008, 0.012, 0.016, 0.55, 0.65, 0.75, 0.85, 0.95}) {
    const VlePoint exact = bubble_temperature(splitting, 101325, std::vector<double>{x1, 1 - x1});
    data.points.push_back({exact.T_K, exact.P_Pa, exact.x, exact.y, 0.05, 50, 0.0002, 0.004});
  }
  FitOptions options;
  options.hold["alpha"] = 0.4;
  EXPECT_TRUE(fit({data}, options).notices.has("invented-split"));
}

TEST(Fit, SaysWhenAPurePointIsOff) {
  DataSet data = synthetic(test::mtbe_methanol(), DataKind::txy, 20, 2);
  data.points.push_back({338.5, 101325, {0, 1}, {0, 1}, 0.05, 50, 0.002, 0.004});
  const Fit result = fit({data});
  EXPECT_TRUE(result.notices.has("pure-point"));
  EXPECT_EQ(result.points, 20);
}

TEST(Fit, FlagsAnOutlier) {
  DataSet data = synthetic(test::mtbe_methanol(), DataKind::txy, 30, 2);
  data.points[12].T_K += 1.5;
  EXPECT_TRUE(fit({data}).notices.has("outlier"));
}

// A liquid so odd that Wilson's equation follows it in several ways, one of them at the end of what makes
// sense.
DataSet odd_liquid() {
  DataSet set;
  set.name = "odd.csv";
  set.kind = DataKind::pxy;
  set.substances = substances_named({"acetone", "methanol"});
  for (int k = 1; k < 12; ++k) {
    const double x = k / 12.0;
    const double first = x * std::exp(9.5 * std::pow(1 - x, 6)) * 97e3,
                 second = (1 - x) * std::exp(0.1 * x * x) * 69e3, P = first + second;
    set.points.push_back({328.15, P, {x, 1 - x}, {first / P, second / P}, 0.02, 20, 0.0005, 0.002, k});
  }
  return set;
}

TEST(Fit, ReportsOtherMinimaAndParametersAtBounds) {
  FitOptions options;
  options.model = "wilson";
  const Fit result = fit({odd_liquid()}, options);
  ASSERT_GT(result.minima.size(), 1u);
  EXPECT_DOUBLE_EQ(result.minima[0].objective, result.objective);
  for (std::size_t k = 1; k < result.minima.size(); ++k)
    EXPECT_GE(result.minima[k].objective, result.minima[k - 1].objective);
  EXPECT_TRUE(result.notices.has("other-minima"));
  EXPECT_TRUE(result.notices.has("parameter-at-bound"));
  EXPECT_TRUE(std::any_of(result.parameters.begin(), result.parameters.end(),
                          [](const FittedParameter& parameter) { return parameter.at_bound; }));
}

TEST(Fit, ExcludedPointsCountForNothing) {
  DataSet without = synthetic(test::mtbe_methanol(), DataKind::txy, 20, 5), with = without;
  DataPoint wrong = with.points[7];
  wrong.T_K += 4;
  wrong.y = {0.1, 0.9};
  wrong.excluded = "leak";
  with.points.insert(with.points.begin() + 7, wrong);
  const Fit a = fit({without}), b = fit({with});
  EXPECT_EQ(a.points, b.points);
  EXPECT_DOUBLE_EQ(a.objective, b.objective);
  for (std::size_t p = 0; p < a.parameters.size(); ++p) {
    EXPECT_DOUBLE_EQ(a.parameters[p].value, b.parameters[p].value);
    EXPECT_DOUBLE_EQ(a.parameters[p].std_error, b.parameters[p].std_error);
  }
  EXPECT_TRUE(b.notices.has("points-excluded"));
  EXPECT_EQ(b.residuals.size(), a.residuals.size() + 1);  // it is shown, with its reason
}

TEST(Fit, RefusesWhatCannotBeDetermined) {
  const DataSet data = synthetic(test::mtbe_methanol(), DataKind::txy, 10, 2);
  DataSet one = data;
  one.points.resize(1);
  EXPECT_THROW(fit({one}), RequestError);
  DataSet pure = data;
  for (DataPoint& point : pure.points) point.x = point.y = {1, 0};
  EXPECT_THROW(fit({pure}), RequestError);
  FitOptions options;
  options.hold = {{"tau_12", 1}, {"tau_21", 1}};
  EXPECT_THROW(fit({data}, options), RequestError);
  options.hold = {{"alpah", 0.3}};
  EXPECT_THROW(fit({data}, options), RequestError);
  options.hold = {{"alpha", 0.3}};
  options.release = {"alpha"};
  EXPECT_THROW(fit({data}, options), RequestError);
  options = {};
  options.model = "ideal";
  EXPECT_THROW(fit({data}, options), RequestError);
  // At one temperature the constant and the slope of tau are one number.
  options = {};
  options.form = {Coefficient::constant, Coefficient::inverse_T};
  DataSet isothermal = synthetic(test::mtbe_methanol(), DataKind::pxy, 10, 2);
  for (DataPoint& point : isothermal.points) {
    point.T_K = 330;
    point.u_T_K = 1e-9;
  }
  EXPECT_THROW(fit({isothermal}, options), CalculationError);
  EXPECT_THROW(fit(std::vector<DataSet>{}), RequestError);
}

TEST(Fit, TheOrderOfTheSubstancesInAFileDoesNotMatter) {
  const DataSet data = synthetic(test::mtbe_methanol(), DataKind::txy, 15, 4);
  DataSet turned = data;
  turned.substances = substances_named({"methanol", "MTBE"});
  for (DataPoint& point : turned.points) {
    std::swap(point.x[0], point.x[1]);
    std::swap(point.y[0], point.y[1]);
  }
  const Fit one = fit({data, data}), both = fit({data, turned});
  EXPECT_NEAR(one.objective, both.objective, 1e-5 * one.objective);
  EXPECT_NEAR(value_of(one, "tau_12.inverse_T"), value_of(both, "tau_12.inverse_T"), 0.01);
}

}  // namespace
}  // namespace jampot
