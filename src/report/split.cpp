#include "jampot/report/split.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "jampot/basis/constants.hpp"

namespace jampot {
namespace {

class SplitAnswer {
 public:
  explicit SplitAnswer(const SplitStudy& study) : study_(study) {}

  Answer told() {
    *answer_.json = contenders_header("split", study_.contenders);
    for (const SplitCase& one : study_.cases)
      add(one.result, study_.compared() ? study_.contenders[one.contender].label : "");
    answer_.notices = study_.notices;
    answer_.lines.push_back(
        fmt::format("liquid model: {}", study_.contenders.front().mixture.liquid_model()));
    if (!study_.working.empty()) add_working(study_.working, answer_);
    return std::move(answer_);
  }

 private:
  std::string name_of_liquid(const DecantedLiquid& liquid, std::size_t of) {
    return of == 1 ? "the liquid"
                   : fmt::format("rich in {}", study_.substances()[liquid.rich_in].short_name());
  }

  void add(const Decanted& result, const std::string& label) {
    const Dimension mole = study_.feed.flows ? Dimension::molar_flow : Dimension::amount;
    const Dimension mass = study_.feed.flows ? Dimension::mass_flow : Dimension::mass;
    const std::size_t count = result.liquids.size();
    Table table{fmt::format("{} at {:.2f} degC{}",
                            count == 1   ? "One liquid"
                            : count == 2 ? "Two liquids"
                                         : fmt::format("{} liquids", count),
                            result.T_K - celsius_zero, label.empty() ? "" : ", " + label),
                {{"liquid"}},
                {}};
    table.columns.push_back(
        {study_.feed.sized ? "moles" : "mole share", study_.feed.sized ? mole : Dimension::fraction, 4});
    table.columns.push_back(
        {study_.feed.sized ? "mass" : "mass share", study_.feed.sized ? mass : Dimension::fraction, 4});
    table.columns.push_back({"density", Dimension::density, 1});
    double total_mass = 0;
    for (const DecantedLiquid& liquid : result.liquids) total_mass += liquid.m_kg;
    for (std::size_t p = 0; p < count; ++p) {
      const DecantedLiquid& liquid = result.liquids[p];
      std::string name = name_of_liquid(liquid, count);
      if (count == 2 && liquid.density_kg_m3.value && result.liquids[1 - p].density_kg_m3.value)
        name += *liquid.density_kg_m3.value < *result.liquids[1 - p].density_kg_m3.value ? ", lighter"
                                                                                         : ", heavier";
      std::vector<Cell> row{name, liquid.n, study_.feed.sized ? liquid.m_kg : liquid.m_kg / total_mass};
      row.push_back(liquid.density_kg_m3.value ? Cell(*liquid.density_kg_m3.value) : Cell());
      table.rows.push_back(std::move(row));
    }
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
    double total_mass = 0;
    for (const DecantedLiquid& liquid : result.liquids) total_mass += liquid.m_kg;
    for (const DecantedLiquid& liquid : result.liquids) {
      Json phase{{"name", name_of_liquid(liquid, result.liquids.size())},
                 {"rich_in", study_.substances()[liquid.rich_in].name}};
      if (!study_.feed.sized) {
        phase["mole_share"] = liquid.n;
        phase["mass_share"] = liquid.m_kg / total_mass;
      } else if (study_.feed.flows) {
        phase["flow_mol_s"] = liquid.n;
        phase["flow_kg_s"] = liquid.m_kg;
      } else {
        phase["amount_mol"] = liquid.n;
        phase["mass_kg"] = liquid.m_kg;
      }
      phase["x"] = liquid.x;
      phase["w"] = liquid.w;
      phase["density_kg_m3"] = liquid.density_kg_m3.value ? Json(*liquid.density_kg_m3.value) : Json(nullptr);
      json["phases"].push_back(std::move(phase));
    }
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

  const SplitStudy& study_;
  Answer answer_;
};

}  // namespace

Answer answer(const SplitStudy& study, const AnswerOptions&) {
  return SplitAnswer(study).told();
}

}  // namespace jampot
