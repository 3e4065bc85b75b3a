#include "jampot/report/regress.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "fit_tables.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/vle_figures.hpp"

namespace jampot {
namespace {

Json fit_json(const RegressStudy& study, std::size_t k) {
  const RankedFit& entry = study.fits[k];
  Json json = to_json(entry.fit);
  if (study.azeotropes[k]) json["azeotropes"] = to_json(*study.azeotropes[k]);
  if (study.fits.size() > 1) {
    json["aicc_above_best"] = entry.aicc_above_best;
    json["cross_validation"] = entry.cross_validation ? Json(*entry.cross_validation) : Json(nullptr);
    json["verdict"] = entry.verdict;
  }
  json["notices"] = to_json(entry.fit.notices);
  return json;
}

void add_tables(const RegressStudy& study, Answer& answer) {
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
    answer.figure = residual_figure(best);
  }
  if (!best.liquid_residuals.empty()) answer.tables.push_back(liquid_residual_table(best));
}

}  // namespace

Answer answer(const RegressStudy& study, const AnswerOptions& options) {
  const Fit& best = study.best();
  Answer answer;
  *answer.json = answer_header("regress", best.mixture());
  (*answer.json)["fits"] = Json::array();
  if (study.fits.size() > 1) answer.tables.push_back(ranking_table(study.fits));
  add_tables(study, answer);
  for (std::size_t k = 0; k < study.fits.size(); ++k) {
    Json json = fit_json(study, k);
    if (k == 0) (*answer.json)["residuals"] = json.contains("residuals") ? json["residuals"] : Json::array();
    (*answer.json)["fits"].push_back(std::move(json));
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
