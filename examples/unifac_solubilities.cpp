// UNIFAC for liquids against the handbooks: the mutual solubilities of docs/unifac-solubilities.csv as
// predicted, as a table in Markdown.
#include <cmath>
#include <cstdio>
#include <jampot/basis/constants.hpp>
#include <jampot/basis/csv_table.hpp>
#include <jampot/basis/error.hpp>
#include <jampot/equilibrium/binary_split.hpp>
#include <jampot/files/text_file.hpp>
#include <jampot/phase/composition.hpp>
#include <jampot/phase/mixture.hpp>
#include <string>

int main(int argc, char** argv) {
  const std::string file = argc > 1 ? argv[1] : "docs/unifac-solubilities.csv";
  const jampot::CsvTable table(jampot::read_file(file), file);
  std::printf(
      "| organic | T / degC | %% organic in water | UNIFAC | ratio | %% water in organic | UNIFAC | ratio | "
      "|\n");
  std::printf("|---|---|---|---|---|---|---|---|---|\n");
  int near = 0, predicted = 0;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const std::string name(table.text(row, table.column("organic")));
    const double T_C = table.number(row, table.column("T_C")), w1 = table.number(row, table.column("w1")),
                 w2 = table.number(row, table.column("w2"));
    std::printf("| %s | %.0f | %.2g | ", name.c_str(), T_C, w1);
    try {
      jampot::Mixture mixture(jampot::substances_named({name, "water"}), "unifac-lle", {});
      const auto splits = jampot::binary_splits(mixture.activity(), T_C + jampot::celsius_zero);
      if (splits.empty()) {
        std::printf("one liquid | | %.2g | one liquid | | miss |\n", w2);
        ++predicted;
        continue;
      }
      const auto percent = [&](double x1, int of) {
        return 100 * jampot::mass_fractions(std::array{x1, 1 - x1},
                                            mixture.substances())[static_cast<std::size_t>(of)];
      };
      const double p1 = percent(splits[0].x1_alpha, 0), p2 = percent(splits[0].x1_beta, 1);
      const auto close = [](double ratio) { return ratio > 0.5 && ratio < 2; };
      const bool both = close(p1 / w1) && close(p2 / w2);
      near += both;
      ++predicted;
      std::printf("%.2g | %.2f | %.2g | %.2g | %.2f | %s |\n", p1, p1 / w1, w2, p2, p2 / w2,
                  both ? "" : "miss");
    } catch (const jampot::CalculationError&) {
      std::printf("no prediction | | %.2g | | | lacks groups or interactions |\n", w2);
    }
  }
  std::printf("\n%d of %d predicted pairs within a factor of two on both sides.\n", near, predicted);
}
