// An extraction as a study: what is said, and that mole and mass are two views of one thing.
#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/report/extract.hpp"
#include "jampot/study/extract.hpp"
#include "support.hpp"

namespace jampot {
namespace {

ExtractRequest extraction(const std::vector<std::string>& names, const std::string& liquid, Basis basis) {
  ExtractRequest request;
  request.mixture = mixture_of(names, liquid);
  request.basis = basis;
  request.feed = parse_feed(names[0] + "=0.2, " + names[1] + "=0.8", "", request.mixture.substances, basis);
  request.raffinate = 0.02;
  return request;
}

// The same extraction in moles and in mass: the same number of stages and the same recovery.
TEST(Extract, MolesAndMassAreOneExtraction) {
  const ExtractRequest by_mass = extraction({"acetic acid", "water", "ethyl acetate"}, "unifac", Basis::mass);
  const ExtractStudy mass = study(by_mass);
  const auto& substances = mass.substances();
  ExtractRequest by_moles = by_mass;
  by_moles.basis = Basis::mole;
  const Fractions& last = mass.stages.last_raffinate;
  by_moles.raffinate = mole_fractions(std::array{last[0], last[1], last[2]}, substances)[0];
  const double feed_moles = 0.2 / substances[0].molar_mass_kg_mol + 0.8 / substances[1].molar_mass_kg_mol;
  by_moles.solvent = mass.stages.solvent / substances[2].molar_mass_kg_mol / feed_moles;
  const ExtractStudy moles = study(by_moles);
  EXPECT_NEAR(moles.stages.count, mass.stages.count, 0.1);
  EXPECT_NEAR(moles.stages.recovered, mass.stages.recovered, 2e-3);
  EXPECT_NEAR(moles.least / mass.least, *by_moles.solvent / mass.stages.solvent,
              2e-2 * moles.least / mass.least);
}

TEST(Extract, WhatMustBeKnownIsSaid) {
  EXPECT_TRUE(study(extraction({"acetic acid", "water", "toluene"}, "unifac", Basis::mass))
                  .notices.has("weak-solvent"));
  EXPECT_FALSE(study(extraction({"acetic acid", "water", "ethyl acetate"}, "unifac", Basis::mass))
                   .notices.has("weak-solvent"));
  EXPECT_THROW(study(extraction({"acetone", "water", "methanol"}, "unifac", Basis::mole)), CalculationError);
  ExtractRequest request = extraction({"acetic acid", "water", "ethyl acetate"}, "unifac", Basis::mass);
  request.solvent_factor = 1;
  EXPECT_THROW(study(request), RequestError);
  request.solvent_factor = 1.5;
  request.solvent = 0.01;
  EXPECT_THROW(study(request), CalculationError);
  request.solvent.reset();
  request.mixture = mixture_of({"acetic acid", "water"}, "unifac");
  EXPECT_THROW(study(request), RequestError);
  const ExtractStudy found =
      study(extraction({"acetic acid", "water", "ethyl acetate"}, "unifac", Basis::mass));
  const Answer told = answer(found);
  ASSERT_TRUE(told.figure);
  EXPECT_EQ(told.figure->panels.size(), 2u);
  ASSERT_TRUE(found.cross);
  EXPECT_GT(found.cross->count, found.stages.count);
}

// Every operating line runs through the difference point: what passes between two stages is the same
// everywhere, by the amounts of the stages themselves.
TEST(Extract, OperatingLinesMeetInTheDifferencePoint) {
  const ExtractStudy found =
      study(extraction({"acetic acid", "water", "ethyl acetate"}, "unifac", Basis::mass));
  const ExtractionStages& all = found.stages;
  ASSERT_GT(all.stages.size(), 2u);
  for (std::size_t n = 0; n + 1 < all.stages.size(); ++n) {
    const ExtractionStage &here = all.stages[n], &next = all.stages[n + 1];
    for (std::size_t i = 0; i < 3; ++i)
      EXPECT_NEAR(here.raffinate_amount * here.raffinate[i] - next.extract_amount * next.extract[i],
                  all.net[i], 1e-6)
          << n;
  }
  EXPECT_NEAR(all.last_amount * all.last_raffinate[0], all.net[0], 1e-6);
  EXPECT_NEAR(all.last_amount * all.last_raffinate[1], all.net[1], 1e-6);
}

}  // namespace
}  // namespace jampot
