// Feeds as people write them.
#include "jampot/phase/feed.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {
namespace {

const std::vector<Substance>& pair() {
  static const auto list = substances_named({"ethyl acetate", "water"});
  return list;
}

TEST(Feed, AmountsAndFlowsByMoleAndMass) {
  const Feed mixed = parse_feed("water=1 kmol/h, ethyl acetate=88.106 kg/h", "", pair(), Basis::mole);
  EXPECT_TRUE(mixed.flows);
  EXPECT_TRUE(mixed.sized);
  EXPECT_NEAR(mixed.n[0] * 3600, 1000, 0.1);
  EXPECT_NEAR(mixed.n[1] * 3600, 1000, 1e-9);
  const Feed pounds = parse_feed("ethyl acetate=1 lbmol/h, water=0 lb/h", "", pair(), Basis::mole);
  EXPECT_NEAR(pounds.n[0], 453.59237 / 3600, 1e-12);
  const Feed batch = parse_feed("ethyl acetate=2 kg, water=500 g", "", pair(), Basis::mole);
  EXPECT_FALSE(batch.flows);
  EXPECT_NEAR(batch.n[1], 0.5 / 0.018015, 1e-3);
}

TEST(Feed, IsMadeWithoutText) {
  const Feed text = parse_feed("ethyl acetate=2 kg/s, water=500 g/s", "", pair(), Basis::mole);
  const Feed masses = feed_of_masses({2, 0.5}, pair(), true), moles = feed_of_moles(text.n, true);
  for (const Feed& feed : {masses, moles}) {
    EXPECT_TRUE(feed.flows && feed.sized);
    for (std::size_t i = 0; i < 2; ++i) EXPECT_NEAR(feed.n[i], text.n[i], 1e-12 * text.n[i]);
  }
  EXPECT_THROW(feed_of_masses({1}, pair()), RequestError);
  EXPECT_THROW(feed_of_moles({1, -1}), RequestError);
  EXPECT_THROW(feed_of_moles({0, 0}), RequestError);
  EXPECT_THROW(feed_of_moles({1, NAN}), RequestError);
}

TEST(Feed, FractionsWithTheWhole) {
  const Feed mass = parse_feed("ethyl acetate=30%", "1500 kg/h", pair(), Basis::mass);
  EXPECT_NEAR(mass.n[0] * pair()[0].molar_mass_kg_mol * 3600, 450, 1e-9);
  EXPECT_NEAR(mass.n[1] * pair()[1].molar_mass_kg_mol * 3600, 1050, 1e-9);
  const Feed bare = parse_feed("ethyl acetate=0.3", "", pair(), Basis::mole);
  EXPECT_FALSE(bare.sized);
  EXPECT_DOUBLE_EQ(bare.total(), 1);
}

TEST(Feed, RefusesWhatIsNotClear) {
  for (const auto& [feed, amount] : std::vector<std::pair<const char*, const char*>>{
           {"ethyl acetate=10 kg/h", ""},                     // nothing said of water
           {"ethyl acetate=10 kg/h, water=5 kg", ""},         // a flow and an amount
           {"ethyl acetate=10 kg/h, water=-5 kg/h", ""},      // negative
           {"ethyl acetate=10 kg/h, water=5 degC", ""},       // not an amount
           {"ethyl acetate=10 kg/h, ethanol=5 kg/h", ""},     // not in the mixture
           {"ethyl acetate=10 kg/h, EtOAc=5 kg/h", ""},       // twice
           {"ethyl acetate=0 kg/h, water=0 kg/h", ""},        // empty
           {"ethyl acetate=1 kg/h, water=1 kg/h", "3 kg/h"},  // stated twice
           {"ethyl acetate=0.7, water=0.7", ""},              // fractions above one
           {"ethyl acetate", ""}}) {
    EXPECT_THROW(parse_feed(feed, amount, pair(), Basis::mole), RequestError) << feed;
  }
}

}  // namespace
}  // namespace jampot
