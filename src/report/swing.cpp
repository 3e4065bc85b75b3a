#include "jampot/report/swing.hpp"

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/draw/looks.hpp"
#include "jampot/draw/vle_figures.hpp"

namespace jampot {
namespace {

class SwingAnswer {
 public:
  SwingAnswer(const SwingStudy& study, const AnswerOptions& options) : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = contenders_header("swing", study_.contenders);
    Json& json = *answer_.json;
    json["recycle"] = study_.balance.recycle;
    json["heat_gap_K"] = study_.heat_gap_K;
    json["verdict"] = study_.verdict;
    json["purity"] = study_.task.purity;
    azeotropes();
    columns();
    answer_.lines.push_back(study_.verdict);
    answer_.lines.push_back(
        fmt::format("the condenser of the column at the higher pressure is {:.1f} K {} than the reboiler of "
                    "the other: it {} heat it",
                    std::abs(study_.heat_gap_K), study_.heat_gap_K > 0 ? "hotter" : "colder",
                    study_.heat_gap_K > 10 ? "can" : "cannot"));
    answer_.lines.push_back(
        fmt::format("the columns come within {:.3g} of the azeotropes; all feeds boiling, total condensers",
                    study_.task.distance));
    answer_.lines.push_back(fmt::format("liquid model: {}", study_.mixture().liquid_model()));
    answer_.notices = study_.notices;
    draw();
    return std::move(answer_);
  }

 private:
  std::string first() const { return study_.substances()[0].short_name(); }
  double total() const { return study_.feed.sized ? study_.feed.total() : 1; }

  void azeotropes() {
    Table table{"Azeotropes", {{"P", Dimension::pressure, 2}, {"T", Dimension::temperature, 2}}, {}};
    table.columns.push_back({fmt::format("x({})", first()), Dimension::fraction, 5});
    for (std::size_t k = 0; k < 2; ++k) {
      const Azeotrope& azeotrope = study_.curves[k].azeotropes.front();
      table.rows.push_back({study_.P_Pa[k], azeotrope.T_K, azeotrope.x1});
      (*answer_.json)["azeotropes"].push_back(
          {{"P_Pa", study_.P_Pa[k]}, {"T_K", azeotrope.T_K}, {"x", {azeotrope.x1, 1 - azeotrope.x1}}});
    }
    answer_.tables.push_back(std::move(table));
  }

  void columns() {
    const bool sized = study_.feed.sized;
    const Dimension moles = !sized              ? Dimension::number
                            : study_.feed.flows ? Dimension::molar_flow
                                                : Dimension::amount;
    const Dimension heat = !sized              ? Dimension::number
                           : study_.feed.flows ? Dimension::power
                                               : Dimension::energy;
    Table streams{
        "Streams", {{"column"}, {"stream"}, {sized ? "moles" : "moles per mole of feed", moles, 4}}, {}};
    streams.columns.push_back({fmt::format("x({})", first()), Dimension::fraction, 5});
    streams.columns.push_back({"T", Dimension::temperature, 2});
    Table columns{"Columns, reboiler counted as a stage",
                  {{"column"},
                   {"P", Dimension::pressure, 2},
                   {"least reflux", Dimension::number, 3},
                   {"reflux", Dimension::number, 3},
                   {"stages", Dimension::number, 1},
                   {"feed on", Dimension::number, 0},
                   {sized ? "condenser" : "condenser [J/mol]", heat, 1},
                   {sized ? "reboiler" : "reboiler [J/mol]", heat, 1}},
                  {}};
    double all = 0;
    bool known = true;
    for (std::size_t k = 0; k < 2; ++k) {
      const SwingColumnFound& one = study_.columns[k];
      const SwingColumn& flows = one.flows;
      const std::string name = k == 0 ? "first" : "second";
      const bool product_on_top = study_.task.maximum;
      const auto add = [&](const std::string& what, double n, double x, Cell T) {
        streams.rows.push_back({name, what, total() * n, x, std::move(T)});
      };
      add("in", flows.in, flows.z, Cell());
      add(product_on_top ? "distillate, product" : "distillate, to the other column",
          product_on_top ? flows.product : flows.passed, product_on_top ? flows.x_product : flows.x_passed,
          one.T_top_K);
      add(product_on_top ? "bottoms, to the other column" : "bottoms, product",
          product_on_top ? flows.passed : flows.product, product_on_top ? flows.x_passed : flows.x_product,
          one.T_bottom_K);
      const auto cell = [&](const std::optional<double>& value) {
        return value ? Cell(total() * *value) : Cell();
      };
      columns.rows.push_back({name, one.P_Pa, one.least_reflux, one.stages.reflux, one.stages.count,
                              static_cast<double>(one.stages.feed_stage), cell(one.condenser_J_mol),
                              cell(one.reboiler_J_mol)});
      known = known && one.reboiler_J_mol;
      all += one.reboiler_J_mol.value_or(0);
      const auto stream = [&](double n, double x, double T_K) {
        return Json{{"moles_per_mole_of_feed", n}, {"x", {x, 1 - x}}, {"T_K", T_K}};
      };
      Json column{{"P_Pa", one.P_Pa},
                  {"in", {{"moles_per_mole_of_feed", flows.in}, {"x", {flows.z, 1 - flows.z}}}},
                  {"minimum_reflux", one.least_reflux},
                  {"reflux", one.stages.reflux},
                  {"count", one.stages.count},
                  {"feed_stage", one.stages.feed_stage},
                  {"condenser_J_mol", one.condenser_J_mol ? Json(*one.condenser_J_mol) : Json(nullptr)},
                  {"reboiler_J_mol", one.reboiler_J_mol ? Json(*one.reboiler_J_mol) : Json(nullptr)}};
      column["distillate"] = stream(product_on_top ? flows.product : flows.passed,
                                    product_on_top ? flows.x_product : flows.x_passed, one.T_top_K);
      column["bottoms"] = stream(product_on_top ? flows.passed : flows.product,
                                 product_on_top ? flows.x_passed : flows.x_product, one.T_bottom_K);
      (*answer_.json)["columns"].push_back(std::move(column));
    }
    answer_.tables.push_back(std::move(streams));
    answer_.tables.push_back(std::move(columns));
    if (known)
      answer_.lines.push_back(
          fmt::format("heat of both reboilers: {:.1f} kJ for each mole of feed", all / 1000));
  }

  void draw() {
    std::vector<BinaryCurve> curves(study_.curves.begin(), study_.curves.end());
    FigureOptions looks;
    looks.units = options_.units;
    answer_.figure = boiling_figure(curves, study_.mixture(), looks);
    Panel& panel = answer_.figure->panels.front();
    const auto T = [&](double T_K) {
      return from_si(T_K, options_.units.temperature, Dimension::temperature);
    };
    for (std::size_t k = 0; k < 2; ++k) {
      const SwingColumnFound& one = study_.columns[k];
      const double x_top = study_.task.maximum ? one.flows.x_product : one.flows.x_passed,
                   x_bottom = study_.task.maximum ? one.flows.x_passed : one.flows.x_product;
      Series balance{{{x_top, T(one.T_top_K)}, {x_bottom, T(one.T_bottom_K)}},
                     "",
                     Stroke::dashed,
                     Mark::square,
                     colours::balance,
                     1.6};
      balance.label = k == 0 ? "first column" : "second column";
      balance.label_may_fail = true;
      panel.series.push_back(std::move(balance));
    }
    answer_.figure->title =
        fmt::format("{} and {} in two columns", study_.substances()[0].name, study_.substances()[1].name);
    for (const Notice& notice : answer_.notices) answer_.figure->notices.push_back(notice.code);
  }

  const SwingStudy& study_;
  const AnswerOptions& options_;
  Answer answer_;
};

}  // namespace

Answer answer(const SwingStudy& study, const AnswerOptions& options) {
  return SwingAnswer(study, options).told();
}

}  // namespace jampot
