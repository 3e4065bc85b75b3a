#include "jampot/draw/report.hpp"

#include <fmt/format.h>

#include "figure_reading.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

std::string escaped(const std::string& text) {
  std::string out;
  for (const char c : text) {
    switch (c) {
      case '&':
        out += "&amp;";
        break;
      case '<':
        out += "&lt;";
        break;
      case '>':
        out += "&gt;";
        break;
      default:
        out += c;
    }
  }
  return out;
}

// What a notice begins with, which marks it on the page.
constexpr std::string_view notice_words = "notice (";

bool is_notice(const std::string& text) {
  return text.starts_with(notice_words);
}

// A cell of a Markdown table: a bar would end it.
std::string cell_of_markdown(std::string text) {
  for (std::size_t at = 0; (at = text.find('|', at)) != std::string::npos; at += 2) text.insert(at, 1, '\\');
  return text;
}

// A figure as the text of an SVG without its XML prologue.
std::string inline_svg(const Figure& figure) {
  const std::string svg = drawn(figure, ".svg");
  const std::size_t start = svg.find("<svg");
  return start == std::string::npos ? svg : svg.substr(start);
}

constexpr const char* style =
    "body{font-family:'DejaVu Sans',Arial,sans-serif;max-width:1280px;margin:2em "
    "auto;padding:0 2em;color:#222;line-height:1.45}"
    "figure{position:relative;margin:1em 0}.hint{color:#666;font-size:85%}"
    ".reading{display:none;position:absolute;pointer-events:none;white-space:pre;background:#fff;"
    "border:1px solid #888;padding:.2em .5em;font-size:80%}"
    "nav{border:1px solid #ddd;padding:.5em 1em;margin:1.5em 0}nav ol{margin:.3em 0}nav "
    ".doubts{color:#b4540a;font-size:85%}"
    "@media print{.hint,.reading{display:none}}"
    "table{border-collapse:collapse;margin:1em 0;font-size:90%}td,th{border:1px solid #ccc;padding:.25em "
    ".6em;text-align:left}td.number,th.number{text-align:right}"
    "th{background:#f2f2f2}caption{text-align:left;font-weight:bold;padding:.3em "
    "0}svg{max-width:100%;height:auto}"
    ".notice{border-left:4px solid #b4540a;padding:.3em .8em;margin:.5em 0;background:#fbf4ee}";

}  // namespace

void Report::notices(const Notices& notices) {
  if (notices.empty()) {
    text("Nothing has to be said against this result.");
    return;
  }
  for (const Notice& notice : notices) text(fmt::format("notice ({}): {}", notice.code, notice.text));
}

std::vector<fs::path> Report::write(const fs::path& path, const DisplayUnits& units) const {
  const std::string ending = lower_case(path.extension().string());
  std::vector<fs::path> files{path};
  if (ending == ".md") {
    write_file(path, markdown(path, units, files));
  } else if (ending == ".html") {
    write_file(path, html(units));
  } else {
    throw RequestError(fmt::format("'{}': a report is written as .md or .html; the file's ending says which",
                                   path.string()));
  }
  return files;
}

std::string Report::markdown(const fs::path& path, const DisplayUnits& units,
                             std::vector<fs::path>& files) const {
  std::string out = "# " + title_ + "\n";
  int figures = 0;
  for (const Part& part : parts_) {
    out += "\n";
    if (const auto* heading = std::get_if<Heading>(&part)) {
      out += "## " + heading->text + "\n";
    } else if (const auto* text = std::get_if<std::string>(&part)) {
      out += (is_notice(*text) ? "> " : "") + *text + "\n";
    } else if (const auto* table = std::get_if<Table>(&part)) {
      if (!table->title.empty()) out += "**" + table->title + "**\n\n";
      std::string rule = "|";
      std::size_t rule_columns = 0;
      out += "|";
      for (const Column& column : table->columns) {
        out += " " + jampot::heading(column, units) + " |";
        rule += is_numeric(*table, rule_columns++) ? "---:|" : "---|";
      }
      out += "\n" + rule + "\n";
      for (const auto& row : table->rows) {
        out += "|";
        for (std::size_t k = 0; k < row.size(); ++k)
          out += " " + cell_of_markdown(cell_text(table->columns[k], row[k], units)) + " |";
        out += "\n";
      }
    } else {
      const fs::path file = path.parent_path() / fmt::format("{}-{}.svg", path.stem().string(), ++figures);
      const auto& figure = std::get<Figure>(part);
      draw(figure, file);
      files.push_back(file);
      out += fmt::format("![{}]({})\n", figure.title, file.filename().string());
    }
  }
  return out;
}

// What there is, with the number of notices in each part, so that none is overlooked far down the page.
std::string Report::contents() const {
  std::vector<std::pair<std::string, int>> entries;
  for (const Part& part : parts_) {
    if (const auto* heading = std::get_if<Heading>(&part)) entries.emplace_back(heading->text, 0);
    const auto* text = std::get_if<std::string>(&part);
    if (text != nullptr && is_notice(*text) && !entries.empty()) ++entries.back().second;
  }
  constexpr std::size_t worth_a_list = 3;
  if (entries.size() < worth_a_list) return "";
  std::string out = "<nav><ol>";
  for (std::size_t k = 0; k < entries.size(); ++k) {
    const auto& [heading, notices] = entries[k];
    out += fmt::format("<li><a href=\"#part-{}\">{}</a>", k + 1, escaped(heading));
    if (notices > 0)
      out += fmt::format(" <span class=\"doubts\">{} notice{}</span>", notices, notices > 1 ? "s" : "");
    out += "</li>\n";
  }
  return out + "</ol></nav>\n";
}

std::string Report::html(const DisplayUnits& units) const {
  bool figures = false;
  std::string out = fmt::format(
      "<!DOCTYPE html>\n<html lang=\"en\"><head><meta "
      "charset=\"utf-8\"><title>{0}</title><style>{1}</style></head>\n"
      "<body><h1>{0}</h1>\n",
      escaped(title_), style);
  bool introduced = false;  // the list of contents stands before the first heading
  int headings = 0;
  for (const Part& part : parts_) {
    if (const auto* heading = std::get_if<Heading>(&part)) {
      if (!introduced) out += contents();
      introduced = true;
      out += fmt::format("<h2 id=\"part-{}\">{}</h2>\n", ++headings, escaped(heading->text));
    } else if (const auto* text = std::get_if<std::string>(&part)) {
      out += (is_notice(*text) ? "<p class=\"notice\">" : "<p>") + escaped(*text) + "</p>\n";
    } else if (const auto* table = std::get_if<Table>(&part)) {
      out += "<table><caption>" + escaped(table->title) + "</caption><tr>";
      for (std::size_t k = 0; k < table->columns.size(); ++k)
        out += (is_numeric(*table, k) ? "<th class=\"number\">" : "<th>") +
               escaped(jampot::heading(table->columns[k], units)) + "</th>";
      out += "</tr>\n";
      for (const auto& row : table->rows) {
        out += "<tr>";
        for (std::size_t k = 0; k < row.size(); ++k)
          out += (std::holds_alternative<double>(row[k]) ? "<td class=\"number\">" : "<td>") +
                 escaped(cell_text(table->columns[k], row[k], units)) + "</td>";
        out += "</tr>\n";
      }
      out += "</table>\n";
    } else {
      const auto& figure = std::get<Figure>(part);
      std::string reading = reading_of(figure);
      for (std::size_t at = 0; (at = reading.find("</", at)) != std::string::npos; at += 2)
        reading.replace(at, 2, "<\\/");  // nothing in it ends the element
      out += "<figure>" + inline_svg(figure) + "<script type=\"application/json\">" + reading +
             "</script></figure>\n";
      figures = true;
    }
  }
  if (figures) {
    out +=
        "<p class=\"hint\">Point at a figure to read it. Click on it, then the wheel zooms and dragging "
        "moves; a "
        "double click goes back.</p>\n<script>";
    out += reading_script;
    out += "</script>\n";
  }
  return out + "</body></html>\n";
}

}  // namespace jampot
