#include "workbook_library.hpp"

#include <dlfcn.h>
#include <fmt/format.h>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

template <class Function>
void take(void* library, const char* name, Function& function) {
  function = reinterpret_cast<Function>(dlsym(library, name));
  if (function == nullptr)
    throw CalculationError(fmt::format("{} has no function '{}'", JAMPOT_WORKBOOK_LIBRARY, name));
}

WorkbookLibrary load() {
  void* const library = dlopen(JAMPOT_WORKBOOK_LIBRARY, RTLD_NOW | RTLD_LOCAL);
  if (library == nullptr)
    throw CalculationError(
        fmt::format("{} is not installed; workbooks need it (Debian package libxlsxwriter-dev)",
                    JAMPOT_WORKBOOK_LIBRARY));
  WorkbookLibrary all;
  take(library, "format_set_bold", all.format_set_bold);
  take(library, "format_set_num_format", all.format_set_num_format);
  take(library, "workbook_add_format", all.workbook_add_format);
  take(library, "workbook_add_worksheet", all.workbook_add_worksheet);
  take(library, "workbook_close", all.workbook_close);
  take(library, "workbook_new_opt", all.workbook_new_opt);
  take(library, "workbook_set_properties", all.workbook_set_properties);
  take(library, "worksheet_freeze_panes", all.worksheet_freeze_panes);
  take(library, "worksheet_set_column", all.worksheet_set_column);
  take(library, "worksheet_write_number", all.worksheet_write_number);
  take(library, "worksheet_write_string", all.worksheet_write_string);
  return all;
}

}  // namespace

const WorkbookLibrary& WorkbookLibrary::loaded() {
  static const WorkbookLibrary library = load();
  return library;
}

}  // namespace jampot
