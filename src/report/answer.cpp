#include "jampot/report/answer.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "jampot/basis/error.hpp"

namespace jampot {

// Here once, and not in every file that uses one: they are long.
Answer::Answer() = default;
Answer::Answer(const Answer&) = default;
Answer::Answer(Answer&&) noexcept = default;
Answer& Answer::operator=(const Answer&) = default;
Answer& Answer::operator=(Answer&&) noexcept = default;
Answer::~Answer() = default;

Json plain_header(const std::string& command) {
  return {{"command", command},
          {"substances", Json::array()},
          {"models", Json::object()},
          {"parameters", Json::array()}};
}

std::string fraction_heading(char phase, const Substance& substance, Basis basis, std::string_view which) {
  const bool mole = basis == Basis::mole;
  if (which.empty() && !mole) which = phase == 'y' ? "vapour" : "liquid";
  return fmt::format("{}({}){}{}", mole ? phase : 'w', substance.short_name(), which.empty() ? "" : " ",
                     which);
}

Table thinned(const Table& table, std::size_t most) {
  const std::size_t rows = table.rows.size();
  if (rows <= most) return table;
  const std::size_t least = (rows - 2) / (most - 1) + 1;
  std::size_t step = least;  // preferably one that ends on the last row
  while ((rows - 1) % step != 0 && step < 2 * least) ++step;
  if ((rows - 1) % step != 0) step = least;
  Table shown{fmt::format("{}, 1 row in {} of {}{}", table.title, step, rows, all_rows_are_written),
              table.columns,
              {}};
  for (std::size_t k = 0; k < rows; k += step) shown.rows.push_back(table.rows[k]);
  if ((rows - 1) % step != 0) shown.rows.push_back(table.rows.back());
  return shown;
}

Table sources_table(const Answer& answer) {
  Table table{"Sources and notices", {{"what"}, {"source"}}, {}};
  for (const Json& parameter : answer.json->value("parameters", Json::array())) {
    // Of one substance, or of a pair: then of a model, or an interaction of an equation of state.
    std::string what =
        parameter.contains("substance")
            ? fmt::format("{}, {}", parameter["substance"].get<std::string>(),
                          parameter["property"].get<std::string>())
            : fmt::format("{}, {} and {}",
                          parameter.contains("model") ? parameter["model"].get<std::string>()
                                                      : parameter["property"].get<std::string>(),
                          parameter["between"][0].get<std::string>(),
                          parameter["between"][1].get<std::string>());
    if (parameter["range_K"].is_array()) {
      what += fmt::format(", {:.2f} to {:.2f} K", parameter["range_K"][0].get<double>(),
                          parameter["range_K"][1].get<double>());
    }
    table.rows.push_back({what, parameter["source"].get<std::string>()});
  }
  for (const Notice& notice : answer.notices) table.rows.push_back({"notice: " + notice.code, notice.text});
  return table;
}

namespace {

// The parameters behind an answer, a line for each pair; the groups of UNIFAC have one line together.
std::vector<std::string> parameter_lines(const Json& json) {
  std::vector<std::string> lines;
  const std::string command = json.value("command", "");
  if (command == "regress" || command == "estimate") return lines;  // they are the answer itself
  for (const Json& parameter : json.value("parameters", Json::array())) {
    if (!parameter.contains("model")) continue;
    const std::string model = parameter["model"];
    std::string line =
        model.starts_with("unifac")
            ? fmt::format("parameters: {}", parameter["source"].get<std::string>())
            : fmt::format("parameters: {}, {} and {}: {}", model, parameter["between"][0].get<std::string>(),
                          parameter["between"][1].get<std::string>(), parameter["source"].get<std::string>());
    if (parameter["range_K"].is_array()) {
      line += fmt::format("; {:.1f} to {:.1f} K", parameter["range_K"][0].get<double>(),
                          parameter["range_K"][1].get<double>());
    }
    if (!model.starts_with("unifac") && parameter.value("grade", "-") != "-")
      line += fmt::format("; grade {}", parameter.value("grade", "C"));
    if (std::find(lines.begin(), lines.end(), line) == lines.end()) lines.push_back(std::move(line));
  }
  return lines;
}

}  // namespace

namespace {

bool all_finite(const Json& json) {
  if (json.is_number_float()) return std::isfinite(json.get<double>());
  return !json.is_structured() || std::all_of(json.begin(), json.end(), all_finite);
}

}  // namespace

void demand_numbers(const Answer& answer) {
  constexpr const char* why = "the request is far outside the range of the model; try a state within it";
  for (const Table& table : answer.tables) {
    for (std::size_t row = 0; row < table.rows.size(); ++row) {
      for (std::size_t k = 0; k < table.rows[row].size(); ++k) {
        const auto* value = std::get_if<double>(&table.rows[row][k]);
        if (value == nullptr || std::isfinite(*value)) continue;
        throw CalculationError(fmt::format("{} in row {} of '{}' is not a number: {}", table.columns[k].name,
                                           row + 1, table.title, why));
      }
    }
  }
  if (!all_finite(*answer.json)) throw CalculationError(fmt::format("a result is not a number: {}", why));
}

Json Answer::whole_json() const {
  Json whole = *json;
  if (!in_words.empty()) whole["in_words"] = in_words;
  whole["notices"] = to_json(notices);
  return whole;
}

std::string Answer::json_text() const {
  return jampot::json_text(whole_json());
}

std::string Answer::json_lines_text() const {
  return json_lines(whole_json());
}

std::vector<std::string> closing_lines(const Answer& answer) {
  std::vector<std::string> lines = answer.lines;
  for (std::string& line : parameter_lines(*answer.json)) lines.push_back(std::move(line));
  return lines;
}

}  // namespace jampot
