// The full job: consistency of the data, three models ranked, diagram, azeotrope, split and flash, one
// report. Give it demo/measured/mtbe-methanol.csv (made-up data).
#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/draw/report.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/equilibrium/flash.hpp"
#include "jampot/files/measured.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/regression/consistency.hpp"
#include "jampot/regression/ranking.hpp"

using namespace jampot;

namespace {

// What the data are worth before anything is fitted to them.
void add_consistency(const DataSet& data, Report& report) {
  const Consistency consistency = check_consistency(data);
  Table table{"Consistency", {{"test"}, {"value"}, {"limit"}, {"verdict"}}, {}};
  for (const ConsistencyTest& test : consistency.tests)
    table.rows.push_back({test.name, test.value, test.limit, std::string(name_of(test.verdict))});
  report.heading("The data");
  report.table(std::move(table));
  report.notices(consistency.notices);
}

// All models fitted, the best one first.
Fit best_of(const DataSet& data, Report& report) {
  const auto ranked = rank_models({data}, {}, {"wilson", "nrtl", "uniquac"});
  Table table{"Models", {{"model"}, {"AICc above the best"}, {"cross validation"}, {"verdict"}}, {}};
  for (const RankedFit& entry : ranked)
    table.rows.push_back({entry.fit.options.model, entry.aicc_above_best,
                          entry.cross_validation ? Cell(*entry.cross_validation) : Cell(), entry.verdict});
  report.heading("The model");
  report.table(std::move(table));
  report.notices(ranked.front().fit.notices);
  return ranked.front().fit;
}

void add_diagram(const Fit& result, Mixture& mixture, const DataSet& data, Report& report) {
  const BinaryCurve curve = txy(mixture, standard_atmosphere);
  FigureOptions options;
  options.measured = {data};
  report.heading("The diagram");
  report.figure(boiling_figure({curve}, mixture, options));
  for (const Azeotrope& azeotrope : curve.azeotropes) {
    const AzeotropeUncertainty u = azeotrope_uncertainty(result, Sought::temperature, azeotrope);
    const std::string text =
        fmt::format("{} azeotrope at x1 = {:.4f} +- {:.4f}, {:.2f} +- {:.2f} K", name_of(azeotrope.extremum),
                    azeotrope.x1, u.u_x1, azeotrope.T_K, u.u_T_K);
    fmt::print("{}\n", text);
    report.text(text);
  }
  report.notices(curve.notices);
}

void add_flash(Mixture& mixture, Report& report) {
  const Flashed flashed =
      flash(mixture.kinds(), {Kelvin(53 + celsius_zero), Pascal(standard_atmosphere)}, std::vector{0.5, 0.5});
  const std::string text =
      fmt::format("at 53 degC and 1 atm, {:.4f} of an even feed is vapour", flashed.vapour_fraction());
  fmt::print("{}\n", text);
  report.heading("A flash");
  report.text(text);
}

}  // namespace

int main(int argc, char** argv) try {
  if (argc != 2) throw RequestError("usage: example_full_job FILE");
  const DataSet data = read_measured_file(argv[1]).front();
  Report report("MTBE and methanol, made-up data");
  add_consistency(data, report);
  const Fit result = best_of(data, report);
  fmt::print("best: {}\n", result.options.model);
  write_file("full-job.pairs.toml", pairs_text(result));
  Mixture mixture = result.mixture();
  add_diagram(result, mixture, data, report);
  add_flash(mixture, report);
  report.write("full-job.html", {});
  fmt::print("wrote full-job.html and full-job.pairs.toml\n");
  return 0;
} catch (const std::exception& error) {
  fmt::print(stderr, "{}\n", error.what());
  return 1;
}
