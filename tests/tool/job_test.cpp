// Jobs and mixture files by the built tool.
#include <chrono>
#include <nlohmann/json.hpp>
#include <thread>

#include "run_tool.hpp"

namespace jampot {
namespace {

using nlohmann::json;

constexpr const char* small_job = R"(title = "A small job"
report = ["page.html", "page.md"]

[mixture]
substances = ["methyl tert-butyl ether", "methanol"]
parameters = "fitted.pairs.toml"

[[step]]
name = "boiling"
command = "txy"
pressure = "1 atm"
measured = "data.csv"
figure = "txy.svg"
csv = "txy.csv"
xlsx = "txy.xlsx"

[[step]]
name = "fit"
command = "regress"
data = "data.csv"
out = "fitted.pairs.toml"

[[step]]
name = "drawn"
command = "xy"
pressure = "1 atm"
figure = "xy.pdf"

[[step]]
command = "flash"
feed = "methanol=1 kmol/h, methyl tert-butyl ether=1 kmol/h"
temperature = "53 degC"
pressure = "1 atm"
)";

TEST(Job, StepsWaitForTheFilesTheyRead) {
  const test::Workplace workplace;
  workplace.put_data();
  workplace.write("small.job.toml", small_job);
  const json job = test::json_answer(workplace, "job small.job.toml");
  ASSERT_EQ(job["steps"].size(), 4u);
  EXPECT_EQ(job["steps"][0]["waits_for"], json::array({"fit"}));  // written after it, done before it
  EXPECT_EQ(job["steps"][1]["waits_for"], json::array());
  EXPECT_EQ(job["steps"][2]["waits_for"], json::array({"fit"}));
  for (const json& step : job["steps"]) EXPECT_EQ(step["outcome"], "done") << step["message"];
  EXPECT_NEAR(job["steps"][0]["result"]["curves"][0]["azeotropes"][0]["x"][0].get<double>(), 0.678, 0.003);
  for (const char* file : {"txy.svg", "txy.csv", "txy.xlsx", "fitted.pairs.toml", "page.html", "page.md"})
    EXPECT_TRUE(workplace.has(file)) << file;
  const std::string page = workplace.read("page.html");
  EXPECT_NE(page.find("<svg"), std::string::npos);
  EXPECT_NE(page.find(">boiling</h2>"), std::string::npos);
  EXPECT_EQ(page.find("http://localhost"), std::string::npos);
}

TEST(Job, DoneAgainItWritesTheSameBytes) {
  const test::Workplace workplace;
  workplace.put_data();
  workplace.write("small.job.toml", small_job);
  const std::vector<std::string> files{"xy.pdf",    "txy.svg", "txy.csv", "txy.xlsx", "fitted.pairs.toml",
                                       "page.html", "page.md"};
  std::vector<std::string> first;
  ASSERT_EQ(workplace.run("job small.job.toml").status, 0);
  for (const std::string& file : files) first.push_back(workplace.read(file));
  std::this_thread::sleep_for(std::chrono::milliseconds(1100));  // dates are written to the second
  ASSERT_EQ(workplace.run("job small.job.toml").status, 0);
  for (std::size_t k = 0; k < files.size(); ++k)
    EXPECT_TRUE(workplace.read(files[k]) == first[k]) << files[k];
}

TEST(Job, ItsFolderIsWhereItWorks) {
  const test::Workplace workplace;
  std::filesystem::create_directory(workplace / "there");
  workplace.put_data();
  std::filesystem::rename(workplace / "data.csv", workplace / "there/data.csv");
  workplace.write("there/small.job.toml", small_job);
  EXPECT_EQ(workplace.run("job there/small.job.toml").status, 0);
  EXPECT_TRUE(workplace.has("there/page.html"));
  EXPECT_FALSE(workplace.has("page.html"));
}

TEST(Job, CheckDoesNothing) {
  const test::Workplace workplace;
  workplace.write("small.job.toml", small_job);
  const json job = test::json_answer(workplace, "job small.job.toml --check");
  EXPECT_EQ(job["steps"][0]["outcome"], "planned");
  EXPECT_FALSE(workplace.has("page.html"));
}

// One that cannot be done takes those that wait for it along, no others.
TEST(Job, AFailureStopsOnlyWhatWaitsForIt) {
  const test::Workplace workplace;
  workplace.write("broken.job.toml", R"(report = "page.md"
[[step]]
name = "fit"
command = "regress"
data = "nowhere.csv"
out = "fitted.pairs.toml"

[[step]]
name = "boiling"
command = "txy"
substances = ["methanol", "water"]
parameters = "fitted.pairs.toml"
pressure = "1 atm"

[[step]]
name = "other"
command = "azeotropes"
substances = ["ethanol", "water"]
liquid = "unifac"
pressure = "1 atm"
)");
  const test::Ran ran = workplace.run("job broken.job.toml --json");
  EXPECT_EQ(ran.status, 2);
  EXPECT_NE(ran.err.find("line 2, step 'fit'"), std::string::npos) << ran.err;
  EXPECT_NE(ran.err.find("nowhere.csv"), std::string::npos) << ran.err;
  const json job = json::parse(ran.out);
  EXPECT_EQ(job["steps"][0]["outcome"], "failed");
  EXPECT_EQ(job["steps"][1]["outcome"], "skipped");
  EXPECT_EQ(job["steps"][2]["outcome"], "done");
  EXPECT_NE(workplace.read("page.md").find("not-done"), std::string::npos);
}

TEST(Job, FaultsAreNamedWithTheirLine) {
  const test::Workplace workplace;
  const auto step = [&](const std::string& name, const std::string& text) {
    workplace.write(name, "[[step]]\ncommand = \"txy\"\nsubstances = [\"ethanol\", \"water\"]\n" + text);
    return "job " + name;
  };
  workplace.write("command.toml", "[[step]]\ncommand = \"txi\"\n");
  workplace.write("root.toml", "titel = \"x\"\n[[step]]\ncommand = \"txy\"\n");
  workplace.write("twice.toml", "[[step]]\ncommand = \"demo\"\n");
  workplace.write("circle.toml",
                  "[[step]]\nname = \"a\"\ncommand = \"find\"\nabout = \"x\"\nafter = \"b\"\n"
                  "[[step]]\nname = \"b\"\ncommand = \"find\"\nabout = \"y\"\nafter = \"a\"\n");
  workplace.write("same.toml",
                  "[[step]]\ncommand = \"find\"\nabout = \"x\"\n[[step]]\ncommand = "
                  "\"find\"\nabout = \"y\"\n");
  workplace.write("mixture.toml",
                  "[mixture]\nsubstances = [\"a\", \"b\"]\nliqid = \"nrtl\"\n[[step]]\n"
                  "command = \"txy\"\n");
  test::expect_refused(workplace, {{"job nowhere.job.toml", "nowhere.job.toml"},
                                   {"job command.toml", "command.toml, line 1"},
                                   {"job command.toml", "Did you mean txy"},
                                   {"job root.toml", "Did you mean title"},
                                   {"job twice.toml", "not a command that can be a step"},
                                   {"job circle.toml", "waits for itself"},
                                   {"job same.toml", "already"},
                                   {"job mixture.toml", "liquid"},
                                   {step("key.toml", "presure = \"1 atm\"\n"), "line 4"},
                                   {step("near.toml", "presure = \"1 atm\"\n"), "pressure"},
                                   {step("flag.toml", "overview = \"yes\"\n"), "true or false"},
                                   {step("value.toml", "pressure = true\n"), "needs a value"},
                                   {step("after.toml", "after = \"nothing\"\n"), "not a step"},
                                   {step("toml.toml", "pressure = \n"), "not valid TOML"}});
}

TEST(MixtureFile, StandsWhereNamesStand) {
  const test::Workplace workplace;
  std::filesystem::create_directory(workplace / "mixtures");
  workplace.write("mixtures/k.csv", "first,second,k_ij\nethane,n-butane,0.05\n");
  workplace.write("mixtures/gases.mixture.toml",
                  "name = \"gases\"\nsubstances = [\"ethane\", \"n-butane\"]\nliquid = \"eos\"\nvapour = "
                  "\"pr\"\ninteractions = \"k.csv\"\nlabel = \"n-butane=C4\"\n");
  const json from_file =
      test::json_answer(workplace, "pxy mixtures/gases.mixture.toml --temperature '60 degC' --points 5");
  const json by_hand = test::json_answer(workplace,
                                         "pxy ethane n-butane --liquid eos --vapour pr --interactions "
                                         "mixtures/k.csv --temperature '60 degC' --points 5");
  EXPECT_EQ(from_file["curves"][0]["points"], by_hand["curves"][0]["points"]);
  // What is given beside it wins.
  const json other = test::json_answer(
      workplace, "pxy mixtures/gases.mixture.toml --vapour srk --temperature '60 degC' --points 5");
  EXPECT_NE(other["curves"][0]["points"], by_hand["curves"][0]["points"]);
  workplace.write("three.mixture.toml", "substances = [\"ethane\", \"propane\", \"n-butane\"]\n");
  workplace.write("bad.mixture.toml", "substances = [\"ethane\", \"propane\"]\nliquids = \"nrtl\"\n");
  test::expect_refused(workplace, {{"txy three.mixture.toml --pressure '1 atm'", "two substances"},
                                   {"txy bad.mixture.toml --pressure '1 atm'", "line 2"},
                                   {"txy nowhere.mixture.toml --pressure '1 atm'", "nowhere.mixture.toml"},
                                   {"txy ethanol --pressure '1 atm'", "at least two"}});
}

TEST(MixtureFile, StandsInCommandsThatKnowNoModel) {
  const test::Workplace workplace;
  workplace.write("k.csv", "first,second,k_ij\npropane,n-hexane,0.02\n");
  workplace.write("gases.mixture.toml",
                  "substances = [\"propane\", \"n-hexane\"]\nliquid = \"eos\"\nvapour = \"srk\"\n"
                  "interactions = \"k.csv\"\n");
  const std::string state = " --composition propane=0.4 --temperature '80 degC' --pressure '5 bar'";
  const json from_file = test::json_answer(workplace, "fugacity gases.mixture.toml" + state);
  const json by_hand =
      test::json_answer(workplace, "fugacity propane n-hexane --vapour srk --interactions k.csv" + state);
  EXPECT_EQ(from_file["roots"], by_hand["roots"]);
  const json other = test::json_answer(workplace, "fugacity gases.mixture.toml --vapour pr" + state);
  EXPECT_EQ(other["roots"][0]["fluid"], "pr");
  const json usual = test::json_answer(workplace, "fugacity propane n-hexane" + state);
  EXPECT_EQ(usual["roots"][0]["fluid"], "pr");  // without a file

  workplace.write("pair.mixture.toml", "substances = [\"ethanol\", \"toluene\"]\n");
  const json estimate = test::json_answer(workplace, "estimate pair.mixture.toml");
  EXPECT_EQ(estimate["parameters"], test::json_answer(workplace, "estimate ethanol toluene")["parameters"]);
  test::expect_refused(workplace, {{"estimate nowhere.mixture.toml", "nowhere.mixture.toml"},
                                   {"fugacity nowhere.mixture.toml" + state, "nowhere.mixture.toml"}});
}

TEST(Job, WhatNoStepUsesOfTheMixtureIsSaid) {
  const test::Workplace workplace;
  const auto job = [&](const std::string& command) {
    workplace.write("one.job.toml",
                    "[mixture]\nsubstances = [\"1-butanol\", \"water\"]\nvapour = \"virial\"\n"
                    "[[step]]\ncommand = \"" +
                        command);
    return test::json_answer(workplace, "job one.job.toml");
  };
  const auto said = [](const json& answer) {
    for (const json& notice : answer["notices"]) {
      if (notice["code"] == "mixture-key-unused") return notice["text"].get<std::string>();
    }
    return std::string();
  };
  const std::string unused = said(job("solubility\"\ntemperature = \"25 degC\"\n"));
  EXPECT_NE(unused.find("'vapour' of the mixture (line 3)"), std::string::npos) << unused;
  EXPECT_EQ(said(job("azeotropes\"\nliquid = \"unifac\"\npressure = \"1 atm\"\n")), "");
  const std::string all = said(job("find\"\nabout = \"water\"\n"));
  EXPECT_NE(all.find("'substances'"), std::string::npos) << all;
}

TEST(Job, ThePageBeginsWithWhatThereIs) {
  const test::Workplace workplace;
  workplace.put_data();
  workplace.write("small.job.toml", small_job);
  ASSERT_EQ(workplace.run("job small.job.toml").status, 0);
  const std::string page = workplace.read("page.html");
  EXPECT_LT(page.find("<nav>"), page.find("<h2"));
  for (const char* part : {"#part-1\">boiling", "#part-2\">fit", "#part-3\">drawn", "#part-4\">flash"})
    EXPECT_NE(page.find(part), std::string::npos) << part;
  EXPECT_EQ(page.find("(--csv writes all)"), std::string::npos);  // a page has no options
}

// The same job on one core and on all of them.
TEST(Job, ThreadsDoNotChangeTheBytes) {
  const test::Workplace workplace;
  workplace.put_data();
  workplace.write("small.job.toml", small_job);
  ASSERT_EQ(workplace.run("job small.job.toml --threads 1").status, 0);
  const std::string page = workplace.read("page.html"), pairs = workplace.read("fitted.pairs.toml"),
                    book = workplace.read("txy.xlsx");
  ASSERT_EQ(workplace.run("job small.job.toml --threads 4").status, 0);
  EXPECT_TRUE(workplace.read("page.html") == page);
  EXPECT_TRUE(workplace.read("fitted.pairs.toml") == pairs);
  EXPECT_TRUE(workplace.read("txy.xlsx") == book);
}

}  // namespace
}  // namespace jampot
