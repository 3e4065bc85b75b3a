// Many jobs at once.
#include "run_tool.hpp"

namespace jampot::test {
namespace {

std::string job_at(const std::string& pressure) {
  return "title = 'at " + pressure +
         "'\n[[step]]\ncommand = 'txy'\nsubstances = ['acetone', 'methanol']\nliquid = 'unifac'\npressure = "
         "'" +
         pressure + "'\ncsv = 'curve.csv'\n";
}

TEST(JobFolder, ASummaryOfAll) {
  const Workplace workplace;
  for (const char* name : {"a", "b", "c", "d"})
    std::filesystem::create_directories(workplace / "jobs" / name);
  workplace.write("jobs/a/one.job.toml", job_at("1 atm"));
  workplace.write("jobs/b/two.job.toml", job_at("2 atm"));
  workplace.write("jobs/c/faulty.job.toml", "[[step]]\ncomand = 'txy'\n");
  workplace.write("jobs/d/impossible.job.toml",
                  "[[step]]\ncommand = 'saturation'\nabout = 'acetone'\ntemperature = '900 degC'\n");
  const Ran ran = workplace.run("job jobs --csv summary.csv --json");
  EXPECT_EQ(ran.status, 2) << ran.err;  // one of them is wrong
  const auto json = nlohmann::json::parse(ran.out);
  ASSERT_EQ(json["jobs"].size(), 4u);
  EXPECT_EQ(json["jobs"][0]["outcome"], "done");
  EXPECT_EQ(json["jobs"][0]["title"], "at 1 atm");
  EXPECT_EQ(json["jobs"][1]["steps_done"], 1);
  EXPECT_EQ(json["jobs"][2]["outcome"], "failed");
  EXPECT_NE(json["jobs"][2]["message"].get<std::string>().find("line 2"), std::string::npos);
  EXPECT_EQ(json["jobs"][3]["steps_failed"], 1);
  EXPECT_NE(json["jobs"][3]["message"].get<std::string>().find("critical"), std::string::npos);
  EXPECT_TRUE(workplace.has("jobs/a/curve.csv"));
  EXPECT_TRUE(workplace.has("jobs/b/curve.csv"));
  EXPECT_NE(workplace.read("summary.csv").find("faulty.job.toml"), std::string::npos);

  std::filesystem::remove_all(workplace / "jobs" / "c");
  EXPECT_EQ(workplace.run("job jobs").status, 1);
  std::filesystem::remove_all(workplace / "jobs" / "d");
  EXPECT_EQ(workplace.run("job jobs").status, 0);
  EXPECT_EQ(workplace.run("job jobs/a/one.job.toml jobs/b/two.job.toml --check --threads 1").status, 0);
}

TEST(JobFolder, AnEmptyFolderIsSaid) {
  const Workplace workplace;
  std::filesystem::create_directory(workplace / "empty");
  expect_refused(workplace,
                 {{"job empty", "there is no *.job.toml"}, {"job nothing.job.toml", "cannot be read"}});
}

}  // namespace
}  // namespace jampot::test
