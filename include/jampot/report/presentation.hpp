#pragma once
// An answer into files.
#include <string>
#include <vector>

#include "jampot/draw/report.hpp"
#include "jampot/draw/window.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {

/// Where an answer goes and how it is shown.
struct Presentation {
  bool json = false;        ///< one object on the screen
  bool json_lines = false;  ///< the same with one object a line
  std::string csv{},        ///< file for the table
      xlsx{},               ///< file for the workbook
      table{},              ///< file for the tables in a document: .md, .html, .tex, .csv or .xlsx
      report{},             ///< file for a page with everything: .md or .html
      figure{},             ///< file for the figure: .svg, .png, .pdf, or .html to be pointed at and zoomed
      plot{};               ///< width of a figure in text
  std::string expected{};   ///< a table of reference laid beside the results
  DisplayUnits units{};     ///< units in which numbers are shown
  Window window{};          ///< part of the figure that is shown

  /// Whether the answer's own figure is wanted.
  bool draws() const { return !figure.empty() && plot.empty(); }
};

/// @throws RequestError where the ending of a file is not one of its form
void demand_forms(const Presentation& presentation);

/// Adds figure, tables, sentences and notices to a page.
void add_answer(Report& report, const Answer& answer);

/// Writes the files that were asked for, after `demand_numbers`. @returns their paths
std::vector<std::string> write_files(const Answer& answer, const Presentation& presentation);

}  // namespace jampot
