// One mixture, many threads: copies of it work side by side and agree to the last bit.
#include <gtest/gtest.h>

#include <thread>

#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/regression/fit.hpp"
#include "regression/synthetic.hpp"

namespace jampot {
namespace {

template <class Work>
void side_by_side(int threads, Work&& work) {
  std::vector<std::thread> running;
  for (int k = 0; k < threads; ++k) running.emplace_back([&work, k] { work(k); });
  for (std::thread& thread : running) thread.join();
}

TEST(Threads, CopiesOfOneMixtureAgreeToTheLastBit) {
  VapourChoice virial;
  virial.model = "virial";
  const Mixture shared(substances_named({"ethyl acetate", "ethanol", "water"}), "unifac", {}, virial);
  const auto points = [&] {
    Mixture own = shared;
    return singular_points(own, 101325).points;
  };
  const auto alone = points();
  std::vector<std::vector<SingularPoint>> found(8);
  side_by_side(8, [&](int k) { found[static_cast<std::size_t>(k)] = points(); });
  for (const auto& one : found) {
    ASSERT_EQ(one.size(), alone.size());
    for (std::size_t i = 0; i < one.size(); ++i) {
      EXPECT_EQ(one[i].T_K, alone[i].T_K);
      EXPECT_EQ(one[i].x, alone[i].x);
    }
  }
}

TEST(Threads, CurvesTiesAndFitsSideBySide) {
  const Mixture shared = test::mtbe_methanol();
  const DataSet data = test::synthetic(shared, DataKind::txy, 12, 5);
  FitOptions options;
  options.starts = 2;
  const Fit alone = fit({data}, options);
  side_by_side(6, [&](int k) {
    Mixture own = shared;
    EXPECT_EQ(txy(own, 101325 + 1000.0 * k).azeotropes.size(), 1u);
    const Fit again = fit({data}, options);
    for (std::size_t i = 0; i < alone.parameters.size(); ++i)
      EXPECT_EQ(again.parameters[i].value, alone.parameters[i].value);
    Mixture ternary = test::random_ternary(4001);
    EXPECT_NO_THROW(ternary_diagram(ternary.activity(), 298.15));
  });
}

// What the whole program shares: the bank, the tables of groups, the units.
TEST(Threads, BankAndUnitsAreShared) {
  side_by_side(8, [&](int k) {
    for (int round = 0; round < 200; ++round) {
      const double value = 1 + k + round;
      EXPECT_NEAR(parse_quantity(std::to_string(value) + " bar", Dimension::pressure), 1e5 * value, 1e-3);
      EXPECT_NE(Bank::built_in().find("ethanol"), nullptr);
    }
    EXPECT_THROW(parse_quantity("1 furlongs of nothing", Dimension::pressure), std::exception);
  });
}

}  // namespace
}  // namespace jampot
