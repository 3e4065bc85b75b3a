#include "presenter.hpp"

#include <fmt/format.h>

#include "jampot/basis/text.hpp"
#include "jampot/report/expected.hpp"
#include "screen.hpp"

namespace jampot::tool {

void Presenter::present(Answer answer, const Presentation& presentation) {
  add_expected(presentation.expected, answer, presentation.units);
  show(answer, presentation);
}

void ScreenPresenter::show(const Answer& answer, const Presentation& presentation) {
  const std::vector<std::string> written = write_files(answer, presentation);
  if (presentation.json) {
    print_out(answer.json_text());
  } else if (presentation.json_lines) {
    print_out(answer.json_lines_text());
  } else {
    std::string text;
    for (const std::string& sentence : answer.in_words) text += sentence + "\n";
    if (!text.empty()) text += "\n";
    const auto& tables = answer.screen.empty() ? answer.tables : answer.screen;
    for (std::size_t k = 0; k < tables.size(); ++k)
      text += (k > 0 ? "\n" : "") + as_text(tables[k], presentation.units);
    const std::vector<std::string> lines = closing_lines(answer);
    if (!lines.empty() && !tables.empty()) text += "\n";
    for (const std::string& line : lines) text += line + "\n";
    for (const std::string& path : written) text += "wrote " + path + "\n";
    print_out(with_keys_as("--", text));
  }
  for (const Notice& notice : answer.notices)
    print_error(fmt::format("notice ({}): {}\n", notice.code, notice.text));
}

}  // namespace jampot::tool
