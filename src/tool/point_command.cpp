// bubble and dew: points of a mixture of any number of substances.
#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct PointOptions {
  MixtureOptions mixture;
  Condition condition;
  std::vector<std::string> compositions;
  PresentationOptions presentation;
};

Table point_table(const std::vector<VlePoint>& points, const Mixture& mixture, Basis basis,
                  const std::string& title) {
  Table table{title, {{"T", Dimension::temperature, 3}, {"P", Dimension::pressure, 3}}, {}};
  const char* letter = basis == Basis::mole ? "" : "w ";
  for (const char* phase : {"x", "y"}) {
    for (const Substance& substance : mixture.substances()) {
      table.columns.push_back(
          {fmt::format("{}{}({})", letter, phase, substance.short_name()), Dimension::fraction, 5});
    }
  }
  for (const char* quantity : {"K", "gamma"}) {
    for (const Substance& substance : mixture.substances()) {
      table.columns.push_back({fmt::format("{}({})", quantity, substance.short_name())});
    }
  }
  for (const VlePoint& point : points) {
    std::vector<Cell> row{point.T_K, point.P_Pa};
    for (const auto* fractions : {&point.x, &point.y}) {
      const auto shown = basis == Basis::mole ? *fractions : mass_fractions(*fractions, mixture.substances());
      row.insert(row.end(), shown.begin(), shown.end());
    }
    row.insert(row.end(), point.K.begin(), point.K.end());
    row.insert(row.end(), point.gamma.begin(), point.gamma.end());
    table.rows.push_back(std::move(row));
  }
  return table;
}

Answer points_of(const PointOptions& options, bool bubble) {
  Mixture mixture = options.mixture.read();
  const Held held = read_held(options.condition);
  const Basis basis = parse_basis(options.mixture.basis);
  if (options.compositions.empty()) {
    throw RequestError(fmt::format("give the {}'s --composition, as in --composition \"{}=0.3\"",
                                   bubble ? "liquid" : "vapour", mixture.substances()[0].name));
  }
  const bool T_sought = held.sought == Sought::temperature;
  const auto solve = bubble ? (T_sought ? bubble_temperature : bubble_pressure)
                            : (T_sought ? dew_temperature : dew_pressure);
  std::vector<VlePoint> points;
  Answer answer;
  for (const std::string& text : options.compositions) {
    const std::vector<double> z = parse_composition(text, mixture.substances(), basis);
    for (const double value : held.values) {
      points.push_back(solve(mixture, value, z));
      answer.notices.add(points.back().notices);
    }
  }
  answer.json = answer_header(bubble ? "bubble" : "dew", mixture);
  for (const VlePoint& point : points) answer.json["points"].push_back(to_json(point, mixture.substances()));
  answer.tables.push_back(point_table(points, mixture, basis, bubble ? "Bubble points" : "Dew points"));
  return answer;
}

void add_one(CLI::App& tool, const std::string& name, bool bubble, const std::string& about,
             const std::string& example) {
  auto options = std::make_shared<PointOptions>();
  CLI::App* command = tool.add_subcommand(name, about);
  add_mixture(*command, options->mixture, false);
  add_condition(*command, options->condition);
  command
      ->add_option("--composition", options->compositions,
                   "\"A=0.3, B=0.7\"; the last may be left out; may be repeated")
      ->type_name("TEXT")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  add_presentation(*command, options->presentation, false);
  command->footer("Example:\n  " + example);
  command->callback([options, bubble] {
    const Presentation presentation = options->presentation.read();
    present(points_of(*options, bubble), presentation);
  });
}

}  // namespace

void add_bubble_and_dew(CLI::App& tool) {
  add_one(tool, "bubble", true, "Where a liquid begins to boil: T at P or P at T, with the vapour it gives",
          "jampot bubble ethanol acetone toluene --liquid ideal --composition \"ethanol=0.3, acetone=0.3\" "
          "--pressure \"1, 2 bar\"");
  add_one(tool, "dew", false, "Where a vapour begins to condense: T at P or P at T, with the liquid it gives",
          "jampot dew ethanol acetone toluene --liquid ideal --composition \"ethanol=0.3, acetone=0.3\" "
          "--temperature \"70 degC\"");
}

}  // namespace jampot::tool
