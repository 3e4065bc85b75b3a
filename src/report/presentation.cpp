#include "jampot/report/presentation.hpp"

#include <nlohmann/json.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/xlsx.hpp"

namespace jampot {

std::vector<std::string> write_files(const Answer& answer, const Presentation& presentation) {
  demand_numbers(answer);
  std::vector<std::string> written;
  if (!presentation.figure.empty()) {
    if (presentation.plot.empty() && !answer.figure)
      throw RequestError("`figure`: " +
                         (answer.no_figure.empty()
                              ? "there is nothing to draw here; `plot` draws two columns of the tables"
                              : answer.no_figure));
    Figure figure = presentation.plot.empty()
                        ? *answer.figure
                        : plot_figure(answer.tables, presentation.plot, presentation.units);
    if (presentation.window.x || presentation.window.y) {
      figure.panels.front() = windowed(figure.panels.front(), presentation.window);
    }
    draw(figure, presentation.figure);
    written.push_back(presentation.figure);
  }
  if (!presentation.csv.empty()) {
    write_file(presentation.csv, as_csv(answer.tables, presentation.units));
    written.push_back(presentation.csv);
  }
  if (!presentation.xlsx.empty()) {
    std::vector<Table> sheets = answer.tables;
    sheets.push_back(sources_table(answer));
    write_xlsx(presentation.xlsx, sheets, presentation.units);
    written.push_back(presentation.xlsx);
  }
  for (const auto& [path, text] : answer.files) {
    write_file(path, text);
    written.push_back(path);
  }
  return written;
}

}  // namespace jampot
