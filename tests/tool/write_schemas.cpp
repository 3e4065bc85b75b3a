// Writes docs/schemas from thousands of answers of the built tool; `scripts/schemas` runs it. The tests hold
// the answers of every run against them, so that a key that comes, goes or changes its type shows there
// first.
#include <cstdio>
#include <random>

#include "command_words.hpp"
#include "commands.hpp"
#include "jampot/files/program.hpp"
#include "schema.hpp"

namespace {

using namespace jampot;
using Answers = std::map<std::string, std::vector<test::Json>>;

class NoPresenter final : public tool::Presenter {
  void show(const Answer&, const Presentation&) override {}
};

// Random options bring out keys that the requests of the tests do not have.
void add_random_answers(Answers& answers, int count) {
  const test::Workplace workplace;
  workplace.put_data();
  std::filesystem::current_path(workplace.folder());
  tool::Commands described;
  NoPresenter nobody;
  tool::add_calculations(described, nobody);
  std::mt19937 random(20);
  std::uniform_int_distribution<int> byte(0, 255);
  for (int k = 0; k < count; ++k) {
    std::string bytes(300, '\0');
    for (char& c : bytes) c = static_cast<char>(byte(random));
    fuzz::Choices choices(bytes);
    std::vector<std::string> words = fuzz::random_words(choices, described);
    const std::string command = words.empty() ? "" : words.front();
    if (!answers.contains(command)) continue;
    words.insert(words.begin(), JAMPOT_TOOL);
    words.insert(words.begin() + 2, "--json");
    const ProgramOutput ran = run_program(words, {}, {20, {}});
    if (ran.status == 0 && ran.out.starts_with('{')) answers[command].push_back(test::Json::parse(ran.out));
  }
  std::filesystem::current_path("/");
}

// What every answer begins and ends with is of one kind in all commands.
test::Json common_properties(const Answers& answers) {
  test::Json common = test::Json::object();
  for (const char* key : {"in_words", "models", "notices", "parameters", "substances"}) {
    std::vector<const test::Json*> values;
    for (const auto& [command, list] : answers) {
      for (const test::Json& answer : list) {
        if (answer.contains(key)) values.push_back(&answer[key]);
      }
    }
    common[key] = test::schema_of(values, key);
  }
  return common;
}

}  // namespace

int main() {
  Answers answers = test::answers_of_all_commands();
  add_random_answers(answers, 6000);
  const test::Json common = common_properties(answers);
  for (const auto& [command, list] : answers) {
    std::vector<const test::Json*> all;
    for (const test::Json& answer : list) all.push_back(&answer);
    test::Json schema = test::schema_of(all, "");
    for (const auto& [key, value] : common.items()) schema["properties"][key] = value;
    nlohmann::ordered_json document;
    document["$schema"] = "http://json-schema.org/draft-07/schema#";
    document["title"] = "The answer of jampot " + command + " --json";
    document["type"] = "object";
    for (const char* key : {"command", "substances", "models", "parameters", "notices"})
      document["required"].push_back(key);
    document["properties"] = schema["properties"];
    document["properties"]["command"]["const"] = command;
    write_file(JAMPOT_SOURCE_DIR "/docs/schemas/" + command + ".schema.json", document.dump(1) + "\n");
  }
  return testing::Test::HasFailure() ? 1 : 0;
}
