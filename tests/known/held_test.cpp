// Facts of handbooks, and models held against them.
#include "jampot/known/held.hpp"

#include <gtest/gtest.h>

#include <cmath>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/known/disagreement.hpp"
#include "jampot/study/binary.hpp"
#include "jampot/study/known.hpp"
#include "jampot/study/residue.hpp"
#include "jampot/study/solubility.hpp"
#include "support.hpp"

namespace jampot {
namespace {

Mixture predicted(const std::vector<std::string>& names, const std::string& liquid) {
  return {substances_named(names), liquid, {}};
}

const Fact& fact_of(FactKind kind, const std::string& first, const std::string& second) {
  for (const Fact* fact : KnownFacts::built_in().about(first, second)) {
    if (fact->kind == kind) return *fact;
  }
  throw std::logic_error("no such fact of " + first + " and " + second);
}

TEST(KnownFacts, AreReadAndMakeSense) {
  const auto facts = KnownFacts::built_in().all();
  EXPECT_GT(facts.size(), 700u);
  std::set<FactKind> kinds;
  for (const Fact& fact : facts) {
    kinds.insert(fact.kind);
    for (const std::string& name : fact.substances) EXPECT_NE(Bank::built_in().find(name), nullptr) << name;
    EXPECT_TRUE(fact.T_K == 0 || (fact.T_K > 200 && fact.T_K < 600)) << in_words(fact);
    for (const double x : fact.x) EXPECT_TRUE(x > 0 && x < 1) << in_words(fact);
    EXPECT_FALSE(fact.source.empty());
    EXPECT_TRUE(fact.grade >= 'A' && fact.grade <= 'C');
    EXPECT_FALSE(in_words(fact).empty());
  }
  EXPECT_EQ(kinds.size(), 8u);
}

// Boiling points of azeotropes lie below (above) those of their substances, as the kind says.
TEST(KnownFacts, AzeotropesBoilWhereTheirKindSays) {
  for (const Fact& fact : KnownFacts::built_in().all()) {
    if (fact.kind != FactKind::azeotrope || fact.substances.size() != 2) continue;
    double lightest = HUGE_VAL, heaviest = 0;
    bool known = true;
    for (const std::string& name : fact.substances) {
      const auto& curve = Bank::built_in().require(name).vapour_pressure;
      known = known && curve.has_value();
      if (!curve) continue;
      lightest = std::min(lightest, curve->T_K(fact.P_Pa));
      heaviest = std::max(heaviest, curve->T_K(fact.P_Pa));
    }
    if (!known) continue;
    constexpr double rounding = 1.2;
    if (fact.maximum)
      EXPECT_GT(fact.T_K, heaviest - rounding) << in_words(fact);
    else
      EXPECT_LT(fact.T_K, lightest + rounding) << in_words(fact);
  }
}

TEST(HeldAgainst, EachKindOfFact) {
  const auto held = [](const char* liquid, FactKind kind, const std::string& a, const std::string& b) {
    const Fact& fact = fact_of(kind, a, b);
    return held_against(predicted(fact.substances, liquid), fact);
  };
  EXPECT_EQ(held("unifac", FactKind::azeotrope, "ethanol", "water").holding, Holding::agrees);
  EXPECT_EQ(held("unifac", FactKind::azeotrope, "tetrahydrofuran", "water").holding, Holding::missing);
  EXPECT_EQ(held("ideal", FactKind::azeotrope, "ethanol", "water").holding, Holding::missing);
  EXPECT_EQ(held("ideal", FactKind::no_azeotrope, "methanol", "water").holding, Holding::agrees);
  EXPECT_EQ(held("ideal", FactKind::miscible, "ethanol", "water").holding, Holding::agrees);
  EXPECT_EQ(held("unifac", FactKind::solubility, "phenol", "water").holding, Holding::missing);
  EXPECT_EQ(held("unifac-lle", FactKind::solubility, "phenol", "water").holding, Holding::agrees);
  EXPECT_EQ(held("ideal", FactKind::limiting_gamma, "1-butanol", "water").holding, Holding::off);
  const HeldFact ideal = held("ideal", FactKind::limiting_gamma, "1-butanol", "water");
  EXPECT_DOUBLE_EQ(ideal.value, 1);
  EXPECT_DOUBLE_EQ(ideal.factor, 1 / ideal.fact->value);
  EXPECT_TRUE(ideal.fails());
  EXPECT_NE(ideal.sentence("ideal").find("ideal says 1"), std::string::npos) << ideal.sentence("ideal");
}

// A made-up fact exactly where the model is agrees; moved by twice the tolerance it does not.
TEST(HeldAgainst, TheTolerancesAreThoseStated) {
  const Mixture mixture = test::mtbe_methanol();
  const BinaryCurve curve = txy(mixture, 101325);
  const Azeotrope& azeotrope = curve.azeotropes.at(0);
  Fact fact;
  fact.substances = {"methyl tert-butyl ether", "methanol"};
  fact.P_Pa = 101325;
  fact.T_K = azeotrope.T_K + 1.4;
  fact.x = {azeotrope.x1 - 0.045, 1 - azeotrope.x1 + 0.045};
  EXPECT_EQ(held_against(mixture, fact).holding, Holding::agrees);
  fact.T_K = azeotrope.T_K + 1.6;
  EXPECT_EQ(held_against(mixture, fact).holding, Holding::off);
  fact.T_K = azeotrope.T_K;
  fact.x = {azeotrope.x1 - 0.055, 1 - azeotrope.x1 + 0.055};
  EXPECT_EQ(held_against(mixture, fact).holding, Holding::off);
  fact.x = {azeotrope.x1, 1 - azeotrope.x1};
  fact.heterogeneous = true;
  EXPECT_EQ(held_against(mixture, fact).holding, Holding::off);
  fact.either = true;
  EXPECT_EQ(held_against(mixture, fact).holding, Holding::agrees);
  fact.kind = FactKind::no_azeotrope;
  EXPECT_EQ(held_against(mixture, fact).holding, Holding::invented);
}

TEST(HeldAgainst, APairOfAMixtureIsHeldLikeThePairAlone) {
  const Fact& fact = fact_of(FactKind::azeotrope, "ethanol", "water");
  const HeldFact alone = held_against(predicted(fact.substances, "unifac"), fact),
                 among = held_against(predicted({"water", "toluene", "ethanol"}, "unifac"), fact);
  EXPECT_NEAR(alone.T_K, among.T_K, 1e-8);
  EXPECT_NEAR(alone.x.at(0), among.x.at(0), 1e-8);
  EXPECT_FALSE(held_against(predicted({"water", "toluene"}, "unifac"), fact).judged());
}

// The distribution of a solute against a split of a feed with a trace of it.
TEST(HeldAgainst, DistributionIsThatOfATraceInASplit) {
  const Fact* fact = nullptr;
  for (const Fact& one : KnownFacts::built_in().all()) {
    if (one.kind == FactKind::distribution && one.substances[0] == "acetone" && one.substances[1] == "water")
      fact = &one;
  }
  ASSERT_NE(fact, nullptr);
  Mixture mixture = predicted(fact->substances, "unifac-lle");
  const HeldFact held = held_against(mixture, *fact);
  ASSERT_TRUE(held.judged());
  const auto split =
      LiquidSplitter(mixture.activity(), fact->T_K).split(std::vector{1e-7, 0.5 - 5e-8, 0.5 - 5e-8});
  ASSERT_EQ(split.phases(), 2u);
  const auto mass = [&](std::size_t liquid) {
    double all = 0;
    for (std::size_t i = 0; i < 3; ++i) all += split.x[liquid][i] * mixture.substances()[i].molar_mass_kg_mol;
    return split.x[liquid][0] * mixture.substances()[0].molar_mass_kg_mol / all;
  };
  const std::size_t raffinate = split.x[0][1] > split.x[1][1] ? 0 : 1;
  EXPECT_NEAR(held.value, mass(1 - raffinate) / mass(raffinate), 1e-4 * held.value);
}

TEST(AgainstHandbook, AFactOfGradeCCountsBesideAnother) {
  Fact c;
  c.kind = FactKind::limiting_gamma;
  c.substances = {"ethanol", "water"};
  c.T_K = 300;
  c.value = 5;
  Fact other = c;
  HeldFact first{.fact = &c, .holding = Holding::off, .value = 20, .factor = 4};
  EXPECT_TRUE(failures({first}, "m").empty());
  HeldFact second = first;
  second.fact = &other;
  EXPECT_TRUE(failures({first, second}, "m").has("against-handbook"));
  c.grade = 'B';
  EXPECT_TRUE(failures({first}, "m").has("against-handbook"));
}

TEST(AgainstHandbook, IsToldByDiagramsWhereItMatters) {
  const auto notices = [](const std::vector<std::string>& names, const char* liquid, double P_Pa) {
    BinaryRequest request;
    request.mixture = mixture_of(names, liquid);
    request.held = Held{Sought::temperature, {P_Pa}};
    return study(request).notices;
  };
  EXPECT_TRUE(notices({"tetrahydrofuran", "water"}, "unifac", 101325).has("against-handbook"));
  EXPECT_FALSE(notices({"ethanol", "water"}, "unifac-dortmund", 101325).has("against-handbook"));
  EXPECT_TRUE(notices({"methanol", "n-decane"}, "unifac", 5e5).has("no-fact"));
  SolubilityRequest solubility;
  solubility.mixture = mixture_of({"phenol", "water"}, "unifac");
  solubility.T_K = {298.15};
  try {
    study(solubility);
    ADD_FAILURE() << "one liquid";
  } catch (const CalculationError& error) {
    EXPECT_NE(std::string(error.what()).find("handbooks have two liquids"), std::string::npos)
        << error.what();
  }
}

// On a residue curve map at their own places, whatever the order of the substances; at another pressure none.
TEST(AgainstHandbook, AzeotropesAreLaidOverResidueMaps) {
  std::vector<std::string> names{"ethanol", "water", "benzene"};
  const auto map = [&](double P_Pa) {
    ResidueRequest request;
    request.mixture = mixture_of(names, "unifac");
    request.P_Pa = P_Pa;
    request.curves = 0;
    return study(request);
  };
  const ResidueStudy one = map(101325);
  ASSERT_EQ(one.handbook.size(), 4u);  // three of pairs, one of all three
  names = {"benzene", "ethanol", "water"};
  const ResidueStudy other = map(101325);
  ASSERT_EQ(other.handbook.size(), 4u);
  for (std::size_t k = 0; k < 4; ++k) {
    EXPECT_EQ(other.handbook[k].T_K, one.handbook[k].T_K);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(other.handbook[k].x[(i + 1) % 3], one.handbook[k].x[i]);
  }
  EXPECT_TRUE(map(4e5).handbook.empty());
}

TEST(ModelsDisagree, IsToldWhereNoFactDecides) {
  const auto told = [](const std::vector<std::string>& names, const char* liquid, const UsedAt& used) {
    return models_disagree(predicted(names, liquid), used);
  };
  const UsedAt boiling{101325, 101325, 310, 345}, liquids{0, 0, 298.15, 298.15};
  const Notices pressure = told({"n-pentane", "vinyl acetate"}, "unifac", boiling);
  ASSERT_TRUE(pressure.has("models-disagree"));
  EXPECT_NE(pressure.begin()->text.find("falling with pressure"), std::string::npos)
      << pressure.begin()->text;
  EXPECT_TRUE(told({"diacetone alcohol", "n-nonane"}, "unifac-lle", liquids).has("models-disagree"));
  // A fact decides, however far apart the models are.
  EXPECT_TRUE(told({"tetrahydrofuran", "water"}, "unifac", boiling).empty());
  EXPECT_TRUE(told({"phenol", "water"}, "unifac", liquids).empty());
  // Parameters of one's own are not held against predictions.
  EXPECT_TRUE(models_disagree(test::mtbe_methanol(), boiling).empty());
}

TEST(Ranking, TheModelThatAgreesWithMostComesFirst) {
  const KnownStudy found = study(KnownRequest{mixture_of({"ethanol", "water"})});
  ASSERT_GE(found.models.size(), 3u);
  for (std::size_t k = 1; k < found.models.size(); ++k) {
    EXPECT_LE(found.models[k - 1].misses / found.models[k - 1].judged,
              found.models[k].misses / found.models[k].judged);
  }
  for (const ModelOnFacts& model : found.models) {
    EXPECT_EQ(model.held.size(), found.facts.size());
    EXPECT_NE(found.ranking.find(model.label), std::string::npos);
  }
  for (const ModelOnFacts& model : found.models)
    EXPECT_EQ(model.fitted, model.label == "nrtl") << model.label;
  EXPECT_NE(found.ranking.find("no proof"), std::string::npos) << found.ranking;
  const KnownStudy nothing = study(KnownRequest{mixture_of({"n-decane", "dimethyl sulfoxide"})});
  EXPECT_NE(nothing.ranking.find("no fact"), std::string::npos) << nothing.ranking;
}

}  // namespace
}  // namespace jampot
