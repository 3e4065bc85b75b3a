// The JSON Schemas of docs/schemas, held against what the tool prints; and JSON Lines against the one object.
#include "schema.hpp"

#include "answer_schema.hpp"

namespace jampot {
namespace {

using test::AnswerSchema;
using test::Json;
using test::schema_file;
using test::schema_of_command;

// scripts/schemas writes them anew.
TEST(Schemas, EveryAnswerObeysTheSchemaOfItsCommand) {
  int held = 0;
  for (const auto& [command, answers] : test::answers_of_all_commands()) {
    ASSERT_TRUE(std::filesystem::exists(schema_file(command))) << command;
    const AnswerSchema schema = schema_of_command(command);
    for (const Json& answer : answers) {
      const std::string fault = schema.fault_of(answer);
      EXPECT_EQ(fault, "") << command;
      ++held;
    }
  }
  EXPECT_GT(held, 110);
}

// A schema that takes anything would be none.
TEST(Schemas, RefuseWhatIsNoAnswer) {
  const test::Workplace workplace;
  const Json good =
      test::json_answer(workplace, "bubble ethanol water --composition ethanol=0.4 --pressure '1 atm'");
  const AnswerSchema schema = schema_of_command("bubble");
  EXPECT_EQ(schema.fault_of(good), "");
  Json renamed = good;
  renamed["points"][0]["T_C"] = renamed["points"][0]["T_K"];
  EXPECT_NE(schema.fault_of(renamed), "");
  Json without = good;
  without["points"][0].erase("T_K");
  EXPECT_NE(schema.fault_of(without), "");
  Json words = good;
  words["points"][0]["T_K"] = "351 K";
  EXPECT_NE(schema.fault_of(words), "");
}

// Puts the lines together again.
Json joined_lines(const std::string& text) {
  std::istringstream lines(text);
  Json whole;
  for (std::string line; std::getline(lines, line);) {
    Json object = Json::parse(line);
    const std::string record = object.at("record");
    object.erase("record");
    if (record == "answer") {
      EXPECT_TRUE(whole.is_null()) << "the answer is not the first line";
      whole = object;
      continue;
    }
    // From the top down: at each step the list that the one before was opened in.
    const Json of = object.at("of");
    object.erase("of");
    std::vector<std::pair<std::string, std::size_t>> path;
    for (const auto& [list, number] : of.items()) path.emplace_back(list, number);
    Json* at = &whole;
    // Keys of an object are sorted when they are read; the nesting is found by what is there already.
    while (path.size() > 1) {
      const auto step = std::find_if(path.begin(), path.end(), [&](const auto& entry) {
        return entry.first != record && at->contains(entry.first) && (*at)[entry.first].size() > entry.second;
      });
      EXPECT_NE(step, path.end()) << line;
      if (step == path.end()) return whole;
      at = &(*at)[step->first][step->second];
      path.erase(step);
    }
    Json& list = (*at)[record];
    EXPECT_EQ(list.is_null() ? 0 : list.size(), path.front().second) << line;
    list.push_back(std::move(object));
  }
  return whole;
}

class JsonLines : public testing::TestWithParam<test::Request> {};

TEST_P(JsonLines, AreTheOneObjectInPieces) {
  const test::Ran lines = test::demo_place().run(GetParam().arguments + " --jsonl");
  ASSERT_EQ(lines.status, 0) << lines.err;
  EXPECT_EQ(joined_lines(lines.out), test::json_answer(test::demo_place(), GetParam().arguments));
}

INSTANTIATE_TEST_SUITE_P(All, JsonLines, testing::ValuesIn(test::requests()),
                         [](const auto& tested) { return tested.param.name; });

TEST(JsonLinesAlone, OneFormOfJsonAtATime) {
  const test::Workplace workplace;
  test::expect_refused(workplace, {{"find water --json --jsonl", "not both"}});
}

}  // namespace
}  // namespace jampot
