// What every command owes: JSON in SI with its sources, CSV that reads back, workbooks, pictures, units,
// help.
#include <cmath>
#include <map>
#include <sstream>

#include "jampot/basis/csv.hpp"
#include "jampot/basis/text.hpp"
#include "requests.hpp"

namespace jampot {
namespace {

using nlohmann::json;
using test::demo_place;
using test::Request;

class EveryCommand : public testing::TestWithParam<Request> {
 protected:
  static json answer() { return test::json_answer(demo_place(), GetParam().arguments); }
  /// The file that the request writes with this option.
  static std::string written(const std::string& option, const std::string& file,
                             const std::string& more = "") {
    const test::Ran ran = demo_place().run(GetParam().arguments + " " + option + " '" + file + "' " + more);
    EXPECT_EQ(ran.status, 0) << ran.err;
    return demo_place().has(file) ? demo_place().read(file) : "";
  }
};

// Numbers that stand under keys with a unit or the name of a fraction, wherever they are.
void check_numbers(const json& node, const std::string& key, const std::string& path) {
  if (node.is_object()) {
    for (const auto& [name, value] : node.items()) check_numbers(value, name, path + "/" + name);
  } else if (node.is_array()) {
    const bool fractions = (key == "x" || key == "y" || key == "w" || key == "x_alpha" || key == "z" ||
                            key == "w_liquid" || key == "w_vapour" || key == "feed_fractions") &&
                           node.size() > 1 && node[0].is_number();
    double sum = 0;
    for (const json& value : node) {
      if (fractions) {
        EXPECT_GE(value.get<double>(), -1e-12) << path;
        sum += value.get<double>();
      }
      check_numbers(value, key, path);
    }
    if (fractions) {
      EXPECT_NEAR(sum, 1, 1e-9) << path;
    }
  } else if (node.is_number()) {
    const double value = node.get<double>();
    EXPECT_TRUE(std::isfinite(value)) << path;
    if (path.find("/rms") != std::string::npos) return;  // deviations carry the unit of what they are of
    if (key == "T_K") {
      EXPECT_GT(value, 100) << path;
      EXPECT_LT(value, 2000) << path;
    } else if (key == "P_Pa") {
      EXPECT_GT(value, 0) << path;
    } else if (key == "gamma" || key == "K" || key == "phi") {
      EXPECT_GT(value, 0) << path;
    } else if (key == "residual" || key == "balance") {
      EXPECT_LT(std::abs(value), 1e-7) << path;
    }
  }
}

TEST_P(EveryCommand, JsonHasWhatIsPromisedInSi) {
  const json result = answer();
  for (const std::string& key : GetParam().keys) EXPECT_TRUE(result.contains(key)) << key;
  EXPECT_TRUE(GetParam().arguments.starts_with(result["command"].get<std::string>()));
  check_numbers(result, "", "");
  for (const json& parameter : result["parameters"]) {
    EXPECT_TRUE(parameter.contains("source")) << parameter;
    EXPECT_FALSE(parameter["source"].get<std::string>().empty()) << parameter;
    EXPECT_TRUE(parameter.contains("range_K")) << parameter;
  }
  for (const json& notice : result["notices"]) {
    EXPECT_FALSE(notice["code"].get<std::string>().empty());
    EXPECT_GT(notice["text"].get<std::string>().size(), 20u) << notice;
  }
}

TEST_P(EveryCommand, AsksTwiceHearsTheSame) {
  const test::Ran first = demo_place().run(GetParam().arguments + " --json"),
                  second = demo_place().run(GetParam().arguments + " --json");
  EXPECT_TRUE(first.out == second.out);
  EXPECT_EQ(first.err, second.err);
  EXPECT_EQ(first.out.front(), '{');  // nothing else on standard output
}

// Every table: a title, a header, rows of the same length. Numbers are numbers.
struct CsvBlock {
  std::string title;
  std::vector<std::string> header;
  std::vector<std::vector<std::string>> rows;
};

void read_blocks(const std::string& text, std::vector<CsvBlock>& blocks) {
  std::istringstream lines(text);
  bool fresh = true;
  for (std::string line; std::getline(lines, line);) {
    if (line.empty()) {
      fresh = true;
      continue;
    }
    if (fresh) blocks.emplace_back();
    fresh = false;
    if (line.starts_with("# ")) {
      blocks.back().title = line.substr(2);
      continue;
    }
    const CsvText text_of_line = parse_csv(line, "table");
    ASSERT_EQ(text_of_line.rows.size(), 1u) << line;
    const std::vector<std::string> fields = text_of_line.rows.front().copied();
    if (blocks.back().header.empty()) {
      blocks.back().header = fields;
    } else {
      blocks.back().rows.push_back(fields);
    }
  }
}

std::vector<CsvBlock> blocks_of(const std::string& text) {
  std::vector<CsvBlock> blocks;
  read_blocks(text, blocks);
  return blocks;
}

TEST_P(EveryCommand, TablesAsCsvReadBack) {
  const auto blocks = blocks_of(written("--csv", "tables.csv"));
  ASSERT_FALSE(blocks.empty());
  for (const CsvBlock& block : blocks) {
    EXPECT_FALSE(block.header.empty()) << block.title;
    for (const std::string& name : block.header) EXPECT_FALSE(name.empty()) << block.title;
    for (const auto& row : block.rows) {
      EXPECT_EQ(row.size(), block.header.size()) << block.title;
      for (const std::string& cell : row) {
        for (const char* none : {"nan", "-nan", "inf", "-inf"})
          EXPECT_NE(lower_case(cell), none) << block.title;
      }
    }
  }
}

TEST_P(EveryCommand, UnitsChangeTheUnitsOnly) {
  const auto usual = blocks_of(written("--csv", "usual.csv"));
  const auto other = blocks_of(written("--csv", "other.csv", "--units 'K, bar, kW, lb/h'"));
  ASSERT_EQ(usual.size(), other.size());
  int compared = 0;
  for (std::size_t b = 0; b < usual.size(); ++b) {
    ASSERT_EQ(usual[b].rows.size(), other[b].rows.size()) << usual[b].title;
    for (std::size_t c = 0; c < usual[b].header.size(); ++c) {
      const std::string &from = usual[b].header[c], &to = other[b].header[c];
      const bool T = from.ends_with("[degC]"), P = from.ends_with("[kPa]");
      if (!T && !P) continue;
      EXPECT_TRUE(to.ends_with(T ? "[K]" : "[bar]")) << from << " became " << to;
      for (std::size_t r = 0; r < usual[b].rows.size(); ++r) {
        const auto before = parse_number(usual[b].rows[r][c]), after = parse_number(other[b].rows[r][c]);
        ASSERT_EQ(before.has_value(), after.has_value()) << from;
        if (!before) continue;
        ++compared;
        EXPECT_NEAR(*after, T ? *before + 273.15 : *before / 100, 1e-8 * (1 + std::abs(*after))) << from;
      }
    }
  }
  if (GetParam().has_states) {
    EXPECT_GT(compared, 0);
  }
}

TEST_P(EveryCommand, WorkbooksAreArchivesWithTheSheetOfSources) {
  const std::string book = written("--xlsx", "tables.xlsx");
  ASSERT_GT(book.size(), 2000u);
  EXPECT_TRUE(book.starts_with("PK"));
  EXPECT_NE(book.find("xl/worksheets/sheet1.xml"), std::string::npos);
  EXPECT_NE(book.find("xl/worksheets/sheet2.xml"), std::string::npos);
}

unsigned number_at(const std::string& bytes, std::size_t at) {
  unsigned value = 0;
  for (std::size_t k = 0; k < 4; ++k) value = value << 8U | static_cast<unsigned char>(bytes[at + k]);
  return value;
}

class EveryDrawing : public EveryCommand {};

TEST_P(EveryDrawing, IsOfTheSizeOfAScreen) {
  const std::string svg = written("--figure", "figure.svg");
  EXPECT_NE(svg.find("<svg"), std::string::npos);
  EXPECT_NE(svg.find("</svg>"), std::string::npos);
  const std::string png = written("--figure", "figure.png");
  ASSERT_GT(png.size(), 5000u);
  EXPECT_EQ(png.substr(1, 3), "PNG");
  constexpr std::size_t width_in_header = 16, height_in_header = 20;
  // 1280x800, larger where there are many panels.
  EXPECT_GE(number_at(png, width_in_header), 1280u);
  EXPECT_LE(number_at(png, width_in_header), 1500u);
  EXPECT_GE(number_at(png, height_in_header), 800u);
  EXPECT_LE(number_at(png, height_in_header), 1100u);
  EXPECT_TRUE(written("--figure", "figure.pdf").starts_with("%PDF"));
}

TEST_P(EveryCommand, HelpShowsAnExample) {
  const std::string command = GetParam().arguments.substr(0, GetParam().arguments.find(' '));
  const test::Ran ran = demo_place().run(command + " --help");
  EXPECT_EQ(ran.status, 0);
  EXPECT_NE(ran.out.find("Example"), std::string::npos);
  EXPECT_NE(ran.out.find("jampot " + command), std::string::npos);
}

TEST_P(EveryCommand, WhatItDoesNotKnowIsNamedBeforeAnythingIsDone) {
  const test::Ran option = demo_place().run(GetParam().arguments + " --jsno");
  EXPECT_EQ(option.status, 2);
  EXPECT_EQ(option.out, "");
  EXPECT_NE(option.err.find("--jsno"), std::string::npos) << option.err;
  const test::Ran folder = demo_place().run(GetParam().arguments + " --csv nowhere/at/all.csv");
  EXPECT_NE(folder.status, 0);
  EXPECT_EQ(folder.out, "");
  EXPECT_NE(folder.err.find("nowhere/at/all.csv"), std::string::npos) << folder.err;
  const test::Ran units = demo_place().run(GetParam().arguments + " --units furlong");
  EXPECT_EQ(units.status, 2);
  EXPECT_EQ(units.out, "");
}

std::vector<Request> drawing() {
  std::vector<Request> list;
  for (const Request& request : test::requests()) {
    if (request.draws) list.push_back(request);
  }
  return list;
}
INSTANTIATE_TEST_SUITE_P(All, EveryDrawing, testing::ValuesIn(drawing()),
                         [](const auto& tested) { return tested.param.name; });
INSTANTIATE_TEST_SUITE_P(All, EveryCommand, testing::ValuesIn(test::requests()),
                         [](const auto& tested) { return tested.param.name; });

// Both bases are always in the JSON, so that mole is not taken for mass.
TEST(Contract, JsonOfPhasesHasBothBases) {
  for (const Request& request : test::requests()) {
    if (request.name != "bubble" && request.name != "dew" && request.name != "txy" &&
        request.name != "split" && request.name != "flash" && request.name != "solubility" &&
        request.name != "azeotropes")
      continue;
    const std::string text = test::json_answer(demo_place(), request.arguments).dump();
    EXPECT_TRUE(text.find("\"w\"") != std::string::npos || text.find("\"w_") != std::string::npos)
        << request.name;
  }
}

TEST(Contract, WithoutACommandTheToolSaysWhatThereIs) {
  const test::Workplace workplace;
  const test::Ran nothing = workplace.run(""), help = workplace.run("help"),
                  version = workplace.run("--version");
  for (const Request& request : test::requests()) {
    const std::string command = request.arguments.substr(0, request.arguments.find(' '));
    EXPECT_NE(help.out.find("  " + command), std::string::npos) << command;
  }
  EXPECT_EQ(help.status, 0);
  EXPECT_EQ(nothing.status, 2);
  EXPECT_NE((nothing.out + nothing.err).find("help"), std::string::npos);
  EXPECT_EQ(version.status, 0);
  EXPECT_NE(version.out.find('.'), std::string::npos);
  test::expect_refused(workplace, {{"txi MTBE methanol", "txi"}, {"residu a b c", "residu"}});
}

}  // namespace
}  // namespace jampot
