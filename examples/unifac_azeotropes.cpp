// UNIFAC against the handbooks: the azeotropes of docs/unifac-azeotropes.csv as predicted, as a table in
// Markdown.
#include <algorithm>
#include <cmath>
#include <cstdio>
#include <jampot/basis/constants.hpp>
#include <jampot/basis/csv_table.hpp>
#include <jampot/diagram/binary_vle.hpp>
#include <jampot/files/text_file.hpp>
#include <string>

int main(int argc, char** argv) {
  const std::string file = argc > 1 ? argv[1] : "docs/unifac-azeotropes.csv";
  const jampot::CsvTable table(jampot::read_file(file), file);
  std::printf("| first | second | T handbook | x1 handbook | T UNIFAC | x1 UNIFAC | dT / K | dx | |\n");
  std::printf("|---|---|---|---|---|---|---|---|---|\n");
  int good = 0;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const std::string first(table.text(row, table.column("first"))),
        second(table.text(row, table.column("second")));
    const double T_C = table.number(row, table.column("T_C")), x1 = table.number(row, table.column("x1"));
    jampot::Mixture mixture(jampot::substances_named({first, second}), "unifac", {});
    const jampot::BinaryCurve curve = jampot::txy(mixture, jampot::standard_atmosphere);
    const auto off = [&](const jampot::Azeotrope& a) { return std::abs(a.T_K - jampot::celsius_zero - T_C); };
    const auto found = std::min_element(curve.azeotropes.begin(), curve.azeotropes.end(),
                                        [&](const auto& a, const auto& b) { return off(a) < off(b); });
    if (found == curve.azeotropes.end()) {
      std::printf("| %s | %s | %.1f | %.3f | none | | | | miss |\n", first.c_str(), second.c_str(), T_C, x1);
      continue;
    }
    const double dT = found->T_K - jampot::celsius_zero - T_C, dx = found->x1 - x1;
    const bool near = std::abs(dT) <= 1.5 && std::abs(dx) <= 0.05;
    good += near;
    std::printf("| %s | %s | %.1f | %.3f | %.2f | %.3f | %+.2f | %+.3f | %s%s |\n", first.c_str(),
                second.c_str(), T_C, x1, T_C + dT, found->x1, dT, dx, near ? "" : "miss",
                found->heterogeneous ? ", two liquids" : "");
  }
  std::printf("\n%d of %zu within 1.5 K and 0.05.\n", good, table.rows());
}
