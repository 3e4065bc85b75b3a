#pragma once
// What a command has to say, before it is decided how it is shown.
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "jampot/draw/figure.hpp"
#include "jampot/draw/window.hpp"
#include "jampot/files/json_results.hpp"
#include "jampot/files/table.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot::tool {

struct Answer {
  Json json;                       ///< without its notices, which are added when it is shown
  std::vector<Table> tables;       ///< whole, for CSV
  std::vector<Table> screen;       ///< for the screen; empty: the whole tables
  std::vector<std::string> lines;  ///< said after the tables on the screen
  Notices notices;
  std::optional<Figure> figure;
  std::string no_figure;  ///< where there is none: why, and what a figure needs
  std::vector<std::pair<std::string, std::string>> files;  ///< path and text of further files to write
};

/// How answers are shown: the options that every command has.
struct Presentation {
  bool json = false;
  std::string csv, xlsx, figure, plot;
  std::string expected;  ///< a table of reference laid beside the results
  DisplayUnits units;
  Window window;
};

/// The last gate: no answer leaves with a number that is none.
/// @throws CalculationError naming the table, row and column
void demand_numbers(const Answer& answer);

/// Writes the files that were asked for, after `demand_numbers`. @returns their paths
std::vector<std::string> write_files(const Answer& answer, const Presentation& presentation);

/// What the screen says below the tables: the answer's lines, then its parameters with their sources.
std::vector<std::string> closing_lines(const Answer& answer);

/// Takes the answer of a command.
class Presenter {
 public:
  virtual ~Presenter() = default;
  /// Lays the reference beside the results, then shows both.
  void present(Answer answer, const Presentation& presentation);
  /// Whether a command may say on the terminal how far it has come.
  virtual bool shows_progress() const { return true; }

 private:
  virtual void show(const Answer& answer, const Presentation& presentation) = 0;
};

/// Writes the files, then prints. Nothing is printed where a file cannot be written.
class ScreenPresenter final : public Presenter {
  void show(const Answer& answer, const Presentation& presentation) override;
};

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

}  // namespace jampot::tool
