#include "jampot/report/presentation.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/table_forms.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/xlsx.hpp"

namespace jampot {

void demand_forms(const Presentation& presentation) {
  const auto ending = [](const std::string& path) {
    return lower_case(std::filesystem::path(path).extension().string());
  };
  const auto demand = [&](const char* key, const std::string& path, const std::vector<std::string>& forms,
                          const char* listed) {
    if (!path.empty() && std::find(forms.begin(), forms.end(), ending(path)) == forms.end())
      throw RequestError(fmt::format("`{}` '{}': the ending must be {}", key, path, listed));
  };
  demand("figure", presentation.figure, {".svg", ".png", ".pdf", ".html"}, ".svg, .png, .pdf or .html");
  demand("report", presentation.report, {".md", ".html"}, ".md or .html");
  if (!presentation.table.empty()) demand_table_file(presentation.table);
  const std::string csv = ending(presentation.csv);
  if (csv == ".xlsx" || csv == ".md" || csv == ".html" || csv == ".tex" || csv == ".json")
    throw RequestError(fmt::format("`csv` '{}': `csv` writes comma-separated values, whatever the name; {}",
                                   presentation.csv,
                                   csv == ".xlsx"   ? "`xlsx` writes a workbook"
                                   : csv == ".json" ? "`json` writes JSON to standard output"
                                                    : "`table` writes documents"));
}

void add_answer(Report& report, const Answer& answer) {
  for (const std::string& sentence : answer.in_words) report.text(sentence);
  if (answer.figure) report.figure(*answer.figure);
  for (Table table : answer.screen.empty() ? answer.tables : answer.screen) {
    if (table.title.ends_with(all_rows_are_written))
      table.title.resize(table.title.size() - all_rows_are_written.size());
    report.table(std::move(table));
  }
  for (const std::string& line : closing_lines(answer)) report.text(line);
  for (const Notice& notice : answer.notices) report.notice(notice);
}

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
    if (presentation.figure.ends_with(".html")) {
      Report page(figure.title);
      page.figure(figure);
      page.write(presentation.figure, presentation.units);
    } else {
      draw(figure, presentation.figure);
    }
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
  if (!presentation.table.empty()) {
    const Table sources = sources_table(answer);
    write_tables(presentation.table, answer.tables, &sources, presentation.units);
    written.push_back(presentation.table);
  }
  if (!presentation.report.empty()) {
    Report page(answer.figure && !answer.figure->title.empty() ? answer.figure->title
                : answer.tables.empty()                        ? "Jam Pot"
                                                               : answer.tables.front().title);
    add_answer(page, answer);
    for (const auto& file : page.write(presentation.report, presentation.units))
      written.push_back(file.string());
  }
  for (const auto& [path, text] : answer.files) {
    write_file(path, text);
    written.push_back(path);
  }
  return written;
}

}  // namespace jampot
