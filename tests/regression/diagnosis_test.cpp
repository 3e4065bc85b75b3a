// Which point, row or set is the culprit.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/regression/fit.hpp"
#include "jampot/regression/ranking.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

DataSet good(unsigned seed, int points = 20, DataKind kind = DataKind::txy) {
  DataSet set = test::synthetic(test::mtbe_methanol(), kind, points, seed);
  set.name = "good.csv";
  return set;
}

TEST(Influence, LeveragesSumToTheFittedParametersAndCookTellsTheChange) {
  const DataSet set = good(3);
  const Fit whole = fit({set});
  double leverage = 0, square = 0;
  const ResidualRow* most = nullptr;
  std::size_t number = 0, k = 0;
  for (const ResidualRow& row : whole.residuals) {
    leverage += row.influence.leverage;
    square += row.chi_square;
    if (most == nullptr || row.influence.cook > most->influence.cook) {
      most = &row;
      number = k;
    }
    ++k;
  }
  EXPECT_NEAR(leverage, 2, 1e-6);
  EXPECT_NEAR(square, whole.objective, 1e-6 * whole.objective);
  DataSet rest = set;
  rest.points[number].excluded = "left out";
  const Fit without = fit({rest});
  for (std::size_t p = 0; p < 2; ++p) {
    const double change = without.free()[p]->value - whole.free()[p]->value;
    EXPECT_NEAR(most->influence.change[p], change,
                0.15 * std::abs(change) + 0.02 * whole.free()[p]->std_error);
  }
}

// Each mistake in a random row of random sets is named in nine of ten.
TEST(WrongRow, IsFoundByExchangingItsNumbers) {
  struct Mistake {
    const char* said;
    void (*make)(DataPoint&);
  };
  const Mistake mistakes[] = {
      {"liquid and vapour", [](DataPoint& p) { std::swap(p.x, p.y); }},
      {"the components exchanged in liquid and vapour",
       [](DataPoint& p) {
         std::swap(p.x[0], p.x[1]);
         std::swap(p.y[0], p.y[1]);
       }},
      {"the components of the vapour", [](DataPoint& p) { std::swap(p.y[0], p.y[1]); }},
  };
  for (const Mistake& mistake : mistakes) {
    int named = 0, tried = 0;
    for (unsigned seed = 1; seed <= 20; ++seed) {
      DataSet set = good(seed);
      DataPoint& point = set.points[1 + seed % 4];  // where the numbers exchanged differ by more than noise
      mistake.make(point);
      const Fit result = fit({set});
      ++tried;
      for (const Notice& notice : result.notices)
        named += notice.code == "wrong-row" && notice.text.find(mistake.said) != std::string::npos &&
                 notice.text.find("line " + std::to_string(point.line) + ":") != std::string::npos;
    }
    EXPECT_GE(named, 18) << mistake.said << " of " << tried;
  }
  int wrongly = 0;
  for (unsigned seed = 1; seed <= 20; ++seed) wrongly += fit({good(seed)}).notices.has("wrong-row");
  EXPECT_EQ(wrongly, 0);
}

TEST(Sets, TheOneThatContradictsTheOthersIsNamed) {
  int named = 0;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    DataSet second = good(seed + 20), bad = good(seed + 40);
    second.name = "second.csv";
    bad.name = "bad.csv";
    for (DataPoint& point : bad.points) point.T_K += 0.6;  // a shifted thermometer
    const Fit result = fit({good(seed), second, bad});
    ASSERT_EQ(result.sets.size(), 3u);
    EXPECT_LT(result.sets[2].probability, 0.01);
    for (const Notice& notice : result.notices)
      named += notice.code == "sets-disagree" && notice.text.starts_with("bad.csv contradicts");
  }
  EXPECT_GE(named, 9);
  // A set that the model cannot describe by itself is told as that.
  DataSet bent = good(5);
  bent.name = "bent.csv";
  for (DataPoint& point : bent.points) point.T_K += 2 * (point.x[0] - 0.5) * (point.x[0] - 0.5);
  bool told = false;
  for (const Notice& notice : fit({good(6), bent}).notices)
    told = told || notice.text.starts_with("the model does not describe bent.csv even alone");
  EXPECT_TRUE(told);
  DataSet second = good(77);
  second.name = "second.csv";
  const Fit agreeing = fit({good(76), second});
  EXPECT_FALSE(agreeing.notices.has("sets-disagree"));
  double square = 0, degrees = 0;
  for (const SetAgreement& set : agreeing.sets) {
    square += set.chi_square;
    degrees += set.degrees_of_freedom;
    EXPECT_TRUE(set.without.has_value());
  }
  EXPECT_NEAR(square, agreeing.objective, 1e-6 * square);
  EXPECT_NEAR(degrees, agreeing.degrees_of_freedom, 1e-6);
}

TEST(Ranking, DifferencesCountLessWhereNoModelFits) {
  const DataSet noisy = test::synthetic(test::mtbe_methanol(), DataKind::txy, 30, 4, 4);
  const auto ranked = rank_models({noisy}, {}, {"nrtl", "wilson", "uniquac"});
  double weights = 0;
  for (const RankedFit& entry : ranked) {
    weights += entry.weight;
    EXPECT_GT(entry.overdispersion, 5);
    EXPECT_GE(entry.aicc_above_best, 0);
  }
  EXPECT_NEAR(weights, 1, 1e-12);
  const double plain = std::abs(ranked[1].fit.aicc - ranked[0].fit.aicc);
  EXPECT_LT(ranked[1].aicc_above_best, plain + 1e-9);
}

}  // namespace
}  // namespace jampot
