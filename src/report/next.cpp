#include "jampot/report/next.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "fields.hpp"
#include "jampot/draw/looks.hpp"

namespace jampot {
namespace {

std::string what_of(const Candidate& candidate, const Fit& fit) {
  const DataPoint& point = candidate.point;
  const std::string solute = fit.substances[point.solute].short_name();
  switch (family_of(candidate.kind)) {
    case DataFamily::boiling:
      return has_vapour(candidate.kind) ? "boiling point with its vapour" : "boiling point";
    case DataFamily::two_liquids:
      return "mutual solubilities";
    case DataFamily::liquid_value:
      break;
  }
  const LiquidValue& value = *describe(candidate.kind).value;
  if (value.dilute)
    return fmt::format("{} infinitely dilute in {}", solute, fit.substances[point.solvent].short_name());
  return value.of_component ? fmt::format("{} of {}", value.column, solute) : std::string(value.column);
}

class Plan {
 public:
  explicit Plan(const NextStudy& study) : study_(study) {}

  Answer told() {
    Answer answer;
    *answer.json = answer_header("next", study_.fit.mixture());
    Json& json = *answer.json;
    json["aim"] = {{"name", name_of(result().options.aim)}, {"quantities", Json::array()}};
    for (const AimQuantity& one : result().aim)
      json["aim"]["quantities"].push_back(
          {{"name", one.name}, {"unit", one.unit}, {"value", one.value}, {"u", one.u}});
    const auto all = fields();
    for (const auto& [key, list] :
         {std::pair("candidates", &result().candidates), {"batch", &result().batch}}) {
      json[key] = Json::array();
      for (const Candidate& candidate : *list) json[key].push_back(json_of(all, candidate));
    }
    if (!models() && result().options.aim != Aim::parameters) answer.tables.push_back(aim_table());
    answer.tables.push_back(table_of("What would tell most, the best of each kind", all, best_of_each()));
    if (result().options.batch > 1)
      answer.tables.push_back(table_of("Measured one after the other", all, result().batch));
    answer.figure = figure();
    answer.lines.push_back(
        models()
            ? fmt::format(
                  "apart: how many standard uncertainties {} and {} lie apart there, before {} is fitted "
                  "anew with the point",
                  study_.fit.options.model, study_.rival->options.model, study_.rival->options.model)
            : "share: uncertainty of the aim after the measurement over that of today, to first order, with "
              "the uncertainties of the data");
    answer.notices = study_.notices;
    return answer;
  }

 private:
  const NextMeasurement& result() const { return study_.result; }
  bool models() const { return result().options.aim == Aim::models; }

  Fields<Candidate> fields() const {
    using C = Candidate;
    const Fit& fit = study_.fit;
    const auto boils = [](const C& c) { return vapour_liquid(c.kind); };
    const auto mixed = [](const C& c) { return !c.point.is_pure(); };
    Fields<C> list{
        text_field<C>("what", "measurement", [&fit](const C& c) { return what_of(c, fit); }),
        json_field<C>("kind", [](const C& c) { return std::string(name_of(c.kind)); }),
        maybe_field<C>("x1", {fmt::format("x({})", fit.substances[0].short_name()), Dimension::fraction, 3},
                       [mixed](const C& c) { return mixed(c) ? std::optional(c.point.x[0]) : std::nullopt; }),
        number_field<C>("T_K", {"T", Dimension::temperature, 2}, [](const C& c) { return c.point.T_K; }),
        maybe_field<C>("P_Pa", {"P", Dimension::pressure, 2}, [boils](const C& c) {
          return boils(c) ? std::optional(c.point.P_Pa) : std::nullopt;
        })};
    if (models()) {
      list.push_back(number_field<C>("apart", {"apart", Dimension::number, 2}, member_of(&C::apart)));
      return list;
    }
    for (std::size_t q = 0; q < result().aim.size() && result().options.aim != Aim::parameters; ++q) {
      const std::string& unit = result().aim[q].unit;
      list.push_back(
          number_field<C>("",
                          {fmt::format("u({}){}", result().aim.size() > 1 ? fmt::format("{}", q + 1) : "aim",
                                       unit.empty() ? "" : " in " + unit)},
                          [q](const C& c) { return c.u.at(q); }));
    }
    list.push_back(json_field<C>("u", member_of(&C::u)));
    list.push_back(number_field<C>("share", {"share", Dimension::number, 3}, member_of(&C::share)));
    return list;
  }

  Table aim_table() const {
    Table table{
        "What is to be known better", {{"quantity"}, {"now"}, {"standard uncertainty"}, {"unit"}}, {}};
    for (const AimQuantity& one : result().aim)
      table.rows.push_back(
          {one.name, fmt::format("{:.6g}", one.value), fmt::format("{:.3g}", one.u), one.unit});
    return table;
  }

  // The candidates are sorted: the first of a kind at a pressure or temperature is its best.
  std::vector<Candidate> best_of_each() const {
    std::vector<Candidate> list;
    for (const Candidate& candidate : result().candidates) {
      const auto held = [](const Candidate& c) { return isobaric(c.kind) ? c.point.P_Pa : c.point.T_K; };
      const bool known = std::any_of(list.begin(), list.end(), [&](const Candidate& other) {
        return what_of(other, study_.fit) == what_of(candidate, study_.fit) &&
               std::abs(held(other) - held(candidate)) < 1e-9 * held(candidate);
      });
      if (!known) list.push_back(candidate);
    }
    return list;
  }

  std::optional<Figure> figure() const {
    std::vector<const Candidate*> boiling;
    for (const Candidate& candidate : result().candidates)
      if (vapour_liquid(candidate.kind)) boiling.push_back(&candidate);
    if (boiling.empty()) return std::nullopt;
    std::stable_sort(boiling.begin(), boiling.end(),
                     [](const auto* a, const auto* b) { return a->point.x[0] < b->point.x[0]; });
    const auto held = [](const Candidate& c) { return isobaric(c.kind) ? c.point.P_Pa : c.point.T_K; };
    const double first_held = held(*boiling.front());
    Figure figure;
    figure.title = fmt::format("What to measure next: {} and {}", study_.fit.substances[0].name,
                               study_.fit.substances[1].name);
    figure.footer = fmt::format("aim: {}; {}", name_of(result().options.aim), study_.fit.source());
    Series with = curve_of(looks::liquid, "with the vapour"), without = curve_of(looks::vapour, "without");
    double low = HUGE_VAL, high = 0;
    for (const Candidate* candidate : boiling) {
      if (std::abs(held(*candidate) - first_held) > 1e-9 * first_held) continue;
      const double value = models() ? candidate->apart : candidate->share;
      (has_vapour(candidate->kind) ? with : without).spots.push_back({candidate->point.x[0], value});
      low = std::min(low, value);
      high = std::max(high, value);
    }
    Panel panel;
    panel.x = {fmt::format("mole fraction of {} in the liquid", study_.fit.substances[0].name), 0, 1};
    panel.y =
        rounded_axis(models() ? "models apart, in standard uncertainties" : "uncertainty afterwards / now",
                     models() ? 0 : low, high);
    panel.series = {std::move(with), std::move(without)};
    const Candidate& best = result().batch.front();
    if (vapour_liquid(best.kind) && std::abs(held(best) - first_held) <= 1e-9 * first_held)
      panel.callouts.push_back(
          {{best.point.x[0], models() ? best.apart : best.share}, "measure here", Mark::circle});
    figure.panels = {std::move(panel)};
    return figure;
  }

  const NextStudy& study_;
};

}  // namespace

Answer answer(const NextStudy& study, const AnswerOptions&) {
  return Plan(study).told();
}

}  // namespace jampot
