// Pairs fitted to handbook facts, and the model that is taken where none is named.
#include "jampot/known/from_facts.hpp"

#include <gtest/gtest.h>

#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/known/choice.hpp"
#include "jampot/known/complete.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/study/azeotropes.hpp"
#include "jampot/study/binary.hpp"
#include "support.hpp"

namespace jampot {
namespace {

// The collection as it is stored meets the facts that decide about it: every azeotrope, absence of one,
// miscibility and solubility of grade A or B.
TEST(PairsFromFacts, OfTheCollectionMeetTheirFacts) {
  ASSERT_GT(pairs_from_facts().size(), 400u);
  int azeotropes = 0;
  for (const PairParameters& pair : pairs_from_facts()) {
    const std::vector<std::string> names{pair.between[0], pair.between[1]};
    ParameterCollection collection;
    collection.add(pair);
    const Mixture mixture(substances_named(names), pair.model, collection);
    for (const Fact* fact : KnownFacts::built_in().about(names[0], names[1])) {
      const bool decides =
          fact->grade != 'C' && (fact->kind == FactKind::azeotrope || fact->kind == FactKind::no_azeotrope ||
                                 fact->kind == FactKind::miscible || fact->kind == FactKind::solubility);
      if (!decides) continue;
      const HeldFact held = held_against(mixture, *fact);
      EXPECT_FALSE(held.fails()) << held.sentence(pair.model);
      azeotropes += fact->kind == FactKind::azeotrope;
    }
    EXPECT_FALSE(pair.source.empty());
    ASSERT_EQ(pair.covariance.size(), pair.fitted.size() * pair.fitted.size());
    for (std::size_t k = 0; k < pair.fitted.size(); ++k)
      EXPECT_GT(pair.covariance[k * pair.fitted.size() + k], 0) << names[0] << ", " << names[1];
    EXPECT_LT((*pair.T_range_K)[0], (*pair.T_range_K)[1]);
  }
  EXPECT_GT(azeotropes, 250);
}

// The stored pairs are those that the program writes.
TEST(PairsFromFacts, AreMadeAgainAsTheyAreStored) {
  for (const auto& [first, second] : {std::pair("1,1,1-trichloroethane", "methanol"),
                                      {"2-methoxyethanol", "toluene"},
                                      {"ethyl acetate", "water"}}) {
    const auto stored = pair_from_facts("nrtl", first, second);
    ASSERT_TRUE(stored) << first;
    auto made = pair_from_facts(Bank::built_in().require(first), Bank::built_in().require(second));
    ASSERT_TRUE(made && made->sound()) << first;
    if (made->pair.between[0] != first) made->pair = made->pair.swapped();
    for (const char* term : {"tau_12", "tau_21"}) {
      const double T_K = 340;
      EXPECT_NEAR(stored->terms.at(term).value(T_K), made->pair.terms.at(term).value(T_K), 2e-4)
          << first << term;
    }
    ASSERT_EQ(stored->covariance.size(), made->pair.covariance.size());
    for (std::size_t k = 0; k < stored->covariance.size(); ++k)
      EXPECT_NEAR(stored->covariance[k] / made->pair.covariance[k], 1, 2e-3) << first << k;
  }
}

// The uncertainty of an azeotrope is that of the fact to which the pair was fitted: 0.012 and 0.4 K.
TEST(PairsFromFacts, CarryTheUncertaintyOfTheirFacts) {
  AzeotropesRequest request;
  request.mixture = mixture_of({"2-methoxyethanol", "toluene"});
  request.P_Pa = {standard_atmosphere};
  request.uncertainty = true;
  const AzeotropesStudy found = study(request);
  ASSERT_EQ(found.searches.front().uncertainties.size(), found.searches.front().found.points.size());
  int azeotropes = 0;
  for (const auto& one : found.searches.front().uncertainties) {
    if (!one || one->u_T_K == 0) continue;
    ++azeotropes;
    EXPECT_NEAR(one->u_x[0], 0.012, 0.001);
    EXPECT_NEAR(one->u_T_K, 0.4, 0.02);
  }
  EXPECT_EQ(azeotropes, 1);
}

TEST(PairsFromFacts, NothingIsMadeOfNothing) {
  const Bank& bank = Bank::built_in();
  EXPECT_FALSE(pair_from_facts(bank.require("n-decane"), bank.require("dimethyl sulfoxide")));
  // That they mix and have no azeotrope is no number.
  EXPECT_FALSE(pair_from_facts("nrtl", "n-decane", "dimethyl sulfoxide"));
}

TEST(PairsFromFacts, OfUniquacAndWilsonOnRequest) {
  const auto substances = substances_named({"2-methoxyethanol", "toluene"});
  for (const char* model : {"uniquac", "wilson"}) {
    Notices notices;
    const ParameterCollection pairs = complete_pairs(model, substances, {}, MissingPairs::known, {}, notices);
    EXPECT_TRUE(notices.has("pair-from-facts"));
    const BinaryCurve curve = txy(Mixture(substances, model, pairs), 101325);
    ASSERT_EQ(curve.azeotropes.size(), 1u) << model;
    EXPECT_NEAR(curve.azeotropes[0].T_K - 273.15, 105.9, 1) << model;
  }
  // Without facts it is an estimate, which says so.
  Notices notices;
  const auto others = substances_named({"acetone", "n-decane"});
  const ParameterCollection estimated = complete_pairs("nrtl", others, {}, MissingPairs::known, {}, notices);
  EXPECT_TRUE(notices.has("estimated-pair"));
  EXPECT_TRUE(estimated.find("nrtl", "acetone", "n-decane")->estimated);
  EXPECT_EQ(parse_missing_pairs("known"), MissingPairs::known);
}

// p-Xylene and water: what a table promises is what an estimate or a pair from facts dissolves, within 1.3.
TEST(PairsFromFacts, XyleneAndWaterDissolveAsTheFactsSay) {
  const auto substances = substances_named({"p-xylene", "water"});
  for (const Fact* fact : KnownFacts::built_in().about("p-xylene", "water")) {
    if (fact->kind != FactKind::solubility || !fact->x1_dilute || !fact->x2_dilute) continue;
    Notices notices;
    const auto model = make_activity_model(
        "nrtl", substances, complete_pairs("nrtl", substances, {}, MissingPairs::refuse, {}, notices));
    const auto splits = binary_splits(*model, fact->T_K);
    ASSERT_EQ(splits.size(), 1u);
    EXPECT_LT(std::abs(std::log(splits[0].x1_alpha / *fact->x1_dilute)), std::log(1.3));
    EXPECT_LT(std::abs(std::log((1 - splits[0].x1_beta) / *fact->x2_dilute)), std::log(1.3));
  }
}

// Estimates of pairs that part dissolve what their prediction dissolves.
TEST(Estimates, OfPairsThatPartFollowThePredictedSolubilities) {
  const std::vector<std::pair<const char*, const char*>> pairs{
      {"p-xylene", "water"},    {"1-butanol", "water"},       {"ethyl acetate", "water"},
      {"n-hexane", "methanol"}, {"toluene", "water"},         {"1-pentanol", "water"},
      {"chloroform", "water"},  {"n-heptane", "acetonitrile"}};
  for (const auto& [first, second] : pairs) {
    const auto substances = substances_named({first, second});
    for (const char* model : {"nrtl", "uniquac"}) {
      EstimateOptions options;
      options.model = model;
      options.from = "unifac-lle";
      const Estimate estimate = estimate_pair(substances[0], substances[1], options);
      ParameterCollection collection;
      collection.add(estimate.pair);
      const auto made = make_activity_model(model, substances, collection),
                 table = make_activity_model("unifac-lle", substances, {});
      for (const double T_K : {300.0, 330.0, 360.0}) {
        const auto own = binary_splits(*made, T_K), predicted = binary_splits(*table, T_K);
        ASSERT_EQ(own.size(), predicted.size()) << first << model << T_K;
        if (own.empty()) continue;
        EXPECT_NEAR(std::log(own[0].x1_alpha / predicted[0].x1_alpha), 0, std::log(1.1))
            << first << model << T_K;
        EXPECT_NEAR(std::log((1 - own[0].x1_beta) / (1 - predicted[0].x1_beta)), 0, std::log(1.1))
            << first << model << T_K;
      }
    }
  }
}

BinaryStudy drawn(const std::vector<std::string>& names, const std::string& liquid = {}) {
  BinaryRequest request;
  request.mixture = mixture_of(names, liquid);
  request.held = at_pressures({101325});
  request.points = 11;
  return study(request);
}

// Where no NRTL meets the facts and a UNIQUAC does, that is stored and taken.
TEST(PairsFromFacts, OfUniquacWhereNrtlCannotMeetTheFacts) {
  const Bank& bank = Bank::built_in();
  const Substance &solvent = bank.require("benzyl alcohol"), &water = bank.require("water");
  const auto nrtl = pair_from_facts(solvent, water, "nrtl"),
             uniquac = pair_from_facts(solvent, water, "uniquac");
  ASSERT_TRUE(nrtl && uniquac);
  EXPECT_FALSE(nrtl->sound());
  EXPECT_TRUE(uniquac->sound());
  EXPECT_FALSE(pair_from_facts("nrtl", solvent.name, water.name));
  const auto stored = pair_from_facts("uniquac", solvent.name, water.name);
  ASSERT_TRUE(stored && stored->sizes);
  EXPECT_NEAR(stored->sizes->r[0], *solvent.uniquac_r, 1e-9);
  for (const char* term : {"u_12", "u_21"})
    EXPECT_NEAR(stored->terms.at(term).value(350), uniquac->pair.terms.at(term).value(350), 2e-4) << term;
  const BinaryStudy study = drawn({solvent.name, water.name});
  EXPECT_EQ(study.mixture().liquid_model(), "uniquac");
  EXPECT_TRUE(study.notices.has("pair-from-facts"));
}

TEST(DefaultModel, SaysWhichItIsAndHowItDoes) {
  const BinaryStudy from_facts = drawn({"2-methoxyethanol", "toluene"});
  EXPECT_EQ(from_facts.mixture().liquid_model(), "nrtl");
  EXPECT_TRUE(from_facts.notices.has("model-chosen"));
  EXPECT_TRUE(from_facts.notices.has("pair-from-facts"));
  ASSERT_EQ(from_facts.handbook.size(), 1u);
  ASSERT_EQ(from_facts.curves[0].azeotropes.size(), 1u);
  EXPECT_NEAR(from_facts.handbook[0].x1, from_facts.curves[0].azeotropes[0].x1, 0.05);
  // Named or given, nothing is chosen.
  EXPECT_FALSE(drawn({"2-methoxyethanol", "toluene"}, "unifac").notices.has("model-chosen"));
  // Without a fact the prediction is taken, and that it stands alone is said.
  const BinaryStudy predicted = drawn({"acetone", "n-decane"});
  EXPECT_TRUE(predicted.mixture().liquid_model().starts_with("unifac"));
  EXPECT_TRUE(predicted.notices.has("model-chosen"));
  EXPECT_TRUE(predicted.notices.has("no-fact"));
  // Turned round the handbook's azeotrope turns with it.
  const BinaryStudy turned = drawn({"toluene", "2-methoxyethanol"});
  EXPECT_NEAR(turned.handbook.at(0).x1 + from_facts.handbook[0].x1, 1, 1e-12);
}

TEST(DefaultModel, OfSeveralTheOneThatDoesBestOnTheFacts) {
  const auto substances = substances_named({"ethanol", "water"});
  const ChosenModel chosen = best_on_facts({"unifac", "unifac-dortmund"}, substances);
  EXPECT_EQ(chosen.model, "unifac-dortmund");
  EXPECT_NE(chosen.why.find("unifac with"), std::string::npos) << chosen.why;
  EXPECT_EQ(chosen.why.find("no proof"), std::string::npos) << chosen.why;
  EXPECT_NE(best_on_facts({"nrtl"}, substances).why.find("no proof"), std::string::npos);
  EXPECT_EQ(best_on_facts({"unifac"}, substances_named({"acetone", "n-decane"})).model, "unifac");
}

}  // namespace
}  // namespace jampot
