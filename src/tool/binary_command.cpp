// txy, pxy and xy: diagrams of a binary at one or several pressures or temperatures.
#include <fmt/format.h>

#include <cmath>

#include "binary_tables.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

enum class Diagram { txy, pxy, xy };

struct BinaryOptions {
  MixtureOptions mixture;
  Condition condition;
  int points = 101;
  std::vector<std::string> measured;
  PresentationOptions presentation;
};

void check_condition(Diagram diagram, const Condition& condition) {
  if (diagram == Diagram::txy && !condition.temperature.empty()) {
    throw RequestError("txy is drawn at a --pressure; at a temperature the diagram is pxy");
  }
  if (diagram == Diagram::pxy && !condition.pressure.empty()) {
    throw RequestError("pxy is drawn at a --temperature; at a pressure the diagram is txy");
  }
}

// Measured points that were taken at another pressure or temperature than the diagram's do not belong on it.
void check_overlays(const std::vector<BinaryCurve>& curves, const std::vector<DataSet>& sets,
                    Notices& notices) {
  for (const DataSet& set : sets) {
    const bool drawn_isobaric = curves.front().sought == Sought::temperature;
    int off = 0;
    for (const DataPoint& point : set.points) {
      bool near = false;
      for (const BinaryCurve& curve : curves) {
        const BinaryPoint& any = curve.points.front();
        near = near || (drawn_isobaric ? std::abs(std::log(point.P_Pa / any.P_Pa)) < 0.02
                                       : std::abs(point.T_K - any.T_K) < 0.5);
      }
      if (!near) ++off;
    }
    if (off > 0) {
      notices.add(
          "measured-elsewhere",
          fmt::format("{} of {} points of {} were measured at another {} than the diagram is drawn at; their "
                      "deviations are computed at their own",
                      off, set.points.size(), set.name, drawn_isobaric ? "pressure" : "temperature"));
    }
  }
}

Answer diagram_of(Diagram diagram, const BinaryOptions& options, const Presentation& presentation) {
  check_condition(diagram, options.condition);
  const Held held = read_held(options.condition);
  const Basis basis = parse_basis(options.mixture.basis);
  if (options.points < 3 || options.points > 100001)
    throw RequestError("--points: expected a number from 3 to 100001");
  Mixture mixture = options.mixture.read();
  const std::vector<DataSet> sets =
      read_overlays(options.measured, mixture, *bank_with(options.mixture.substance_files));

  Answer answer;
  std::vector<BinaryCurve> curves;
  for (const double value : held.values) {
    const CurveOptions curve_options{static_cast<std::size_t>(options.points)};
    curves.push_back(held.sought == Sought::temperature ? txy(mixture, value, curve_options)
                                                        : pxy(mixture, value, curve_options));
    answer.notices.add(curves.back().notices);
  }
  const char* name = diagram == Diagram::txy ? "txy" : diagram == Diagram::pxy ? "pxy" : "xy";
  answer.json = answer_header(name, mixture);
  for (const BinaryCurve& curve : curves) {
    answer.json["curves"].push_back(to_json(curve, mixture.substances()));
    answer.tables.push_back(curve_table(curve, mixture, basis, presentation.units));
    answer.screen.push_back(thinned(answer.tables.back()));
  }
  std::vector<Table> summaries{azeotrope_table(curves, mixture, basis),
                               three_phase_table(curves, mixture, basis)};
  if (summaries[0].rows.empty()) answer.lines.emplace_back("no azeotrope");
  for (const DataSet& set : sets) {
    const Comparison comparison = compare(mixture, set);
    Json json = to_json(comparison);
    json["file"] = set.name;
    answer.json["measured"].push_back(std::move(json));
    summaries.push_back(deviation_table(comparison, set.name));
    answer.notices.add(set.notices);
  }
  for (Table& summary : summaries) {
    if (summary.rows.empty()) continue;
    answer.screen.push_back(summary);
    answer.tables.push_back(std::move(summary));
  }
  check_overlays(curves, sets, answer.notices);
  const FigureOptions figure{presentation.units, basis, sets};
  answer.figure =
      diagram == Diagram::xy ? xy_figure(curves, mixture, figure) : boiling_figure(curves, mixture, figure);
  return answer;
}

void add_one(CLI::App& tool, Diagram diagram, const std::string& name, const std::string& about,
             const std::string& example) {
  auto options = std::make_shared<BinaryOptions>();
  CLI::App* command = tool.add_subcommand(name, about);
  add_mixture(*command, options->mixture, true);
  add_condition(*command, options->condition);
  command->add_option("--points", options->points, "Points along the composition (default 101)")
      ->type_name("N");
  command
      ->add_option("--measured", options->measured,
                   "Measured data laid over, with deviations; may be repeated")
      ->type_name("FILE.csv")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  add_presentation(*command, options->presentation, true);
  command->footer("Example:\n  " + example);
  command->callback([options, diagram] {
    const Presentation presentation = options->presentation.read();
    present(diagram_of(diagram, *options, presentation), presentation);
  });
}

}  // namespace

void add_binary_diagrams(CLI::App& tool) {
  add_one(tool, Diagram::txy, "txy", "Boiling and dew temperatures of a binary at one or several pressures",
          "jampot txy ethanol toluene --liquid ideal --pressure \"1, 2 bar\" --figure txy.svg");
  add_one(tool, Diagram::pxy, "pxy", "Boiling and dew pressures of a binary at one or several temperatures",
          "jampot pxy ethanol toluene --liquid ideal --temperature \"60, 70 degC\" --figure pxy.svg");
  add_one(tool, Diagram::xy, "xy", "Vapour against liquid composition of a binary",
          "jampot xy ethanol toluene --liquid ideal --pressure \"1 atm\" --figure xy.svg");
}

}  // namespace jampot::tool
