#pragma once
// A report: headings, sentences, tables and figures, as Markdown with pictures beside it or as one page of
// HTML.
#include <filesystem>
#include <string>
#include <utility>
#include <variant>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/files/table.hpp"

namespace jampot {

/// The file in which a Markdown report keeps its figure of this number, counted from 1: "page-1.svg" beside
/// "page.md".
std::filesystem::path report_figure(const std::filesystem::path& report, int number);

/// A page of text, tables and figures, written as HTML or Markdown.
class Report {
 public:
  /// Empty, with its title.
  explicit Report(std::string title) : title_(std::move(title)) {}

  /// Adds a heading.
  void heading(std::string text) { parts_.emplace_back(Heading{std::move(text)}); }
  /// Adds a paragraph.
  void text(std::string text) { parts_.emplace_back(std::move(text)); }
  /// A notice, which stands out on the page and is counted in the contents.
  void notice(const Notice& notice) { parts_.emplace_back(notice); }
  /// Adds a table.
  void table(Table table) { parts_.emplace_back(std::move(table)); }
  /// Adds a figure.
  void figure(Figure figure) { parts_.emplace_back(std::move(figure)); }
  /// Adds the notices, most severe first.
  void notices(const Notices& notices);

  /// Writes the report; the ending says how: .md (its figures beside it as NAME-1.svg ...) or .html (one file
  /// that needs nothing else; figures inline).
  /// @throws RequestError for another ending
  /// @returns the files written
  std::vector<std::filesystem::path> write(const std::filesystem::path& path,
                                           const DisplayUnits& units) const;

 private:
  struct Heading {
    std::string text;
  };
  using Part = std::variant<Heading, std::string, Notice, Table, Figure>;
  std::string markdown(const std::filesystem::path& path, const DisplayUnits& units,
                       std::vector<std::filesystem::path>& files) const;
  std::string contents() const;
  std::string html(const DisplayUnits& units) const;

  std::string title_;
  std::vector<Part> parts_;
};

}  // namespace jampot
