#include "jampot/report/extract.hpp"

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>
#include <optional>

#include "contenders.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/draw/looks.hpp"
#include "jampot/draw/ternary_figure.hpp"

namespace jampot {
namespace {

class ExtractAnswer {
 public:
  ExtractAnswer(const ExtractStudy& study, const ExtractAnswerOptions& options)
      : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = contenders_header("extract", study_.contenders);
    Json& json = *answer_.json;
    json["T_K"] = study_.T_K;
    json["basis"] = mass() ? "mass" : "mole";
    json["solute"] = name(0);
    json["carrier"] = name(1);
    json["solvent"] = name(2);
    json["minimum_solvent"] = study_.least;
    json["solvent_per_feed"] = study_.stages.solvent;
    json["count"] = study_.stages.count;
    json["recovered"] = study_.stages.recovered;
    json["solvent_lost_per_feed"] = study_.stages.lost;
    json["coefficient"] = study_.coefficient;
    json["selectivity"] = study_.selectivity;
    json["cross_flow"] = study_.cross ? Json{{"count", study_.cross->count},
                                             {"solvent_per_feed", study_.cross->solvent},
                                             {"recovered", study_.cross->recovered}}
                                      : Json(nullptr);
    summary();
    stages();
    lines();
    answer_.notices = study_.notices;
    draw();
    return std::move(answer_);
  }

 private:
  bool mass() const { return study_.basis == Basis::mass; }
  const std::string& name(std::size_t i) const { return study_.substances()[i].name; }
  std::string per_feed(const char* what) const {
    return fmt::format("{}, {} per {} of feed", what, mass() ? "kg" : "mol", mass() ? "kg" : "mol");
  }

  void summary() {
    Table table{fmt::format("Extraction of {} from {} with {} at {:.1f} degC, by {}", name(0), name(1),
                            name(2), study_.T_K - celsius_zero, mass() ? "mass" : "moles"),
                {{"quantity"}, {"value", Dimension::number, 4}},
                {}};
    const auto add = [&](const std::string& what, double value) { table.rows.push_back({what, value}); };
    add("distribution coefficient without solute", study_.coefficient);
    add("selectivity without solute", study_.selectivity);
    add(per_feed("least solvent, counter-current"), study_.least);
    add(per_feed("solvent"), study_.stages.solvent);
    add("stages, counter-current", study_.stages.count);
    add("fraction of the solute recovered", study_.stages.recovered);
    add(per_feed("solvent lost with the raffinate"), study_.stages.lost);
    if (study_.cross) {
      add("stages in cross-flow, each with an equal fraction of that solvent", study_.cross->count);
      add(per_feed("solvent in cross-flow"), study_.cross->solvent);
    }
    answer_.tables.push_back(std::move(table));
  }

  void stages() {
    Table table{"Counter-current stages from the feed on", {{"stage", Dimension::number, 0}}, {}};
    const char letter = mass() ? 'w' : 'x';
    for (const char* liquid : {"raffinate", "extract"}) {
      table.columns.push_back({per_feed(liquid), Dimension::number, 4});
      for (const Substance& substance : study_.substances())
        table.columns.push_back(
            {fmt::format("{}({}) {}", letter, substance.short_name(), liquid), Dimension::fraction, 5});
    }
    int number = 0;
    for (const ExtractionStage& stage : study_.stages.stages) {
      const bool part = &stage == &study_.stages.stages.back();
      std::vector<Cell> row{static_cast<double>(++number), part ? Cell() : Cell(stage.raffinate_amount)};
      row.insert(row.end(), stage.raffinate.begin(), stage.raffinate.end());
      row.emplace_back(stage.extract_amount);
      row.insert(row.end(), stage.extract.begin(), stage.extract.end());
      table.rows.push_back(std::move(row));
      (*answer_.json)["stages"].push_back(
          {{"number", number},
           {"raffinate", stage.raffinate},
           {"extract", stage.extract},
           {"raffinate_per_feed", part ? Json(nullptr) : Json(stage.raffinate_amount)},
           {"extract_per_feed", stage.extract_amount}});
    }
    answer_.tables.push_back(std::move(table));
    const ExtractionStages& all = study_.stages;
    (*answer_.json)["last_raffinate"] = {{"fractions", all.last_raffinate}, {"per_feed", all.last_amount}};
    const double net = all.net[0] + all.net[1] + all.net[2];
    if (std::abs(net) > 1e-6) {  // else the operating lines are parallel
      difference_ = {all.net[0] / net, all.net[1] / net, all.net[2] / net};
      (*answer_.json)["difference_point"] = {{"fractions", *difference_}, {"per_feed", net}};
      answer_.lines.push_back(fmt::format(
          "all operating lines run through the difference point, feed less extract: {} {:.4g}, {} "
          "{:.4g}, {} {:.4g}, outside of the triangle",
          name(0), (*difference_)[0], name(1), (*difference_)[1], name(2), (*difference_)[2]));
    }
    answer_.lines.push_back(
        fmt::format("last raffinate: {:.4g} {} for each {} of feed with {} {:.4g}, {} {:.4g}, {} {:.4g}; "
                    "only a part of the last stage is needed; its liquids are those of a whole stage",
                    all.last_amount, mass() ? "kg" : "mol", mass() ? "kg" : "mol", name(0),
                    all.last_raffinate[0], name(1), all.last_raffinate[1], name(2), all.last_raffinate[2]));
  }

  void lines() {
    answer_.lines.push_back(
        fmt::format("{} is the solute, {} the carrier, {} the solvent; all fractions and amounts by {}",
                    name(0), name(1), name(2), mass() ? "mass" : "moles"));
    if (!study_.no_cross.empty())
      answer_.lines.push_back("in cross-flow with the same solvent: " + study_.no_cross);
    answer_.lines.push_back(
        fmt::format("liquid model: {}", study_.contenders.front().mixture.liquid_model()));
  }

  // From the feed and its extract to the last raffinate and the solvent, each through the difference point,
  // or some way towards one that lies far outside of the triangle.
  void operating_lines(Panel& panel, const Triangle& triangle) {
    const auto& all = study_.stages.stages;
    std::vector<std::pair<Spot, Spot>> pairs{
        {triangle.at(study_.task.feed), triangle.at(all.front().extract)}};
    for (std::size_t n = 0; n + 1 < all.size(); ++n)
      pairs.emplace_back(triangle.at(all[n].raffinate), triangle.at(all[n + 1].extract));
    pairs.emplace_back(triangle.at(study_.stages.last_raffinate), triangle.at(study_.task.solvent));
    const std::optional<Spot> pole = difference_ ? std::optional(triangle.at(*difference_)) : std::nullopt;
    constexpr double most_beyond = 1.2, room = 0.12;  // in lengths of a side
    const bool shown = pole && pole->x > -most_beyond && pole->x < 1 + most_beyond &&
                       pole->y > -most_beyond && pole->y < 1 + most_beyond;
    if (shown) {
      panel.x.low = std::min(panel.x.low, pole->x - room);
      panel.x.high = std::max(panel.x.high, pole->x + room);
      panel.y.low = std::min(panel.y.low, pole->y - room);
      panel.y.high = std::max(panel.y.high, pole->y + room);
      panel.callouts.push_back({*pole, "difference point", Mark::triangle});
    } else if (pole) {
      const double side = pole->x > 0.5 ? 1 + 2 * room : -2 * room;
      panel.x.low = std::min(panel.x.low, side);
      panel.x.high = std::max(panel.x.high, side);
      answer_.figure->footer += "; operating lines run towards the difference point";
    }
    bool first = true;
    for (auto [from, to] : pairs) {
      if (pole) {
        const auto off = [&](const Spot& spot) { return std::hypot(spot.x - pole->x, spot.y - pole->y); };
        if (off(from) > off(to)) std::swap(from, to);
        constexpr double some_way = 0.16;
        const double share = shown ? 1 : std::min(1.0, some_way / off(from));
        from = {from.x + share * (pole->x - from.x), from.y + share * (pole->y - from.y)};
      }
      Series line = straight(looks::operating, from, to);
      line.label = first ? "operating lines" : "";
      line.in_key = first;
      first = false;
      panel.series.push_back(std::move(line));
    }
  }

  // Operating lines and tie lines of the stages in the triangle; beside it the solute of both liquids.
  void draw() {
    TernaryFigureOptions shown;
    shown.units = options_.units;
    shown.basis = study_.basis;
    shown.triangle = options_.triangle;
    answer_.figure = ternary_figure({{"", study_.diagram}}, study_.substances(), shown);
    Panel& panel = answer_.figure->panels.front();
    const Triangle triangle(options_.triangle);
    const auto spot = [&](const Fractions& x) { return triangle.at(x); };
    const auto& all = study_.stages.stages;
    for (std::size_t n = 0; n < all.size(); ++n) {
      Series tie{{spot(all[n].raffinate), spot(all[n].extract)},
                 "",
                 Stroke::solid,
                 Mark::none,
                 colours::vapour,
                 1.8};
      if (n == 0) {
        tie.label = "tie lines of the stages";
        tie.in_key = true;
      }
      panel.series.push_back(std::move(tie));
    }
    operating_lines(panel, triangle);
    panel.callouts.push_back({spot(study_.task.feed), "feed", Mark::circle});
    panel.callouts.push_back({spot(all.front().extract), "extract", Mark::square});
    panel.callouts.push_back({spot(all.back().raffinate), "raffinate", Mark::square});
    // Solute in the solvent's liquid against that in the carrier's, with the steps.
    Panel beside;
    Series equilibrium{{{0, 0}}, "equilibrium", Stroke::solid, Mark::none, colours::liquid, 2};
    const ExtractionLiquids liquids =
        ExtractionLiquids::of(study_.diagram, {0, 1, 2}, study_.substances(), study_.basis);
    double right = study_.task.feed[0], high = 0;
    for (double t = 0; t <= liquids.last(); t += 0.5) {
      const Fractions R = liquids.raffinate(t), E = liquids.extract(t);
      if (R[0] > 1.2 * study_.task.feed[0]) break;
      equilibrium.spots.push_back({R[0], E[0]});
      high = std::max(high, E[0]);
      right = std::max(right, R[0]);
    }
    Series operating = curve_of(looks::operating, "operating curve");
    operating.in_key = true;
    const auto &leanest = study_.stages.last_raffinate, &richest = all.front().raffinate;
    for (double t = 0; t <= liquids.last(); t += 0.25) {
      const Fractions R = liquids.raffinate(t);
      if (R[0] < leanest[0]) continue;
      if (R[0] > richest[0]) break;
      if (const auto at = liquids.extract_on_line(R, study_.stages.net, t))
        operating.spots.push_back({R[0], liquids.extract(*at)[0]});
    }
    operating.spots.push_back({study_.task.feed[0], all.front().extract[0]});
    Series steps{{{study_.task.feed[0], all.front().extract[0]}},
                 "stages",
                 Stroke::solid,
                 Mark::none,
                 colours::plain,
                 1.1};
    for (std::size_t n = 0; n < all.size(); ++n) {
      steps.spots.push_back({all[n].raffinate[0], all[n].extract[0]});
      steps.spots.push_back({all[n].raffinate[0], n + 1 < all.size() ? all[n + 1].extract[0] : 0.0});
      high = std::max(high, all[n].extract[0]);
    }
    steps.in_key = true;
    beside.series.push_back(std::move(equilibrium));
    beside.series.push_back(std::move(operating));
    beside.series.push_back(std::move(steps));
    const char* kind = mass() ? "mass" : "mole";
    beside.x = rounded_axis(
        fmt::format("{} fraction of {} in the raffinate", kind, study_.substances()[0].short_name()), 0,
        right);
    beside.y = rounded_axis(
        fmt::format("{} fraction of {} in the extract", kind, study_.substances()[0].short_name()), 0, high);
    answer_.figure->panels.push_back(std::move(beside));
    answer_.figure->columns = 2;
    answer_.figure->width = 1400;
    answer_.figure->title =
        fmt::format("Extraction of {} from {} with {} at {:.1f} {}: {:.1f} stages", name(0), name(1), name(2),
                    study_.T_K - celsius_zero, printed_unit("degC"), study_.stages.count);
    add_models(*answer_.figure, study_.contenders, answer_.notices);
  }

  const ExtractStudy& study_;
  const ExtractAnswerOptions& options_;
  Answer answer_;
  std::optional<std::array<double, 3>> difference_;  ///< where the operating lines meet; none: parallel
};

}  // namespace

Answer answer(const ExtractStudy& study, const ExtractAnswerOptions& options) {
  return ExtractAnswer(study, options).told();
}

}  // namespace jampot
