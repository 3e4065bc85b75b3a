#include "jampot/regression/consistency.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

const ConsistencyTest& test_of(const Consistency& result, const std::string& name) {
  for (const ConsistencyTest& test : result.tests) {
    if (test.name == name) return test;
  }
  throw std::logic_error(name);
}

TEST(Consistency, GoodDataPass) {
  for (const DataKind kind : {DataKind::txy, DataKind::pxy}) {
    const Consistency result = check_consistency(test::synthetic(test::mtbe_methanol(), kind, 25, 2, 0.5));
    for (const char* name : {"area", "point", "direct"}) {
      EXPECT_EQ(test_of(result, name).verdict, Verdict::passed) << name << " " << test_of(result, name).value;
    }
    EXPECT_EQ(test_of(result, "end points").verdict, Verdict::cannot_tell);
  }
}

TEST(Consistency, ExactDataHaveNoDeviation) {
  const Consistency result =
      check_consistency(test::synthetic(test::mtbe_methanol(), DataKind::pxy, 25, 2, 0));
  EXPECT_LT(test_of(result, "point").value, 1e-3);
  EXPECT_LT(test_of(result, "direct").value, 5e-3);
  EXPECT_LT(test_of(result, "area").value, 2);
  for (const ConsistencyPoint& point : result.points) EXPECT_NEAR(point.gE, point.gE_fit, 2e-3);
}

TEST(Consistency, ABiasedVapourAnalysisFails) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 25, 2, 0.5);
  for (DataPoint& point : data.points) {
    point.y[0] = std::min(0.999, point.y[0] + 0.03);
    point.y[1] = 1 - point.y[0];
  }
  const Consistency result = check_consistency(data);
  EXPECT_EQ(test_of(result, "point").verdict, Verdict::failed);
  EXPECT_EQ(test_of(result, "direct").verdict, Verdict::failed);
  EXPECT_NE(test_of(result, "point").meaning.find("one side"), std::string::npos);
}

TEST(Consistency, TheAreaTestDoesNotSeeAWrongPressure) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::pxy, 25, 2, 0);
  for (DataPoint& point : data.points) point.P_Pa *= 1.05;
  const Consistency result = check_consistency(data);
  EXPECT_EQ(test_of(result, "area").verdict, Verdict::passed);  // its known weakness
}

TEST(Consistency, PurePointsAreHeldAgainstTheVapourPressure) {
  DataSet data = test::synthetic(test::mtbe_methanol(), DataKind::txy, 12, 2, 0);
  data.points.push_back({340, 101325, {0, 1}, {0, 1}, 0.05, 50, 0.002, 0.004, 99});
  EXPECT_EQ(test_of(check_consistency(data), "end points").verdict, Verdict::failed);
}

TEST(Consistency, RefusesWhatItCannotJudge) {
  EXPECT_THROW(check_consistency(test::synthetic(test::mtbe_methanol(), DataKind::tx, 12, 2)), RequestError);
  EXPECT_THROW(check_consistency(test::synthetic(test::mtbe_methanol(), DataKind::txy, 4, 2)),
               CalculationError);
}

// The spread of the area over simulated sets is the stated uncertainty; within it the limit decides nothing.
TEST(Consistency, TheAreaHasItsUncertainty) {
  double sum = 0, squares = 0, u = 0;
  constexpr int sets = 200;
  const Mixture mixture = test::mtbe_methanol();
  int decided = 0;
  for (unsigned seed = 1; seed <= sets; ++seed) {
    const DataSet data = test::synthetic(mixture, DataKind::pxy, 20, seed);
    const Consistency result = check_consistency(data);
    const ConsistencyTest& area = result.tests.front();
    ASSERT_EQ(area.name, "area");
    EXPECT_GT(area.u, 0);
    u += area.u / sets;
    sum += area.value / sets;
    squares += area.value * area.value / sets;
    decided += area.verdict != Verdict::cannot_tell;
    EXPECT_EQ(area.verdict != Verdict::cannot_tell, std::abs(area.value - area.limit) > area.u);
  }
  // The absolute value of a number that is zero on average: its root mean square is the uncertainty.
  EXPECT_NEAR(std::sqrt(squares), u, 0.35 * u);
  EXPECT_GT(decided, 0);
}

}  // namespace
}  // namespace jampot
