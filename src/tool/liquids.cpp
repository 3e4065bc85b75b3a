#include "liquids.hpp"

#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot::tool {

std::vector<Contender> liquid_contenders(const MixtureOptions& options, Notices& notices) {
  MixtureOptions own = options;
  own.two_liquids = true;
  std::vector<Contender> contenders = own.contenders(notices);
  for (Contender& contender : contenders) {
    const std::string model = contender.mixture.liquid_model();
    if (can_split(model)) continue;
    throw CalculationError(fmt::format(
        "{} cannot describe two liquids, whatever its parameters; nrtl, uniquac or unifac-lle can (--liquid)",
        model));
  }
  return contenders;
}

void add_liquid_notices(const std::vector<Contender>& contenders, double Tmin_K, double Tmax_K,
                        Notices& notices) {
  for (const Contender& contender : contenders) {
    notices.add(suitability(contender.mixture, Purpose::liquid_liquid, Tmin_K, Tmax_K));
    for (const Notice& notice : contender.mixture.range_notices(Tmin_K, Tmax_K)) {
      if (notice.code == "parameter-range") notices.add(notice.code, notice.text);
    }
    for (const Substance& substance : contender.mixture.substances()) {
      // A liquid is drawn even where it would be frozen.
      if (substance.Tm_K && Tmin_K < *substance.Tm_K && !notices.has("may-freeze"))
        notices.add("may-freeze",
                    fmt::format("{} melts at {:.1f} degC: below that a solid may form, which is not "
                                "looked for",
                                substance.name, *substance.Tm_K - celsius_zero));
    }
  }
}

std::vector<Table> liquid_deviation_tables(const LiquidComparison& comparison, const std::string& name,
                                           const std::vector<Substance>& substances) {
  Table points{fmt::format("Measured pairs of liquids, {} (model minus measured, mole fraction)", name),
               {{"T", Dimension::temperature, 2}},
               {}};
  for (const char* side : {"one liquid", "other liquid"}) {
    for (std::size_t i = 0; i + 1 < substances.size(); ++i) {
      points.columns.push_back(
          {fmt::format("x({}) {}", substances[i].short_name(), side), Dimension::fraction, 4});
      points.columns.push_back({"deviation", Dimension::fraction, 4});
    }
  }
  points.columns.push_back({"distance", Dimension::fraction, 4});
  for (const auto& row : comparison.rows) {
    std::vector<Cell> cells{row.measured.T_K};
    const bool parts = !row.alpha.empty();
    for (const auto& [measured, model] :
         {std::pair(&row.measured.x, &row.alpha), std::pair(&row.measured.y, &row.beta)}) {
      for (std::size_t i = 0; i + 1 < substances.size(); ++i) {
        cells.emplace_back((*measured)[i]);
        cells.push_back(parts ? Cell((*model)[i] - (*measured)[i]) : Cell(std::string("one liquid")));
      }
    }
    cells.push_back(parts ? Cell(row.distance) : Cell());
    points.rows.push_back(std::move(cells));
  }
  Table summary{fmt::format("Deviations, {}", name),
                {{"quantity"}, {"points"}, {"mean"}, {"mean absolute"}, {"RMS"}, {"largest"}},
                {}};
  const auto add = [&](const std::string& what, const DeviationSummary& s) {
    const auto number = [](double value) { return fmt::format("{:.5f}", value); };
    summary.rows.push_back({what, fmt::format("{}", s.count), number(s.mean), number(s.mean_absolute),
                            number(s.root_mean_square), number(s.largest)});
  };
  for (std::size_t i = 0; i < comparison.x.size(); ++i)
    add(fmt::format("x({}), both liquids", substances[i].short_name()), comparison.x[i]);
  add("distance of a pair", comparison.distance);
  if (comparison.without > 0)
    summary.rows.push_back({fmt::format("without: {} where the model is one liquid", comparison.without)});
  summary.rows.back().resize(summary.columns.size());
  return {std::move(points), std::move(summary)};
}

Json to_json(const LiquidComparison& comparison) {
  Json json{{"without", comparison.without}, {"points", Json::array()}};
  const auto summary = [](const DeviationSummary& s) {
    return Json{{"count", s.count},
                {"mean", s.mean},
                {"mean_absolute", s.mean_absolute},
                {"rms", s.root_mean_square},
                {"largest", s.largest}};
  };
  for (const auto& row : comparison.rows) {
    json["points"].push_back({{"T_K", row.measured.T_K},
                              {"measured_alpha", row.measured.x},
                              {"measured_beta", row.measured.y},
                              {"alpha", row.alpha},
                              {"beta", row.beta},
                              {"distance", row.alpha.empty() ? Json(nullptr) : Json(row.distance)}});
  }
  for (const DeviationSummary& s : comparison.x) json["x"].push_back(summary(s));
  json["distance"] = summary(comparison.distance);
  return json;
}

void sign(Figure& figure, const std::vector<Contender>& contenders, const Notices& notices) {
  std::vector<std::string> labels;
  for (const Contender& contender : contenders) labels.push_back(contender.label);
  const std::string own = figure.footer;
  figure.footer = "liquid model: " + joined(labels, ", ");
  add_sources(figure, contenders);
  if (!own.empty()) figure.footer += "; " + own;
  for (const Notice& notice : notices) {
    if (std::find(figure.notices.begin(), figure.notices.end(), notice.code) == figure.notices.end())
      figure.notices.push_back(notice.code);
  }
}

}  // namespace jampot::tool
