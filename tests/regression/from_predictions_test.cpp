// Parameters that nobody measured, models ranked, and how far uncertainty carries: what the numbers must
// satisfy.
#include <gtest/gtest.h>

#include <cmath>
#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/mosced.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/regression/estimate.hpp"
#include "jampot/regression/ranking.hpp"
#include "jampot/regression/statistics.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "support.hpp"

namespace jampot {
namespace {

// Noisy boiling points of MTBE and methanol by made-up parameters.
DataSet noisy(unsigned seed, std::size_t points = 20) {
  Mixture truth = test::mtbe_methanol();
  std::mt19937_64 generator(seed);
  std::normal_distribution<double> normal;
  DataSet data;
  data.name = "noisy.csv";
  data.substances = truth.substances();
  const BinaryCurve curve = txy(truth, 101325, {points + 2});
  for (std::size_t k = 1; k + 1 < curve.points.size(); ++k) {
    const BinaryPoint& exact = curve.points[k];
    const double x = exact.x[0] + 0.001 * normal(generator), y = exact.y[0] + 0.003 * normal(generator);
    data.points.push_back(
        {exact.T_K + 0.05 * normal(generator), 101325, {x, 1 - x}, {y, 1 - y}, 0.05, 50, 0.001, 0.003});
  }
  return data;
}

TEST(Estimates, FollowEveryPredictionThereIs) {
  const auto pair = substances_named({"ethanol", "toluene"});
  for (const char* from : {"unifac", "unifac-lle", "unifac-dortmund", "mosced"}) {
    for (const char* model : {"nrtl", "wilson", "uniquac"}) {
      EstimateOptions options;
      options.from = from;
      options.model = model;
      Estimate estimate;
      try {
        estimate = estimate_pair(pair[0], pair[1], options);
      } catch (const CalculationError& error) {
        // A table may lack a group; it is then named, never taken as zero.
        EXPECT_NE(std::string(error.what()).find("interaction"), std::string::npos) << error.what();
        continue;
      }
      EXPECT_TRUE(estimate.pair.estimated);
      EXPECT_NE(estimate.pair.source.find(from), std::string::npos);
      EXPECT_EQ(estimate.pair.model, model);
      ParameterCollection collection;
      collection.add(estimate.pair);
      const auto fitted = make_activity_model(model, pair, collection);
      const double T = (options.T_range_K[0] + options.T_range_K[1]) / 2;
      EXPECT_NEAR(limiting_ln_gamma(*fitted, T, 0, 1), estimate.fitted_limits[0], 1e-9);
      EXPECT_NEAR(limiting_ln_gamma(*fitted, T, 1, 0), estimate.fitted_limits[1], 1e-9);
      EXPECT_TRUE(estimate.rms_ln_gamma < 0.2 || estimate.notices.has("poor-estimate"))
          << from << " " << model;
    }
  }
}

TEST(Estimates, SwappedSubstancesGiveSwappedParameters) {
  const auto pair = substances_named({"acetone", "water"});
  const Estimate one = estimate_pair(pair[0], pair[1]), other = estimate_pair(pair[1], pair[0]);
  EXPECT_NEAR(one.pair.terms.at("tau_12").inverse_T, other.pair.terms.at("tau_21").inverse_T, 1e-2);
  EXPECT_NEAR(one.rms_ln_gamma, other.rms_ln_gamma, 1e-8);
}

TEST(Estimates, LimitsAreMetByEveryModel) {
  const auto pair = substances_named({"ethanol", "n-hexane"});
  for (const char* model : {"nrtl", "wilson", "uniquac"}) {
    const std::array<double, 2> wanted{std::log(7.5), std::log(4.2)};
    const PairParameters found = pair_from_limits(pair[0], pair[1], model, wanted, 330);
    ParameterCollection collection;
    collection.add(found);
    const auto fitted = make_activity_model(model, pair, collection);
    EXPECT_NEAR(limiting_ln_gamma(*fitted, 330, 0, 1), wanted[0], 1e-8) << model;
    EXPECT_NEAR(limiting_ln_gamma(*fitted, 330, 1, 0), wanted[1], 1e-8) << model;
  }
}

TEST(Completing, EveryPolicyDoesWhatItSays) {
  const auto substances = substances_named({"acetone", "methanol", "ethyl acetate"});
  Notices refused, estimated, ideal;
  const auto without = complete_pairs("nrtl", substances, {}, MissingPairs::refuse, {}, refused);
  EXPECT_LT(without.all().size(), 3u);
  EXPECT_THROW(Mixture(substances, "nrtl", without), CalculationError);
  const auto guessed = complete_pairs("nrtl", substances, {}, MissingPairs::estimate, {}, estimated);
  EXPECT_EQ(guessed.all().size(), 3u);
  EXPECT_TRUE(estimated.has("estimated-pair"));
  const auto plain = complete_pairs("nrtl", substances, {}, MissingPairs::ideal, {}, ideal);
  EXPECT_EQ(plain.all().size(), 3u);
  EXPECT_FALSE(ideal.empty());
  // What is given is never replaced.
  ParameterCollection own;
  own.add(test::nrtl_pair("acetone", "methanol", 1, 2, 0.3));
  Notices notices;
  const auto kept = complete_pairs("nrtl", substances, own, MissingPairs::estimate, {}, notices);
  EXPECT_EQ(kept.find("nrtl", "acetone", "methanol")->source, "test");
  EXPECT_THROW(parse_missing_pairs("guess"), RequestError);
}

TEST(Ranks, AreByAiccAndKeepTheDataApart) {
  const auto ranked = rank_models({noisy(5)}, {}, {"wilson", "nrtl", "uniquac"});
  ASSERT_EQ(ranked.size(), 3u);
  EXPECT_DOUBLE_EQ(ranked[0].aicc_above_best, 0);
  for (std::size_t k = 1; k < ranked.size(); ++k) {
    EXPECT_GE(ranked[k].aicc_above_best, ranked[k - 1].aicc_above_best);
    EXPECT_NEAR(ranked[k].fit.aicc - ranked[0].fit.aicc, ranked[k].aicc_above_best, 1e-9);
    EXPECT_FALSE(ranked[k].verdict.empty());
  }
  for (const RankedFit& entry : ranked) {
    if (entry.fit.options.model != "nrtl") continue;
    ASSERT_TRUE(entry.cross_validation);
    EXPECT_NEAR(*entry.cross_validation, 1, 0.4);  // it made the data
  }
}

TEST(Carrying, BandsFollowTheParameters) {
  const Fit fitted = fit({noisy(9)});
  Mixture mixture = fitted.mixture();
  const BinaryCurve curve = txy(mixture, 101325, {21});
  const UncertaintyBand band = uncertainty_band(mixture, curve);
  ASSERT_EQ(band.points.size(), curve.points.size());
  // Pure ends do not depend on the pair.
  EXPECT_NEAR(band.points.front().u_T_K, 0, 1e-9);
  EXPECT_NEAR(band.points.back().u_T_K, 0, 1e-9);
  // By hand, in the middle: the gradient by differences, through the covariance.
  const std::size_t middle = 10;
  const auto free = fitted.free();
  std::vector<double> gradient;
  for (const FittedParameter* parameter : free) {
    const auto T_with = [&](double value) {
      ParameterCollection parameters;
      PairParameters pair = fitted.pairs()[0];
      pair.terms[parameter->term][parameter->coefficient] = value;
      parameters.add(pair);
      Mixture moved(mixture.substances(), "nrtl", parameters);
      return txy(moved, 101325, {21}).points[middle].T_K;
    };
    gradient.push_back(test::derivative(T_with, parameter->value, 1e-2 * std::abs(parameter->value)));
  }
  double variance = 0;
  for (std::size_t i = 0; i < gradient.size(); ++i) {
    for (std::size_t j = 0; j < gradient.size(); ++j)
      variance += gradient[i] * gradient[j] * fitted.covariance(i, j);
  }
  EXPECT_NEAR(band.points[middle].u_T_K, std::sqrt(variance), 1e-4 * std::sqrt(variance));
  // More points, narrower bands: about the square root of their number.
  const Fit more = fit({noisy(9, 80)});
  Mixture better = more.mixture();
  const UncertaintyBand narrow = uncertainty_band(better, txy(better, 101325, {21}));
  EXPECT_LT(narrow.points[middle].u_T_K, 0.7 * band.points[middle].u_T_K);
  EXPECT_GT(narrow.points[middle].u_T_K, 0.35 * band.points[middle].u_T_K);
}

TEST(Carrying, ParametersWithoutCovarianceCarryNone) {
  Mixture mixture = test::mtbe_methanol();
  EXPECT_THROW(uncertainty_band(mixture, txy(mixture, 101325, {11})), CalculationError);
  const SingularPoints points = singular_points(mixture, 101325);
  EXPECT_THROW(singular_uncertainties(mixture, 101325, points.points), CalculationError);
}

TEST(Carrying, AzeotropesBothWaysAgree) {
  const Fit fitted = fit({noisy(21)});
  Mixture mixture = fitted.mixture();
  const BinaryCurve curve = txy(mixture, 101325);
  ASSERT_EQ(curve.azeotropes.size(), 1u);
  const AzeotropeUncertainty exact = azeotrope_uncertainty(fitted, Sought::temperature, curve.azeotropes[0]);
  const UncertaintyBand band = uncertainty_band(mixture, curve);
  EXPECT_NEAR(band.azeotropes[0].u_x1, exact.u_x1, 1e-9);
  EXPECT_NEAR(band.azeotropes[0].u_T_K, exact.u_T_K, 1e-9);
  const SingularPoints points = singular_points(mixture, 101325);
  const auto moved = singular_uncertainties(mixture, 101325, points.points);
  bool compared = false;
  for (std::size_t k = 0; k < points.points.size(); ++k) {
    if (points.points[k].members.size() != 2 || !moved[k]) continue;
    EXPECT_NEAR(moved[k]->u_x[0], exact.u_x1, 0.02 * exact.u_x1);
    EXPECT_NEAR(moved[k]->u_T_K, exact.u_T_K, 0.02 * exact.u_T_K);
    compared = true;
  }
  EXPECT_TRUE(compared);
}

TEST(FitNotices, AnAzeotropeWhereNothingWasMeasuredIsSaid) {
  DataSet data = noisy(31, 40);
  EXPECT_FALSE(fit({data}).notices.has("azeotrope-extrapolated"));  // at 0.68, within the points
  std::erase_if(data.points, [](const DataPoint& point) { return point.x[0] > 0.5; });
  const Fit poor = fit({data});
  ASSERT_TRUE(poor.notices.has("azeotrope-extrapolated"));
  for (const Notice& notice : poor.notices) {
    if (notice.code != "azeotrope-extrapolated") continue;
    EXPECT_NE(notice.text.find("methyl tert-butyl ether"), std::string::npos) << notice.text;
  }
}

TEST(Statistics, ChiSquareOfTwoDegreesIsAnExponential) {
  for (double value = 0.1; value < 20; value *= 2)
    EXPECT_NEAR(chi_square_probability(value, 2), std::exp(-value / 2), 1e-12);
  EXPECT_NEAR(chi_square_probability(0, 5), 1, 1e-15);
  EXPECT_LT(chi_square_probability(1e4, 5), 1e-200);
}

TEST(Statistics, RunsOfAlternatingAndOfClusteredSigns) {
  std::vector<double> alternating, clustered;
  for (int k = 0; k < 20; ++k) {
    alternating.push_back(k % 2 == 0 ? 1 : -1);
    clustered.push_back(k < 10 ? 1 : -1);
  }
  const RunsTest a = runs_test(alternating), c = runs_test(clustered);
  EXPECT_EQ(a.runs, 20);
  EXPECT_GT(a.probability, 0.99);
  EXPECT_EQ(c.runs, 2);
  EXPECT_LT(c.probability, 1e-3);
  EXPECT_NEAR(a.expected, 11, 1e-12);  // 2 n1 n2/(n1 + n2) + 1
  EXPECT_DOUBLE_EQ(runs_test(std::vector<double>{0, 0, 1}).probability, 1);
}

TEST(Printed, TermsGoAndComeBackInEveryUnit) {
  for (const EnergyUnit unit : {EnergyUnit::kelvin, EnergyUnit::joule_mol, EnergyUnit::calorie_mol}) {
    const TemperatureFunction term = term_from_print(812.5, unit);
    for (const double T : {280.0, 350.0})
      EXPECT_NEAR(print_of_term(term, unit, T), 812.5, 1e-9) << name_of(unit);
  }
  EXPECT_NEAR(print_of_term(term_from_print(1, EnergyUnit::calorie_mol), EnergyUnit::joule_mol, 300), 4.184,
              1e-12);
  EXPECT_THROW(parse_energy_unit("kJ"), RequestError);
}

TEST(Printed, EveryPublishedPairMakesAModel) {
  for (const PairParameters& pair : published_pairs()) {
    const auto substances = substances_named({pair.between[0], pair.between[1]});
    ParameterCollection collection;
    collection.add(pair);
    const auto model = make_activity_model(pair.model, substances, collection);
    const double T = pair.T_range_K ? (*pair.T_range_K)[0] : 330;
    for (const GammaPoint& point : gamma_line(*model, T, 11)) {
      for (const double value : point.ln_gamma) {
        EXPECT_TRUE(std::isfinite(value)) << pair.source;
        EXPECT_LT(std::abs(value), 8) << pair.between[0] << " " << pair.between[1];
      }
    }
    EXPECT_FALSE(pair.source.empty());
    EXPECT_NE(pair.grade, '-');
    EXPECT_TRUE(pair.swapped().swapped().same_values(pair));
  }
}

// Published UNIQUAC pairs state q' of water; what is estimated beside them takes the same.
TEST(Estimate, TakesTheSizesOfTheOtherPairs) {
  const auto substances = substances_named({"acetonitrile", "water", "toluene"});
  Notices notices;
  EstimateOptions options;
  options.model = "uniquac";
  for (const MissingPairs policy : {MissingPairs::estimate, MissingPairs::ideal}) {
    const ParameterCollection pairs = complete_pairs("uniquac", substances, {}, policy, options, notices);
    const auto published = pairs.find("uniquac", "acetonitrile", "water"),
               estimated = pairs.find("uniquac", "water", "toluene");
    ASSERT_TRUE(published && published->sizes && estimated && estimated->sizes);
    EXPECT_EQ(published->sizes->q_residual[1], 1.0);
    EXPECT_EQ(estimated->sizes->q_residual[0], published->sizes->q_residual[1]);
    EXPECT_NO_THROW(Mixture(substances, "uniquac", pairs));
  }
}

}  // namespace
}  // namespace jampot
