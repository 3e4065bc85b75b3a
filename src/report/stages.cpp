#include "jampot/report/stages.hpp"

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/draw/stages_figure.hpp"

namespace jampot {
namespace {

class ColumnAnswer {
 public:
  ColumnAnswer(const StagesStudy& study, const AnswerOptions& options)
      : study_(study), options_(options), light_(study.substances()[study.light]) {}

  Answer told() {
    *answer_.json = contenders_header("stages", study_.contenders);
    column();
    balance();
    stages();
    lines();
    answer_.notices = study_.notices;
    answer_.figure = stages_figure(study_.curve, study_.light, study_.task, study_.stages, light_);
    answer_.figure->title = fmt::format(
        "{} and {} at {:.6g} {}: {:.1f} stages at a reflux of {:.3g}", study_.substances()[0].name,
        study_.substances()[1].name, from_si(study_.P_Pa, options_.units.pressure, Dimension::pressure),
        printed_unit(options_.units.pressure), study_.stages.count, study_.stages.reflux);
    add_models(*answer_.figure, study_.contenders, answer_.notices);
    return std::move(answer_);
  }

 private:
  void column() {
    Json& json = *answer_.json;
    const ColumnTask& task = study_.task;
    json["P_Pa"] = study_.P_Pa;
    json["enriched_at_top"] = light_.name;
    json["x_feed"] = task.feed;
    json["x_top"] = task.top;
    json["x_bottom"] = task.bottom;
    json["feed_liquid"] = task.feed_liquid;
    json["efficiency"] = task.efficiency;
    json["minimum_stages"] = study_.total.count;
    json["minimum_reflux"] = study_.least.ratio;
    json["pinch"] = {{"x", study_.least.pinch}, {"tangent", study_.least.tangent}};
    json["reflux"] = study_.stages.reflux;
    json["relative_volatility"] = study_.volatility;
    json["constant_overflow"] = {{"count", study_.stages.count}, {"feed_stage", study_.stages.feed_stage}};
    if (study_.exact)
      json["with_enthalpies"] = {{"count", study_.exact->count}, {"feed_stage", study_.exact->feed_stage}};
    Table table{"Column, reboiler counted as a stage", {{"quantity"}, {"value", Dimension::number, 4}}, {}};
    const auto add = [&](const std::string& what, double value) { table.rows.push_back({what, value}); };
    add("least number of stages (total reflux)", study_.total.count);
    add("least reflux ratio", study_.least.ratio);
    add("reflux ratio", study_.stages.reflux);
    add("stages, constant molar overflow", study_.stages.count);
    add("stage that the feed enters, from the top", study_.stages.feed_stage);
    if (study_.exact) {
      add("stages, with the enthalpies of both phases", study_.exact->count);
      add("stage that the feed enters, with enthalpies", study_.exact->feed_stage);
    }
    add("liquid fraction of the feed", task.feed_liquid);
    add("smallest relative volatility on the way", study_.volatility[0]);
    add("largest relative volatility on the way", study_.volatility[1]);
    answer_.tables.push_back(std::move(table));
  }

  void balance() {
    const bool sized = study_.feed.sized;
    const Dimension moles = !sized              ? Dimension::fraction
                            : study_.feed.flows ? Dimension::molar_flow
                                                : Dimension::amount;
    const Dimension heat = !sized              ? Dimension::number
                           : study_.feed.flows ? Dimension::power
                                               : Dimension::energy;
    const double total = sized ? study_.feed.total() : 1;
    Table table{"Balance", {{"stream"}, {sized ? "moles" : "mole share", moles, 4}}, {}};
    table.columns.push_back({fmt::format("x({})", light_.short_name()), Dimension::fraction, 5});
    table.columns.push_back({fmt::format("w({})", light_.short_name()), Dimension::fraction, 5});
    const auto mass = [&](double x) {
      std::vector<double> fractions(2);
      fractions[study_.light] = x;
      fractions[1 - study_.light] = 1 - x;
      return mass_fractions(fractions, study_.substances())[study_.light];
    };
    Json streams = Json::array();
    const auto add = [&](const char* name, double share, double x) {
      table.rows.push_back({std::string(name), total * share, x, mass(x)});
      Json stream{{"name", name}, {"mole_share", share}, {"x", x}, {"w", mass(x)}};
      if (sized) stream[study_.feed.flows ? "flow_mol_s" : "amount_mol"] = total * share;
      streams.push_back(std::move(stream));
    };
    add("feed", 1, study_.task.feed);
    add("distillate", study_.distillate, study_.task.top);
    add("bottom product", 1 - study_.distillate, study_.task.bottom);
    add("reflux", study_.distillate * study_.stages.reflux, study_.task.top);
    (*answer_.json)["streams"] = std::move(streams);
    answer_.tables.push_back(std::move(table));
    if (study_.exact) {
      Table duties{"Heat", {{"where"}, {sized ? "heat" : "heat [J/mol of feed]", heat, 2}}, {}};
      duties.rows.push_back({std::string("condenser (taken away)"), total * study_.exact->condenser_J_mol});
      duties.rows.push_back({std::string("reboiler (added)"), total * study_.exact->reboiler_J_mol});
      answer_.tables.push_back(std::move(duties));
      const char* unit = !sized ? "_J_mol" : study_.feed.flows ? "_W" : "_J";
      (*answer_.json)[std::string("condenser") + unit] = total * study_.exact->condenser_J_mol;
      (*answer_.json)[std::string("reboiler") + unit] = total * study_.exact->reboiler_J_mol;
    }
    if (study_.simple) {
      (*answer_.json)["simple_distillation"] = {{"left", study_.simple->left},
                                                {"x_distillate", study_.simple->distillate}};
      answer_.lines.push_back(
          fmt::format("boiled away without a column until x({}) = {:.4g} is left: {:.4g} mol of each mole, "
                      "and a distillate of {:.4g} on average",
                      light_.name, study_.task.bottom, study_.simple->left, study_.simple->distillate));
    }
  }

  void stages() {
    const std::string name = light_.short_name();
    Table table{"Stages from the top, constant molar overflow",
                {{"stage", Dimension::number, 0},
                 {"T", Dimension::temperature, 2},
                 {fmt::format("x({})", name), Dimension::fraction, 5},
                 {fmt::format("y({})", name), Dimension::fraction, 5},
                 {"part"}},
                {}};
    int number = 0;
    for (const ColumnStage& stage : study_.stages.stages) {
      ++number;
      table.rows.push_back({static_cast<double>(number), stage.T_K, stage.x, stage.y,
                            std::string(number == study_.stages.feed_stage ? "feed"
                                        : stage.stripping                  ? "below the feed"
                                                                           : "above the feed")});
      (*answer_.json)["stages"].push_back({{"number", number},
                                           {"T_K", stage.T_K},
                                           {"x", stage.x},
                                           {"y", stage.y},
                                           {"stripping", stage.stripping}});
    }
    answer_.screen = answer_.tables;
    answer_.screen.push_back(thinned(table));
    answer_.tables.push_back(std::move(table));
  }

  void lines() {
    answer_.lines.push_back(fmt::format("{} is enriched at the top", light_.name));
    answer_.lines.push_back(fmt::format(
        "total condenser; the feed enters where it saves most{}",
        study_.task.efficiency < 1
            ? fmt::format("; efficiency of the vapour {:.2f} on every stage", study_.task.efficiency)
            : ""));
    answer_.lines.push_back(fmt::format("liquid model: {}", study_.mixture().liquid_model()));
  }

  const StagesStudy& study_;
  const AnswerOptions& options_;
  const Substance& light_;
  Answer answer_;
};

}  // namespace

Answer answer(const StagesStudy& study, const AnswerOptions& options) {
  return ColumnAnswer(study, options).told();
}

}  // namespace jampot
