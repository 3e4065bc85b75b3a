#include "jampot/report/flash.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "flash_tables.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/phases_figure.hpp"

namespace jampot {
namespace {

class FlashAnswer {
 public:
  FlashAnswer(const FlashStudy& study, const AnswerOptions& options) : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = contenders_header("flash", study_.contenders);
    for (const FlashCase& flash : study_.cases) {
      Json json = to_json(flash, study_.substances());
      if (!answer_.json->contains("phases")) {  // the first result at the top, where most look
        for (const auto& [key, value] : json.items()) (*answer_.json)[key] = value;
      }
      (*answer_.json)["results"].push_back(std::move(json));
    }
    answer_.tables = flash_tables(study_.cases, study_.substances(), options_.basis);
    balances();
    answer_.notices = study_.notices;
    if (study_.cases.size() > 1) {
      draw();
    } else {
      draw_phases();
    }
    add_models();
    if (!study_.working.empty()) add_working(study_.working, answer_);
    return std::move(answer_);
  }

 private:
  const std::vector<FlashSpecification>& specifications() const { return study_.specifications; }

  void balances() {
    double balance = 0, residual = 0, energy = -1;
    for (const FlashCase& flash : study_.cases) {
      balance = std::max(balance, flash.balance);
      residual = std::max(residual, flash.state.flashed.residual);
      energy = std::max(energy, flash.energy_balance.value_or(-1));
    }
    answer_.lines.push_back(
        fmt::format("mass balance closed to {:.0e} of the feed; ln(x phi) of the phases equal to {:.0e}",
                    balance, residual));
    if (energy >= 0)
      answer_.lines.push_back(fmt::format("energy balance closed to {:.0e} of the sum of |n h|", energy));
    if (study_.cases.front().h_J_mol) {
      (*answer_.json)["reference"] = name_of(study_.reference);
      answer_.lines.push_back("enthalpies are zero for the " + name_of(study_.reference));
    }
    for (const Contender& contender : study_.contenders) {
      for (const HenryConstant& h : contender.henry)
        answer_.lines.push_back(fmt::format("Henry's constant of {} in {}: ln(H/Pa) = {:.6g} + {:.6g} K/T",
                                            study_.substances()[h.solute].name,
                                            study_.substances()[h.solvent].name, h.constant, h.slope_K));
    }
  }

  // Over a range: the vapour fraction against what changes (T or P against it where it is given), a curve for
  // every model, feed and value of the other range.
  void draw() {
    const DisplayUnits units = options_.units;
    const auto shown_T = [&](double T_K) {
      return fmt::format("{:.6g} {}", from_si(T_K, units.temperature, Dimension::temperature),
                         units.temperature);
    };
    const auto shown_P = [&](double P_Pa) {
      return fmt::format("{:.6g} {}", from_si(P_Pa, units.pressure, Dimension::pressure), units.pressure);
    };
    const bool share = specifications().front().vapour_fraction.has_value();
    const bool T_given = specifications().front().T_K.has_value(),
               P_given = specifications().front().P_Pa.has_value();
    const bool T_varies = specifications().front().T_K != specifications().back().T_K;
    const bool P_varies = specifications().front().P_Pa != specifications().back().P_Pa;
    std::string wanted = "vapour fraction against T";
    if (share) {
      wanted = T_given ? "P against vapour fraction" : "T against vapour fraction";
    } else if (P_varies) {
      wanted = T_given ? "vapour fraction against P" : "T against P";
    }
    std::vector<Table> curves;
    for (std::size_t k = 0; k < study_.cases.size(); ++k) {
      const FlashCase& flash = study_.cases[k];
      std::vector<std::string> names;
      if (!flash.label.empty()) names.push_back(flash.label);
      if (study_.feeds > 1) names.push_back(fmt::format("feed {}", flash.feed_number + 1));
      if (T_given && T_varies && (P_varies || share) && !study_.together)
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
    if (P_given && !P_varies) answer_.figure->title += " at " + shown_P(*specifications().front().P_Pa);
    if (T_given && !T_varies) answer_.figure->title += " at " + shown_T(*specifications().front().T_K);
  }

  // One state: a bar for the feed and for each phase.
  void draw_phases() {
    const FlashCase& flash = study_.cases.front();
    const Basis basis = options_.basis;
    const DisplayUnits units = options_.units;
    const auto shown = [&](const std::vector<double>& x) {
      return basis == Basis::mole ? x : mass_fractions(x, study_.substances());
    };
    const auto mass_of_mole = [&](const std::vector<double>& x) {
      double mass = 0;
      for (std::size_t i = 0; i < x.size(); ++i) mass += x[i] * study_.substances()[i].molar_mass_kg_mol;
      return basis == Basis::mole ? 1.0 : mass;
    };
    const std::vector<double> feed = flash.feed.fractions();
    std::vector<PhaseBar> bars{{"feed", 1, shown(feed)}};
    for (std::size_t k = 0; k < flash.state.flashed.phases.size(); ++k) {
      const auto& phase = flash.state.flashed.phases[k];
      bars.push_back(
          {flash.names[k], phase.amount * mass_of_mole(phase.x) / mass_of_mole(feed), shown(phase.x)});
    }
    answer_.figure = phases_figure(bars, study_.substances(), basis);
    answer_.figure->title = fmt::format(
        "Flash of {} at {:.6g} {} and {:.6g} {}", names(),
        from_si(flash.state.T_K, units.temperature, Dimension::temperature), printed_unit(units.temperature),
        from_si(flash.state.P_Pa, units.pressure, Dimension::pressure), printed_unit(units.pressure));
  }

  std::string names() const {
    std::vector<std::string> list;
    for (const Substance& substance : study_.substances()) list.push_back(substance.name);
    return joined(list, ", ");
  }

  // Models, parameters and notices below the figure.
  void add_models() {
    const Mixture& mixture = study_.contenders.front().mixture;
    std::vector<std::string> models;
    for (const Contender& contender : study_.contenders) models.push_back(contender.label);
    answer_.figure->footer =
        models.size() > 1 ? "models: " + joined(models, "; ")
        : mixture.one_equation()
            ? "liquid and vapour: " + mixture.vapour_model()
            : fmt::format("liquid model: {}; vapour: {}", mixture.liquid_model(), mixture.vapour_model());
    add_sources(*answer_.figure, study_.contenders);
    for (const Notice& notice : answer_.notices) {
      auto& codes = answer_.figure->notices;
      if (std::find(codes.begin(), codes.end(), notice.code) == codes.end()) codes.push_back(notice.code);
    }
  }

  const FlashStudy& study_;
  const AnswerOptions& options_;
  Answer answer_;
};

}  // namespace

Answer answer(const FlashStudy& study, const AnswerOptions& options) {
  return FlashAnswer(study, options).told();
}

}  // namespace jampot
