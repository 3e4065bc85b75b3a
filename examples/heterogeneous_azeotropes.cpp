// Azeotropes of two liquids: those of docs/heteroazeotropes.csv as UNIFAC predicts them, as a table in
// Markdown.
#include <algorithm>
#include <cmath>
#include <cstdio>
#include <jampot/basis/constants.hpp>
#include <jampot/basis/csv_table.hpp>
#include <jampot/basis/text.hpp>
#include <jampot/equilibrium/singular_points.hpp>
#include <jampot/files/text_file.hpp>
#include <jampot/phase/composition.hpp>
#include <string>

namespace {

std::string percent(const std::vector<double>& w) {
  std::string text;
  for (const double value : w) {
    char part[16];
    std::snprintf(part, sizeof part, "%s%.1f", text.empty() ? "" : " / ", 100 * value);
    text += part;
  }
  return text;
}

}  // namespace

int main(int argc, char** argv) {
  const std::string file = argc > 1 ? argv[1] : "docs/heteroazeotropes.csv";
  const jampot::CsvTable table(jampot::read_file(file), file);
  std::printf("| substances | T handbook | mass %% handbook | T UNIFAC | mass %% UNIFAC | dT / K | |\n");
  std::printf("|---|---|---|---|---|---|---|\n");
  int near = 0;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const std::vector<std::string> names = jampot::split(table.text(row, table.column("substances")), '|');
    const double T_C = table.number(row, table.column("T_C"));
    std::vector<double> w{table.number(row, table.column("w1")), table.number(row, table.column("w2"))};
    if (names.size() == 3) w.push_back(1 - w[0] - w[1]);
    jampot::Mixture mixture(jampot::substances_named(names), "unifac", {});
    const jampot::SingularPoints found = jampot::singular_points(mixture, jampot::standard_atmosphere);
    const auto whole = std::find_if(found.points.begin(), found.points.end(),
                                    [&](const auto& point) { return point.members.size() == names.size(); });
    const std::string label = jampot::joined(names, " + ");
    if (whole == found.points.end()) {
      std::printf("| %s | %.1f | %s | none | | | miss |\n", label.c_str(), T_C, percent(w).c_str());
      continue;
    }
    const double dT = whole->T_K - jampot::celsius_zero - T_C;
    near += std::abs(dT) <= 1.5;
    std::printf("| %s | %.1f | %s | %.2f | %s | %+.2f | %s%s |\n", label.c_str(), T_C, percent(w).c_str(),
                T_C + dT, percent(jampot::mass_fractions(whole->x, mixture.substances())).c_str(), dT,
                std::abs(dT) <= 1.5 ? "" : "miss", whole->heterogeneous ? "" : "one liquid");
  }
  std::printf("\n%d of %zu within 1.5 K.\n", near, table.rows());
}
