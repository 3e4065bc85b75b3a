#include "command_line.hpp"

#include <cstdlib>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "command_words.hpp"
#include "commands.hpp"
#include "fault.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/files/text_file.hpp"
#include "parser.hpp"
#include "presenter.hpp"

namespace jampot::fuzz {
namespace {

class Checker final : public tool::Presenter {
  void show(const Answer& answer, const Presentation&) override {
    demand_numbers(answer);
    json_text(*answer.json);
    for (const Table& table : answer.tables) as_text(table, {});
    if (answer.figure) gnuplot_script(*answer.figure, "f.svg");
  }
  bool shows_progress() const override { return false; }
};

// Data for the commands that read some, in a folder of its own.
void enter_folder() {
  static const bool entered = [] {
    std::string pattern = (std::filesystem::temp_directory_path() / "jampot-fuzz-XXXXXX").string();
    if (mkdtemp(pattern.data()) == nullptr) std::abort();
    std::filesystem::current_path(pattern);
    write_file(
        "data.csv",
        "# substances: MTBE, methanol\nT [degC], P [kPa], x1, y1\n63.06, 101.35, 0.0183, 0.0782\n60.99, "
        "101.39, 0.0534, 0.1776\n54, 101.3, 0.25, 0.47\n51.4, 101.3, 0.6, 0.65\n52, 101.3, 0.86, 0.8\n");
    write_file(
        "lle.csv",
        "# substances: 1-butanol, water\nT [degC], x1_alpha, x1_beta\n20, 0.49, 0.02\n40, 0.46, 0.018\n");
    return true;
  }();
  if (!entered) std::abort();
}

}  // namespace

void command_line(std::string_view bytes) {
  enter_folder();
  tool::Commands commands;
  Checker checker;
  tool::add_calculations(commands, checker);
  Choices choices(bytes);
  const std::vector<std::string> words = random_words(choices, commands);
  // The gate of the tool, which stands before the commands.
  for (const std::string& word : words) {
    if (!unreadable(word, Lines::one).empty() || word.size() > 4000) return;
  }
  try {
    tool::Parser(commands).run(words);
  } catch (...) {
    const tool::Fault fault = tool::fault_of(std::current_exception());
    if (fault.message.find("fault of the program") != std::string::npos) {
      for (const std::string& word : words) std::fprintf(stderr, "'%s' ", word.c_str());
      std::fprintf(stderr, "\n%s\n", fault.message.c_str());
      std::abort();
    }
  }
}

}  // namespace jampot::fuzz
