// solubility: two liquids of a pair against temperature.
#include <fmt/format.h>

#include <algorithm>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/solubility_figure.hpp"
#include "jampot/liquid/working.hpp"
#include "liquids.hpp"
#include "measured_files.hpp"

namespace jampot::tool {
namespace {

struct SolubilityOptions {
  MixtureOptions mixture;
  std::string temperature = "0 to 100 by 5 degC";
  std::vector<std::string> measured;
  bool logarithmic = false, working = false;
  PresentationOptions presentation;
};

double mass_fraction(double x1, const std::vector<Substance>& substances) {
  return mass_fractions(std::array{x1, 1 - x1}, substances)[0];
}

Table curve_table(const SolubilityCurve& curve, const std::vector<Substance>& substances,
                  const std::string& label) {
  const std::string a = substances[0].short_name(), b = substances[1].short_name();
  Table table{
      fmt::format("{} and {}{}", substances[0].name, substances[1].name, label.empty() ? "" : ", " + label),
      {{"T", Dimension::temperature, 2},
       {fmt::format("x({}) {}-rich", a, b), Dimension::fraction, 5},
       {fmt::format("x({}) {}-rich", a, a), Dimension::fraction, 5},
       {fmt::format("w({}) {}-rich", a, b), Dimension::fraction, 5},
       {fmt::format("w({}) {}-rich", a, a), Dimension::fraction, 5},
       {fmt::format("w({}) {}-rich", b, a), Dimension::fraction, 5}},
      {}};
  for (const SolubilityPoint& point : curve.points) {
    if (point.splits.empty()) {
      table.rows.push_back({point.T_K, std::string("one liquid"), {}, {}, {}, {}});
    }
    for (const BinarySplit& split : point.splits) {
      const double beta = mass_fraction(split.x_beta, substances);
      table.rows.push_back(
          {point.T_K, split.x_alpha, split.x_beta, mass_fraction(split.x_alpha, substances), beta, 1 - beta});
    }
  }
  return table;
}

Table critical_table(const SolubilityCurve& curve, const std::vector<Substance>& substances,
                     const std::string& label) {
  Table table{"Critical solution points" + (label.empty() ? "" : ", " + label),
              {{"T", Dimension::temperature, 3},
               {fmt::format("x({})", substances[0].short_name()), Dimension::fraction, 5},
               {fmt::format("w({})", substances[0].short_name()), Dimension::fraction, 5},
               {"kind"}},
              {}};
  for (const CriticalSolution& critical : curve.critical) {
    table.rows.push_back(
        {critical.T_K, critical.x1, mass_fraction(critical.x1, substances),
         std::string(critical.upper ? "upper: two liquids below" : "lower: two liquids above")});
  }
  return table;
}

void add_json(const SolubilityCurve& curve, const std::vector<Substance>& substances,
              const std::string& label, Json& json) {
  for (const SolubilityPoint& point : curve.points) {
    for (const BinarySplit& split : point.splits) {
      const std::array alpha{split.x_alpha, 1 - split.x_alpha}, beta{split.x_beta, 1 - split.x_beta};
      Json entry{{"T_K", point.T_K},
                 {"x_alpha", alpha},
                 {"x_beta", beta},
                 {"w_alpha", mass_fractions(alpha, substances)},
                 {"w_beta", mass_fractions(beta, substances)},
                 {"residual", split.residual}};
      if (!label.empty()) entry["liquid"] = label;
      json["points"].push_back(std::move(entry));
    }
  }
  for (const CriticalSolution& critical : curve.critical) {
    Json entry{{"T_K", critical.T_K},
               {"x", {critical.x1, 1 - critical.x1}},
               {"kind", critical.upper ? "upper" : "lower"}};
    if (!label.empty()) entry["liquid"] = label;
    json["critical"].push_back(std::move(entry));
  }
}

Answer solubility_of(const SolubilityOptions& options, const Presentation& presentation) {
  Answer answer;
  std::vector<Contender> contenders = liquid_contenders(options.mixture, answer.notices);
  Mixture& main = contenders.front().mixture;
  const auto& substances = main.substances();
  const auto T_K = parse_quantities(options.temperature, Dimension::temperature);
  demand_count("temperatures", static_cast<double>(T_K.size()), 5000);
  const auto sets = read_overlays(options.measured, main.substances(),
                                  *bank_with(options.mixture.substance_files), Overlay::two_liquids);
  const auto [coldest, hottest] = std::minmax_element(T_K.begin(), T_K.end());
  add_liquid_notices(contenders, *coldest, *hottest, answer.notices);
  answer.json = contenders_header("solubility", contenders);
  answer.json["points"] = Json::array();
  answer.json["critical"] = Json::array();
  const bool compared = contenders.size() > 1;
  SolubilityFigureOptions drawing{presentation.units, parse_basis(options.mixture.basis), options.logarithmic,
                                  sets};
  std::vector<LabelledSolubility> curves;
  std::size_t with_split = 0;
  std::vector<std::string> sentences;
  for (Contender& contender : contenders) {
    const std::string label = compared ? contender.label : "";
    SolubilityCurve curve = solubility(contender.mixture.activity(), T_K);
    answer.tables.push_back(curve_table(curve, substances, label));
    if (!curve.critical.empty()) answer.tables.push_back(critical_table(curve, substances, label));
    add_json(curve, substances, label, answer.json);
    sentences.push_back((label.empty() ? "" : label + ": ") + curve.description());
    for (const DataSet& set : sets) {
      answer.notices.add(set.notices);
      const LiquidComparison comparison = compare_liquids(contender.mixture.activity(), set);
      const std::string name = compared ? set.name + ", " + contender.label : set.name;
      for (Table& table : liquid_deviation_tables(comparison, name, substances))
        answer.tables.push_back(std::move(table));
      Json json = to_json(comparison);
      json["file"] = set.name;
      if (compared) json["liquid"] = contender.label;
      answer.json["measured"].push_back(std::move(json));
    }
    for (const SolubilityPoint& point : curve.drawn) with_split += point.splits.size();
    curves.push_back({label, std::move(curve)});
  }
  if (with_split == 0) {
    throw CalculationError(
        fmt::format("{} and {} are one liquid throughout this range with {}; nothing dissolves to a limit. "
                    "Other temperatures, or a "
                    "model with parameters fitted to two liquids, may say otherwise",
                    substances[0].name, substances[1].name, main.liquid_model()));
  }
  answer.json["description"] = curves.front().curve.description();
  answer.lines.insert(answer.lines.end(), sentences.begin(), sentences.end());
  answer.lines.push_back(fmt::format("liquid model: {}", main.liquid_model()));
  if (options.working) {
    for (const SolubilityPoint& point : curves.front().curve.points) {
      if (point.splits.empty()) continue;
      const double x1 = point.splits.front().x_alpha;
      const auto lines = jampot::working(main.activity(), substances, point.T_K, {x1, 1 - x1});
      answer.json["working"] = lines;
      answer.lines.insert(answer.lines.end(), lines.begin(), lines.end());
      break;
    }
  }
  if (!presentation.figure.empty() && presentation.plot.empty()) {
    answer.figure = solubility_figure(curves, substances, drawing);
    sign(*answer.figure, contenders, answer.notices);
  }
  return answer;
}

}  // namespace

void add_solubility(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<SolubilityOptions>();
  CLI::App* command = tool.add_subcommand("solubility", "Mutual solubility of a pair against temperature");
  add_mixture(*command, options->mixture, true);
  add_compare(*command, options->mixture);
  command
      ->add_option("--temperature", options->temperature,
                   "\"25 degC\", a list or a range (default \"0 to 100 by 5 degC\")")
      ->type_name("QUANTITY");
  command->add_option("--measured", options->measured, "Measured pairs of liquids laid over, with deviations")
      ->type_name("FILE")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command->add_flag("--logarithmic", options->logarithmic,
                    "Draw each solubility by itself on a logarithmic axis: the dilute side magnified");
  command->add_flag("--working", options->working, "Write out the activity coefficients of the first liquid");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example (predicted; with --parameters the fitted pair is used):\n"
      "  jampot solubility 1-butanol water --temperature \"0 to 90 by 10 degC\" --figure solubility.svg");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(solubility_of(*options, presentation), presentation);
  });
}

}  // namespace jampot::tool
