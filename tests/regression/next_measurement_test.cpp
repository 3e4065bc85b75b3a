// What to measure next, and whether it keeps what it promises.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/report/next.hpp"
#include "jampot/study/next.hpp"
#include "jampot/study/regress.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

NextStudy planned(const DataSet& set, NextOptions options) {
  NextRequest request;
  request.sets = {set};
  request.options = options;
  return study(request);
}

double u_of_azeotrope(const Fit& fit) {
  const FittedAzeotropes found = *fitted_azeotropes(fit);
  return found.uncertainties.at(0).u_x1;
}

// The points of the plan are measured, with noise, and everything is fitted again: the uncertainty is as
// promised.
TEST(NextMeasurement, TheAzeotropeIsKnownAsWellAsPromised) {
  std::mt19937_64 generator(1);
  std::normal_distribution<double> normal;
  for (unsigned seed = 1; seed <= 10; ++seed) {
    DataSet set =
        test::synthetic(test::mtbe_methanol(), seed % 2 == 0 ? DataKind::txy : DataKind::pxy, 12, seed);
    NextOptions options;
    options.batch = 6;
    const NextStudy plan = planned(set, options);
    EXPECT_NEAR(plan.result.aim[0].u, u_of_azeotrope(plan.fit), 2e-3 * plan.result.aim[0].u);
    for (const Candidate& one : plan.result.batch) {
      ASSERT_TRUE(vapour_liquid(one.kind)) << name_of(one.kind);
      DataPoint point = one.point;
      point.T_K += point.u_T_K * normal(generator);
      point.P_Pa += point.u_P_Pa * normal(generator);
      if (point.y.empty()) point.y = bubble_pressure(test::mtbe_methanol(), point.T_K, point.x).y;
      point.line = 100;
      set.points.push_back(point);
    }
    const double promised = plan.result.batch.back().u[0];
    EXPECT_LT(promised, 0.95 * plan.result.aim[0].u);
    EXPECT_NEAR(u_of_azeotrope(fit({set})), promised, 0.1 * promised) << "seed " << seed;
  }
}

TEST(NextMeasurement, EachStepOfABatchHelpsAndTheFirstIsTheBest) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 12, 3);
  for (const char* aim : {"azeotrope", "limits", "parameters", "T at x=0.3"}) {
    NextOptions options;
    options.batch = 4;
    read_aim(aim, options);
    const NextMeasurement plan = planned(set, options).result;
    ASSERT_EQ(plan.batch.size(), 4u);
    EXPECT_DOUBLE_EQ(plan.batch[0].share, plan.candidates[0].share) << aim;
    double before = 1;
    for (const Candidate& one : plan.batch) {
      EXPECT_LT(one.share, before) << aim;
      before = one.share;
    }
    for (const Candidate& one : plan.candidates) EXPECT_LE(one.share, 1 + 1e-9);
  }
}

// An analysed vapour never tells less than none.
TEST(NextMeasurement, AVapourTellsNoLess) {
  NextOptions options;
  options.aim = Aim::limits;
  const auto plan = planned(test::synthetic(test::mtbe_methanol(), DataKind::txy, 12, 3), options).result;
  for (const Candidate& with : plan.candidates) {
    if (with.kind != DataKind::txy) continue;
    for (const Candidate& without : plan.candidates) {
      if (without.kind == DataKind::tx && without.point.x[0] == with.point.x[0]) {
        EXPECT_LE(with.share, without.share + 1e-9);
      }
    }
  }
}

// Measured where two models lie furthest apart, the wrong one falls behind sooner than elsewhere.
TEST(NextMeasurement, WhereModelsLieApartDecidesBetweenThem) {
  NextRequest request;
  request.sets = {test::synthetic(test::mtbe_methanol(), DataKind::txy, 10, 3)};
  request.options.aim = Aim::models;
  request.rival = "wilson";
  const NextStudy plan = study(request);
  const auto chi_square_with = [&](const Candidate& where) {
    DataSet set = request.sets[0];
    for (int k = 0; k < 10; ++k) set.points.push_back(where.point);
    FitOptions options;
    options.model = "wilson";
    return fit({set}, options).objective;
  };
  std::vector<Candidate> with;
  for (const Candidate& one : plan.result.candidates)
    if (one.kind == DataKind::txy) with.push_back(one);
  EXPECT_GT(chi_square_with(with.front()), chi_square_with(with.back()));
  request.rival.clear();
  EXPECT_THROW(study(request), RequestError);
}

TEST(NextMeasurement, SaysWhatItCannotPlan) {
  const DataSet set = test::synthetic(test::mtbe_methanol(), DataKind::txy, 12, 3);
  NextOptions options;
  options.aim = Aim::split;
  EXPECT_THROW(planned(set, options), CalculationError);
  EXPECT_THROW(read_aim("everything", options), RequestError);
  EXPECT_THROW(read_aim("T at x=1.3", options), RequestError);
  options.aim = Aim::azeotrope;
  options.batch = 0;
  EXPECT_THROW(planned(set, options), RequestError);
  const DataSet noisy = test::synthetic(test::mtbe_methanol(), DataKind::txy, 12, 3, 5);
  EXPECT_TRUE(planned(noisy, {}).notices.has("plan-of-misfit"));
  EXPECT_TRUE(answer(planned(set, {})).figure.has_value());
}

}  // namespace
}  // namespace jampot
