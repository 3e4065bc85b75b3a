// One mixture, many threads: copies of it work side by side and agree to the last bit.
#include <gtest/gtest.h>

#include <thread>

#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/boiling_region.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/known/facts.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/substance/bank.hpp"
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

// Substances and facts are read when they are first asked for, here by eight at once from both ends.
TEST(Threads, AskForTheSameSubstancesAndFacts) {
  const std::vector<std::string> names{"water",   "ethanol", "toluene", "n-hexane",
                                       "acetone", "MTBE",    "furfural"};
  std::vector<std::vector<const Substance*>> substances(8);
  std::vector<std::vector<const Fact*>> facts(8);
  side_by_side(8, [&](int k) {
    auto& own = substances[static_cast<std::size_t>(k)];
    own.resize(names.size());
    for (std::size_t i = 0; i < names.size(); ++i) {
      const std::size_t number = k % 2 == 0 ? i : names.size() - 1 - i;
      own[number] = Bank::built_in().find(names[number]);
    }
    facts[static_cast<std::size_t>(k)] = KnownFacts::built_in().among({"water", "ethanol", "toluene"});
    EXPECT_EQ(Bank::built_in().all().size(), Bank::built_in().size());
  });
  for (const auto& one : substances) EXPECT_EQ(one, substances.front());
  for (const auto& one : facts) EXPECT_EQ(one, facts.front());
  for (const Substance* substance : substances.front()) {
    ASSERT_NE(substance, nullptr);
    EXPECT_TRUE(substance->vapour_pressure.has_value()) << substance->name;
  }
  ASSERT_FALSE(facts.front().empty());
  for (const Fact* fact : facts.front()) EXPECT_GE(fact->substances.size(), 2u);
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

// One mixture that four threads share, each asking as if it were alone: the same digits as in one thread.
TEST(Threads, ShareAMixtureThatStaysAsItIs) {
  const Mixture mixture = test::mtbe_methanol();
  constexpr int states = 200;
  std::vector<double> alone(states);
  const auto ask = [&](int k) {
    const double x = (k + 0.5) / states;
    return bubble_temperature(mixture, 101325, std::vector<double>{x, 1 - x}).T_K;
  };
  for (int k = 0; k < states; ++k) alone[static_cast<std::size_t>(k)] = ask(k);
  std::vector<std::vector<double>> shared(4, std::vector<double>(states));
  std::vector<std::thread> threads;
  for (std::vector<double>& mine : shared)
    threads.emplace_back([&] {
      for (int k = 0; k < states; ++k) mine[static_cast<std::size_t>(k)] = ask(k);
    });
  for (std::thread& thread : threads) thread.join();
  for (const std::vector<double>& mine : shared) EXPECT_EQ(mine, alone);
}

// What returns a mixture can be drawn at once; what would dangle does not compile.
template <class Of>
concept GivesFitted = requires(Of of) {
  std::forward<Of>(of).fitted();
};
static_assert(GivesFitted<const Fit&> && !GivesFitted<Fit>);
static_assert(std::is_constructible_v<BoilingLiquid, Mixture&, double, const BoilingRegions&> &&
              !std::is_constructible_v<BoilingLiquid, Mixture&, double, BoilingRegions>);

TEST(Temporaries, AreDrawnRight) {
  Mixture kept = test::mtbe_methanol();
  EXPECT_EQ(txy(test::mtbe_methanol(), 101325).azeotropes.at(0).T_K, txy(kept, 101325).azeotropes.at(0).T_K);
  const std::vector<double> x{0.4, 0.6};
  EXPECT_EQ(flash_at(test::mtbe_methanol(), {Kelvin(328), Pascal(101325)}, x).flashed.vapour_fraction(),
            flash_at(kept, {Kelvin(328), Pascal(101325)}, x).flashed.vapour_fraction());
}

}  // namespace
}  // namespace jampot
