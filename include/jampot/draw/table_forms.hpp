#pragma once
// Tables for documents: Markdown, HTML and LaTeX.
#include <string>
#include <vector>

#include "jampot/files/table.hpp"

namespace jampot {

/// One table in Markdown: its title, then a table with numbers to the right.
std::string as_markdown(const Table& table, const DisplayUnits& units);

/// One table as an element of HTML, its title as the caption; cells with numbers have the class "number".
std::string as_html(const Table& table, const DisplayUnits& units);

/// One table in LaTeX: a `table` with its title as the caption, rules of the package booktabs.
std::string as_latex(const Table& table, const DisplayUnits& units);

/// Writes tables into a file by its ending: .md, .html (a page), .tex, .csv or .xlsx.
/// @param sources  a last table: where the numbers come from; nothing where it is null
/// @throws RequestError for another ending
void write_tables(const std::string& path, const std::vector<Table>& tables, const Table* sources,
                  const DisplayUnits& units);

/// @throws RequestError for an ending that `write_tables` does not write
void demand_table_file(const std::string& path);

}  // namespace jampot
