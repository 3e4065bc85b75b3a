#pragma once
// Texts in every place of a figure and of a report that a text can come from.
#include <string_view>

namespace jampot::fuzz {

/// Draws a figure with these texts (parted by line ends) and demands that every one of them stands in the
/// picture as it is: nothing of it ran, and nothing of it was taken for markup.
void figure_texts(std::string_view texts);

/// Writes a report, tables and a workbook with these texts and demands that they have the same markup as with
/// harmless ones.
void report_texts(std::string_view texts);

}  // namespace jampot::fuzz
