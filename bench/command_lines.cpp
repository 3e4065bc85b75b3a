// Thousands of random command lines through the built tool: it must end by itself with status 0, 1 or 2,
// within time and memory, with an answer of numbers or one message in words of ours; the JSON of an answer
// must obey the schema of its command. Ends with status 1 where one did not.
#include <fmt/format.h>
#include <sys/resource.h>

#include <chrono>
#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>
#include <random>

#include "answer_schema.hpp"
#include "arguments.hpp"
#include "command_words.hpp"
#include "commands.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/program.hpp"
#include "jampot/files/text_file.hpp"

namespace {

using namespace jampot;

class NoPresenter final : public tool::Presenter {
  void show(const Answer&, const Presentation&) override {}
};

// What is wrong with how it ended; empty where nothing is.
std::string fault_in(const ProgramOutput& ran, const std::vector<std::string>& words) {
  if (ran.out_of_time) return "too slow";
  if (ran.interrupted) return "ended by a signal";
  if (ran.status < 0 || ran.status > 2) return fmt::format("status {}", ran.status);
  if (ran.status > 0 && !ran.out.empty()) return "an answer and a fault";
  if (ran.status > 0 && ran.said.find("jampot: ") == std::string::npos) return "no message";
  if (ran.status == 0 && ran.out.empty()) return "no answer";
  for (const char* strange :
       {"fault of the program", "terminate", "Sanitizer", "boost::", "Error in function", "[json"}) {
    if (ran.said.find(strange) != std::string::npos) return strange;
  }
  // What was asked for is repeated: the name of a file may be "nan".
  if (std::find_if(words.begin(), words.end(), [](const std::string& word) {
        return lower_case(word).find("nan") != std::string::npos ||
               lower_case(word).find("inf") != std::string::npos;
      }) != words.end())
    return {};
  const std::string lower = lower_case(ran.out);
  for (const char* word : {" nan", " -nan", " inf", " -inf"}) {
    const std::size_t at = lower.find(word);
    if (at == std::string::npos) continue;
    const std::size_t end = at + std::string_view(word).size();
    if (end == lower.size() || std::isalpha(static_cast<unsigned char>(lower[end])) == 0) return "no number";
  }
  return {};
}

// What the schema of the command says of the same line's JSON; empty where it obeys.
std::string fault_in_json(std::vector<std::string> words) {
  static std::map<std::string, test::AnswerSchema> schemas;
  const std::string command = words[1];
  if (std::find(words.begin(), words.end(), "--jsonl") != words.end()) return {};
  if (std::find(words.begin(), words.end(), "--json") == words.end())
    words.insert(words.begin() + 2, "--json");
  const ProgramOutput ran = run_program(words, {}, {60, {}});
  if (ran.status != 0) return "not as JSON";
  if (!schemas.contains(command)) schemas.emplace(command, test::schema_of_command(command));
  return schemas.at(command).fault_of(nlohmann::json::parse(ran.out));
}

}  // namespace

int main(int argc, char** argv) {
  bench::Arguments arguments("Random command lines through the built tool");
  int count = 1000, seed = 1;
  std::string tool_path = "build/release/jampot";
  arguments.count("count", count, "How many");
  arguments.count("seed", seed, "Of all of them");
  arguments.text("tool", tool_path, "What to call");
  if (const auto status = arguments.read(argc, argv)) return *status;

  tool::Commands described;
  NoPresenter nobody;
  tool::add_calculations(described, nobody);
  tool_path = std::filesystem::absolute(tool_path).string();
  std::string folder = (std::filesystem::temp_directory_path() / "jampot-lines-XXXXXX").string();
  if (mkdtemp(folder.data()) == nullptr) return 1;
  std::filesystem::current_path(folder);
  write_file("data.csv",
             "# substances: MTBE, methanol\nT [degC], P [kPa], x1, y1\n63.06, 101.35, 0.0183, 0.0782\n60.99, "
             "101.39, "
             "0.0534, 0.1776\n54, 101.3, 0.25, 0.47\n51.4, 101.3, 0.6, 0.65\n52, 101.3, 0.86, 0.8\n");
  write_file(
      "lle.csv",
      "# substances: 1-butanol, water\nT [degC], x1_alpha, x1_beta\n20, 0.49, 0.02\n40, 0.46, 0.018\n");

  std::mt19937 random(static_cast<unsigned>(seed));
  std::uniform_int_distribution<int> byte(0, 255);
  std::map<int, int> by_status;
  std::map<std::string, double> slowest;
  int faults = 0;
  double longest = 0;
  for (int k = 0; k < count; ++k) {
    std::string bytes(300, '\0');
    for (char& c : bytes) c = static_cast<char>(byte(random));
    fuzz::Choices choices(bytes);
    std::vector<std::string> words = fuzz::random_words(choices, described);
    words.insert(words.begin(), tool_path);
    const auto begin = std::chrono::steady_clock::now();
    const ProgramOutput ran = run_program(words, {}, {60, {}});
    const double seconds = std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
    ++by_status[ran.status];
    longest = std::max(longest, seconds);
    std::string fault = fault_in(ran, words);
    if (fault.empty() && seconds > 20) fault = fmt::format("{:.0f} s", seconds);
    if (fault.empty() && ran.status == 0) fault = fault_in_json(words);
    if (fault.empty()) continue;
    ++faults;
    fmt::print("{}:", fault);
    for (std::size_t w = 1; w < words.size(); ++w) fmt::print(" '{}'", words[w]);
    fmt::print("\n  {}\n", ran.said.substr(0, 300));
    std::fflush(stdout);
  }
  rusage children{};
  getrusage(RUSAGE_CHILDREN, &children);
  fmt::print("{} command lines, seed {}:", count, seed);
  for (const auto& [status, times] : by_status) fmt::print(" {} with status {},", times, status);
  fmt::print(" longest {:.1f} s, most memory {} MB, {} faults\n", longest, children.ru_maxrss / 1024, faults);
  std::filesystem::current_path("/");
  std::filesystem::remove_all(folder);
  return faults > 0 ? 1 : 0;
}
