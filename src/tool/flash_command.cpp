// flash: what a feed becomes at given temperature and pressure.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "interactions.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/flash.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/phase/fluid_phase.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct FlashOptions {
  MixtureOptions mixture;
  Condition condition;
  FeedOptions feed;
  std::string vapour = "ideal", interactions;
  PresentationOptions presentation;
};

class FlashOf {
 public:
  explicit FlashOf(const FlashOptions& options) : options_(options) {
    if (options.condition.temperature.empty() || options.condition.pressure.empty())
      throw RequestError(
          "give --temperature and --pressure, as in --temperature \"80 degC\" --pressure \"1 atm\"");
    T_K_ = parse_quantities(options.condition.temperature, Dimension::temperature);
    P_Pa_ = parse_quantities(options.condition.pressure, Dimension::pressure);
    if (options.mixture.liquid == "eos") {
      with_equation();
    } else {
      with_activity_model();
    }
    feed_ = options.feed.read(substances_, options.mixture.basis);
  }

  Answer answer() {
    double coldest = HUGE_VAL, hottest = 0, highest = 0;
    for (const double T_K : T_K_) {
      for (const double P_Pa : P_Pa_) {
        add(T_K, P_Pa);
        coldest = std::min(coldest, T_K);
        hottest = std::max(hottest, T_K);
        highest = std::max(highest, P_Pa);
      }
    }
    if (mixture_) {
      answer_.notices.add(mixture_->range_notices(coldest, hottest));
      answer_.notices.add(suitability(*mixture_, Purpose::vapour_liquid, coldest, hottest, highest));
    }
    return std::move(answer_);
  }

 private:
  void with_equation() {
    if (options_.vapour != "pr" && options_.vapour != "srk")
      throw RequestError(
          "with --liquid eos one equation of state describes liquid and vapour: --vapour pr or srk");
    const auto bank = bank_with(options_.mixture.substance_files);
    substances_ = substances_named(options_.mixture.names, *bank);
    equation_.emplace(options_.vapour == "pr" ? CubicEquation::Form::peng_robinson
                                              : CubicEquation::Form::soave_redlich_kwong,
                      substances_, read_interactions(options_.interactions, *bank));
    fluid_.emplace(equation_->clone(), FluidPhase::Root::stable);
    kinds_ = {&*fluid_};
    answer_.notices.add(equation_->notices());
    answer_.json = plain_header("flash");
    for (const Substance& substance : substances_) answer_.json["substances"].push_back(to_json(substance));
    answer_.json["models"] = {{"liquid", "eos"}, {"vapour", options_.vapour}};
  }

  void with_activity_model() {
    if (options_.vapour != "ideal")
      throw RequestError(fmt::format(
          "--vapour {}: beside an activity model the vapour is ideal; with --liquid eos pr or srk "
          "describe both",
          options_.vapour));
    mixture_.emplace(options_.mixture.read(answer_.notices));
    substances_ = mixture_->substances();
    kinds_ = {&mixture_->vapour(), &mixture_->liquid()};
    answer_.json = answer_header("flash", *mixture_);
  }

  // "vapour", "liquid", "liquid rich in water"; of an equation of state by its volume against the co-volume.
  std::vector<std::string> names(const Flashed& result, double T_K, double P_Pa) {
    std::vector<std::string> list;
    std::vector<bool> vapour;
    for (const FlashedPhase& phase : result.phases) {
      bool is_vapour = mixture_ && phase.kind == 0;
      if (equation_) {
        PhaseValues values(substances_.size());
        fluid_->evaluate(T_K, P_Pa, phase.x, {}, values);
        const double v = fluid_->state().Z * gas_constant * T_K / P_Pa;
        constexpr double critical = 3.9;  // v/b at the critical point is 3.8 to 3.95
        is_vapour = v > critical * equation_->mixed(T_K, P_Pa, phase.x).b;
      }
      vapour.push_back(is_vapour);
    }
    const auto liquids = std::count(vapour.begin(), vapour.end(), false);
    for (std::size_t p = 0; p < result.phases.size(); ++p) {
      if (vapour[p]) {
        list.emplace_back("vapour");
        continue;
      }
      std::vector<std::vector<double>> others;
      for (std::size_t q = 0; q < result.phases.size(); ++q) {
        if (q != p && !vapour[q]) others.push_back(result.phases[q].x);
      }
      const std::size_t rich = rich_in(result.phases[p].x, others);
      list.push_back(liquids == 1 ? "liquid" : "liquid rich in " + substances_[rich].short_name());
    }
    return list;
  }

  void add(double T_K, double P_Pa) {
    const std::vector<double> z = feed_.fractions();
    const Flashed result = flash(kinds_, T_K, P_Pa, z);
    const std::vector<std::string> phases = names(result, T_K, P_Pa);
    const double total = feed_.total();
    double feed_mass = 0, balance = 0;
    for (std::size_t i = 0; i < z.size(); ++i) {
      feed_mass += feed_.n[i] * substances_[i].molar_mass_kg_mol;
      double sum = 0;
      for (const FlashedPhase& phase : result.phases) sum += phase.amount * phase.x[i];
      balance = std::max(balance, std::abs(sum - z[i]));
    }
    const Dimension mole = feed_.flows ? Dimension::molar_flow : Dimension::amount;
    const Dimension mass = feed_.flows ? Dimension::mass_flow : Dimension::mass;
    Table amounts{fmt::format("{:.2f} degC, {:.6g} kPa", T_K - celsius_zero, P_Pa / 1000),
                  {{"phase"},
                   {"mole share", Dimension::fraction, 5},
                   {feed_.sized ? "moles" : "", feed_.sized ? mole : Dimension::number, 4},
                   {feed_.sized ? "mass" : "mass share", feed_.sized ? mass : Dimension::fraction, 5}},
                  {}};
    if (!feed_.sized) amounts.columns.erase(amounts.columns.begin() + 2);
    Table fractions{"Mole fractions", {{"substance"}, {"feed", Dimension::fraction, 5}}, {}};
    Json json{{"T_K", T_K},
              {"P_Pa", P_Pa},
              {"residual", result.residual},
              {"balance", balance},
              {"tangent_plane_distance", result.distance},
              {"phases", Json::array()}};
    double vapour = 0;
    for (std::size_t p = 0; p < result.phases.size(); ++p) {
      const FlashedPhase& phase = result.phases[p];
      double phase_mass = 0;
      for (std::size_t i = 0; i < z.size(); ++i)
        phase_mass += total * phase.amount * phase.x[i] * substances_[i].molar_mass_kg_mol;
      std::vector<Cell> row{phases[p], phase.amount};
      if (feed_.sized) row.emplace_back(total * phase.amount);
      row.emplace_back(feed_.sized ? phase_mass : phase_mass / feed_mass);
      amounts.rows.push_back(std::move(row));
      fractions.columns.push_back({phases[p], Dimension::fraction, 5});
      Json entry{{"name", phases[p]},
                 {"mole_share", phase.amount},
                 {"x", phase.x},
                 {"w", mass_fractions(phase.x, substances_)}};
      if (feed_.sized) {
        entry[feed_.flows ? "flow_mol_s" : "amount_mol"] = total * phase.amount;
        entry[feed_.flows ? "flow_kg_s" : "mass_kg"] = phase_mass;
      }
      json["phases"].push_back(std::move(entry));
      if (phases[p] == "vapour") vapour += phase.amount;
    }
    for (std::size_t i = 0; i < z.size(); ++i) {
      std::vector<Cell> row{substances_[i].name, z[i]};
      for (const FlashedPhase& phase : result.phases) row.emplace_back(phase.x[i]);
      fractions.rows.push_back(std::move(row));
    }
    json["vapour_fraction"] = vapour;
    if (!answer_.json.contains("phases")) {
      for (const auto& [key, value] : json.items()) answer_.json[key] = value;
    }
    answer_.json["results"].push_back(std::move(json));
    answer_.tables.push_back(std::move(amounts));
    answer_.tables.push_back(std::move(fractions));
    answer_.lines.push_back(fmt::format(
        "{:.2f} degC, {:.6g} kPa: mass balance closed to {:.0e} of the feed; ln(x phi) equal to {:.0e}",
        T_K - celsius_zero, P_Pa / 1000, balance, result.residual));
  }

  const FlashOptions& options_;
  Answer answer_;
  std::vector<double> T_K_, P_Pa_;
  std::vector<Substance> substances_;
  std::optional<Mixture> mixture_;
  std::optional<CubicEquation> equation_;
  std::optional<FluidPhase> fluid_;
  std::vector<Phase*> kinds_;
  Feed feed_;
};

}  // namespace

void add_flash(CLI::App& tool) {
  auto options = std::make_shared<FlashOptions>();
  CLI::App* command = tool.add_subcommand(
      "flash", "What a feed becomes at given temperature and pressure: phases and amounts");
  add_mixture(*command, options->mixture, false);
  add_condition(*command, options->condition);
  add_feed(*command, options->feed);
  command
      ->add_option("--vapour", options->vapour,
                   "ideal (default); with --liquid eos: pr or srk for liquid and vapour")
      ->type_name("MODEL");
  command->add_option("--interactions", options->interactions, "k_ij of pairs: a table first, second, k_ij")
      ->type_name("FILE.csv");
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example:\n"
      "  jampot flash methane propane n-hexane --liquid eos --vapour pr --feed \"methane=10 kmol/h, "
      "propane=20 kmol/h, "
      "n-hexane=30 kmol/h\" --temperature \"20 degC\" --pressure \"10 bar\"");
  command->callback([options] {
    const Presentation presentation = options->presentation.read();
    present(FlashOf(*options).answer(), presentation);
  });
}

}  // namespace jampot::tool
