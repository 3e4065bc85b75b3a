// Azeotropes, critical solution temperatures and plait points as data; offsets and weights of whole sets.
#include "jampot/regression/known_point.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/critical_solution.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/regression/ranking.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

constexpr double P_Pa = 101325;

Azeotrope only_azeotrope(Mixture mixture) {
  const BinaryCurve curve = txy(mixture, P_Pa);
  EXPECT_EQ(curve.azeotropes.size(), 1u);
  return curve.azeotropes.at(0);
}

KnownPoint known_azeotrope(double x1, double T_K, double u_x, double u_T_K) {
  return {.what = SpecialPoint::azeotrope,
          .x = {x1, 1 - x1},
          .T_K = T_K,
          .P_Pa = P_Pa,
          .u_x = u_x,
          .u_T_K = u_T_K,
          .u_P_Pa = 1};
}

TEST(KnownPoint, AnAzeotropeKnownSharplyIsMetAndOneKnownVaguelyChangesNothing) {
  const Mixture truth = test::mtbe_methanol();
  const DataSet set = test::synthetic(truth, DataKind::tx, 12, 5);
  const Fit plain = fit({set});
  const Azeotrope before = only_azeotrope(plain.mixture());
  FitOptions options;
  options.known = {known_azeotrope(before.x1 + 0.003, before.T_K + 0.02, 1e-5, 1e-3)};
  const Fit sharp = fit({set}, options);
  const Azeotrope met = only_azeotrope(sharp.mixture());
  EXPECT_NEAR(met.x1, before.x1 + 0.003, 3e-5);
  EXPECT_NEAR(met.T_K, before.T_K + 0.02, 3e-3);
  ASSERT_EQ(sharp.known.size(), 1u);
  EXPECT_TRUE(sharp.known[0].there);
  // The adjusted point is the azeotrope of the fit.
  EXPECT_NEAR(sharp.known[0].x[0], met.x1, 1e-6);
  EXPECT_NEAR(sharp.known[0].T_K, met.T_K, 1e-4);
  EXPECT_LT(azeotrope_uncertainty(sharp, Sought::temperature, met).u_x1, 1.1e-5);
  options.known = {known_azeotrope(before.x1, before.T_K, 0.5, 50)};
  const Fit vague = fit({set}, options);
  EXPECT_NEAR(vague.free()[0]->value, plain.free()[0]->value, 1e-3 * plain.free()[0]->std_error);
  EXPECT_NEAR(vague.free()[0]->std_error, plain.free()[0]->std_error, 1e-3 * plain.free()[0]->std_error);
}

// Of many noisy repetitions the 95 % interval of the azeotrope holds the truth as often as it says.
TEST(KnownPoint, AnAzeotropeWeighsAsItsUncertaintySays) {
  const Mixture truth = test::mtbe_methanol();
  const Azeotrope exact = only_azeotrope(truth);
  int inside = 0;
  double square = 0;
  constexpr int repeats = 60;
  std::mt19937_64 generator(11);
  std::normal_distribution<double> normal;
  for (int k = 0; k < repeats; ++k) {
    const DataSet set = test::synthetic(truth, DataKind::tx, 8, 100 + static_cast<unsigned>(k));
    FitOptions options;
    options.starts = 3;
    options.known = {known_azeotrope(exact.x1 + 0.004 * normal(generator),
                                     exact.T_K + 0.1 * normal(generator), 0.004, 0.1)};
    const Fit result = fit({set}, options);
    const Azeotrope found = only_azeotrope(result.mixture());
    const double z = (found.x1 - exact.x1) / azeotrope_uncertainty(result, Sought::temperature, found).u_x1;
    inside += std::abs(z) < 1.96;
    square += z * z / repeats;
  }
  EXPECT_GE(inside, 52);
  EXPECT_NEAR(square, 1, 0.45);
}

TEST(KnownPoint, AContradictionIsTold) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 20, 3);
  FitOptions options;
  options.known = {known_azeotrope(0.9, 325, 0.002, 0.1)};
  EXPECT_TRUE(fit({set}, options).notices.has("known-point-missed"));
}

// Mutual solubilities of a made-up pair that becomes one liquid at a temperature the data do not reach.
Mixture parting() {
  PairParameters pair = test::nrtl_pair("1-butanol", "water", 250, 800, 0.4);
  ParameterCollection parameters;
  parameters.add(pair);
  return {substances_named({"1-butanol", "water"}), "nrtl", parameters};
}

struct Parting {
  Mixture truth = parting();
  std::vector<CriticalSolution> critical = critical_solutions(truth.activity(), 260, 500);
  DataSet set() const {
    Mixture mixture = truth;
    DataSet data;
    data.name = "parting.csv";
    data.kind = DataKind::lle;
    data.substances = mixture.substances();
    for (const double below : {60.0, 45.0, 30.0, 20.0}) {
      const double T_K = critical.at(0).T_K - below;
      const auto splits = binary_splits(mixture.activity(), T_K);
      EXPECT_EQ(splits.size(), 1u);
      const double a = splits[0].x1_alpha, b = splits[0].x1_beta;
      data.points.push_back({T_K, 0, {a, 1 - a}, {b, 1 - b}, 0.1, 0, 0.002, 0.002, 1});
    }
    return data;
  }
};

TEST(KnownPoint, ACriticalSolutionTemperatureIsMet) {
  const Parting parting;
  ASSERT_EQ(parting.critical.size(), 1u);
  const double T_K = parting.critical[0].T_K;
  const DataSet set = parting.set();
  for (const bool composition : {false, true}) {
    FitOptions options;
    options.release = {"alpha"};
    options.form = {Coefficient::constant, Coefficient::inverse_T};
    // Moved by ten uncertainties of the data, and so sharp that the fit has to go there.
    KnownPoint known{.what = SpecialPoint::critical_solution, .T_K = T_K + 1, .u_T_K = 0.01};
    if (composition) {
      known.x = {parting.critical[0].x1, 1 - parting.critical[0].x1};
      known.u_x = 0.01;
    }
    options.known = {known};
    const Fit result = fit({set}, options);
    Mixture fitted = result.mixture();
    const auto found = critical_solutions(fitted.activity(), 260, 500);
    ASSERT_EQ(found.size(), 1u);
    EXPECT_NEAR(found[0].T_K, T_K + 1, 0.03);
    ASSERT_TRUE(result.known.at(0).there);
    EXPECT_NEAR(result.known[0].T_K, found[0].T_K, 2e-3);
    EXPECT_NEAR(result.known[0].x[0], found[0].x1, 2e-3);
    EXPECT_EQ(result.comparisons, 4 * 2 + (composition ? 2 : 1));
  }
}

TEST(KnownPoint, APlaitPointIsMet) {
  ParameterCollection parameters;
  parameters.add(test::nrtl_pair("water", "acetone", 400, 200, 0.3));
  parameters.add(test::nrtl_pair("water", "toluene", 1500, 900, 0.2));
  parameters.add(test::nrtl_pair("acetone", "toluene", -50, 180, 0.3));
  Mixture truth(substances_named({"water", "acetone", "toluene"}), "nrtl", parameters);
  constexpr double T_K = 303.15;
  const TernaryDiagram diagram = ternary_diagram(truth.activity(), T_K);
  ASSERT_EQ(diagram.regions.size(), 1u);
  ASSERT_EQ(diagram.plait_points.size(), 1u);
  const std::vector<double> plait = diagram.plait_points[0].x;
  DataSet set;
  set.name = "lines.csv";
  set.kind = DataKind::lle;
  set.substances = truth.substances();
  for (std::size_t k = 0; k < diagram.regions[0].tie_lines.size(); k += 12) {
    const TieLine& line = diagram.regions[0].tie_lines[k];
    DataPoint point{T_K, 0, {}, {}, 0.1, 0, 0.004, 0.004, 1};
    point.x.assign(line.alpha.begin(), line.alpha.end());
    point.y.assign(line.beta.begin(), line.beta.end());
    set.points.push_back(point);
  }
  FitOptions options;
  options.starts = 8;
  options.known = {{.what = SpecialPoint::plait_point,
                    .x = {plait[0] + 0.01, plait[1] - 0.005, plait[2] - 0.005},
                    .T_K = T_K,
                    .u_x = 2e-4,
                    .u_T_K = 0.01}};
  const Fit result = fit({set}, options);
  ASSERT_TRUE(result.known.at(0).there);
  Mixture mixture = result.mixture();
  const TernaryDiagram fitted = ternary_diagram(mixture.activity(), T_K);
  ASSERT_EQ(fitted.plait_points.size(), 1u);
  for (std::size_t i = 0; i < 3; ++i) {
    EXPECT_NEAR(fitted.plait_points[0].x[i], result.known[0].x[i], 2e-3);
    EXPECT_NEAR(fitted.plait_points[0].x[i], options.known[0].x[i], 2e-3);
  }
}

TEST(KnownPoint, WhatCannotBeIsRefused) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 10, 3);
  FitOptions options;
  const auto refuses = [&](const KnownPoint& known, const char* because) {
    options.known = {known};
    try {
      fit({set}, options);
      ADD_FAILURE() << because;
    } catch (const RequestError& error) {
      EXPECT_NE(std::string(error.what()).find(because), std::string::npos) << error.what();
    }
  };
  refuses({.what = SpecialPoint::plait_point, .x = {0.5, 0.5}, .T_K = 300, .u_x = 0.1, .u_T_K = 1},
          "three substances");
  refuses(known_azeotrope(0.5, 300, 0, 1), "u_x");
  refuses(known_azeotrope(1.5, 300, 0.1, 1), "fraction");
  options.form = {Coefficient::constant};
  refuses({.what = SpecialPoint::critical_solution, .T_K = 300, .u_T_K = 1}, "change with temperature");
}

TEST(Bounds, AreKeptAndAParameterAtOneIsTold) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 20, 3);
  const Fit free = fit({set});
  const double value = free.free()[0]->value;
  FitOptions options;
  options.bounds = {{"tau_12.inverse_T", value - 50, value + 50}};
  const Fit wide = fit({set}, options);
  EXPECT_NEAR(wide.free()[0]->value, value, 1e-3 * free.free()[0]->std_error);
  EXPECT_FALSE(wide.notices.has("parameter-at-bound"));
  options.bounds = {{"tau_12.inverse_T", value + 20, value + 60}};
  const Fit bound = fit({set}, options);
  EXPECT_NEAR(bound.free()[0]->value, value + 20, 1e-3);
  EXPECT_TRUE(bound.notices.has("parameter-at-bound"));
  EXPECT_GT(bound.objective, free.objective);
  options.bounds = {{"tau_31", 0, 1}};
  EXPECT_THROW(fit({set}, options), RequestError);
  options.bounds = {{"tau_12", 2, 1}};
  EXPECT_THROW(fit({set}, options), RequestError);
}

DataSet shifted(unsigned seed, double dT_K, const char* name) {
  DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 15, seed);
  set.name = name;
  for (DataPoint& point : set.points) point.T_K += dT_K;
  return set;
}

TEST(Offset, OfAThermometerIsFoundAndTold) {
  FitOptions options;
  options.u_offset_T_K = 0.5;
  double square = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    const Fit result = fit({shifted(seed, 0, "a.csv"), shifted(seed + 50, 0.6, "b.csv")}, options);
    ASSERT_EQ(result.offsets.size(), 2u);
    EXPECT_NEAR(result.offsets[1].value - result.offsets[0].value, 0.6, 0.12);
    square += std::pow((result.offsets[1].value - 0.6) / result.offsets[1].u, 2) / 10;
    EXPECT_FALSE(result.notices.has("misfit"));
    EXPECT_EQ(result.notices.has("set-offset"),
              std::abs(result.offsets[0].value) > 2.5 * result.offsets[0].u ||
                  std::abs(result.offsets[1].value) > 2.5 * result.offsets[1].u);
    EXPECT_EQ(result.pairs().at(0).fitted.size(), 2u);  // an offset is none of the pair's parameters
  }
  EXPECT_LT(square, 2.5);
  EXPECT_GT(square, 0.2);
  const Fit told = fit({shifted(1, 0, "a.csv"), shifted(2, 0, "b.csv"), shifted(3, 3, "c.csv")}, options);
  EXPECT_TRUE(told.notices.has("set-offset"));
}

TEST(Offset, OfAGaugeIsFound) {
  FitOptions options;
  options.u_offset_P = 0.02;
  DataSet off = shifted(4, 0, "b.csv");
  for (DataPoint& point : off.points) point.P_Pa *= 1.012;
  const Fit result = fit({shifted(3, 0, "a.csv"), off}, options);
  ASSERT_EQ(result.offsets.size(), 2u);
  EXPECT_NEAR(result.offsets[1].value - result.offsets[0].value, 0.012, 0.003);
  EXPECT_LT(result.offsets[1].u, 0.01);
}

TEST(SetsByScatter, ASetThatScattersMoreWeighsLess) {
  const Mixture truth = test::mtbe_methanol();
  DataSet good = test::synthetic(truth, DataKind::txy, 25, 8),
          poor = test::synthetic(truth, DataKind::txy, 25, 9, 4);
  good.name = "good.csv";
  poor.name = "poor.csv";
  FitOptions options;
  options.errors = Errors::sets;
  const Fit result = fit({good, poor}, options);
  ASSERT_EQ(result.sets.size(), 2u);
  EXPECT_NEAR(result.sets[1].u_factor, 4, 1);
  EXPECT_LT(result.sets[0].u_factor, 1.4);
  EXPECT_TRUE(result.notices.has("uncertainties-grown"));
  EXPECT_NEAR(result.sets[1].chi_square / result.sets[1].degrees_of_freedom, 1, 0.03);
  // Nearer to the good set alone than both together as stated.
  const auto value = [](const std::vector<DataSet>& sets) {
    const Fit plain = fit(sets);
    return plain.free()[0]->value;
  };
  const double alone = value({good});
  EXPECT_LT(std::abs(result.free()[0]->value - alone), std::abs(value({good, poor}) - alone));
}

// Each point measured three times.
DataSet repeated(unsigned seed, double scale) {
  const test::Noise noise{0.05, 20, 1e-6, 0.004};
  DataSet all = test::synthetic(test::mtbe_methanol(), DataKind::txy, 9, seed, scale, noise);
  for (const unsigned more : {1000u, 2000u}) {
    DataSet again = test::synthetic(test::mtbe_methanol(), DataKind::txy, 9, seed + more, scale, noise);
    for (std::size_t k = 0; k < again.points.size(); ++k) {
      again.points[k].x = all.points[k].x;  // the same mixture was filled in
      again.points[k].P_Pa = all.points[k].P_Pa;
      all.points.push_back(again.points[k]);
    }
  }
  return all;
}

TEST(LackOfFit, TellsAModelThatCannotFromUncertaintiesThatAreTooSmall) {
  int model = 0, noise = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    FitOptions options;
    options.hold = {{"alpha", 1.0}};  // bends the curve where the data do not
    DataSet sharp = repeated(seed, 0.3);
    for (DataPoint& point : sharp.points) point.u_y = 0.0012;
    const Fit unable = fit({sharp}, options);
    ASSERT_TRUE(unable.lack_of_fit.has_value());
    EXPECT_EQ(unable.lack_of_fit->places, 9);
    model += unable.lack_of_fit->probability < 0.01;
    const Fit right = fit({repeated(seed, 1)});
    noise += right.lack_of_fit->probability > 0.01;
  }
  EXPECT_GE(model, 9);
  EXPECT_GE(noise, 9);
  EXPECT_FALSE(fit({test::synthetic(test::mtbe_methanol(), DataKind::txy, 9, 3)}).lack_of_fit.has_value());
}

TEST(AzeotropeShift, IsWhatAFitWithoutThePointGives) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 15, 6);
  const Fit whole = fit({set});
  const Azeotrope azeotrope = only_azeotrope(whole.mixture());
  const auto shifts = azeotrope_shifts(whole, Sought::temperature, azeotrope);
  ASSERT_EQ(shifts.size(), 15u);
  for (const std::size_t k : {0u, 5u, 10u, 14u}) {
    DataSet rest = set;
    rest.points[k].excluded = "left out";
    const Azeotrope moved = only_azeotrope(fit({rest}).mixture());
    EXPECT_NEAR(shifts[k].x1, moved.x1 - azeotrope.x1, 0.2 * std::abs(moved.x1 - azeotrope.x1) + 3e-5);
    EXPECT_NEAR(shifts[k].T_K, moved.T_K - azeotrope.T_K, 0.2 * std::abs(moved.T_K - azeotrope.T_K) + 5e-4);
  }
}

// With much data the region is the ellipse of the covariance; its reach agrees with the profiles.
TEST(Region, IsTheEllipseWhereThereAreManyPoints) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 120, 6);
  FitOptions options;
  options.region = true;
  options.profiles = Profiles::always;
  const Fit result = fit({set}, options);
  ASSERT_GE(result.region.size(), 72u);
  const auto free = result.free();
  const double r = result.correlation(0, 1);
  double reach = 0;
  for (const RegionPoint& point : result.region) {
    ASSERT_FALSE(point.open);
    const double a = (point.values[0] - free[0]->value) / free[0]->std_error,
                 b = (point.values[1] - free[1]->value) / free[1]->std_error;
    EXPECT_NEAR((a * a - 2 * r * a * b + b * b) / (1 - r * r), 5.991, 0.35);
    reach = std::max(reach, point.values[0] - free[0]->value);
  }
  EXPECT_NEAR(reach / (free[0]->high - free[0]->value), std::sqrt(5.991 / 3.841), 0.03);
}

TEST(CrossValidation, LeavesOutWholeSets) {
  const DataSet a = shifted(1, 0, "a.csv"), b = shifted(2, 0, "b.csv"), c = shifted(3, 0.5, "c.csv");
  const auto alike = rank_models({a, b}, {}, {"nrtl", "wilson"});
  ASSERT_TRUE(alike[0].cross_validation_sets.has_value());
  EXPECT_NEAR(*alike[0].cross_validation_sets, 1, 0.35);
  const auto apart = rank_models({a, b, c}, {}, {"nrtl"});
  EXPECT_GT(*apart[0].cross_validation_sets, 2);
  EXPECT_FALSE(rank_models({a}, {}, {"nrtl"})[0].cross_validation_sets.has_value());
}

}  // namespace
}  // namespace jampot
