// collect as users run it: killed and run again, in parts under GNU parallel and Slurm, its result as
// parameters.
#include <fmt/format.h>

#include <map>

#include "run_tool.hpp"

namespace jampot::test {
namespace {

namespace fs = std::filesystem;

// An archive of four made-up pairs, three sets each, and two files that hold nothing to fit.
class Collect : public testing::Test {
 protected:
  Collect() {
    const Ran made = place_.run_program(JAMPOT_ARCHIVE, "archive 12 4 12 11");
    EXPECT_EQ(made.status, 0) << made.err;
    place_.write("archive/notes.csv", "nothing\nhere\n");
  }

  // All files of a folder with what is in them.
  std::map<std::string, std::string> bytes(const std::string& name) const {
    std::map<std::string, std::string> all;
    for (const auto& entry : fs::recursive_directory_iterator(place_ / name)) {
      if (entry.is_regular_file())
        all[fs::relative(entry.path(), place_ / name).generic_string()] = read_file(entry.path());
    }
    return all;
  }

  void expect_as_single(const std::string& name) const {
    EXPECT_EQ(place_.run("collect archive --out single").status, 0);
    const auto single = bytes("single"), other = bytes(name);
    EXPECT_GT(single.size(), 4 * 5u);
    ASSERT_EQ(other.size(), single.size());
    for (const auto& [file, text] : single) EXPECT_EQ(other.at(file), text) << file;
  }

  Workplace place_;
};

TEST_F(Collect, KilledAnywhereGoesOn) {
  // However far it came: nothing is half-written, and what is missing is done the next time.
  for (const char* seconds : {"0.05", "0.2", "0.5"}) {
    place_.run_program(
        "/usr/bin/timeout",
        fmt::format("-s KILL {} '{}' collect archive --out killed --threads 1", seconds, JAMPOT_TOOL));
    if (!place_.has("killed/records")) continue;
    for (const auto& entry : fs::directory_iterator(place_ / "killed/records"))
      EXPECT_TRUE(nlohmann::json::accept(read_file(entry.path()))) << entry.path();
  }
  EXPECT_EQ(place_.run("collect archive --out killed").status, 0);
  expect_as_single("killed");
}

TEST_F(Collect, InPartsUnderGnuParallel) {
  if (!fs::exists("/usr/bin/parallel")) GTEST_SKIP() << "GNU parallel is not installed";
  // The third part dies at its first attempt and is run again.
  place_.run_program("/usr/bin/timeout",
                     fmt::format("-s KILL 0.1 '{}' collect archive --out parts --shard 3/8", JAMPOT_TOOL));
  const Ran parts = place_.run_program(
      "/usr/bin/parallel",
      fmt::format("-j2 '{}' collect archive --out parts --threads 1 --shard {{}}/8 ::: 1 2 3 4 5 6 7 8",
                  JAMPOT_TOOL),
      "HOME=.");
  ASSERT_EQ(parts.status, 0) << parts.err;
  EXPECT_EQ(place_.run("collect archive --out parts --merge").status, 0);
  expect_as_single("parts");
}

// With scripts/test --slow: it starts Slurm on this machine.
class SlowCollect : public Collect {};

TEST_F(SlowCollect, InPartsUnderSlurm) {
  place_.write("part.sh",
               fmt::format("#!/bin/bash\n#SBATCH --output=part-%a.log\n'{}' collect archive --out slurm "
                           "--threads 1 --shard \"$SLURM_ARRAY_TASK_ID/8\"\n",
                           JAMPOT_TOOL));
  const Ran ran =
      place_.run_program("/usr/bin/timeout", fmt::format("180 '{}/scripts/one-node-slurm' sbatch --wait "
                                                         "--array=1-8 part.sh",
                                                         JAMPOT_SOURCE_DIR));
  if (ran.status == 77) GTEST_SKIP() << ran.out;
  ASSERT_EQ(ran.status, 0) << ran.out << ran.err;
  EXPECT_EQ(place_.run("collect archive --out slurm --merge").status, 0);
  expect_as_single("slurm");
}

TEST_F(Collect, IsWhatParametersMayBe) {
  ASSERT_EQ(place_.run("collect archive --out mine").status, 0);
  const nlohmann::json made = nlohmann::json::parse(place_.run("collect archive --out mine --json").out);
  EXPECT_EQ(made["renewed"], 0);
  const auto& group = made["groups"][0];
  const std::string pair = fmt::format("'{}' '{}'", group["substances"][0].get<std::string>(),
                                       group["substances"][1].get<std::string>());
  const nlohmann::json best = json_answer(place_, "txy " + pair + " --parameters mine --pressure '1 atm'");
  EXPECT_EQ(best["models"]["liquid"], group["model"]);
  const nlohmann::json wilson =
      json_answer(place_, "txy " + pair + " --parameters mine --liquid wilson --pressure '1 atm'");
  EXPECT_EQ(wilson["models"]["liquid"], "wilson");
  expect_refused(place_, {{"txy MTBE methanol --parameters mine --pressure '1 atm'", "no pair of"},
                          {"txy MTBE methanol --parameters archive --pressure '1 atm'", "collection"},
                          {"collect archive --out mine --shard 9/8", "9/8"},
                          {"collect archive --out mine --threads -3", "--threads -3"},
                          {"collect archive --out mine --shard half", "3/40"},
                          {"collect nowhere --out mine", "nowhere"},
                          {"collect archive --out mine --models unifac", "unifac"}});
}

}  // namespace
}  // namespace jampot::test
