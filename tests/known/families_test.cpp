// Models on pairs of the same families, where handbooks know nothing of a pair itself.
#include "jampot/known/families.hpp"

#include <gtest/gtest.h>

#include <set>

#include "jampot/known/choice.hpp"
#include "jampot/study/known.hpp"
#include "support.hpp"

namespace jampot {
namespace {

std::string family(const std::string& name) {
  return family_of(substances_named({name}).front());
}

TEST(Families, AreNamedByWhatMakesASubstance) {
  EXPECT_EQ(family("n-decane"), "alkanes");
  EXPECT_EQ(family("toluene"), "aromatics");
  EXPECT_EQ(family("1-hexanol"), "alcohols");
  EXPECT_EQ(family("isopentyl acetate"), "esters");
  EXPECT_EQ(family("2-methoxyethanol"), "alcohols and ethers");
  EXPECT_EQ(family("water"), "water");
}

// Every fact about an ester and an alcohol counts, whatever its place; here by hand.
TEST(Families, RecordsCountTheFactsOfSuchPairs) {
  const std::vector<std::string> models{"unifac", "unifac-dortmund"};
  const FamilyRecords found =
      records_on_families(models, substances_named({"isopentyl acetate", "1-hexanol"}));
  EXPECT_EQ(found.families, "esters with alcohols");
  int facts = 0;
  for (const Fact& fact : KnownFacts::built_in().all()) {
    if (fact.substances.size() != 2 || fact.grade > 'B' || fact.kind == FactKind::excess_enthalpy) continue;
    const std::set<std::string> two{family(fact.substances[0]), family(fact.substances[1])};
    facts += two == std::set<std::string>{"esters", "alcohols"};
  }
  ASSERT_GT(facts, 10);
  const FamilyRecord &plain = found.records[0], &modified = found.records[1];
  EXPECT_LE(plain.judged, std::min(facts, 24));
  EXPECT_GE(plain.judged, std::min(facts, 24) / 3);
  EXPECT_EQ(plain.common.judged, modified.common.judged);
  EXPECT_LE(plain.common.judged, std::min(plain.judged, modified.judged));
  const FamilyRecords back =
      records_on_families(models, substances_named({"1-hexanol", "isopentyl acetate"}));
  for (std::size_t m = 0; m < models.size(); ++m) {
    EXPECT_EQ(back.records[m].judged, found.records[m].judged);
    EXPECT_EQ(back.records[m].agreeing, found.records[m].agreeing);
  }
}

TEST(Families, DecideWhereNoFactIsKnown) {
  const auto substances = substances_named({"isopentyl acetate", "1-hexanol"});
  const std::vector<std::string> models{"unifac-dortmund", "unifac"};
  const FamilyRecords records = records_on_families(models, substances);
  const ChosenModel chosen = best_on_facts(models, substances);
  const auto share = [](const FamilyRecord& record) { return record.common.misses / record.common.judged; };
  ASSERT_GE(records.records[0].common.judged, 3);
  EXPECT_EQ(chosen.model, share(records.records[1]) < share(records.records[0]) ? models[1] : models[0]);
  EXPECT_NE(chosen.why.find("same families (esters with alcohols)"), std::string::npos) << chosen.why;
  const KnownStudy known = study(KnownRequest{mixture_of({"isopentyl acetate", "1-hexanol"})});
  EXPECT_NE(known.ranking.find("same families"), std::string::npos) << known.ranking;
  // With facts of their own the families are not asked.
  EXPECT_EQ(study(KnownRequest{mixture_of({"ethanol", "water"})}).ranking.find("families"),
            std::string::npos);
}

}  // namespace
}  // namespace jampot
