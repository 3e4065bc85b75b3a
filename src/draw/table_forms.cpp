#include "jampot/draw/table_forms.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/xlsx.hpp"
#include "markup.hpp"

namespace jampot {
namespace {

std::string markdown_cell(const std::string& text) {
  return markdown_text(one_line(text));
}

std::string latex_cell(const std::string& text) {
  return latex_text(one_line(text));
}

// A column of sentences is broken into lines.
bool wraps(const Table& table, std::size_t column) {
  constexpr std::size_t long_text = 60;
  return std::any_of(table.rows.begin(), table.rows.end(), [&](const std::vector<Cell>& row) {
    const auto* text = std::get_if<std::string>(&row[column]);
    return text != nullptr && text->size() > long_text;
  });
}

std::string ending_of(const std::string& path) {
  return lower_case(std::filesystem::path(path).extension().string());
}

std::string link_of(const Table& table, std::size_t row) {
  return row < table.links.size() ? table.links[row] : std::string();
}

}  // namespace

std::string as_markdown(const Table& table, const DisplayUnits& units) {
  std::string out = table.title.empty() ? "" : "**" + markdown_cell(table.title) + "**\n\n";
  std::string rule = "|";
  out += "|";
  for (std::size_t k = 0; k < table.columns.size(); ++k) {
    out += " " + markdown_cell(heading(table.columns[k], units)) + " |";
    rule += is_numeric(table, k) ? "---:|" : "---|";
  }
  out += "\n" + rule + "\n";
  for (std::size_t r = 0; r < table.rows.size(); ++r) {
    const auto& row = table.rows[r];
    out += "|";
    for (std::size_t k = 0; k < row.size(); ++k) {
      const std::string text = markdown_cell(cell_text(table.columns[k], row[k], units));
      const std::string link = k == 0 ? link_of(table, r) : "";
      out += link.empty() ? " " + text + " |" : fmt::format(" [{}]({}) |", text, link_to(link));
    }
    out += "\n";
  }
  return out;
}

std::string as_html(const Table& table, const DisplayUnits& units) {
  std::string out = "<table><caption>" + html_text(table.title) + "</caption><thead><tr>";
  for (std::size_t k = 0; k < table.columns.size(); ++k)
    out += (is_numeric(table, k) ? "<th class=\"number\">" : "<th>") +
           html_text(heading(table.columns[k], units)) + "</th>";
  out += "</tr></thead>\n";
  for (std::size_t r = 0; r < table.rows.size(); ++r) {
    const auto& row = table.rows[r];
    out += "<tr>";
    for (std::size_t k = 0; k < row.size(); ++k) {
      const std::string text = html_text(cell_text(table.columns[k], row[k], units));
      const std::string link = k == 0 ? link_of(table, r) : "";
      out += (std::holds_alternative<double>(row[k]) ? "<td class=\"number\">" : "<td>") +
             (link.empty() ? text : fmt::format("<a href=\"{}\">{}</a>", link_to(link), text)) + "</td>";
    }
    out += "</tr>\n";
  }
  return out + "</table>\n";
}

std::string as_latex(const Table& table, const DisplayUnits& units) {
  std::string columns, head, out = "\\begin{table}\n\\centering\n";
  for (std::size_t k = 0; k < table.columns.size(); ++k) {
    columns += is_numeric(table, k) ? "r" : wraps(table, k) ? "p{0.6\\linewidth}" : "l";
    head += (k > 0 ? " & " : "") + latex_cell(heading(table.columns[k], units));
  }
  if (!table.title.empty()) out += "\\caption{" + latex_cell(table.title) + "}\n";
  out += "\\begin{tabular}{" + columns + "}\n\\toprule\n" + head + " \\\\\n\\midrule\n";
  for (const auto& row : table.rows) {
    for (std::size_t k = 0; k < row.size(); ++k)
      out += (k > 0 ? " & " : "") + latex_cell(cell_text(table.columns[k], row[k], units));
    out += " \\\\\n";
  }
  return out + "\\bottomrule\n\\end{tabular}\n\\end{table}\n";
}

void demand_table_file(const std::string& path) {
  const std::string ending = ending_of(path);
  for (const char* known : {".md", ".html", ".tex", ".csv", ".xlsx"}) {
    if (ending == known) return;
  }
  throw RequestError(fmt::format("`table` '{}': the ending must be .md, .html, .tex, .csv or .xlsx", path));
}

void write_tables(const std::string& path, const std::vector<Table>& tables, const Table* sources,
                  const DisplayUnits& units) {
  demand_table_file(path);
  const std::string ending = ending_of(path);
  std::vector<Table> all = tables;
  if (sources != nullptr && !sources->rows.empty()) all.push_back(*sources);
  if (ending == ".csv") {
    write_file(path, as_csv(all, units));
  } else if (ending == ".xlsx") {
    write_xlsx(path, all, units);
  } else if (ending == ".html") {
    Report page(std::filesystem::path(path).stem().string());
    for (const Table& table : all) page.table(table);
    page.write(path, units);
  } else {
    std::string text = ending == ".tex" ? "% needs \\usepackage{booktabs}\n" : "";
    for (const Table& table : all) {
      if (&table != &all.front()) text += "\n";
      text += ending == ".tex" ? as_latex(table, units) : as_markdown(table, units);
    }
    write_file(path, text);
  }
}

}  // namespace jampot
