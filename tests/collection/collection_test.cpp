// Archives made into collections: what is read, what is done again, and that the bytes do not depend on how.
#include <gtest/gtest.h>
#include <unistd.h>

#include <algorithm>
#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/collection/collect.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/files/collection_files.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/study/mixture_spec.hpp"
#include "support.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

class Collections : public testing::Test {
 protected:
  Collections() : folder_(fs::temp_directory_path() / ("jampot-collection-" + std::to_string(getpid()))) {
    fs::remove_all(folder_);
    fs::create_directories(folder_ / "data" / "older");
    put("data/a.csv", {"acetone", "methanol"}, 101325);
    put("data/b.csv", {"methanol", "acetone"}, 60000);
    put("data/older/c.csv", {"ethanol", "water"}, 101325);
    put("data/older/d.csv", {"ethanol", "toluene"}, 101325);
    write_file(folder_ / "data" / "notes.csv", "what,when\nsamples,monday\n");
    write_file(folder_ / "data" / "readme.txt", "nothing to fit");
  }
  ~Collections() override { fs::remove_all(folder_); }

  // Boiling points of UNIFAC, every other one off by a little.
  void put(const std::string& name, const std::vector<std::string>& names, double P_Pa, double off = 0.02) {
    Mixture mixture(substances_named(names), "unifac", {});
    std::string text =
        "# substances: " + names[0] + ", " + names[1] +
        "\n# u(T): 0.05 K\n# u(P): 0.05 kPa\n# u(x): 0.002\n# u(y): 0.004\nT [K],P [kPa],x1,y1\n";
    for (int k = 1; k < 10; ++k) {
      const double x = 0.1 * k;
      const VlePoint point = bubble_temperature(mixture, P_Pa, std::vector{x, 1 - x});
      text += std::to_string(point.T_K + (k % 2 == 0 ? off : -off)) + "," + std::to_string(P_Pa / 1000) +
              "," + std::to_string(x) + "," + std::to_string(point.y[0]) + "\n";
    }
    write_file(folder_ / name, text);
  }

  CollectRequest request(const std::string& out) const {
    CollectRequest request{folder_ / "data", folder_ / out};
    request.models = {"wilson", "nrtl"};
    request.folds = 3;
    return request;
  }

  // All files of a folder with what is in them.
  std::map<std::string, std::string> bytes(const std::string& name) const {
    std::map<std::string, std::string> all;
    for (const auto& entry : fs::recursive_directory_iterator(folder_ / name)) {
      if (entry.is_regular_file())
        all[fs::relative(entry.path(), folder_ / name).generic_string()] = read_file(entry.path());
    }
    return all;
  }

  fs::path folder_;
};

TEST_F(Collections, ReadAnArchiveBySubstances) {
  const Archive archive = read_archive(folder_ / "data");
  ASSERT_EQ(archive.groups.size(), 3u);
  EXPECT_EQ(archive.groups[0].name, "acetone--methanol");
  ASSERT_EQ(archive.groups[0].sets.size(), 2u);
  // The set with the substances the other way round is turned: x of acetone grows in both.
  for (const DataSet& set : archive.groups[0].sets) {
    EXPECT_EQ(set.substances[0].name, "acetone");
    EXPECT_EQ(set.substances[1].name, "methanol");
    for (const DataPoint& point : set.points) EXPECT_NEAR(point.x[0] + point.x[1], 1, 1e-12);
  }
  EXPECT_NEAR(archive.groups[0].sets[0].points[0].x[0], 0.1, 1e-12);
  EXPECT_NEAR(archive.groups[0].sets[1].points[0].x[0], 0.9, 1e-12);
  EXPECT_EQ(archive.groups[1].sets[0].name, "older/d.csv");
  ASSERT_EQ(archive.passed_over.size(), 1u);
  EXPECT_EQ(archive.passed_over[0].file, "notes.csv");
  EXPECT_FALSE(archive.passed_over[0].reason.empty());
  EXPECT_EQ(archive.files, 5);
  EXPECT_EQ(archive.sets, 4);
  EXPECT_THROW(read_archive(folder_ / "nowhere"), RequestError);
  fs::create_directories(folder_ / "empty");
  EXPECT_THROW(read_archive(folder_ / "empty"), RequestError);
}

TEST_F(Collections, AreDoneOnceAndThenOnlyWhatChanged) {
  const CollectStudy first = study(request("one"));
  EXPECT_EQ(first.renewed, 3);
  for (const CollectedGroup& group : first.groups) {
    EXPECT_TRUE(group.fitted) << group.record;
    EXPECT_TRUE(fs::exists(folder_ / "one" / "reports" / (group.name + ".html")));
    ParameterCollection pairs;
    read_pairs(collection_pairs(folder_ / "one", group.name), pairs);
    EXPECT_EQ(pairs.all().size(), 1u);
  }
  EXPECT_TRUE(first.notices.has("passed-over"));
  const auto before = bytes("one");
  EXPECT_NE(before.at("index.html").find("<a href=\"reports/acetone--methanol.html\">"), std::string::npos);
  EXPECT_NE(before.at("collection.csv").find("ethanol, toluene"), std::string::npos);
  EXPECT_NE(before.at("passed-over.csv").find("notes.csv"), std::string::npos);

  const CollectStudy again = study(request("one"));
  EXPECT_EQ(again.renewed, 0);
  EXPECT_EQ(bytes("one"), before);

  put("data/older/d.csv", {"ethanol", "toluene"}, 101325, 0.04);
  const CollectStudy changed = study(request("one"));
  EXPECT_EQ(changed.renewed, 1);
  for (const CollectedGroup& group : changed.groups)
    EXPECT_EQ(group.renewed, group.name == "ethanol--toluene") << group.name;

  // What is no longer there goes.
  fs::remove(folder_ / "data" / "older" / "d.csv");
  const CollectStudy less = study(request("one"));
  EXPECT_EQ(less.groups.size(), 2u);
  EXPECT_FALSE(fs::exists(folder_ / "one" / "reports" / "ethanol--toluene.html"));
}

TEST_F(Collections, InPartsGiveTheSameBytes) {
  study(request("whole"));
  constexpr int parts = 3;
  CollectRequest merge = request("parts");
  merge.merge = true;
  EXPECT_THROW(study(merge), CalculationError);
  for (int part = parts; part > 0; --part) {
    CollectRequest one = request("parts");
    one.shard = part;
    one.shards = parts;
    const CollectStudy of_part = study(one);
    EXPECT_FALSE(of_part.whole);
    EXPECT_TRUE(of_part.notices.has("part-of-collection"));
  }
  const CollectStudy merged = study(merge);
  EXPECT_TRUE(merged.whole);
  EXPECT_EQ(bytes("parts"), bytes("whole"));
  // One that died before its record was written is run again.
  fs::remove(folder_ / "parts" / "records" / "acetone--methanol.json");
  EXPECT_THROW(study(merge), CalculationError);
  EXPECT_EQ(study(request("parts")).renewed, 1);
  EXPECT_EQ(bytes("parts"), bytes("whole"));
}

TEST_F(Collections, AreUnderstoodAsParameters) {
  study(request("mine"));
  const auto substances = substances_named({"methanol", "acetone"});
  ParameterCollection parameters;
  read_collection(folder_ / "mine", substances, "", parameters);
  ASSERT_EQ(parameters.all().size(), 1u);
  for (const char* model : {"wilson", "nrtl"}) {
    ParameterCollection one;
    read_collection(folder_ / "mine", substances, model, one);
    ASSERT_EQ(one.all().size(), 1u) << model;
    EXPECT_EQ(one.all()[0].model, model);
    // The fitted model meets the data it came from.
    const Mixture fitted(substances, model, one), truth(substances, "unifac", {});
    for (const double x : {0.2, 0.5, 0.8})
      EXPECT_NEAR(bubble_temperature(fitted, 101325, std::vector{x, 1 - x}).T_K,
                  bubble_temperature(truth, 101325, std::vector{x, 1 - x}).T_K, 0.1);
  }
  ParameterCollection none;
  EXPECT_THROW(read_collection(folder_ / "mine", substances_named({"benzene", "hexane"}), "", none),
               RequestError);
  EXPECT_THROW(read_collection(folder_ / "data", substances, "", none), RequestError);
}

TEST_F(Collections, AGroupThatTakesTooLongIsGivenUp) {
  CollectRequest hurried = request("hurried");
  hurried.most_s = 1e-4;
  const CollectStudy found = study(hurried);
  for (const CollectedGroup& group : found.groups) {
    EXPECT_FALSE(group.fitted) << group.name;
    EXPECT_NE(group.record.find("took longer"), std::string::npos) << group.record;
  }
  // With more time it is done.
  EXPECT_EQ(study(request("hurried")).renewed, 3);
}

TEST_F(Collections, RefuseWhatCannotBe) {
  CollectRequest wrong = request("out");
  wrong.models = {"unifac"};
  EXPECT_THROW(study(wrong), RequestError);
  wrong = request("out");
  wrong.shard = 4;
  wrong.shards = 3;
  EXPECT_THROW(study(wrong), RequestError);
  wrong = request("data/a.csv");
  EXPECT_THROW(study(wrong), RequestError);
  wrong = request("out");
  wrong.most_s = 0;
  EXPECT_THROW(study(wrong), RequestError);
}

}  // namespace
}  // namespace jampot
