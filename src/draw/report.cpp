#include "jampot/draw/report.hpp"

#include <fmt/format.h>

#include "figure_reading.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/table_forms.hpp"
#include "jampot/files/text_file.hpp"
#include "markup.hpp"

namespace jampot {
namespace {

namespace fs = std::filesystem;

std::string words_of(const Notice& notice) {
  return fmt::format("notice ({}): {}", notice.code, notice.text);
}

// One line of Markdown: a heading, a title or a cell of a table.
std::string cell(const std::string& text) {
  return markdown_text(one_line(text));
}

// The text of an SVG without its XML prologue.
std::string inline_svg(const std::string& svg) {
  const std::size_t start = svg.find("<svg");
  return start == std::string::npos ? svg : svg.substr(start);
}

constexpr const char* page_style =
    "body{font-family:'DejaVu Sans',Arial,sans-serif;max-width:1280px;margin:2em "
    "auto;padding:0 2em;color:#222;line-height:1.45}"
    "figure{position:relative;margin:1em 0}.hint{color:#666;font-size:85%}"
    ".reading{display:none;position:absolute;pointer-events:none;white-space:pre;background:#fff;"
    "border:1px solid #888;padding:.2em .5em;font-size:80%}"
    "nav{border:1px solid #ddd;padding:.5em 1em;margin:1.5em 0}nav ol{margin:.3em 0}nav "
    ".doubts{color:#b4540a;font-size:85%}"
    "@page{margin:15mm}@media print{body{margin:0;padding:0;max-width:none;font-size:10pt}"
    ".hint,.reading{display:none}figure,tr,.notice{break-inside:avoid}h1,h2,caption{break-after:avoid}"
    "thead{display:table-header-group}th,.notice{print-color-adjust:exact;-webkit-print-color-adjust:exact}}"
    "table{border-collapse:collapse;margin:1em 0;font-size:90%}td,th{border:1px solid #ccc;padding:.25em "
    ".6em;text-align:left}td.number,th.number{text-align:right}"
    "th{background:#f2f2f2}caption{text-align:left;font-weight:bold;padding:.3em "
    "0}svg{max-width:100%;height:auto}"
    ".notice{border-left:4px solid #b4540a;padding:.3em .8em;margin:.5em 0;background:#fbf4ee}";

}  // namespace

fs::path report_figure(const fs::path& report, int number) {
  return report.parent_path() / fmt::format("{}-{}.svg", report.stem().string(), number);
}

void Report::notices(const Notices& notices) {
  if (notices.empty()) {
    text("No notices.");
    return;
  }
  for (const Notice& one : notices) notice(one);
}

std::vector<fs::path> Report::write(const fs::path& path, const DisplayUnits& units) const {
  const std::string ending = lower_case(path.extension().string());
  std::vector<fs::path> files{path};
  if (ending == ".md") {
    write_file(path, markdown(path, units, files));
  } else if (ending == ".html") {
    write_file(path, html(units));
  } else {
    throw RequestError(
        fmt::format("'{}': the file name of a report must end in .md or .html", path.string()));
  }
  return files;
}

std::string Report::markdown(const fs::path& path, const DisplayUnits& units,
                             std::vector<fs::path>& files) const {
  std::string out = "# " + cell(title_) + "\n";
  int figures = 0;
  for (const Part& part : parts_) {
    out += "\n";
    if (const auto* heading = std::get_if<Heading>(&part)) {
      out += "## " + cell(heading->text) + "\n";
    } else if (const auto* text = std::get_if<std::string>(&part)) {
      out += markdown_text(*text) + "\n";
    } else if (const auto* notice = std::get_if<Notice>(&part)) {
      out += "> " + cell(words_of(*notice)) + "\n";
    } else if (const auto* table = std::get_if<Table>(&part)) {
      out += as_markdown(*table, units);
    } else {
      const fs::path file = report_figure(path, ++figures);
      const auto& figure = std::get<Figure>(part);
      draw(figure, file);
      files.push_back(file);
      out += fmt::format("![{}]({})\n", cell(figure.title), link_to(file.filename().string()));
    }
  }
  return out;
}

// What there is, with the number of notices in each part, so that none is overlooked far down the page.
std::string Report::contents() const {
  std::vector<std::pair<std::string, int>> entries;
  for (const Part& part : parts_) {
    if (const auto* heading = std::get_if<Heading>(&part)) entries.emplace_back(heading->text, 0);
    if (std::holds_alternative<Notice>(part) && !entries.empty()) ++entries.back().second;
  }
  constexpr std::size_t worth_a_list = 3;
  if (entries.size() < worth_a_list) return "";
  std::string out = "<nav><ol>";
  for (std::size_t k = 0; k < entries.size(); ++k) {
    const auto& [heading, notices] = entries[k];
    out += fmt::format("<li><a href=\"#part-{}\">{}</a>", k + 1, html_text(heading));
    if (notices > 0)
      out += fmt::format(" <span class=\"doubts\">{} notice{}</span>", notices, notices > 1 ? "s" : "");
    out += "</li>\n";
  }
  return out + "</ol></nav>\n";
}

std::string Report::html(const DisplayUnits& units) const {
  std::vector<const Figure*> figures;
  for (const Part& part : parts_) {
    if (const auto* figure = std::get_if<Figure>(&part)) figures.push_back(figure);
  }
  const std::vector<std::string> pictures = drawn_together(figures);
  std::size_t shown = 0;
  std::string out = fmt::format(
      "<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\">\n<meta http-equiv=\"{2}\" "
      "content=\"default-src 'none'; style-src 'unsafe-inline'; script-src 'sha256-{3}'\">\n"
      "<title>{0}</title><style>{1}</style></head>\n<body><h1>{0}</h1>\n",
      html_text(title_), page_style, "Content-Security-Policy", reading_script_sha256);
  bool introduced = false;  // the list of contents stands before the first heading
  int headings = 0;
  for (const Part& part : parts_) {
    if (const auto* heading = std::get_if<Heading>(&part)) {
      if (!introduced) out += contents();
      introduced = true;
      out += fmt::format("<h2 id=\"part-{}\">{}</h2>\n", ++headings, html_text(heading->text));
    } else if (const auto* text = std::get_if<std::string>(&part)) {
      out += "<p>" + html_text(*text) + "</p>\n";
    } else if (const auto* notice = std::get_if<Notice>(&part)) {
      out += "<p class=\"notice\">" + html_text(words_of(*notice)) + "</p>\n";
    } else if (const auto* table = std::get_if<Table>(&part)) {
      out += as_html(*table, units);
    } else {
      const auto& figure = std::get<Figure>(part);
      out += "<figure>" + inline_svg(pictures[shown++]) + "<script type=\"application/json\">" +
             script_json(reading_of(figure)) + "</script></figure>\n";
    }
  }
  if (!figures.empty()) {
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
