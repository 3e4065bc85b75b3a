#include "jampot/report/estimate.hpp"

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "jampot/liquid/models.hpp"

namespace jampot {
namespace {

std::string both_limits(const std::array<double, 2>& ln_gamma, const std::string& first,
                        const std::string& second) {
  return fmt::format("{:.4g} ({} in {}), {:.4g} ({} in {})", std::exp(ln_gamma[0]), first, second,
                     std::exp(ln_gamma[1]), second, first);
}

// The numbers of one pair, into the table and the JSON of its fit.
void add_values(const PairParameters& pair, const std::string& names, Table& table, Json& json) {
  for (const TermForFit& term : terms_for_fit(pair.model)) {
    for (const Coefficient coefficient : all_coefficients) {
      const double value = pair.terms.at(term.name)[coefficient];
      if (value == 0) continue;
      table.rows.push_back(
          {names, term.name, std::string(name_of(coefficient)), fmt::format("{:.6g}", value)});
      json["parameters"].push_back({{"name", fmt::format("{}.{}", term.name, name_of(coefficient))},
                                    {"value", value},
                                    {"std_error", nullptr}});
    }
  }
}

}  // namespace

Answer answer(const EstimateStudy& study, const AnswerOptions&) {
  Answer answer;
  *answer.json = plain_header("estimate");
  (*answer.json)["models"]["liquid"] = study.model;
  for (const Substance& substance : study.substances)
    (*answer.json)["substances"].push_back(to_json(substance));
  Table table{"Estimated parameters", {{"pair"}, {"term"}, {"coefficient"}, {"value"}}, {}};
  Table quality{"How well the model follows what it was fitted to",
                {{"pair"},
                 {"states", Dimension::number, 0},
                 {"RMS of ln gamma", Dimension::number, 4},
                 {"limits predicted"},
                 {"limits fitted"}},
                {}};
  Json fits = Json::array();
  for (const EstimatedPair& one : study.pairs) {
    const std::string first = study.substances[one.first].short_name(),
                      second = study.substances[one.second].short_name(), names = first + " - " + second;
    const Estimate& found = one.estimate;
    Json json{{"model", study.model}, {"objective", 0.0}};
    if (!study.exact) {
      quality.rows.push_back({names, static_cast<double>(found.states), found.rms_ln_gamma,
                              both_limits(found.predicted_limits, first, second),
                              both_limits(found.fitted_limits, first, second)});
      json["objective"] = found.rms_ln_gamma * found.rms_ln_gamma * found.states;
      json["rms_ln_gamma"] = found.rms_ln_gamma;
    }
    add_values(found.pair, names, table, json);
    fits.push_back(std::move(json));
    (*answer.json)["parameters"].push_back(to_json(found.pair));
  }
  (*answer.json)["fits"] = std::move(fits);
  answer.tables.push_back(std::move(table));
  if (!quality.rows.empty()) answer.tables.push_back(std::move(quality));
  answer.notices = study.notices;
  return answer;
}

Answer answer(const MoscedStudy& study, const AnswerOptions&) {
  const std::string& name = study.name;
  const MoscedFit& found = study.found;
  const MoscedParameters& p = found.parameters;
  Answer answer;
  *answer.json = plain_header("estimate");
  (*answer.json)["models"]["liquid"] = "mosced";
  Table table{
      fmt::format("MOSCED parameters of {}", name),
      {{"parameter"}, {"value", Dimension::number, 4}, {"standard error", Dimension::number, 4}, {"remark"}},
      {}};
  Json fit{{"model", "mosced"}, {"rms_ln_gamma", found.rms_ln_gamma}};
  const auto add = [&](const char* parameter, double value, std::optional<double> error) {
    table.rows.push_back(
        {std::string(parameter), value, error ? Cell(*error) : Cell(), std::string(error ? "" : "given")});
    fit["parameters"].push_back(
        {{"name", parameter}, {"value", value}, {"std_error", error ? Json(*error) : Json(nullptr)}});
  };
  add("v", p.v_cm3_mol, std::nullopt);
  add("q", p.q, std::nullopt);
  add("lambda", p.lambda, found.std_error[0]);
  add("tau", p.tau, found.std_error[1]);
  add("alpha", p.alpha, found.std_error[2]);
  add("beta", p.beta, found.std_error[3]);
  answer.tables.push_back(std::move(table));
  Table limits{fmt::format("Limits, RMS of ln gamma {:.3f}", found.rms_ln_gamma),
               {{"line", Dimension::number, 0},
                {"solute in solvent"},
                {"T", Dimension::temperature, 2},
                {"measured", Dimension::number, 3},
                {"model", Dimension::number, 3}},
               {}};
  for (std::size_t k = 0; k < study.points.size(); ++k) {
    const std::string& partner = study.points[k].partner.name;
    limits.rows.push_back({static_cast<double>(study.points[k].line),
                           study.points[k].as_solute ? fmt::format("{} in {}", name, partner)
                                                     : fmt::format("{} in {}", partner, name),
                           study.points[k].T_K, study.points[k].gamma, found.model[k]});
  }
  answer.tables.push_back(std::move(limits));
  (*answer.json)["fits"] = Json::array({std::move(fit)});
  answer.notices = study.notices;
  answer.lines.push_back(
      fmt::format("to use them: jampot define {} ... --mosced \"v={:.6g}, lambda={:.6g}, tau={:.6g}, "
                  "q={:.6g}, alpha={:.6g}, beta={:.6g}\"",
                  name, p.v_cm3_mol, p.lambda, p.tau, p.q, p.alpha, p.beta));
  return answer;
}

}  // namespace jampot
