#include "jampot/report/solubility.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "in_words.hpp"
#include "jampot/draw/solubility_figure.hpp"
#include "liquid_tables.hpp"

namespace jampot {
namespace {

double mass_fraction(double x1, const std::vector<Substance>& substances) {
  return mass_fractions(std::array{x1, 1 - x1}, substances)[0];
}

Table solubility_table(const SolubilityCurve& curve, const std::vector<Substance>& substances,
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
      const double beta = mass_fraction(split.x1_beta, substances);
      table.rows.push_back({point.T_K, split.x1_alpha, split.x1_beta,
                            mass_fraction(split.x1_alpha, substances), beta, 1 - beta});
    }
  }
  return table;
}

Table critical_solutions(const SolubilityCurve& curve, const std::vector<Substance>& substances,
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
      const std::array alpha{split.x1_alpha, 1 - split.x1_alpha}, beta{split.x1_beta, 1 - split.x1_beta};
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

}  // namespace

Answer answer(const SolubilityStudy& study, const SolubilityAnswerOptions& options) {
  Answer answer;
  *answer.json = contenders_header("solubility", study.contenders);
  (*answer.json)["points"] = Json::array();
  (*answer.json)["critical"] = Json::array();
  std::vector<LabelledSolubility> curves;
  for (std::size_t k = 0; k < study.curves.size(); ++k) {
    const SolubilityCurve& curve = study.curves[k];
    const std::string label = study.compared() ? study.contenders[k].label : "";
    answer.tables.push_back(solubility_table(curve, study.substances(), label));
    if (!curve.critical.empty())
      answer.tables.push_back(critical_solutions(curve, study.substances(), label));
    add_json(curve, study.substances(), label, *answer.json);
    answer.lines.push_back((label.empty() ? "" : label + ": ") + curve.description());
    std::vector<LiquidsBeside> own;
    for (const LiquidsBeside& one : study.beside) {
      if (one.contender == k) own.push_back(one);
    }
    add_deviations(own, study.contenders, answer);
    curves.push_back({label, curve});
  }
  if (study.compared()) {
    std::vector<std::string> models;
    for (const Contender& contender : study.contenders) models.push_back(contender.label);
    answer.in_words = agreement_in_words(models, study.curves, study.substances());
  }
  (*answer.json)["description"] = study.curves.front().description();
  answer.lines.push_back(fmt::format("liquid model: {}", study.contenders.front().mixture.liquid_model()));
  if (!study.working.empty()) add_working(study.working, answer);
  answer.notices = study.notices;
  if (options.figure) {
    answer.figure = solubility_figure(curves, study.substances(),
                                      {options.units, options.basis, options.logarithmic, study.measured});
    add_models(*answer.figure, study.contenders, answer.notices);
  }
  return answer;
}

}  // namespace jampot
