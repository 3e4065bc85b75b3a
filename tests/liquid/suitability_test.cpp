#include "jampot/equilibrium/suitability.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "support.hpp"

namespace jampot {
namespace {

Notices judged(const std::vector<std::string>& names, const std::string& model, double P_Pa = 101325,
               const ParameterCollection& given = {}) {
  Notices notices;
  const auto substances = substances_named(names);
  EstimateOptions options;
  options.model = model;
  const Mixture mixture(substances, model,
                        complete_pairs(model, substances, given, MissingPairs::estimate, options, notices));
  return suitability(mixture, Purpose::vapour_liquid, 340, 370, P_Pa);
}

TEST(Suitability, AWilsonModelCannotSplitAndIsTold) {
  EXPECT_TRUE(judged({"1-butanol", "water"}, "wilson").has("model-cannot-split"));
  EXPECT_FALSE(judged({"ethanol", "water"}, "wilson").has("model-cannot-split"));
}

TEST(Suitability, APredictedSplitThatTheModelDoesNotShow) {
  ParameterCollection weak;
  weak.add(test::nrtl_pair("1-butanol", "water", 100, 100, 0.3));
  EXPECT_TRUE(judged({"1-butanol", "water"}, "nrtl", 101325, weak).has("predicted-split"));
  ParameterCollection strong;
  strong.add(test::nrtl_pair("1-butanol", "water", 250, 1300, 0.4));
  EXPECT_FALSE(judged({"1-butanol", "water"}, "nrtl", 101325, strong).has("predicted-split"));
}

TEST(Suitability, AnIdealLiquidThatIsNot) {
  EXPECT_TRUE(judged({"ethanol", "toluene"}, "ideal").has("not-ideal"));
  EXPECT_FALSE(judged({"benzene", "toluene"}, "ideal").has("not-ideal"));
}

TEST(Suitability, AVapourUnderPressure) {
  EXPECT_FALSE(judged({"benzene", "toluene"}, "ideal", 101325).has("non-ideal-vapour"));
  EXPECT_TRUE(judged({"benzene", "toluene"}, "ideal", 5e5).has("non-ideal-vapour"));
}

TEST(Suitability, ParametersOfAnotherPurpose) {
  PairParameters pair = test::nrtl_pair("ethanol", "water", 100, 500, 0.3);
  pair.fitted_to = "lle";
  ParameterCollection parameters;
  parameters.add(pair);
  const Mixture mixture(substances_named({"ethanol", "water"}), "nrtl", parameters);
  EXPECT_TRUE(suitability(mixture, Purpose::vapour_liquid, 340, 370).has("fitted-for-other-purpose"));
  EXPECT_FALSE(suitability(mixture, Purpose::liquid_liquid, 340, 370).has("fitted-for-other-purpose"));
}

TEST(Suitability, ATableOutsideItsTemperatures) {
  EXPECT_TRUE(judged({"ethanol", "water"}, "unifac-lle").has("unifac-range"));
  EXPECT_FALSE(judged({"ethanol", "water"}, "unifac").has("unifac-range"));
}

// The words follow the size of the error.
TEST(Suitability, OfAnIdealLiquidSaysHowFarItWillBeOff) {
  const auto said = [](const Notices& notices) {
    for (const Notice& notice : notices)
      if (notice.code == "not-ideal") return notice.text;
    return std::string();
  };
  const std::string slight = said(judged({"methanol", "ethanol"}, "ideal")),
                    strong = said(judged({"ethanol", "n-heptane"}, "ideal"));
  EXPECT_NE(slight.find("off by up to"), std::string::npos) << slight;
  EXPECT_EQ(slight.find("will be wrong"), std::string::npos) << slight;
  EXPECT_NE(strong.find("the diagram will be wrong"), std::string::npos) << strong;
}

// An interaction that contradicts what is known is refused by everything that prepares a mixture, and told
// where it is used on request or by hand.
TEST(DoubtfulGroups, AreRefusedUnlessAskedFor) {
  MixtureSpec spec = mixture_of({"nitromethane", "water"}, "unifac-lle");
  Notices notices;
  try {
    prepare(spec, notices);
    ADD_FAILURE() << "not refused";
  } catch (const CalculationError& error) {
    EXPECT_NE(std::string(error.what()).find("H2O - CNO2"), std::string::npos) << error.what();
    EXPECT_NE(std::string(error.what()).find("`doubtful-groups`"), std::string::npos) << error.what();
  }
  spec.doubtful_groups = DoubtfulGroups::use;
  const Mixture mixture = prepare(spec, notices).mixture;
  const Notices told = suitability(mixture, Purpose::liquid_liquid, 290, 300);
  EXPECT_TRUE(told.has("contradicted-interactions"));
  EXPECT_TRUE(told.has("tables-disagree"));
  EstimateOptions estimate;
  estimate.from = "unifac-lle";
  const auto pair = substances_named({"nitromethane", "water"});
  EXPECT_THROW(estimate_pair(pair[0], pair[1], estimate), CalculationError);
  estimate.doubtful_groups = DoubtfulGroups::use;
  EXPECT_NO_THROW(estimate_pair(pair[0], pair[1], estimate));
  EXPECT_THROW(parse_doubtful_groups("allow"), RequestError);
}

TEST(DoubtfulGroups, NoModelIsChosenThatHasThem) {
  Notices notices;
  const Mixture chosen =
      prepare(mixture_of({"phenol", "ethyl acetate"}), notices, Purpose::liquid_liquid).mixture;
  EXPECT_NE(chosen.liquid_model(), "unifac-lle");
  EXPECT_FALSE(judged({"ethanol", "water"}, "unifac").has("contradicted-interactions"));
  EXPECT_FALSE(judged({"ethanol", "water"}, "unifac").has("tables-disagree"));
}

}  // namespace
}  // namespace jampot
