#pragma once
// An answer into files.
#include <string>
#include <vector>

#include "jampot/draw/window.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {

/// Where an answer goes and how it is shown.
struct Presentation {
  bool json = false;       ///< on the screen
  std::string csv{},       ///< file for the table
      xlsx{},              ///< file for the workbook
      figure{},            ///< file for the figure
      plot{};              ///< width of a figure in text
  std::string expected{};  ///< a table of reference laid beside the results
  DisplayUnits units{};    ///< units in which numbers are shown
  Window window{};         ///< part of the figure that is shown

  /// Whether the answer's own figure is wanted.
  bool draws() const { return !figure.empty() && plot.empty(); }
};

/// Writes the files that were asked for, after `demand_numbers`. @returns their paths
std::vector<std::string> write_files(const Answer& answer, const Presentation& presentation);

}  // namespace jampot
