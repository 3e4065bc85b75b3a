#include "jampot/report/regress.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "fit_tables.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/fit_figures.hpp"

namespace jampot {
namespace {

Json fit_json(const RegressStudy& study, std::size_t k) {
  const RankedFit& entry = study.fits[k];
  Json json = to_json(entry.fit);
  if (study.azeotropes[k]) json["azeotropes"] = to_json(*study.azeotropes[k]);
  if (study.fits.size() > 1) {
    json["aicc_above_best"] = entry.aicc_above_best;
    json["cross_validation"] = entry.cross_validation ? Json(*entry.cross_validation) : Json(nullptr);
    json["cross_validation_sets"] =
        entry.cross_validation_sets ? Json(*entry.cross_validation_sets) : Json(nullptr);
    json["weight"] = entry.weight;
    json["verdict"] = entry.verdict;
  }
  json["notices"] = to_json(entry.fit.notices);
  return json;
}

void add_tables(const RegressStudy& study, const RegressAnswerOptions& options, Answer& answer) {
  const Fit& best = study.best();
  answer.tables.push_back(parameter_table(best));
  answer.tables.push_back(statistics_table(best));
  const auto& azeotropes = study.azeotropes.front();
  if (azeotropes && !azeotropes->curve.azeotropes.empty())
    answer.tables.push_back(table_of(*azeotropes, best));
  const bool with_vapour = std::any_of(best.residuals.begin(), best.residuals.end(),
                                       [](const ResidualRow& row) { return row.used(); });
  if (with_vapour) {
    answer.tables.push_back(residual_table(best));
    answer.figure = fit_figure(best, options.picture, options.units);
  }
  if (!best.liquid_residuals.empty()) answer.tables.push_back(liquid_residual_table(best));
  answer.tables.push_back(influence_table(best, azeotropes ? &*azeotropes : nullptr));
  if (!best.known.empty()) answer.tables.push_back(known_table(best));
  if (!best.sets.empty()) answer.tables.push_back(sets_table(best));
}

}  // namespace

Answer answer(const RegressStudy& study, const RegressAnswerOptions& options) {
  const Fit& best = study.best();
  Answer answer;
  *answer.json = answer_header("regress", best.mixture());
  (*answer.json)["fits"] = Json::array();
  if (study.fits.size() > 1) answer.tables.push_back(ranking_table(study.fits));
  add_tables(study, options, answer);
  for (std::size_t k = 0; k < study.fits.size(); ++k) {
    Json json = fit_json(study, k);
    if (k == 0) (*answer.json)["residuals"] = json.contains("residuals") ? json["residuals"] : Json::array();
    (*answer.json)["fits"].push_back(std::move(json));
  }
  if (study.averaged) {
    const AveragedAzeotrope& mean = *study.averaged;
    (*answer.json)["averaged_azeotrope"] = {
        {"x1", mean.x1},     {"u_x1", mean.u_x1},     {"T_K", mean.T_K},      {"u_T_K", mean.u_T_K},
        {"P_Pa", mean.P_Pa}, {"u_P_Pa", mean.u_P_Pa}, {"models", mean.models}};
    answer.lines.push_back(
        fmt::format("the azeotrope averaged over {} models by their weights: x({}) = {:.4f} +- {:.4f}, {} "
                    "(standard uncertainty of "
                    "the parameters and spread between the models)",
                    mean.models, best.substances[0].short_name(), mean.x1, mean.u_x1,
                    study.azeotropes.front()->curve.sought == Sought::temperature
                        ? fmt::format("{:.3f} {} +- {:.3f} K",
                                      from_si(mean.T_K, options.units.temperature, Dimension::temperature),
                                      options.units.temperature, mean.u_T_K)
                        : fmt::format("{:.4g} {} +- {:.2g} %",
                                      from_si(mean.P_Pa, options.units.pressure, Dimension::pressure),
                                      options.units.pressure, 100 * mean.u_P_Pa / mean.P_Pa)));
  }
  answer.notices = study.notices;
  if (study.fits.size() > 1)
    answer.lines.push_back(
        fmt::format("details, residuals and notices above are those of {}", best.options.model));
  if (options.figure && !answer.figure)
    throw RequestError(
        "the figure of a fit shows residuals of boiling points; there are none among these data");
  return answer;
}

}  // namespace jampot
