// Where files go, what is kept of them, and what happens where they cannot be written.
#include <fcntl.h>
#include <fmt/format.h>
#include <sys/stat.h>
#include <unistd.h>

#include "run_tool.hpp"

namespace jampot::test {
namespace {

namespace fs = std::filesystem;

const std::string step =
    "[[step]]\ncommand = 'txy'\nsubstances = ['ethanol', 'water']\nliquid = 'unifac'\npressure = '1 "
    "atm'\npoints = 11\n";

TEST(SafeFiles, AJobWritesInItsFolderOnly) {
  const Workplace workplace;
  fs::create_directories(workplace / "job/below");
  fs::create_directory(workplace / "outside");
  fs::create_symlink("../outside", workplace / "job/link");
  const std::vector<std::string> outside{"../t.csv", (workplace / "t.csv").string(), "below/../../t.csv",
                                         "link/t.csv"};
  for (const std::string& name : outside) {
    workplace.write("job/a.job.toml", step + "csv = '" + name + "'\n");
    for (const char* how : {"", "--check "}) {
      const Ran ran = workplace.run(std::string("job ") + how + "job/a.job.toml");
      EXPECT_EQ(ran.status, 2) << name;
      EXPECT_NE(ran.err.find("outside of the folder"), std::string::npos) << ran.err;
    }
    EXPECT_FALSE(workplace.has("t.csv"));
    EXPECT_FALSE(workplace.has("outside/t.csv"));
  }
  workplace.write("job/a.job.toml", step + "csv = '../t.csv'\n");
  EXPECT_EQ(workplace.run("job --allow-outside job/a.job.toml").status, 0);
  EXPECT_TRUE(workplace.has("t.csv"));
  workplace.write("job/a.job.toml", "report = '../r.html'\n" + step);
  EXPECT_EQ(workplace.run("job job/a.job.toml").status, 2);
  workplace.write("job/a.job.toml", step + "csv = 'below/t.csv'\n");
  EXPECT_EQ(workplace.run("job job/a.job.toml").status, 0);
}

TEST(SafeFiles, NoInputIsOverwrittenAndNoTwoOutputsAreOne) {
  const Workplace workplace;
  workplace.put_data();
  fs::create_hard_link(workplace / "data.csv", workplace / "twin.csv");
  fs::create_symlink("data.csv", workplace / "link.csv");
  workplace.write("m.mixture.toml", "substances = ['MTBE', 'methanol']\nparameters = 'p.pairs.toml'\n");
  workplace.write(
      "p.pairs.toml",
      "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE', 'methanol']\ntau_12 = 0.7\ntau_21 = 0.6\nalpha = "
      "0.3\n");
  const std::string before = workplace.read("data.csv"), pairs = workplace.read("p.pairs.toml");
  expect_refused(workplace,
                 {{"data data.csv --csv data.csv", "'data.csv' is an input of this request"},
                  {"data data.csv --csv ./data.csv", "would be overwritten"},
                  {"data data.csv --out twin.csv", "would be overwritten"},
                  {"regress data.csv --csv link.csv", "would be overwritten"},
                  {"txy m.mixture.toml --pressure '1 atm' --csv p.pairs.toml", "would be overwritten"},
                  {"txy m.mixture.toml --pressure '1 atm' --csv m.mixture.toml", "would be overwritten"},
                  {"regress data.csv --csv out.txt --xlsx ./out.txt", "are one file"}});
  workplace.write("a.job.toml", "[[step]]\ncommand = 'regress'\ndata = 'data.csv'\ncsv = './data.csv'\n");
  workplace.write("b.job.toml", step + "csv = 'b.job.toml'\n");
  workplace.write("c.job.toml", step + "csv = 'x.csv'\nxlsx = './x.csv'\n");
  workplace.write("d.job.toml", "report = 'x.html'\n" + step + "csv = 'x.html'\n");
  workplace.write("e.job.toml", "report = ['x.html', './x.html']\n" + step);
  workplace.write("f.job.toml", "report = 'x.doc'\n" + step);
  workplace.write("g.job.toml", "report = 'data.csv'\n" + step + "measured = 'data.csv'\n");
  expect_refused(workplace, {{"job a.job.toml", "would be overwritten"},
                             {"job b.job.toml", "is the job itself"},
                             {"job c.job.toml", "is written by the step 'txy' too"},
                             {"job d.job.toml", "is written by"},
                             {"job e.job.toml", "is written by a report too"},
                             {"job f.job.toml", ".md or .html"},
                             {"job --check f.job.toml", ".md or .html"},
                             {"job g.job.toml", "'data.csv'"}});
  EXPECT_EQ(workplace.read("data.csv"), before);
  EXPECT_EQ(workplace.read("p.pairs.toml"), pairs);
}

// "./f" and "f" are one file: the second step waits for the first, also when an old file is there.
TEST(SafeFiles, DependenciesAreFoundByFileNotByText) {
  const Workplace workplace;
  workplace.put_data();
  workplace.write("a.job.toml",
                  "[[step]]\nname = 'use'\ncommand = 'txy'\nsubstances = ['MTBE', 'methanol']\nparameters = "
                  "'./f.pairs.toml'\npressure = '1 atm'\n"
                  "[[step]]\nname = 'fit'\ncommand = 'regress'\ndata = 'data.csv'\nout = 'f.pairs.toml'\n");
  const nlohmann::json plan = json_answer(workplace, "job --check a.job.toml");
  EXPECT_EQ(plan["steps"][0]["waits_for"], nlohmann::json::array({"fit"}));
  EXPECT_EQ(plan["steps"][1]["reads"], nlohmann::json::array({"data.csv"}));
  EXPECT_EQ(plan["steps"][1]["files"], nlohmann::json::array({"f.pairs.toml"}));
  EXPECT_EQ(workplace.run("job a.job.toml").status, 0);
}

TEST(SafeFiles, WhatCannotBeWrittenIsSaid) {
  const Workplace workplace;
  for (const char* arguments : {"find etyl > /dev/full", "find etyl --json > /dev/full", "help > /dev/full",
                                "--version > /dev/full", "find etyl >&-"}) {
    const std::string command = "cd '" + workplace.folder().string() + "' && '" JAMPOT_TOOL "' " + arguments +
                                (std::string(arguments).ends_with("-") ? "" : "") + " 2> err";
    const int status = std::system(command.c_str());
    EXPECT_EQ(WEXITSTATUS(status), 1) << arguments;
    EXPECT_NE(workplace.read("err").find("standard output cannot be written"), std::string::npos)
        << arguments;
  }
  const Ran full = workplace.run("find etyl --csv /dev/full");
  EXPECT_EQ(full.status, 1);
  EXPECT_NE(full.err.find("no space left on device"), std::string::npos) << full.err;
  const std::string closed = "'" JAMPOT_TOOL "' find zzzzz 2>&- > /dev/null";
  EXPECT_EQ(WEXITSTATUS(std::system(closed.c_str())), 1);
  const std::string both = "'" JAMPOT_TOOL "' find etyl <&- >&- 2>&-";
  EXPECT_EQ(WEXITSTATUS(std::system(both.c_str())), 1);
}

// A limit on the size of files: the message of the system, and nothing half-written.
TEST(SafeFiles, ALimitOnTheSizeOfFiles) {
  const Workplace workplace;
  const std::string command = "cd '" + workplace.folder().string() +
                              "' && (ulimit -f 1; '" JAMPOT_TOOL
                              "' txy ethanol water --liquid unifac --pressure '1 atm' --points 201 --csv "
                              "big.csv 2>&1 >/dev/null | cat) > out";
  EXPECT_EQ(std::system(command.c_str()), 0);
  EXPECT_NE(workplace.read("out").find("big.csv: the file cannot be written: file too large"),
            std::string::npos)
      << workplace.read("out");
  EXPECT_FALSE(workplace.has("big.csv"));
  for (const auto& entry : fs::directory_iterator(workplace.folder()))
    EXPECT_EQ(entry.path().extension(), fs::path()) << entry.path();
}

TEST(SafeFiles, PermissionsAreKeptAndRespected) {
  const Workplace workplace;
  workplace.write("private.csv", "old");
  fs::permissions(workplace / "private.csv", fs::perms::owner_read | fs::perms::owner_write);
  EXPECT_EQ(workplace.run("find etyl --csv private.csv").status, 0);
  EXPECT_EQ(fs::status(workplace / "private.csv").permissions(),
            fs::perms::owner_read | fs::perms::owner_write);
  workplace.write("fixed.csv", "old");
  fs::permissions(workplace / "fixed.csv", fs::perms::owner_read);
  const Ran ran = workplace.run("find etyl --csv fixed.csv");
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.err.find("write-protected"), std::string::npos) << ran.err;
  EXPECT_EQ(workplace.read("fixed.csv"), "old");
  // Of two names of one file the one given gets the new text.
  workplace.write("one.csv", "old");
  fs::create_hard_link(workplace / "one.csv", workplace / "two.csv");
  EXPECT_EQ(workplace.run("find etyl --csv one.csv").status, 0);
  EXPECT_EQ(workplace.read("two.csv"), "old");
}

TEST(SafeFiles, TheFolderForTemporaryFilesIsTheOneNamed) {
  const Workplace workplace;
  const Ran ran = workplace.run("find etyl --xlsx t.xlsx", "TMPDIR=/nowhere");
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.err.find("/nowhere"), std::string::npos) << ran.err;
  fs::create_directory(workplace / "tmp");
  EXPECT_EQ(workplace.run("find etyl --xlsx t.xlsx", "TMPDIR=$PWD/tmp").status, 0);
  EXPECT_TRUE(fs::is_empty(workplace / "tmp"));
}

TEST(SafeFiles, FoldersOfJobsWithFaults) {
  const Workplace workplace;
  fs::create_directories(workplace / "jobs/closed");
  workplace.write("jobs/-x.job.toml", step);
  workplace.write("jobs/good.job.toml", step);
  // The superuser reads everything, so somebody else runs it.
  fs::permissions(workplace.folder(), fs::perms::all);
  fs::permissions(workplace / "jobs/closed", fs::perms::none);
  const bool superuser = geteuid() == 0;
  const std::string who = superuser ? "setpriv --reuid=65534 --clear-groups" : "";
  const Ran ran = workplace.run("job jobs --json", who);
  const nlohmann::json answer = nlohmann::json::parse(ran.out);
  ASSERT_EQ(answer["jobs"].size(), 3u);
  EXPECT_EQ(answer["jobs"][0]["outcome"], "done") << ran.err;
  EXPECT_EQ(answer["jobs"][1]["outcome"], "failed");
  EXPECT_EQ(answer["jobs"][1]["message"], "the folder cannot be read: permission denied");
  EXPECT_EQ(answer["jobs"][2]["outcome"], "done");
  EXPECT_EQ(ran.status, 1);
  fs::permissions(workplace / "jobs/closed", fs::perms::owner_all);
}

// A file that is no table of ours is not quoted, neither on the screen nor in a report.
TEST(SafeFiles, WhatASecretFileHoldsIsNotRepeated) {
  const Workplace workplace;
  const std::string secret = "tok3n-of-somebody";
  workplace.write("secret", secret + "\nsecond " + secret + "\n");
  workplace.write("secret.toml", secret + "\n");
  workplace.write("key", "-----BEGIN KEY-----\n" + secret + "==\n-----END KEY-----\n");
  for (const char* file : {"secret", "key"}) {
    for (const char* arguments :
         {"data ", "consistency ", "regress ",
          "txy ethanol water --liquid unifac --pressure "
          "'1 atm' --measured ",
          "bubble ethanol water --liquid unifac --pressure '1 atm' "
          "--composition ",
          "find x --substance ", "txy ethanol water --liquid unifac --pressure '1 atm' --expect ",
          "ternary water ethanol benzene --liquid unifac --temperature '25 degC' --mark-file ",
          "txy ethanol water --pressure '1 atm' --parameters ",
          "txy ethanol water --liquid unifac --vapour pr --pressure '1 atm' --interactions "}) {
      const Ran ran = workplace.run(std::string(arguments) + file);
      EXPECT_EQ(ran.status, 2) << arguments;
      EXPECT_EQ(ran.err.find(secret), std::string::npos) << ran.err;
    }
  }
  workplace.write("a.job.toml", "report = 'r.html'\n[[step]]\ncommand = 'data'\ndata = 'secret'\n");
  EXPECT_EQ(workplace.run("job a.job.toml").status, 2);
  EXPECT_EQ(workplace.read("r.html").find(secret), std::string::npos);
}

}  // namespace
}  // namespace jampot::test
