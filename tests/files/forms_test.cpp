// Files in and out: cells, workbooks, programs, jobs as they stand, measured data in both forms.
#include <gtest/gtest.h>
#include <unistd.h>

#include <cmath>
#include <filesystem>
#include <map>
#include <random>

#include "jampot/basis/error.hpp"
#include "jampot/files/job_toml.hpp"
#include "jampot/files/known_words.hpp"
#include "jampot/files/measured.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/program.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/files/table.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/thermoml.hpp"
#include "jampot/files/unnamed_file.hpp"
#include "jampot/files/xlsx.hpp"
#include "support.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

class Folder : public testing::Test {
 protected:
  Folder() : folder_(fs::temp_directory_path() / ("jampot-forms-test-" + std::to_string(getpid()))) {
    fs::create_directories(folder_);
  }
  ~Folder() override { fs::remove_all(folder_); }
  fs::path folder_;
};

TEST(Cells, KeepTheDigitsThatMatter) {
  const DisplayUnits units;
  const auto text = [&](int decimals, double value) {
    return cell_text({"x", Dimension::fraction, decimals}, value, units);
  };
  EXPECT_EQ(text(5, 0.25), "0.25000");
  EXPECT_EQ(text(5, 0.0001312345), "0.0001312");
  EXPECT_EQ(text(5, 0.00012), "0.0001200");
  EXPECT_EQ(text(5, 2.5e-7), "2.5e-07");
  EXPECT_EQ(text(4, 0.0098765), "0.0099");
  EXPECT_EQ(text(4, 0.00012345), "0.0001234");
  EXPECT_EQ(text(4, 0), "0.0000");
  EXPECT_EQ(text(4, 1.6e-16), "0.0000");  // rounding, not a number to be read
  EXPECT_EQ(text(4, -1.6e-16), "0.0000");
  EXPECT_EQ(text(4, 123456789), "1.235e+08");
  EXPECT_EQ(text(2, 1e-5), "0.00");  // a temperature is no small number
  EXPECT_EQ(cell_text({"T", Dimension::temperature, 2}, 300.0, units), "26.85");
  EXPECT_EQ(cell_text({"dT", Dimension::temperature, 2, true}, 0.5, units), "0.50");
  EXPECT_EQ(cell_text({"a"}, std::string("words"), units), "words");
  EXPECT_EQ(cell_text({"a"}, std::monostate(), units), "");
}

TEST(Cells, AColumnOfNumbersStandsToTheRight) {
  const Table table{
      "", {{"a"}, {"b"}, {"c"}}, {{1.0, std::string("x"), std::monostate()}, {2.0, 3.0, std::monostate()}}};
  EXPECT_TRUE(is_numeric(table, 0));
  EXPECT_FALSE(is_numeric(table, 1));
  EXPECT_TRUE(is_numeric(table, 2));
}

TEST_F(Folder, WorkbooksAreTheSameBytesEveryTime) {
  const std::vector<Table> tables{
      {"First", {{"T", Dimension::temperature, 2}, {"remark"}}, {{300.0, std::string("warm")}}},
      {"First", {{"n"}}, {{1.5}, {std::monostate()}}}};  // one title twice
  write_xlsx(folder_ / "a.xlsx", tables, {});
  write_xlsx(folder_ / "b.xlsx", tables, {});
  const std::string a = read_file(folder_ / "a.xlsx");
  EXPECT_EQ(a, read_file(folder_ / "b.xlsx"));
  EXPECT_NE(a.find("sheet2.xml"), std::string::npos);
  EXPECT_THROW(write_xlsx(folder_ / "nowhere" / "c.xlsx", tables, {}), RequestError);
}

TEST(Programs, GiveBackWhatTheyWereGiven) {
  std::string long_text;
  for (int k = 0; k < 20000; ++k) long_text += "0123456789";
  const ProgramOutput copy = run_program({"cat"}, long_text);  // more than any pipe holds
  EXPECT_TRUE(copy.found);
  EXPECT_EQ(copy.status, 0);
  EXPECT_TRUE(copy.out == long_text);
  EXPECT_EQ(run_program({"sh", "-c", "echo said >&2; exit 7"}).status, 7);
  EXPECT_EQ(run_program({"sh", "-c", "echo said >&2"}).said, "said\n");
  EXPECT_FALSE(run_program({"no-program-of-this-name"}).found);
  EXPECT_TRUE(run_program({"sh", "-c", "kill -TERM $$"}).interrupted);
  // Nothing passes through a shell.
  EXPECT_EQ(run_program({"echo", "$HOME; `date` > x"}).out, "$HOME; `date` > x\n");
}

TEST(Programs, AFileWithoutANameHoldsItsText) {
  const UnnamedFile file("some text");
  EXPECT_EQ(file.text(), "some text");
  EXPECT_EQ(read_file(file.path()), "some text");
  EXPECT_GE(file.descriptor(), 0);
}

// Which of the two is the solute is what goes wrong most easily: names decide, not the order.
TEST(KnownWords, TwoLimitsBelongToTheirSolutes) {
  const Bank& bank = Bank::built_in();
  const std::vector<Substance> pair{bank.require("ethanol"), bank.require("water")};
  const auto read = [&](const std::string& text) { return read_ln_gamma_inf(text, pair, bank); };
  for (const char* text : {"ethanol in water = 4.5, water in ethanol = 2.6",
                           " H2O in ethyl alcohol=2.6 ,64-17-5 in water=4.5"}) {
    const auto ln_gamma = read(text);
    EXPECT_DOUBLE_EQ(ln_gamma[0], std::log(4.5)) << text;
    EXPECT_DOUBLE_EQ(ln_gamma[1], std::log(2.6)) << text;
  }
  for (const auto& [text, expected] : std::map<std::string, std::string>{
           {"ethanol in water = 4.5", "both limits"},
           {"ethanol in water = 4.5, ethanol in water = 4.6", "both limits"},
           {"ethanol in toluene = 4.5, water in ethanol = 2", "not about ethanol and water"},
           {"ethanol in ethanol = 1, water in ethanol = 2", "not about ethanol and water"},
           {"ethanol in water = 0, water in ethanol = 2", "SOLUTE in SOLVENT = GAMMA"},
           {"ethanol, water = 2", "SOLUTE in SOLVENT = GAMMA"},
           {"", "SOLUTE in SOLVENT = GAMMA"}}) {
    try {
      read(text);
      ADD_FAILURE() << text;
    } catch (const RequestError& error) {
      EXPECT_NE(std::string(error.what()).find(expected), std::string::npos) << text << ": " << error.what();
    }
  }
  EXPECT_THROW(read("ethanolene in water = 2, water in ethanol = 2"), UnknownSubstance);
  EXPECT_THROW(read_ln_gamma_inf("ethanol in water = 2, water in ethanol = 2", {pair[0]}, bank),
               RequestError);
}

TEST(JobText, IsReadInItsOrder) {
  const Job job = parse_job(R"(title = "A job"
note = "made up"
report = "r.html"
units = "bar, K"

[mixture]
name = "pair"
substances = ["ethanol", "water"]
liquid = "unifac"

[[step]]
name = "first"
command = "txy"
pressure = "1 atm"
points = 11
overview = true
after = ["second"]
heading = "Boiling"

[[step]]
name = "second"
command = "azeotropes"
pressure = ["1 bar", "2 bar"]
)",
                            "a.job.toml");
  EXPECT_EQ(job.title, "A job");
  EXPECT_EQ(job.note, "made up");
  EXPECT_EQ(job.units, "bar, K");
  EXPECT_EQ(job.reports, std::vector<std::string>{"r.html"});
  ASSERT_EQ(job.mixture.size(), 2u);  // its name is for the reader
  ASSERT_EQ(job.steps.size(), 2u);
  const JobStep& first = job.steps[0];
  EXPECT_EQ(first.line, 11);
  EXPECT_EQ(first.heading, "Boiling");
  EXPECT_EQ(first.after, std::vector<std::string>{"second"});
  ASSERT_EQ(first.settings.size(), 3u);
  EXPECT_EQ(first.settings[0].key, "pressure");
  EXPECT_EQ(first.settings[0].line, 14);
  EXPECT_EQ(first.settings[1].values, std::vector<std::string>{"11"});
  EXPECT_TRUE(first.settings[2].flag);
  EXPECT_TRUE(first.settings[2].given);
  EXPECT_EQ(job.steps[1].settings[0].values.size(), 2u);
}

TEST(JobText, FaultsCarryTheirLine) {
  for (const auto& [text, said] :
       {std::pair("titel = \"x\"\n[[step]]\ncommand = \"txy\"\n", "title"),
        std::pair("title = 3\n[[step]]\ncommand = \"txy\"\n", "title"),
        std::pair("[[step]]\ncomand = \"txy\"\n", "command"), std::pair("step = 1\n", "[[step]]"),
        std::pair("mixture = 2\n[[step]]\ncommand = \"txy\"\n", "mixture"),
        std::pair("[mixture]\nliquid = \"nrtl\"\n[[step]]\ncommand = \"txy\"\n", "substances"),
        std::pair("[[step]]\ncommand = \"txy\"\npressure = []\n", "empty list"),
        std::pair("title = \"x\"\n", "step")}) {
    try {
      parse_job(text, "a.job.toml");
      ADD_FAILURE() << text;
    } catch (const RequestError& error) {
      EXPECT_NE(std::string(error.what()).find(said), std::string::npos) << error.what();
      EXPECT_NE(std::string(error.what()).find("a.job.toml"), std::string::npos) << error.what();
    }
  }
}

TEST(MixtureText, IsReadByItsKeys) {
  const auto settings = parse_mixture_file(
      "name = \"n\"\nsubstances = [\"ethanol\", \"water\"]\nvapour = \"virial\"\ntranslate = false\n",
      "m.mixture.toml");
  ASSERT_EQ(settings.size(), 3u);
  EXPECT_THROW(parse_mixture_file("substances = [\"a\"]\nvapor = \"virial\"\n", "m.mixture.toml"),
               RequestError);
}

// Random data of every kind go out and come back in both forms.
DataSet random_set(std::mt19937_64& generator, DataKind kind) {
  std::uniform_real_distribution<double> unit(0.02, 0.98);
  DataSet data;
  data.name = "random";
  data.source = "made up";
  data.kind = kind;
  data.substances = substances_named({"ethanol", "water"});
  for (int k = 0; k < 6; ++k) {
    DataPoint point;
    point.T_K = 300 + 60 * unit(generator);
    point.u_T_K = 0.05;
    if (vapour_liquid(kind)) {
      point.P_Pa = isobaric(kind) ? 101325 : 2e4 + 8e4 * unit(generator);
      if (!isobaric(kind)) point.T_K = 330;
      point.u_P_Pa = 40;
    }
    const double x = unit(generator), y = unit(generator);
    const LiquidValue* value = describe(kind).value;
    point.x = {x, 1 - x};
    point.u_x = 0.001;
    if (has_vapour(kind)) {
      point.y = {y, 1 - y};
      point.u_y = 0.002;
    }
    if (kind == DataKind::lle) {
      point.x = {0.1 * x, 1 - 0.1 * x};
      point.y = {0.5 + 0.4 * y, 0.5 - 0.4 * y};
      point.u_y = 0.002;
    }
    if (value) {
      point.value = value->logarithmic ? 1 + 5 * x : -800 * x * (1 - x);
      point.u_value = 0.1;
      if (value->of_component) point.solute = k % 2;
    }
    if (value && value->dilute) {
      point.u_x = 0;
      point.solvent = 1 - point.solute;
      point.x = {point.solvent == 0 ? 1.0 : 0.0, point.solvent == 1 ? 1.0 : 0.0};
    }
    data.points.push_back(point);
  }
  return data;
}

TEST(BothForms, CarryEveryKindOfData) {
  std::mt19937_64 generator(77);
  for (const KindDescription& description : data_kinds()) {
    const DataKind kind = description.kind;
    const bool of_component = description.value && description.value->of_component;
    const DataSet data = random_set(generator, kind);
    std::vector<DataSet> read{parse_measured(measured_csv_text(data), "a.csv")};
    // What belongs to either component is two data sets there.
    const std::vector<DataSet> sets = parse_thermoml(thermoml_text({data}), "a.xml").sets;
    EXPECT_EQ(sets.size(), of_component ? 2u : 1u);
    read.push_back(sets.at(0));
    for (std::size_t k = 1; k < sets.size(); ++k)
      read.back().points.insert(read.back().points.end(), sets[k].points.begin(), sets[k].points.end());
    for (const DataSet& back : read) {
      EXPECT_EQ(back.kind, kind) << name_of(kind);
      ASSERT_EQ(back.points.size(), data.points.size()) << name_of(kind);
      const bool swapped = back.substances[0].name != data.substances[0].name;
      for (const DataPoint& point : data.points) {
        // The order of points may change; each must be there.
        const bool there = std::any_of(back.points.begin(), back.points.end(), [&](const DataPoint& other) {
          const auto near = [](double a, double b) { return std::abs(a - b) <= 1e-8 * (1 + std::abs(a)); };
          bool same = near(point.T_K, other.T_K) && near(point.value, other.value);
          if (vapour_liquid(kind)) same = same && near(point.P_Pa, other.P_Pa);
          if (of_component) same = same && point.solute == (swapped ? 1 - other.solute : other.solute);
          const std::size_t first = swapped ? 1 : 0;
          return same && near(point.x[0], other.x[first]) &&
                 (point.y.empty() || near(point.y[0], other.y[first]));
        });
        EXPECT_TRUE(there) << name_of(kind) << " at " << point.T_K;
      }
    }
  }
}

TEST(BothForms, ANumberChoosesOneOfSeveralSets) {
  std::mt19937_64 generator(78);
  const std::vector<DataSet> two{random_set(generator, DataKind::txy), random_set(generator, DataKind::lle)};
  const fs::path folder = fs::temp_directory_path() / ("jampot-two-sets-" + std::to_string(getpid()));
  fs::create_directories(folder);
  write_measured_file(folder / "two.xml", two);
  EXPECT_EQ(read_measured_file(folder / "two.xml").size(), 2u);
  EXPECT_EQ(read_measured_file(folder / "two.xml#2").at(0).kind, DataKind::lle);
  EXPECT_THROW(read_measured_file(folder / "two.xml#3"), RequestError);
  EXPECT_THROW(write_measured_file(folder / "two.csv", two), RequestError);
  EXPECT_THROW(write_measured_file(folder / "two.dat", two), RequestError);
  EXPECT_FALSE(fs::exists(folder / "two.csv"));
  fs::remove_all(folder);
}

TEST(PairsText, EstimatesAndPrintComeBack) {
  std::mt19937_64 generator(79);
  for (int k = 0; k < 20; ++k) {
    std::vector<PairParameters> pairs = test::random_nrtl_pairs(generator, 2);
    pairs[0].between = {"ethanol", "water"};
    pairs[0].estimated = k % 2 == 0;
    pairs[0].source = "random \"quoted\" # text";
    pairs[0].T_range_K = {280, 350};
    ParameterCollection back;
    parse_pairs(pairs_text(pairs), "a.pairs.toml", back);
    const auto found = back.find("nrtl", "ethanol", "water");
    ASSERT_TRUE(found);
    EXPECT_TRUE(found->same_values(pairs[0]));
    EXPECT_EQ(found->source, pairs[0].source);
    EXPECT_EQ(found->estimated, pairs[0].estimated);
    EXPECT_EQ(found->T_range_K, pairs[0].T_range_K);
  }
}

}  // namespace
}  // namespace jampot
