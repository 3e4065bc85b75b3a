// Solvents: their numbers against splits and activity coefficients worked out otherwise, their ranking
// against what textbooks say.
#include "jampot/study/screen.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <cmath>
#include <random>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/known/facts.hpp"
#include "jampot/known/families.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/report/screen.hpp"
#include "support.hpp"

namespace jampot {
namespace {

ScreenStudy screened(const std::vector<std::string>& pair, SolventRole role,
                     const std::vector<std::string>& candidates = {}) {
  ScreenRequest request;
  request.mixture = mixture_of(pair);
  request.role = role;
  if (!candidates.empty()) request.candidates = substances_named(candidates);
  return study(request);
}

std::size_t rank_of(const ScreenStudy& found, const std::string& name) {
  for (std::size_t k = 0; k < found.solvents.size(); ++k) {
    if (found.solvents[k].substance.name == name) return k;
  }
  return found.solvents.size();
}

// A trace of the solute in a feed of carrier and solvent, parted by the general solver.
TEST(Solvents, DistributionIsThatOfATrace) {
  int compared = 0;
  for (const auto& names : {std::vector<std::string>{"acetic acid", "water", "ethyl acetate"},
                            std::vector<std::string>{"acetone", "water", "toluene"},
                            std::vector<std::string>{"ethanol", "water", "1-octanol"},
                            std::vector<std::string>{"phenol", "water", "diisopropyl ether"}}) {
    const Mixture mixture(substances_named(names), "unifac", {});
    const auto figures = extraction_figures(mixture, 298.15);
    ASSERT_TRUE(figures) << names[2];
    Mixture own = mixture;
    LiquidSplitter splitter(own.activity(), 298.15);
    const LiquidSplit split = splitter.split(std::array{1e-8, 0.5, 0.5 - 1e-8});
    ASSERT_EQ(split.phases(), 2u) << names[2];
    auto carrier = mass_fractions(split.x[0], own.substances()),
         solvent = mass_fractions(split.x[1], own.substances());
    if (carrier[1] < solvent[1]) std::swap(carrier, solvent);
    EXPECT_NEAR(figures->distribution, solvent[0] / carrier[0], 1e-5 * figures->distribution) << names[2];
    EXPECT_NEAR(figures->selectivity, solvent[0] / carrier[0] * carrier[1] / solvent[1],
                1e-4 * figures->selectivity);
    EXPECT_NEAR(figures->loss, carrier[2], 1e-6);
    ++compared;
  }
  EXPECT_EQ(compared, 4);
  EXPECT_FALSE(
      extraction_figures(Mixture(substances_named({"acetone", "water", "methanol"}), "unifac", {}), 298.15));
}

// Exchanging first and second turns selectivity and relative volatility over.
TEST(Solvents, FirstAndSecondCanBeExchanged) {
  for (const char* solvent : {"water", "1,2-ethanediol", "toluene"}) {
    const Mixture one(substances_named({"acetone", "methanol", solvent}), "unifac", {});
    const Mixture other(substances_named({"methanol", "acetone", solvent}), "unifac", {});
    const DiluteInSolvent a = dilute_in_solvent(one, 330), b = dilute_in_solvent(other, 330);
    EXPECT_NEAR(a.selectivity * b.selectivity, 1, 1e-12);
    EXPECT_NEAR(a.capacity, b.capacity, 1e-12);
    EXPECT_NEAR(a.gamma[0], b.gamma[1], 1e-12);
    const double alpha = volatility_figures(one, 330).with_solvent;
    EXPECT_NEAR(alpha * volatility_figures(other, 330).with_solvent, 1, 1e-12);
    const auto& pure = one.substances();
    EXPECT_NEAR(
        alpha,
        a.gamma[0] / a.gamma[1] * pure[0].vapour_pressure->P_Pa(330) / pure[1].vapour_pressure->P_Pa(330),
        1e-12 * alpha);
    const AbsorptionFigures gas = absorption_figures(one, 330, 101325);
    EXPECT_NEAR(gas.solubility_per_Pa, 1 / (a.gamma[0] * pure[0].vapour_pressure->P_Pa(330)), 1e-15);
    EXPECT_NEAR(gas.selectivity * alpha, 1, 1e-12);
  }
  // An azeotrope between the two: somewhere the relative volatility is 1.
  const Mixture azeotropic(substances_named({"acetone", "methanol", "water"}), "unifac", {});
  EXPECT_EQ(volatility_figures(azeotropic, 328).without_solvent, 1);
}

// Solvents for acetic acid in water that textbooks name stand above those that take up next to nothing.
TEST(Screening, GoodSolventsOfTextbooksStandAboveBadOnes) {
  const ScreenStudy acid = screened({"acetic acid", "water"}, SolventRole::extraction);
  for (const char* good :
       {"methyl isobutyl ketone", "ethyl acetate", "diisopropyl ether", "n-butyl acetate"}) {
    const std::string name = substances_named({good}).front().name;
    for (const char* bad : {"toluene", "n-hexane"}) {
      ASSERT_LT(rank_of(acid, bad), acid.solvents.size()) << bad;
      EXPECT_LT(rank_of(acid, name), rank_of(acid, bad)) << good << " and " << bad;
    }
  }
  const ScreenStudy dry = screened({"ethanol", "water"}, SolventRole::entrainer);
  EXPECT_LT(rank_of(dry, "1,2-ethanediol"), rank_of(dry, "benzene"));
  EXPECT_LT(rank_of(dry, "1,2-ethanediol"), dry.solvents.size() / 4);
  ASSERT_LT(rank_of(dry, "benzene"), dry.solvents.size());
  EXPECT_NE(dry.solvents[rank_of(dry, "benzene")].map_class.find("two liquids"), std::string::npos);
  const ScreenStudy ketone = screened({"acetone", "methanol"}, SolventRole::entrainer);
  EXPECT_LT(rank_of(ketone, "water"), ketone.solvents.size() / 4);
  EXPECT_GT(ketone.solvents[rank_of(ketone, "water")].volatility->with_solvent, 2);
  const ScreenStudy cyclic = screened({"benzene", "cyclohexane"}, SolventRole::entrainer);
  EXPECT_LT(rank_of(cyclic, "N-methyl-2-pyrrolidone"), rank_of(cyclic, "n-heptane"));
  EXPECT_LT(rank_of(cyclic, "aniline"), rank_of(cyclic, "toluene"));
}

// The longer glymes mix with water as 1,2-dimethoxyethane does, which has more hydrocarbon for each ether;
// heptanone has more of it than acetone.
TEST(Screening, KinOfWhatMixesIsDoubted) {
  const auto kin = [](const char* name) {
    return kin_that_mixes_with_water(substances_named({name})[0], 298.15);
  };
  EXPECT_EQ(kin("tetraglyme"), "1,2-dimethoxyethane");
  for (const char* parts :
       {"2-heptanone", "1-pentanol", "1-butanol", "n-butyl acetate", "diisopropyl ether", "toluene"})
    EXPECT_EQ(kin(parts), "") << parts;
  const ScreenStudy found = screened({"acetic acid", "water"}, SolventRole::extraction);
  const ScreenedSolvent& glyme = found.solvents[rank_of(found, substances_named({"tetraglyme"})[0].name)];
  EXPECT_TRUE(glyme.notices.has("kin-miscible"));
  EXPECT_FALSE(glyme.on_front);
  EXPECT_NE(glyme.verdict.find("1,2-dimethoxyethane"), std::string::npos) << glyme.verdict;
  EXPECT_TRUE(found.solvents.front().miscible_kin.empty());
}

// Of what handbooks have as two liquids with water, hardly anything has a kin that mixes with it.
TEST(Screening, KinSeldomSpeakAgainstFacts) {
  std::vector<std::string> doubted;
  int parted = 0, mixed = 0, expected = 0;
  for (const Substance& substance : Bank::built_in().all()) {
    const std::string kin = kin_that_mixes_with_water(substance, 298.15);
    bool parts = false, mixes = false;
    for (const Fact* fact : KnownFacts::built_in().about(substance.name, "water")) {
      parts = parts || (fact->kind == FactKind::solubility && fact->grade <= 'B');
      mixes = mixes || (fact->kind == FactKind::miscible && fact->grade <= 'B');
    }
    parted += parts;
    mixed += mixes;
    expected += mixes && !kin.empty();
    if (parts && !kin.empty()) doubted.push_back(substance.name);
  }
  EXPECT_GT(parted, 80);
  EXPECT_GT(expected, mixed / 4);
  EXPECT_EQ(doubted, (std::vector<std::string>{"dimethoxymethane", "methyl acetate"}));
}

// Reactions of print between functional groups, either substance first.
TEST(Reactions, ByFunctionalGroups) {
  const auto readiness = [](const char* one, const char* other) -> std::string {
    const auto pair = substances_named({one, other});
    const auto found = reaction_between(pair[0], pair[1]), turned = reaction_between(pair[1], pair[0]);
    EXPECT_EQ(found.has_value(), turned.has_value());
    if (!found) return "none";
    EXPECT_EQ(found->products, turned->products);
    EXPECT_EQ(found->with, pair[1].name);
    return std::string(name_of(found->readiness)) + ": " + found->products;
  };
  EXPECT_EQ(readiness("acetic acid", "ethanol"), "on-boiling: an ester and water");
  EXPECT_EQ(readiness("acetic acid", "methanol"), "on-boiling: an ester and water");
  EXPECT_EQ(readiness("2-ethoxyethanol", "acetic acid"), "on-boiling: an ester and water");
  EXPECT_EQ(readiness("acetic acid", "triethylamine"), "at-once: a salt");
  EXPECT_EQ(readiness("acetic acid", "pyridine"), "at-once: a salt");
  EXPECT_EQ(readiness("butanal", "diethylamine"), "at-once: an imine or enamine and water");
  EXPECT_EQ(readiness("acetone", "aniline"), "on-boiling: an imine and water");
  EXPECT_EQ(readiness("acetaldehyde", "methanol"), "at-once: a hemiacetal");
  EXPECT_EQ(readiness("ethyl acetate", "water"), "very-slow: an acid and an alcohol");
  EXPECT_EQ(readiness("propylene oxide", "water"), "on-boiling: a glycol");
  EXPECT_EQ(readiness("acetic anhydride", "water"), "at-once: an acid");
  EXPECT_EQ(readiness("ethyl acetate", "n-butylamine"), "on-boiling: an amide and an alcohol");
  for (const char* inert : {"toluene", "acetone", "diisopropyl ether", "chloroform"})
    EXPECT_EQ(readiness(inert, "water"), "none") << inert;
  EXPECT_EQ(readiness("acetone", "diethylamine"), "none");
  EXPECT_EQ(readiness("acetic acid", "acetic acid"), "none");
  EXPECT_EQ(readiness("acetic acid", "methyl isobutyl ketone"), "none");
  for (const char* monomer : {"vinyl acetate", "styrene", "isoprene", "methyl methacrylate"}) {
    const Substance one = substances_named({monomer})[0];
    const auto reaction = reaction_between(one, one);
    ASSERT_TRUE(reaction) << monomer;
    EXPECT_NE(reaction->sentence().find("polymerises"), std::string::npos);
  }
  for (const char* none : {"cyclohexene", "mesityl oxide", "ethyl acetate"}) {
    const Substance one = substances_named({none})[0];
    EXPECT_FALSE(reaction_between(one, one)) << none;
  }
}

// A solvent that reacts with what it is to take up says so, and ranks below one that does not.
TEST(Screening, WhatReactsSaysSo) {
  const ScreenStudy found =
      screened({"acetic acid", "water"}, SolventRole::extraction, {"1-pentanol", "methyl isobutyl ketone"});
  ASSERT_EQ(found.solvents.size(), 2u);
  const ScreenedSolvent& alcohol = found.solvents[rank_of(found, "1-pentanol")];
  ASSERT_EQ(alcohol.reactions.size(), 1u);
  EXPECT_EQ(alcohol.reactions[0].sentence(),
            "1-pentanol forms an ester and water with acetic acid when boiled");
  EXPECT_TRUE(alcohol.notices.has("reaction"));
  const auto part = std::find_if(alcohol.parts.begin(), alcohol.parts.end(),
                                 [](const ScorePart& one) { return one.name == "reactivity"; });
  ASSERT_NE(part, alcohol.parts.end());
  EXPECT_LT(part->value, 0.5);
  EXPECT_FALSE(part->shortfall.empty());
  EXPECT_TRUE(found.solvents[rank_of(found, "4-methyl-2-pentanone")].reactions.empty());
}

TEST(Screening, EverySubstanceIsRankedOrLeftOutWithItsReason) {
  for (const SolventRole role : {SolventRole::extraction, SolventRole::entrainer, SolventRole::absorbent}) {
    const ScreenStudy found = screened({"acetone", "water"}, role);
    EXPECT_EQ(found.solvents.size() + found.left_out.size(), Bank::built_in().size() - 2);
    std::set<std::string> names;
    for (const UnscreenedSolvent& one : found.left_out) {
      EXPECT_FALSE(one.reason.empty()) << one.name;
      names.insert(one.name);
    }
    double before = 1;
    for (const ScreenedSolvent& one : found.solvents) {
      names.insert(one.substance.name);
      EXPECT_LE(one.score, before);
      before = one.score;
      EXPECT_FALSE(one.verdict.empty());
      // The score is the geometric mean of its parts.
      double log_score = 0, weights = 0;
      for (const ScorePart& part : one.parts) {
        EXPECT_TRUE(part.value >= 0 && part.value <= 1) << one.substance.name << " " << part.name;
        log_score += part.weight * std::log(std::max(part.value, 0.01));
        weights += part.weight;
      }
      EXPECT_NEAR(weights, 1, 1e-12);
      EXPECT_NEAR(one.score, std::exp(log_score), 1e-12);
      // No other has both more capacity and more selectivity than one on the front, and some one else has.
      const bool beaten =
          std::any_of(found.solvents.begin(), found.solvents.end(), [&](const ScreenedSolvent& other) {
            return other.miscible_kin.empty() && capacity_of(other) > capacity_of(one) &&
                   selectivity_of(other) > selectivity_of(one);
          });
      EXPECT_FALSE(one.on_front && beaten) << one.substance.name;
    }
    EXPECT_EQ(names.size(), Bank::built_in().size() - 2);
    EXPECT_TRUE(found.notices.has("screening"));
    EXPECT_TRUE(found.notices.has("screening-left-out"));
    EXPECT_EQ(found.notices.has("screening-against-handbook"),
              std::any_of(found.solvents.begin(), found.solvents.end(),
                          [](const ScreenedSolvent& one) { return one.notices.has("against-handbook"); }));
    EXPECT_EQ(found.notices.has("absorbent-pure-gas"), role == SolventRole::absorbent);
  }
}

// What handbooks have as one liquid is no extraction solvent, whatever a table of groups says of it.
TEST(Screening, HandbooksComeBeforeTheModel) {
  const ScreenStudy found = screened({"acetic acid", "water"}, SolventRole::extraction,
                                     {"tetrahydrofuran", "ethyl acetate", "1-pentanol"});
  ASSERT_EQ(found.left_out.size(), 1u);
  EXPECT_EQ(found.left_out[0].name, "tetrahydrofuran");
  EXPECT_NE(found.left_out[0].reason.find("handbooks"), std::string::npos);
  ASSERT_EQ(found.solvents.size(), 2u);
  for (const ScreenedSolvent& one : found.solvents) EXPECT_GT(one.facts, 0);
  const ScreenStudy dry = screened({"ethanol", "water"}, SolventRole::entrainer, {"benzene"});
  ASSERT_EQ(dry.solvents.size(), 1u);
  EXPECT_TRUE(std::any_of(dry.solvents[0].azeotropes.begin(), dry.solvents[0].azeotropes.end(),
                          [](const NewAzeotrope& one) { return one.from_handbook; }));
}

// Distribution coefficient and solubilities of handbooks stand in place of the prediction, which stays
// beside.
TEST(Screening, ExtractionFiguresOfHandbooks) {
  const ScreenStudy found = screened({"acetic acid", "water"}, SolventRole::extraction);
  int taken = 0;
  for (const ScreenedSolvent& one : found.solvents) {
    const ExtractionFigures& figures = *one.extraction;
    EXPECT_EQ(one.predicted.has_value(), one.handbook_distribution || one.handbook_solubility);
    EXPECT_LE(one.facts_taken + one.facts_agreeing, one.facts);
    for (const Fact& fact : KnownFacts::built_in().all()) {
      if (fact.kind != FactKind::distribution || fact.grade > 'B' || std::abs(fact.T_K - 298.15) > 14)
        continue;
      if (fact.substances != std::vector<std::string>{"acetic acid", "water", one.substance.name}) continue;
      EXPECT_TRUE(one.handbook_distribution) << one.substance.name;
      EXPECT_EQ(figures.distribution, fact.value) << one.substance.name;
      ++taken;
    }
    if (one.predicted) {
      EXPECT_NEAR(figures.selectivity, figures.distribution * (1 - figures.loss) / figures.carrier,
                  1e-9 * figures.selectivity);
    }
  }
  EXPECT_GE(taken, 4);
  // Ethyl acetate and water: about 8 mass per cent of it in water, 3 of water in it.
  const ScreenedSolvent& ester = found.solvents[rank_of(found, "ethyl acetate")];
  EXPECT_TRUE(ester.handbook_solubility);
  EXPECT_NEAR(ester.extraction->loss, 0.079, 0.008);
  EXPECT_NEAR(ester.extraction->carrier, 0.031, 0.005);
}

TEST(Screening, CandidatesFamiliesBoilingPointsAndWeights) {
  ScreenRequest request;
  request.mixture = mixture_of({"acetic acid", "water"});
  request.families = {"esters"};
  request.boiling_K = std::array{340.0, 400.0};
  const ScreenStudy esters = study(request);
  ASSERT_GT(esters.solvents.size(), 3u);
  for (const ScreenedSolvent& one : esters.solvents) {
    const double Tb_K = one.substance.vapour_pressure->T_K(101325);
    EXPECT_TRUE(Tb_K >= 340 && Tb_K <= 400) << one.substance.name;
  }
  // By one part alone the ranking is that of this part.
  request.weights = {{"distribution", 1}, {"selectivity", 0}, {"loss", 0}, {"recovery", 0},
                     {"density", 0},      {"reactivity", 0},  {"facts", 0}};
  const ScreenStudy by_distribution = study(request);
  for (std::size_t k = 1; k < by_distribution.solvents.size(); ++k) {
    EXPECT_GE(by_distribution.solvents[k - 1].extraction->distribution,
              by_distribution.solvents[k].extraction->distribution);
  }
  request.weights = {{"colour", 1}};
  EXPECT_THROW(study(request), RequestError);
  request.weights = {{"loss", -1}};
  EXPECT_THROW(study(request), RequestError);
  request.weights = {{"loss", NAN}};
  EXPECT_THROW(study(request), RequestError);
  request.weights = {};
  request.boiling_K = std::array{400.0, 340.0};
  EXPECT_THROW(study(request), RequestError);
  request.boiling_K = std::array{1000.0, 1100.0};
  EXPECT_THROW(study(request), RequestError);
  request.mixture = mixture_of({"acetic acid", "water", "toluene"});
  EXPECT_THROW(study(request), RequestError);
  EXPECT_THROW(parse_solvent_role("solvent"), RequestError);
}

// A model that is named holds for all; the answer tells which.
TEST(Screening, ANamedModelHoldsForAll) {
  ScreenRequest request;
  request.mixture = mixture_of({"acetic acid", "water"}, "unifac-lle");
  const ScreenStudy found = study(request);
  ASSERT_GT(found.solvents.size(), 10u);
  for (const ScreenedSolvent& one : found.solvents) EXPECT_EQ(one.model, "unifac-lle");
  const Answer told = answer(found);
  ASSERT_TRUE(told.figure);
  EXPECT_EQ(told.tables.front().rows.size(), found.solvents.size());
  EXPECT_NE(told.figure->footer.find("unifac-lle"), std::string::npos);
}

}  // namespace
}  // namespace jampot
