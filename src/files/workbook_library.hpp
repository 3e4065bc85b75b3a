#pragma once
// libxlsxwriter, loaded when the first workbook is written. It brings a library of cryptography with it, and
// to load that takes as long as to load all else that the tool needs.
#include <xlsxwriter.h>

namespace jampot {

/// Its functions, by their own names.
struct WorkbookLibrary {
  decltype(&::format_set_bold) format_set_bold = nullptr;
  decltype(&::format_set_num_format) format_set_num_format = nullptr;
  decltype(&::workbook_add_format) workbook_add_format = nullptr;
  decltype(&::workbook_add_worksheet) workbook_add_worksheet = nullptr;
  decltype(&::workbook_close) workbook_close = nullptr;
  decltype(&::workbook_new_opt) workbook_new_opt = nullptr;
  decltype(&::workbook_set_properties) workbook_set_properties = nullptr;
  decltype(&::worksheet_freeze_panes) worksheet_freeze_panes = nullptr;
  decltype(&::worksheet_set_column) worksheet_set_column = nullptr;
  decltype(&::worksheet_write_number) worksheet_write_number = nullptr;
  decltype(&::worksheet_write_string) worksheet_write_string = nullptr;

  /// @throws CalculationError where it is not installed
  static const WorkbookLibrary& loaded();
};

}  // namespace jampot
