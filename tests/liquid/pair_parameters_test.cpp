#include "jampot/liquid/pair_parameters.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/mixture.hpp"
#include "support.hpp"

namespace jampot {
namespace {

TEST(PairParameters, FoundFromEitherSide) {
  ParameterCollection collection;
  collection.add(test::nrtl_pair("water", "ethanol", 300, -50, 0.3));
  const auto turned = collection.find("nrtl", "ethanol", "water");
  ASSERT_TRUE(turned);
  EXPECT_EQ(turned->terms.at("tau_12").inverse_T, -50);
  EXPECT_EQ(turned->terms.at("tau_21").inverse_T, 300);
  EXPECT_EQ(turned->between[0], "ethanol");
  EXPECT_FALSE(collection.find("wilson", "ethanol", "water"));
}

TEST(PairParameters, ConflictsAreRefusedAndRepetitionsAreNot) {
  ParameterCollection collection;
  collection.add(test::nrtl_pair("water", "ethanol", 300, -50, 0.3));
  collection.add(test::nrtl_pair("ethanol", "water", -50, 300, 0.3));
  EXPECT_EQ(collection.all().size(), 1u);
  EXPECT_THROW(collection.add(test::nrtl_pair("ethanol", "water", 300, -50, 0.3)), RequestError);
}

TEST(Models, AMissingPairIsNamedAndNotTakenAsZero) {
  ParameterCollection collection;
  collection.add(test::nrtl_pair("water", "ethanol", 300, -50, 0.3));
  try {
    make_activity_model("nrtl", substances_named({"ethanol", "water", "toluene"}), collection);
    FAIL();
  } catch (const CalculationError& error) {
    const std::string text = error.what();
    EXPECT_NE(text.find("ethanol and toluene"), std::string::npos);
    EXPECT_NE(text.find("water and toluene"), std::string::npos);
    EXPECT_EQ(text.find("ethanol and water"), std::string::npos);
  }
  EXPECT_THROW(make_activity_model("nrlt", substances_named({"ethanol", "water"}), collection), RequestError);
}

}  // namespace
}  // namespace jampot
