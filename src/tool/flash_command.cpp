// flash: what a feed becomes at given temperature and pressure, vapour fraction or enthalpy.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "commands.hpp"
#include "flash_case.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/phases_figure.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "options.hpp"
#include "vle_working.hpp"

namespace jampot::tool {
namespace {

struct FlashOptions {
  MixtureOptions mixture;
  Condition condition;
  FeedOptions feed;
  std::string vapour_fraction, duty, feed_temperature, feed_pressure, feed_vapour_fraction,
      reference = "ideal-gas";
  bool adiabatic = false, together = false, working = false;
  PresentationOptions presentation;
};

/// What is held in a flash: two of T, P, vapour fraction and heat.
struct Specification {
  std::optional<double> T_K, P_Pa, vapour_fraction,
      heat;  ///< heat: added to the feed, J or W (J/mol of fractions)
};

class FlashOf {
 public:
  explicit FlashOf(const FlashOptions& options)
      : options_(options),
        contenders_(options.mixture.contenders(answer_.notices)),
        reference_(parse_reference(options.reference)) {
    read_specifications();
    for (const std::string& text : options.feed.all())
      feeds_.push_back(options.feed.read(text, substances(), options.mixture.basis));
  }

  Answer answer() {
    answer_.json = contenders_header("flash", contenders_);
    for (Contender& contender : contenders_) {
      Energies energies(contender.mixture, reference_);
      double coldest = HUGE_VAL, hottest = 0, highest = 0;
      for (const Feed& feed : feeds_) {
        for (const Specification& specification : specifications_) {
          cases_.push_back(solve(contender, energies, feed, specification));
          const FlashState& state = cases_.back().state;
          coldest = std::min(coldest, state.T_K);
          hottest = std::max(hottest, state.T_K);
          highest = std::max(highest, state.P_Pa);
        }
      }
      answer_.notices.add(contender.mixture.range_notices(coldest, hottest));
      answer_.notices.add(suitability(contender.mixture, Purpose::vapour_liquid, coldest, hottest, highest));
      if (cases_.back().h_J_mol) answer_.notices.add(energies.notices());
      light_gases(contender.mixture, hottest);
    }
    tell();
    return std::move(answer_);
  }

 private:
  const std::vector<Substance>& substances() const { return contenders_.front().mixture.substances(); }

  void read_specifications() {
    const auto values = [](const std::string& text, Dimension dimension) {
      return text.empty() ? std::vector<double>{} : parse_quantities(text, dimension);
    };
    const auto T = values(options_.condition.temperature, Dimension::temperature);
    const auto P = values(options_.condition.pressure, Dimension::pressure);
    const auto share = values(options_.vapour_fraction, Dimension::fraction);
    const bool heat = options_.adiabatic || !options_.duty.empty();
    if (options_.adiabatic && !options_.duty.empty())
      throw RequestError("--adiabatic and --duty exclude each other: adiabatic is a duty of zero");
    const int given = !T.empty() + !P.empty() + !share.empty() + heat;
    if (given != 2 || (heat && P.empty())) {
      throw RequestError(
          "give two: --temperature and --pressure, --pressure and --vapour-fraction, --temperature and "
          "--vapour-fraction, or --pressure and --adiabatic (or --duty); as in --temperature \"80 degC\" "
          "--pressure "
          "\"1 atm\"");
    }
    if (heat && options_.feed_temperature.empty() && options_.feed_vapour_fraction.empty())
      throw RequestError(
          "an adiabatic flash, or one with a duty, needs the state of the feed: --feed-temperature and "
          "--feed-pressure");
    std::optional<double> added;
    if (!options_.duty.empty()) {
      const Dimension dimension =
          dimension_of(options_.duty, {Dimension::power, Dimension::energy, Dimension::molar_energy});
      added = parse_quantity(options_.duty, dimension);
      duty_dimension_ = dimension;
    } else if (heat) {
      added = 0.0;
    }
    const auto maybe = [](const std::vector<double>& list, std::size_t k) {
      return list.empty() ? std::nullopt : std::optional(list[k]);
    };
    const std::vector<double>&first = T.empty() ? P : T, &second = T.empty() || P.empty() ? share : P;
    if (options_.together && !second.empty() && first.size() != second.size())
      throw RequestError(fmt::format("--together steps both ranges in pairs, but they have {} and {} values",
                                     first.size(), second.size()));
    const double combinations = options_.together ? 1.0 : std::max(1.0, static_cast<double>(second.size()));
    const std::size_t feeds = std::max<std::size_t>(1, options_.feed.texts.size());
    demand_count("flashes", static_cast<double>(first.size() * feeds * contenders_.size()) * combinations,
                 most_states);
    for (std::size_t a = 0; a < first.size(); ++a) {
      for (std::size_t b = 0; b < std::max<std::size_t>(1, second.size()); ++b) {
        if (options_.together && a != b && !second.empty()) continue;
        Specification s;
        s.T_K = maybe(T, a);
        if (!T.empty()) {
          s.P_Pa = maybe(P, b);
        } else {
          s.P_Pa = maybe(P, a);
        }
        s.vapour_fraction = maybe(share, b);
        s.heat = added;
        specifications_.push_back(s);
      }
    }
  }

  // The state in which the feed comes in; its pressure is that of the flash where none is given.
  std::optional<FeedState> incoming(Mixture& mixture, const std::vector<double>& z, double P_flash) {
    if (options_.feed_temperature.empty() && options_.feed_vapour_fraction.empty()) {
      if (!options_.feed_pressure.empty())
        throw RequestError(
            "--feed-pressure alone does not give the state of the feed: give --feed-temperature as well");
      return std::nullopt;
    }
    const double P = options_.feed_pressure.empty()
                         ? P_flash
                         : parse_quantity(options_.feed_pressure, Dimension::pressure);
    FeedState feed;
    if (!options_.feed_vapour_fraction.empty()) {
      const double share = parse_quantity(options_.feed_vapour_fraction, Dimension::fraction);
      feed.state =
          options_.feed_temperature.empty()
              ? flash_at_P_and_vapour_fraction(mixture, P, share, z)
              : flash_at_T_and_vapour_fraction(
                    mixture, parse_quantity(options_.feed_temperature, Dimension::temperature), share, z);
    } else {
      feed.state = flash_at(mixture, parse_quantity(options_.feed_temperature, Dimension::temperature), P, z);
    }
    feed.description = described(feed.state.flashed, mixture.substances());
    return feed;
  }

  FlashCase solve(Contender& contender, Energies& energies, const Feed& feed, const Specification& wanted) {
    Mixture& mixture = contender.mixture;
    const std::vector<double> z = feed.fractions();
    FlashCase flash;
    if (contenders_.size() > 1) flash.label = contender.label;
    flash.feed = feed;
    if (wanted.heat) {
      flash.incoming = incoming(mixture, z, *wanted.P_Pa);
      flash.h_feed_J_mol = enthalpy(energies, flash.incoming->state);
      const double target = *flash.h_feed_J_mol + heat_per_mole(feed, *wanted.heat);
      flash.state =
          flash_at_P_and_enthalpy(mixture, energies, *wanted.P_Pa, target, z, flash.incoming->state.T_K);
      flash.h_J_mol = enthalpy(energies, flash.state);
      double size = std::abs(*flash.h_feed_J_mol);
      for (const FlashedPhase& phase : flash.state.flashed.phases)
        size += std::abs(phase.amount *
                         energies.enthalpy(phase.kind, flash.state.T_K, flash.state.P_Pa, phase.x));
      flash.energy_balance = std::abs(*flash.h_J_mol - target) / size;
    } else {
      flash.state = wanted.T_K && wanted.P_Pa ? flash_at(mixture, *wanted.T_K, *wanted.P_Pa, z)
                    : wanted.P_Pa
                        ? flash_at_P_and_vapour_fraction(mixture, *wanted.P_Pa, *wanted.vapour_fraction, z)
                        : flash_at_T_and_vapour_fraction(mixture, *wanted.T_K, *wanted.vapour_fraction, z);
      flash.incoming = incoming(mixture, z, flash.state.P_Pa);
      try {
        flash.h_J_mol = enthalpy(energies, flash.state);
        if (flash.incoming) flash.h_feed_J_mol = enthalpy(energies, flash.incoming->state);
      } catch (const CalculationError& error) {
        answer_.notices.add("no-enthalpy", error.what());
      }
    }
    flash.names = phase_names(flash.state.flashed, mixture.substances());
    for (const FlashedPhase& phase : flash.state.flashed.phases)
      flash.energies.push_back(energies.of(phase.kind, flash.state.T_K, flash.state.P_Pa, phase.x));
    for (std::size_t i = 0; i < z.size(); ++i) {
      double sum = 0;
      for (const FlashedPhase& phase : flash.state.flashed.phases) sum += phase.amount * phase.x[i];
      flash.balance = std::max(flash.balance, std::abs(sum - z[i]));
    }
    return flash;
  }

  double heat_per_mole(const Feed& feed, double heat) const {
    if (duty_dimension_ == Dimension::molar_energy || heat == 0) return heat;
    const bool flow = duty_dimension_ == Dimension::power;
    if (!feed.sized || feed.flows != flow)
      throw RequestError(fmt::format("--duty is {}, so the --feed must be {}", flow ? "a power" : "an energy",
                                     flow ? "a flow, as in \"1000 kg/h\"" : "an amount, as in \"10 kg\""));
    return heat / feed.total();
  }

  // A gas above its critical point has no vapour pressure: in an activity model its share in the liquid is a
  // guess.
  void light_gases(const Mixture& mixture, double hottest) {
    if (mixture.one_equation()) return;
    for (std::size_t i = 0; i < mixture.size(); ++i) {
      const Substance& substance = mixture.substances()[i];
      if (mixture.is_solute(i) || !substance.vapour_pressure || !substance.Tc_K || hottest <= *substance.Tc_K)
        continue;
      answer_.notices.add(
          "supercritical-component",
          fmt::format("{} is above its critical temperature ({:.1f} degC): how much of it the liquid holds "
                      "comes from an extrapolated vapour pressure. An equation of state describes it: "
                      "--liquid eos --vapour pr (or pc-saft); so does Henry's constant, --henry",
                      substance.name, *substance.Tc_K - celsius_zero));
    }
  }

  void tell() {
    for (const FlashCase& flash : cases_) {
      Json json = to_json(flash, substances());
      if (!answer_.json.contains("phases")) {  // the first result at the top, where most look
        for (const auto& [key, value] : json.items()) answer_.json[key] = value;
      }
      answer_.json["results"].push_back(std::move(json));
    }
    answer_.tables = flash_tables(cases_, substances(), parse_basis(options_.mixture.basis));
    double balance = 0, residual = 0, energy = -1;
    for (const FlashCase& flash : cases_) {
      balance = std::max(balance, flash.balance);
      residual = std::max(residual, flash.state.flashed.residual);
      energy = std::max(energy, flash.energy_balance.value_or(-1));
    }
    answer_.lines.push_back(
        fmt::format("mass balance closed to {:.0e} of the feed; ln(x phi) of the phases equal to {:.0e}",
                    balance, residual));
    if (energy >= 0)
      answer_.lines.push_back(fmt::format("energy balance closed to {:.0e} of the sum of |n h|", energy));
    if (cases_.front().h_J_mol) {
      answer_.json["reference"] = name_of(reference_);
      answer_.lines.push_back("enthalpies are zero for the " + name_of(reference_));
    }
    for (const Contender& contender : contenders_) {
      for (const HenryConstant& h : henry_of(contender))
        answer_.lines.push_back(fmt::format("Henry's constant of {} in {}: ln(H/Pa) = {:.6g} + {:.6g} K/T",
                                            substances()[h.solute].name, substances()[h.solvent].name,
                                            h.constant, h.slope_K));
    }
    if (cases_.size() > 1) {
      draw();
    } else {
      draw_phases();
    }
    sign();
    if (options_.working) work();
  }

  static const std::vector<HenryConstant>& henry_of(const Contender& contender) {
    static const std::vector<HenryConstant> none;
    const auto* solution =
        dynamic_cast<const HenrySolution*>(const_cast<Mixture&>(contender.mixture).liquid().activity());
    return solution == nullptr ? none : solution->constants();
  }

  // Over a range: the vapour fraction against what changes (T or P against it where it is given), a curve for
  // every model, feed and value of the other range.
  void draw() {
    const DisplayUnits units = options_.presentation.read().units;
    const auto shown_T = [&](double T_K) {
      return fmt::format("{:.6g} {}", from_si(T_K, units.temperature, Dimension::temperature),
                         units.temperature);
    };
    const auto shown_P = [&](double P_Pa) {
      return fmt::format("{:.6g} {}", from_si(P_Pa, units.pressure, Dimension::pressure), units.pressure);
    };
    const bool share = !options_.vapour_fraction.empty();
    const bool T_given = !options_.condition.temperature.empty(),
               P_given = !options_.condition.pressure.empty();
    const std::size_t per_feed = specifications_.size();
    const bool T_varies = specifications_.front().T_K != specifications_.back().T_K;
    const bool P_varies = specifications_.front().P_Pa != specifications_.back().P_Pa;
    std::string wanted = "vapour fraction against T";
    if (share) {
      wanted = T_given ? "P against vapour fraction" : "T against vapour fraction";
    } else if (P_varies) {
      wanted = T_given ? "vapour fraction against P" : "T against P";
    }
    std::vector<Table> curves;
    for (std::size_t k = 0; k < cases_.size(); ++k) {
      const FlashCase& flash = cases_[k];
      std::vector<std::string> names;
      if (!flash.label.empty()) names.push_back(flash.label);
      if (feeds_.size() > 1) names.push_back(fmt::format("feed {}", k / per_feed % feeds_.size() + 1));
      if (T_given && T_varies && (P_varies || share) && !options_.together)
        names.push_back(shown_T(flash.state.T_K));
      if (!T_given && P_varies && share) names.push_back(shown_P(flash.state.P_Pa));
      const std::string name = joined(names, ", ");
      if (curves.empty() || curves.back().title != name)
        curves.push_back({name,
                          {{"T", Dimension::temperature},
                           {"P", Dimension::pressure},
                           {"vapour fraction", Dimension::fraction}},
                          {}});
      curves.back().rows.push_back(
          {flash.state.T_K, flash.state.P_Pa, flash.state.flashed.vapour_fraction()});
    }
    answer_.figure = plot_figure(curves, wanted, units);
    answer_.figure->title = "Flash of " + names();
    if (P_given && !P_varies) answer_.figure->title += " at " + shown_P(*specifications_.front().P_Pa);
    if (T_given && !T_varies) answer_.figure->title += " at " + shown_T(*specifications_.front().T_K);
  }

  // One state: a bar for the feed and for each phase.
  void draw_phases() {
    const FlashCase& flash = cases_.front();
    const Basis basis = parse_basis(options_.mixture.basis);
    const DisplayUnits units = options_.presentation.read().units;
    const auto shown = [&](const std::vector<double>& x) {
      return basis == Basis::mole ? x : mass_fractions(x, substances());
    };
    const auto mass_of_mole = [&](const std::vector<double>& x) {
      double mass = 0;
      for (std::size_t i = 0; i < x.size(); ++i) mass += x[i] * substances()[i].molar_mass_kg_mol;
      return basis == Basis::mole ? 1.0 : mass;
    };
    const std::vector<double> feed = flash.feed.fractions();
    std::vector<PhaseBar> bars{{"feed", 1, shown(feed)}};
    for (std::size_t k = 0; k < flash.state.flashed.phases.size(); ++k) {
      const auto& phase = flash.state.flashed.phases[k];
      bars.push_back(
          {flash.names[k], phase.amount * mass_of_mole(phase.x) / mass_of_mole(feed), shown(phase.x)});
    }
    answer_.figure = phases_figure(bars, substances(), basis);
    answer_.figure->title = fmt::format(
        "Flash of {} at {:.6g} {} and {:.6g} {}", names(),
        from_si(flash.state.T_K, units.temperature, Dimension::temperature), printed_unit(units.temperature),
        from_si(flash.state.P_Pa, units.pressure, Dimension::pressure), printed_unit(units.pressure));
  }

  std::string names() const {
    std::vector<std::string> list;
    for (const Substance& substance : substances()) list.push_back(substance.name);
    return joined(list, ", ");
  }

  // Models, parameters and notices below the figure.
  void sign() {
    const Mixture& mixture = contenders_.front().mixture;
    std::vector<std::string> models;
    for (const Contender& contender : contenders_) models.push_back(contender.label);
    answer_.figure->footer =
        models.size() > 1 ? "models: " + joined(models, "; ")
        : mixture.one_equation()
            ? "liquid and vapour: " + mixture.vapour_model()
            : fmt::format("liquid model: {}; vapour: {}", mixture.liquid_model(), mixture.vapour_model());
    add_sources(*answer_.figure, contenders_);
    for (const Notice& notice : answer_.notices) {
      auto& codes = answer_.figure->notices;
      if (std::find(codes.begin(), codes.end(), notice.code) == codes.end()) codes.push_back(notice.code);
    }
  }

  void work() {
    const FlashCase& first = cases_.front();
    const std::vector<double>*liquid = nullptr, *vapour = nullptr;
    for (const FlashedPhase& phase : first.state.flashed.phases) (phase.vapour ? vapour : liquid) = &phase.x;
    const std::vector<double> z = first.feed.fractions();
    const auto lines = vle_working(contenders_.front().mixture, first.state.T_K, first.state.P_Pa,
                                   liquid != nullptr ? *liquid : z, vapour != nullptr ? *vapour : z);
    answer_.json["working"] = lines;
    answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
  }

  const FlashOptions& options_;
  Answer answer_;
  std::vector<Contender> contenders_;
  Reference reference_;
  Dimension duty_dimension_ = Dimension::molar_energy;
  std::vector<Specification> specifications_;
  std::vector<Feed> feeds_;
  std::vector<FlashCase> cases_;
};

}  // namespace

void add_flash(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<FlashOptions>();
  CLI::App* command = tool.add_subcommand(
      "flash",
      "What a feed becomes at given temperature, pressure, vapour fraction or heat: phases and amounts");
  add_boiling_mixture(*command, options->mixture, options->condition);
  command
      ->add_option(
          "--vapour-fraction", options->vapour_fraction,
          "Share of the moles that is vapour, instead of --temperature or --pressure; a list or a range")
      ->type_name("FRACTION");
  command->add_flag("--adiabatic", options->adiabatic,
                    "With the enthalpy of the feed, instead of --temperature: a feed let down to --pressure");
  command
      ->add_option("--duty", options->duty,
                   "With the enthalpy of the feed and this heat: \"50 kW\", \"-200 kJ\"")
      ->type_name("QUANTITY");
  add_feed(*command, options->feed);
  command->add_option("--feed-temperature", options->feed_temperature, "State of the feed, for the duty")
      ->type_name("QUANTITY");
  command
      ->add_option("--feed-pressure", options->feed_pressure,
                   "State of the feed (default: the pressure of the flash)")
      ->type_name("QUANTITY");
  command
      ->add_option("--feed-vapour-fraction", options->feed_vapour_fraction,
                   "State of the feed: 0 is a boiling liquid, 1 a vapour at its dew point")
      ->type_name("FRACTION");
  command
      ->add_option(
          "--reference-enthalpy", options->reference,
          "Where enthalpies are zero: ideal-gas (default), liquid, either with \"at 0 degC\", or elements")
      ->type_name("STATE");
  command->add_flag("--together", options->together, "Step two ranges in pairs instead of all combinations");
  command->add_flag("--working", options->working,
                    "Write out the equations of the first result with its numbers");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example:\n"
      "  jampot flash methane propane n-hexane --liquid eos --vapour pr --feed \"methane=10 kmol/h, "
      "propane=20 kmol/h, n-hexane=30 kmol/h\" --feed-temperature \"60 degC\" --feed-pressure \"40 bar\" "
      "--pressure "
      "\"10 bar\" --adiabatic");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(FlashOf(*options).answer(), presentation);
  });
}

}  // namespace jampot::tool
