#include "pages.hpp"

#include <unistd.h>

#include <algorithm>
#include <cstdlib>
#include <filesystem>
#include <functional>
#include <pugixml.hpp>
#include <vector>

#include "jampot/basis/csv.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/xlsx.hpp"

namespace jampot::fuzz {
namespace {

namespace fs = std::filesystem;

void demand(bool condition) {
  if (!condition) std::abort();
}

// A folder of its own, in which whatever ran would leave something.
const fs::path& folder() {
  static const fs::path made = [] {
    std::string pattern = (fs::temp_directory_path() / "jampot-fuzz-XXXXXX").string();
    demand(mkdtemp(pattern.data()) != nullptr);
    fs::current_path(pattern);
    std::atexit([] {
      std::error_code ignored;
      fs::remove_all(folder(), ignored);
    });
    return fs::path(pattern);
  }();
  return made;
}

std::size_t files_in_folder() {
  return static_cast<std::size_t>(std::distance(fs::directory_iterator(folder()), fs::directory_iterator()));
}

// What a reader of the picture sees, without blanks and what stands for one.
std::string seen(std::string text) {
  text = readable(text, Lines::one);
  std::string out;
  for (std::size_t k = 0; k < text.size(); ++k) {
    if (text.compare(k, 2, "\xC2\xA0") == 0) {
      ++k;
    } else if (static_cast<unsigned char>(text[k]) > ' ') {
      out += text[k];
    }
  }
  return out;
}

// The texts one after the other, as often as they are asked for.
class Texts {
 public:
  explicit Texts(std::string_view all) {
    constexpr std::size_t most = 200;
    for (const std::string& text : split(all.substr(0, 4000), '\n')) list_.push_back(shortened(text, most));
    // A text that shows nothing is left out where there is a choice, so it is none of these.
    std::replace_if(
        list_.begin(), list_.end(), [](const std::string& text) { return seen(text).empty(); }, "a");
  }
  std::string next() { return list_[at_++ % list_.size()]; }

 private:
  std::vector<std::string> list_;
  std::size_t at_ = 0;
};

Figure figure_with(const std::function<std::string()>& next) {
  Figure figure;
  figure.title = next();
  figure.footer = next();
  figure.notices = {next(), next()};
  for (int k = 0; k < 2; ++k) {
    Panel panel;
    panel.x.label = next();
    panel.y.label = next();
    panel.bare = k == 1;
    panel.corners = {next(), next(), next()};
    Series named{{{0, 0}, {0.5, 0.6}, {1, 1}}, next()};
    Series in_key{{{0.2, 0.9}}, next(), Stroke::none, Mark::circle, 1};
    in_key.in_key = true;
    panel.series = {named, in_key};
    panel.callouts = {{{0.5, 0.2}, next(), Mark::diamond}};
    panel.texts = {{{0.1, 0.1}, next()}, {{0.9, 0.1}, next(), FixedText::Align::right, false}};
    figure.panels.push_back(std::move(panel));
  }
  return figure;
}

std::string text_of_svg(const std::string& svg) {
  pugi::xml_document document;
  demand(bool(document.load_buffer(svg.data(), svg.size())));
  struct Walker : pugi::xml_tree_walker {
    std::string text;
    bool for_each(pugi::xml_node& node) override {
      if (node.type() == pugi::node_pcdata) text += node.value();
      return true;
    }
  } walker;
  document.traverse(walker);
  return seen(walker.text);
}

Report report_with(const std::function<std::string()>& next, Table& table) {
  Report report(next());
  report.text(next());
  report.heading(next());
  report.notice({"code", next()});
  table = {next(), {{next()}, {next(), Dimension::temperature, 2}}, {{next(), 300.0}, {next(), 310.0}}};
  report.table(table);
  report.heading(next());
  report.heading(next());
  return report;
}

// The signs that make markup, as a browser and a reader of Markdown see them.
std::string html_signs(const std::string& page) {
  std::string signs;
  for (const char c : page) {
    if (std::string_view("<>\"'").find(c) != std::string_view::npos) signs += c;
  }
  return signs;
}

std::string markdown_signs(const std::string& page) {
  std::string signs;
  for (std::size_t k = 0; k < page.size(); ++k) {
    if (page[k] == '\\') {
      ++k;
    } else if (std::string_view("*_`<>[]|~\n").find(page[k]) != std::string_view::npos) {
      signs += page[k];
    }
  }
  return signs;
}

std::string written(const Report& report, const char* name) {
  report.write(folder() / name, {});
  std::string page = read_file(folder() / name);
  fs::remove(folder() / name);
  return page;
}

}  // namespace

void figure_texts(std::string_view all) {
  folder();
  Texts texts(all);
  std::vector<std::string> used;
  const Figure figure = figure_with([&] { return used.emplace_back(texts.next()); });
  const std::string shown = text_of_svg(drawn(figure, ".svg"));
  // Title, footer and fixed texts are always shown; labels may find no place.
  for (const std::string& text : {figure.title, figure.footer, figure.panels[0].texts[0].text,
                                  figure.panels[1].texts[1].text, figure.panels[0].callouts[0].text})
    demand(shown.find(seen(text)) != std::string::npos);
  demand(files_in_folder() == 0);
}

void report_texts(std::string_view all) {
  folder();
  Texts texts(all);
  Table table, plain_table;
  const Report report = report_with([&] { return texts.next(); }, table);
  const Report plain = report_with([] { return std::string("a"); }, plain_table);
  demand(html_signs(written(report, "r.html")) == html_signs(written(plain, "p.html")));
  demand(markdown_signs(written(report, "r.md")) == markdown_signs(written(plain, "p.md")));
  const CsvText csv = parse_csv(as_csv({table}, {}), "t.csv");
  demand(csv.rows.size() == 3);
  for (const CsvRow& row : csv.rows) {
    demand(row.fields.size() == 2);
    for (const std::string_view field : row.fields)
      demand(field.size() < 2 || parse_number(field) ||
             std::string_view("=+-@").find(field[0]) == std::string_view::npos);
  }
  write_xlsx(folder() / "t.xlsx", {table}, {});
  fs::remove(folder() / "t.xlsx");
  demand(files_in_folder() == 0);
}

}  // namespace jampot::fuzz
