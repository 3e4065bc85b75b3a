#include "jampot/files/xlsx.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/unnamed_file.hpp"
#include "workbook_library.hpp"

namespace jampot {
namespace {

// What a spreadsheet accepts as the name of a sheet: 31 characters, none of []:*?/\, each name once.
std::string sheet_name(const std::string& title, std::set<std::string>& used) {
  std::string name;
  for (const char c : title) {
    if (static_cast<unsigned char>(c) < 128 && static_cast<unsigned char>(c) >= 32 &&
        std::string("[]:*?/\\'").find(c) == std::string::npos)
      name += c;
  }
  constexpr std::size_t longest = 27;  // leaves room for a number
  name = name.substr(0, longest);
  if (name.empty()) name = "Table";
  std::string unique = name;
  for (int k = 2; !used.insert(unique).second; ++k) unique = fmt::format("{} {}", name, k);
  return unique;
}

// A text as a workbook holds it: readable, and not longer than a cell may be.
std::string cell_of_workbook(const std::string& text) {
  constexpr std::size_t longest = 32000;
  return shortened(readable(text), longest);
}

class Workbook {
 public:
  explicit Workbook(const std::string& path) {
    std::string folder = temporary_folder().string();  // for the parts of the workbook
    lxw_workbook_options options{};
    options.tmpdir = folder.data();
    book_ = library_.workbook_new_opt(path.c_str(), &options);
    lxw_doc_properties properties{};
    properties.created = 946684800;  // the first second of the year 2000: a date that says nothing
    library_.workbook_set_properties(book_, &properties);
    bold_ = library_.workbook_add_format(book_);
    library_.format_set_bold(bold_);
  }

  void add(const Table& table, const DisplayUnits& units) {
    lxw_worksheet* sheet = library_.workbook_add_worksheet(book_, sheet_name(table.title, used_).c_str());
    library_.worksheet_write_string(sheet, 0, 0, cell_of_workbook(table.title).c_str(), bold_);
    constexpr lxw_row_t header = 2;
    for (std::size_t k = 0; k < table.columns.size(); ++k) {
      const auto column = static_cast<lxw_col_t>(k);
      const std::string text = cell_of_workbook(heading(table.columns[k], units));
      library_.worksheet_write_string(sheet, header, column, text.c_str(), bold_);
      lxw_format* format = library_.workbook_add_format(book_);
      library_.format_set_num_format(format, number_format(shown_decimals(table.columns[k], units)).c_str());
      std::size_t width = text.size();
      for (std::size_t row = 0; row < table.rows.size(); ++row) {
        const auto line = static_cast<lxw_row_t>(header + 1 + row);
        const Cell& cell = table.rows[row][k];
        if (const auto* words = std::get_if<std::string>(&cell)) {
          library_.worksheet_write_string(sheet, line, column, cell_of_workbook(*words).c_str(), nullptr);
          width = std::max(width, words->size());
        } else if (const auto* value = std::get_if<double>(&cell)) {
          library_.worksheet_write_number(sheet, line, column, shown_value(table.columns[k], *value, units),
                                          format);
        }
      }
      library_.worksheet_set_column(sheet, column, column,
                                    std::min<double>(60, static_cast<double>(width) + 2), nullptr);
    }
    library_.worksheet_freeze_panes(sheet, header + 1, 0);
  }

  bool close() { return library_.workbook_close(book_) == LXW_NO_ERROR; }

 private:
  static std::string number_format(int decimals) {
    return decimals == 0 ? "0" : "0." + std::string(static_cast<std::size_t>(decimals), '0');
  }

  const WorkbookLibrary& library_ = WorkbookLibrary::loaded();
  lxw_workbook* book_;
  lxw_format* bold_;
  std::set<std::string> used_;
};

}  // namespace

void write_xlsx(const std::filesystem::path& path, const std::vector<Table>& tables,
                const DisplayUnits& units) {
  const UnnamedFile file;
  Workbook book(file.path());
  for (const Table& table : tables) book.add(table, units);
  if (!book.close())
    throw CalculationError(
        "cannot create the workbook; check the free space in the folder for temporary files");
  write_file(path, file.text());
}

}  // namespace jampot
