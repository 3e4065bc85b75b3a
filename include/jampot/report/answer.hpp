#pragma once
// What there is to say about a study, before it is decided how it is shown.
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "jampot/basis/hidden.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/files/json_results.hpp"
#include "jampot/files/table.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

/// How the numbers of an answer are to be given.
struct AnswerOptions {
  DisplayUnits units{};       ///< units in which numbers are shown
  Basis basis = Basis::mole;  ///< mole or mass fractions
  /// A figure is wanted: what cannot be drawn is then an error. Otherwise the answer has one where it costs
  /// nothing.
  bool figure = false;
};

/// Tables, figure, sentences and JSON of one result.
struct Answer {
  Hidden<Json> json;            ///< without its notices, which `whole_json` adds
  std::vector<Table> tables{};  ///< whole, for CSV
  std::vector<Table> screen{};  ///< for the screen; empty: the whole tables
  /// The answer to what is to be decided, in sentences: said before the tables.
  std::vector<std::string> in_words{};
  std::vector<std::string> lines{};  ///< said after the tables on the screen
  Notices notices{};                 ///< what the reader must know
  std::optional<Figure> figure{};    ///< if the answer has one
  std::string no_figure{};           ///< where there is none: why, and what a figure needs
  std::vector<std::pair<std::string, std::string>> files{};  ///< path and text of further files to write

  /// The JSON object with its notices; who looks into it includes <nlohmann/json.hpp>.
  Json whole_json() const;
  /// The same as the tool prints it.
  std::string json_text() const;
  /// The same as one object a line (`json_lines`).
  std::string json_lines_text() const;

  Answer();                                    ///< with nothing set
  Answer(const Answer& other);                 ///< copied member by member
  Answer(Answer&& other) noexcept;             ///< moved member by member
  Answer& operator=(const Answer& other);      ///< copied member by member
  Answer& operator=(Answer&& other) noexcept;  ///< moved member by member
  ~Answer();                                   ///< member by member
};

/// The last gate: no answer leaves with a number that is none.
/// @throws CalculationError naming the table, row and column
void demand_numbers(const Answer& answer);

/// What the screen says below the tables: the answer's lines, then its parameters with their sources.
std::vector<std::string> closing_lines(const Answer& answer);

/// Where the numbers of an answer come from, and its notices.
Table sources_table(const Answer& answer);

/// The heading of a fraction: "x(water)", "y(water)", "x(water) alpha"; by mass "w(water) liquid", "w(water)
/// vapour", "w(water) alpha".
std::string fraction_heading(char phase, const Substance& substance, Basis basis,
                             std::string_view which = {});

/// The beginning of an answer that is not about a mixture.
Json plain_header(const std::string& command);

/// Two columns of the tables drawn against each other, "y(methanol) against x(methanol)": a curve for each
/// table that has both. @throws RequestError naming the columns there are
Figure plot_figure(const std::vector<Table>& tables, const std::string& wanted, const DisplayUnits& units);

/// At most about `most` rows, the first and last among them; the title says so where rows are left out.
Table thinned(const Table& table, std::size_t most = 26);

/// What such a title ends with; a report, which has no options, leaves it out.
inline constexpr std::string_view all_rows_are_written = " (--csv writes all)";

}  // namespace jampot
