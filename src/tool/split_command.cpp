// split: a feed parted into its liquids, with amounts, densities and duty.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/decanter.hpp"
#include "jampot/liquid/working.hpp"
#include "liquids.hpp"

namespace jampot::tool {
namespace {

struct SplitOptions {
  MixtureOptions mixture;
  FeedOptions feed;
  std::string temperature, pressure = "1 atm", feed_temperature, duty, rich_in;
  bool working = false;
  PresentationOptions presentation;
};

class SplitOf {
 public:
  SplitOf(const SplitOptions& options) : options_(options) {
    contenders_ = liquid_contenders(options.mixture, answer_.notices);
    feed_ = options.feed.read(substances(), options.mixture.basis);
    conditions_.P_Pa = parse_quantity(options.pressure, Dimension::pressure);
    if (!options.feed_temperature.empty())
      conditions_.feed_T_K = parse_quantity(options.feed_temperature, Dimension::temperature);
    if (!options.rich_in.empty()) conditions_.rich_in = member_named(options.rich_in, substances());
    if (options.temperature.empty() == options.duty.empty())
      throw RequestError(
          "give --temperature of the liquids, or --duty with --feed-temperature to have it found");
    if (!options.duty.empty() && (!conditions_.feed_T_K || !feed_.sized))
      throw RequestError("a duty needs --feed-temperature and a feed with amounts or flows");
  }

  Answer answer() {
    answer_.json = contenders_header("split", contenders_);
    std::vector<Decanted> all;
    double coldest = HUGE_VAL, hottest = 0;
    for (std::size_t k = 0; k < contenders_.size(); ++k) {
      for (Decanted& result : solve(contenders_[k].mixture)) {
        coldest = std::min(coldest, result.T_K);
        hottest = std::max(hottest, result.T_K);
        const std::string label = contenders_.size() > 1 ? contenders_[k].label : "";
        add(result, label);
        answer_.notices.add(result.notices);
        all.push_back(std::move(result));
      }
    }
    if (conditions_.feed_T_K) {
      coldest = std::min(coldest, *conditions_.feed_T_K);
      hottest = std::max(hottest, *conditions_.feed_T_K);
    }
    add_liquid_notices(contenders_, coldest, hottest, answer_.notices);
    answer_.lines.push_back(fmt::format("liquid model: {}", main().liquid_model()));
    if (options_.working) {
      const Decanted& first = all.front();
      const auto lines = jampot::working(main().activity(), substances(), first.T_K, first.liquids.front().x);
      answer_.json["working"] = lines;
      answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
    }
    return std::move(answer_);
  }

 private:
  Mixture& main() { return contenders_.front().mixture; }
  const std::vector<Substance>& substances() { return main().substances(); }

  std::vector<Decanted> solve(Mixture& mixture) {
    std::vector<Decanted> results;
    if (!options_.duty.empty()) {
      const double duty = parse_quantity(options_.duty, feed_.flows ? Dimension::power : Dimension::energy);
      results.push_back(decant_with_duty(substances(), mixture.activity(), feed_, duty, conditions_));
      return results;
    }
    const std::vector<double> temperatures = parse_quantities(options_.temperature, Dimension::temperature);
    demand_count("temperatures", static_cast<double>(temperatures.size()), 2000);
    for (const double T_K : temperatures) {
      conditions_.T_K = T_K;
      results.push_back(decant(substances(), mixture.activity(), feed_, conditions_));
    }
    return results;
  }

  std::string name_of_liquid(const DecantedLiquid& liquid, std::size_t of) {
    return of == 1 ? "the liquid" : fmt::format("rich in {}", substances()[liquid.rich_in].short_name());
  }

  void add(const Decanted& result, const std::string& label) {
    const Dimension mole = feed_.flows ? Dimension::molar_flow : Dimension::amount;
    const Dimension mass = feed_.flows ? Dimension::mass_flow : Dimension::mass;
    const std::size_t count = result.liquids.size();
    Table table{fmt::format("{} at {:.2f} degC{}",
                            count == 1   ? "One liquid"
                            : count == 2 ? "Two liquids"
                                         : fmt::format("{} liquids", count),
                            result.T_K - celsius_zero, label.empty() ? "" : ", " + label),
                {{"liquid"}},
                {}};
    table.columns.push_back(
        {feed_.sized ? "moles" : "mole share", feed_.sized ? mole : Dimension::fraction, 4});
    table.columns.push_back(
        {feed_.sized ? "mass" : "mass share", feed_.sized ? mass : Dimension::fraction, 4});
    table.columns.push_back({"density", Dimension::density, 1});
    double total_mass = 0;
    for (const DecantedLiquid& liquid : result.liquids) total_mass += liquid.m_kg;
    for (std::size_t p = 0; p < count; ++p) {
      const DecantedLiquid& liquid = result.liquids[p];
      std::string name = name_of_liquid(liquid, count);
      if (count == 2 && liquid.density_kg_m3.value && result.liquids[1 - p].density_kg_m3.value)
        name += *liquid.density_kg_m3.value < *result.liquids[1 - p].density_kg_m3.value ? ", lighter"
                                                                                         : ", heavier";
      std::vector<Cell> row{name, liquid.n, feed_.sized ? liquid.m_kg : liquid.m_kg / total_mass};
      row.push_back(liquid.density_kg_m3.value ? Cell(*liquid.density_kg_m3.value) : Cell());
      table.rows.push_back(std::move(row));
    }
    // The feed below its liquids, for the balance.
    std::vector<Cell> row{std::string("feed"), feed_.total(), feed_.sized ? total_mass : 1.0, Cell()};
    table.rows.push_back(std::move(row));
    answer_.tables.push_back(std::move(table));
    compositions(result, label);
    if (count > 1) amounts(result, label);
    if (result.duty) heat(*result.duty, label);
    to_json(result, label);
    for (const DecantedLiquid& liquid : result.liquids) {
      if (liquid.density_kg_m3.value || answer_.notices.has("no-density")) continue;
      answer_.notices.add("no-density", "no density of a liquid: " + liquid.density_kg_m3.method);
    }
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
      const auto z = feed_.fractions();
      const auto feed = mole ? z : mass_fractions(z, substances());
      for (std::size_t i = 0; i < substances().size(); ++i) {
        std::vector<Cell> row{substances()[i].name};
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
    const Dimension mass = feed_.flows ? Dimension::mass_flow : Dimension::mass;
    for (const DecantedLiquid& liquid : result.liquids) {
      const std::string name = name_of_liquid(liquid, result.liquids.size());
      if (feed_.sized) table.columns.push_back({"mass, " + name, mass, 4});
      table.columns.push_back({"share, " + name, Dimension::fraction, 5});
    }
    for (std::size_t i = 0; i < substances().size(); ++i) {
      std::vector<Cell> row{substances()[i].name};
      for (const DecantedLiquid& liquid : result.liquids) {
        if (feed_.sized) row.emplace_back(liquid.m_kg * liquid.w[i]);
        row.push_back(feed_.n[i] > 0 ? Cell(liquid.n * liquid.x[i] / feed_.n[i]) : Cell());
      }
      table.rows.push_back(std::move(row));
    }
    answer_.tables.push_back(std::move(table));
  }

  void heat(const Duty& duty, const std::string& label) {
    if (!feed_.sized) {
      answer_.notices.add("no-duty",
                          "the feed states no amounts, so no duty is given; --amount says how much there is");
      return;
    }
    if (!duty.total.value) {
      answer_.notices.add("no-duty", "no duty: " + duty.total.method);
      return;
    }
    const Dimension dimension = feed_.flows ? Dimension::power : Dimension::energy;
    Table table{
        "Heat from the feed to the liquids (taken up: positive)" + (label.empty() ? "" : ", " + label),
        {{"part"}, {"heat", dimension, 3}},
        {}};
    table.rows.push_back({std::string("heat capacities"), duty.sensible});
    table.rows.push_back({std::string("mixing and demixing"), duty.mixing});
    table.rows.push_back({std::string("duty"), *duty.total.value});
    answer_.tables.push_back(std::move(table));
    constexpr double share = 0.05;
    if (std::abs(duty.mixing) > share * std::abs(*duty.total.value) &&
        !answer_.notices.has("heat-of-mixing")) {
      answer_.notices.add(
          "heat-of-mixing",
          "the heat of mixing is a sizeable part of the duty; it comes from the temperature dependence of "
          "the liquid model, which is rough unless the parameters were fitted to excess enthalpies too");
    }
  }

  void to_json(const Decanted& result, const std::string& label) {
    Json json{{"T_K", result.T_K}, {"residual", result.residual}, {"balance", result.balance}};
    if (!label.empty()) json["liquid"] = label;
    json["P_Pa"] = *conditions_.P_Pa;
    json["bubble_pressure_Pa"] = result.bubble_pressure_Pa ? Json(*result.bubble_pressure_Pa) : Json(nullptr);
    double total_mass = 0;
    for (const DecantedLiquid& liquid : result.liquids) total_mass += liquid.m_kg;
    for (const DecantedLiquid& liquid : result.liquids) {
      Json phase{{"name", name_of_liquid(liquid, result.liquids.size())},
                 {"rich_in", substances()[liquid.rich_in].name}};
      if (!feed_.sized) {
        phase["mole_share"] = liquid.n;
        phase["mass_share"] = liquid.m_kg / total_mass;
      } else if (feed_.flows) {
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
    if (result.duty && result.duty->total.value && feed_.sized) {
      const char* key = feed_.flows ? "duty_W" : "duty_J";
      json[key] = *result.duty->total.value;
      json["duty_parts"] = {{"heat_capacities", result.duty->sensible}, {"mixing", result.duty->mixing}};
    }
    if (!answer_.json.contains("phases")) {  // the first result at the top, where most look
      for (const auto& [key, value] : json.items()) answer_.json[key] = value;
    }
    answer_.json["results"].push_back(std::move(json));
  }

  const SplitOptions& options_;
  Answer answer_;
  std::vector<Contender> contenders_;
  Feed feed_;
  DecanterConditions conditions_;
};

}  // namespace

void add_split(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<SplitOptions>();
  CLI::App* command =
      tool.add_subcommand("split", "Part a feed into its liquids: amounts, compositions, densities, duty");
  add_mixture(*command, options->mixture, false);
  add_compare(*command, options->mixture);
  add_feed(*command, options->feed);
  command->add_option("--temperature", options->temperature, "Of the liquids: \"25 degC\", a list or a range")
      ->type_name("QUANTITY");
  command
      ->add_option("--pressure", options->pressure, "To see whether a vapour would form (default \"1 atm\")")
      ->type_name("QUANTITY");
  command->add_option("--feed-temperature", options->feed_temperature, "Of the feed, for the duty")
      ->type_name("QUANTITY");
  command->add_option("--duty", options->duty, "Heat taken up, instead of --temperature: \"-40 kW\" cools")
      ->type_name("QUANTITY");
  command
      ->add_option("--rich-in", options->rich_in,
                   "The liquid richest in this comes first (default: the lighter)")
      ->type_name("NAME");
  command->add_flag("--working", options->working, "Write out the activity coefficients of the first liquid");
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example:\n"
      "  jampot split \"ethyl acetate\" ethanol water --feed \"ethyl acetate=600 kg/h, ethanol=60 kg/h, "
      "water=840 kg/h\" "
      "--feed-temperature \"60 degC\" --temperature \"25 degC\"");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(SplitOf(*options).answer(), presentation);
  });
}

}  // namespace jampot::tool
