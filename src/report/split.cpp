#include "jampot/report/split.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "fields.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/phases_figure.hpp"

namespace jampot {
namespace {

// A liquid of a parted feed.
struct LiquidRow {
  const Decanted* parted;
  const DecantedLiquid* liquid;
  std::string name;    ///< "rich in water"
  std::string weight;  ///< ", lighter" of two whose densities are known

  double mass_share() const {
    double total = 0;
    for (const DecantedLiquid& one : parted->liquids) total += one.m_kg;
    return liquid->m_kg / total;
  }
};

Fields<LiquidRow> liquid_fields(const Feed& feed, const std::vector<Substance>& substances) {
  const auto only = [](bool shown) { return [shown](const LiquidRow&) { return shown; }; };
  const auto moles = [](const LiquidRow& row) { return row.liquid->n; };
  const auto mass = [](const LiquidRow& row) { return row.liquid->m_kg; };
  const auto share = [](const LiquidRow& row) { return row.mass_share(); };
  const bool sized = feed.sized, flows = feed.flows;
  return {
      {"name",
       {{"liquid"}},
       [](const LiquidRow& row) { return Json(row.name); },
       [](const LiquidRow& row) { return std::vector<Cell>(1, Cell(row.name + row.weight)); }},
      json_field<LiquidRow>(
          "rich_in", [&substances](const LiquidRow& row) { return substances[row.liquid->rich_in].name; }),
      where(only(!sized),
            number_field<LiquidRow>("mole_share", {"mole share", Dimension::fraction, 4}, moles)),
      where(only(!sized),
            number_field<LiquidRow>("mass_share", {"mass share", Dimension::fraction, 4}, share)),
      where(only(sized),
            number_field<LiquidRow>(flows ? "flow_mol_s" : "amount_mol",
                                    {"moles", flows ? Dimension::molar_flow : Dimension::amount, 4}, moles)),
      where(only(sized),
            number_field<LiquidRow>(flows ? "flow_kg_s" : "mass_kg",
                                    {"mass", flows ? Dimension::mass_flow : Dimension::mass, 4}, mass)),
      json_field<LiquidRow>("x", [](const LiquidRow& row) { return row.liquid->x; }),
      json_field<LiquidRow>("w", [](const LiquidRow& row) { return row.liquid->w; }),
      maybe_field<LiquidRow>("density_kg_m3", {"density", Dimension::density, 1},
                             [](const LiquidRow& row) { return row.liquid->density_kg_m3.value; })};
}

class SplitAnswer {
 public:
  SplitAnswer(const SplitStudy& study, const AnswerOptions& options) : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = contenders_header("split", study_.contenders);
    for (const SplitCase& one : study_.cases)
      add(one.result, study_.compared() ? study_.contenders[one.contender].label : "");
    answer_.notices = study_.notices;
    answer_.lines.push_back(
        fmt::format("liquid model: {}", study_.contenders.front().mixture.liquid_model()));
    draw();
    if (!study_.working.empty()) add_working(study_.working, answer_);
    return std::move(answer_);
  }

 private:
  std::string name_of_liquid(const DecantedLiquid& liquid, std::size_t of) {
    return of == 1 ? "the liquid"
                   : fmt::format("rich in {}", study_.substances()[liquid.rich_in].short_name());
  }

  std::vector<LiquidRow> rows_of(const Decanted& result) {
    const auto& liquids = result.liquids;
    std::vector<LiquidRow> rows;
    for (std::size_t p = 0; p < liquids.size(); ++p) {
      rows.push_back({&result, &liquids[p], name_of_liquid(liquids[p], liquids.size()), ""});
      if (liquids.size() != 2 || !liquids[0].density_kg_m3.value || !liquids[1].density_kg_m3.value) continue;
      rows.back().weight =
          *liquids[p].density_kg_m3.value < *liquids[1 - p].density_kg_m3.value ? ", lighter" : ", heavier";
    }
    return rows;
  }

  void add(const Decanted& result, const std::string& label) {
    const std::size_t count = result.liquids.size();
    Table table = table_of(fmt::format("{} at {:.2f} degC{}",
                                       count == 1   ? "One liquid"
                                       : count == 2 ? "Two liquids"
                                                    : fmt::format("{} liquids", count),
                                       result.T_K - celsius_zero, label.empty() ? "" : ", " + label),
                           liquid_fields(study_.feed, study_.substances()), rows_of(result));
    double total_mass = 0;
    for (const DecantedLiquid& liquid : result.liquids) total_mass += liquid.m_kg;
    // The feed below its liquids, for the balance.
    std::vector<Cell> row{std::string("feed"), study_.feed.total(), study_.feed.sized ? total_mass : 1.0,
                          Cell()};
    table.rows.push_back(std::move(row));
    answer_.tables.push_back(std::move(table));
    compositions(result, label);
    if (count > 1) amounts(result, label);
    if (result.duty) heat(*result.duty, label);
    to_json(result, label);
    answer_.lines.push_back(
        fmt::format("{}mass balance closed to {:.0e} of the feed; ln(x gamma) equal to {:.0e}",
                    label.empty() ? "" : label + ": ", result.balance, result.residual));
  }

  // A table of mole fractions and one of mass fractions, the liquids and the feed side by side.
  void compositions(const Decanted& result, const std::string& label) {
    for (const bool mole : {true, false}) {
      Table table{fmt::format("{} fractions{}", mole ? "Mole" : "Mass", label.empty() ? "" : ", " + label),
                  {{"substance"}},
                  {}};
      for (const DecantedLiquid& liquid : result.liquids)
        table.columns.push_back(
            {(mole ? "x, " : "w, ") + name_of_liquid(liquid, result.liquids.size()), Dimension::fraction, 5});
      table.columns.push_back({mole ? "x, feed" : "w, feed", Dimension::fraction, 5});
      const auto z = study_.feed.fractions();
      const auto feed = mole ? z : mass_fractions(z, study_.substances());
      for (std::size_t i = 0; i < study_.substances().size(); ++i) {
        std::vector<Cell> row{study_.substances()[i].name};
        for (const DecantedLiquid& liquid : result.liquids)
          row.emplace_back(mole ? liquid.x[i] : liquid.w[i]);
        row.emplace_back(feed[i]);
        table.rows.push_back(std::move(row));
      }
      answer_.tables.push_back(std::move(table));
    }
  }

  // How much of each substance goes where.
  void amounts(const Decanted& result, const std::string& label) {
    Table table{"Where each substance goes" + (label.empty() ? "" : ", " + label), {{"substance"}}, {}};
    const Dimension mass = study_.feed.flows ? Dimension::mass_flow : Dimension::mass;
    for (const DecantedLiquid& liquid : result.liquids) {
      const std::string name = name_of_liquid(liquid, result.liquids.size());
      if (study_.feed.sized) table.columns.push_back({"mass, " + name, mass, 4});
      table.columns.push_back({"share, " + name, Dimension::fraction, 5});
    }
    for (std::size_t i = 0; i < study_.substances().size(); ++i) {
      std::vector<Cell> row{study_.substances()[i].name};
      for (const DecantedLiquid& liquid : result.liquids) {
        if (study_.feed.sized) row.emplace_back(liquid.m_kg * liquid.w[i]);
        row.push_back(study_.feed.n[i] > 0 ? Cell(liquid.n * liquid.x[i] / study_.feed.n[i]) : Cell());
      }
      table.rows.push_back(std::move(row));
    }
    answer_.tables.push_back(std::move(table));
  }

  void heat(const Duty& duty, const std::string& label) {
    if (!study_.feed.sized || !duty.total.value) return;  // a notice says why
    const Dimension dimension = study_.feed.flows ? Dimension::power : Dimension::energy;
    Table table{
        "Heat from the feed to the liquids (taken up: positive)" + (label.empty() ? "" : ", " + label),
        {{"part"}, {"heat", dimension, 3}},
        {}};
    table.rows.push_back({std::string("heat capacities"), duty.sensible});
    table.rows.push_back({std::string("mixing and demixing"), duty.mixing});
    table.rows.push_back({std::string("duty"), *duty.total.value});
    answer_.tables.push_back(std::move(table));
  }

  void to_json(const Decanted& result, const std::string& label) {
    Json json{{"T_K", result.T_K}, {"residual", result.residual}, {"balance", result.balance}};
    if (!label.empty()) json["liquid"] = label;
    json["P_Pa"] = study_.P_Pa;
    json["bubble_pressure_Pa"] = result.bubble_pressure_Pa ? Json(*result.bubble_pressure_Pa) : Json(nullptr);
    const auto fields = liquid_fields(study_.feed, study_.substances());
    for (const LiquidRow& row : rows_of(result)) json["phases"].push_back(json_of(fields, row));
    if (result.duty && result.duty->total.value && study_.feed.sized) {
      const char* key = study_.feed.flows ? "duty_W" : "duty_J";
      json[key] = *result.duty->total.value;
      json["duty_parts"] = {{"heat_capacities", result.duty->sensible}, {"mixing", result.duty->mixing}};
    }
    if (!answer_.json->contains("phases")) {  // the first result at the top, where most look
      for (const auto& [key, value] : json.items()) (*answer_.json)[key] = value;
    }
    (*answer_.json)["results"].push_back(std::move(json));
  }

  const std::string& label_of(const SplitCase& one) const { return study_.contenders[one.contender].label; }
  bool several_temperatures() const {
    return std::any_of(study_.cases.begin(), study_.cases.end(), [&](const SplitCase& one) {
      return one.result.T_K != study_.cases.front().result.T_K;
    });
  }

  void draw() {
    const bool range = several_temperatures() && study_.cases.size() > 2 * study_.contenders.size();
    answer_.figure = range ? over_temperature() : bars();
    std::vector<std::string> names;
    for (const Substance& substance : study_.substances()) names.push_back(substance.name);
    answer_.figure->title = "Split of " + joined(names, ", ");
    if (!several_temperatures())
      answer_.figure->title += fmt::format(" at {}", shown_T(study_.cases.front().result.T_K));
    add_models(*answer_.figure, study_.contenders, answer_.notices);
  }

  std::string shown_T(double T_K) const {
    return fmt::format("{:.6g} {}", from_si(T_K, options_.units.temperature, Dimension::temperature),
                       printed_unit(options_.units.temperature));
  }

  // The feed and the liquids of every case.
  Figure bars() {
    const bool mole = options_.basis == Basis::mole;
    const auto shown = [&](const std::vector<double>& x) {
      return mole ? x : mass_fractions(x, study_.substances());
    };
    std::vector<PhaseBar> list{{"feed", 1, shown(study_.feed.fractions())}};
    for (const SplitCase& one : study_.cases) {
      std::vector<std::string> prefix;
      if (study_.compared()) prefix.push_back(label_of(one));
      if (several_temperatures()) prefix.push_back(shown_T(one.result.T_K));
      double moles = 0, mass = 0;
      for (const DecantedLiquid& liquid : one.result.liquids) {
        moles += liquid.n;
        mass += liquid.m_kg;
      }
      for (const DecantedLiquid& liquid : one.result.liquids) {
        std::vector<std::string> name = prefix;
        name.push_back(name_of_liquid(liquid, one.result.liquids.size()));
        list.push_back({joined(name, ", "), mole ? liquid.n / moles : liquid.m_kg / mass, shown(liquid.x)});
      }
    }
    return phases_figure(list, study_.substances(), options_.basis);
  }

  // How much of each substance goes into the liquid that the first one answered is rich in.
  Figure over_temperature() {
    const std::size_t rich_in = study_.cases.front().result.liquids.front().rich_in;
    Panel panel;
    double cold = HUGE_VAL, hot = 0;
    for (std::size_t i = 0; i < study_.substances().size(); ++i) {
      if (!(study_.feed.n[i] > 0)) continue;
      for (std::size_t m = 0; m < study_.contenders.size(); ++m) {
        constexpr std::array strokes{Stroke::solid, Stroke::dashed, Stroke::dotted};
        Series series{{},
                      study_.substances()[i].short_name(),
                      strokes[m % strokes.size()],
                      Mark::none,
                      static_cast<int>(i % 8)};
        if (study_.compared()) series.label += ", " + study_.contenders[m].label;
        for (const SplitCase& one : study_.cases) {
          if (one.contender != m) continue;
          const double T = from_si(one.result.T_K, options_.units.temperature, Dimension::temperature);
          cold = std::min(cold, T);
          hot = std::max(hot, T);
          for (const DecantedLiquid& liquid : one.result.liquids) {
            if (one.result.liquids.size() > 1 && liquid.rich_in == rich_in)
              series.spots.push_back({T, liquid.n * liquid.x[i] / study_.feed.n[i]});
          }
        }
        if (!series.spots.empty()) panel.series.push_back(std::move(series));
      }
    }
    panel.x = rounded_axis("temperature / " + printed_unit(options_.units.temperature), cold, hot);
    panel.y = {fmt::format("fraction that goes into the liquid rich in {}",
                           study_.substances()[rich_in].short_name()),
               0, 1};
    Figure figure;
    figure.panels = {std::move(panel)};
    return figure;
  }

  const SplitStudy& study_;
  const AnswerOptions& options_;
  Answer answer_;
};

}  // namespace

Answer answer(const SplitStudy& study, const AnswerOptions& options) {
  return SplitAnswer(study, options).told();
}

}  // namespace jampot
