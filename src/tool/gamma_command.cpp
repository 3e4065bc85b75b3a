// gamma: activity coefficients at points, along a composition, and at infinite dilution against temperature.
#include <fmt/format.h>

#include <cmath>
#include <functional>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/draw/gamma_figure.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/mosced.hpp"
#include "jampot/liquid/working.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct GammaOptions {
  MixtureOptions mixture;
  std::string temperature;
  std::vector<std::string> compositions;
  int points = 51;
  bool limiting = false, working = false;
  PresentationOptions presentation;
};

struct Candidate {
  std::string label;
  Resolved resolved;
  std::unique_ptr<ActivityModel> model;  // none: MOSCED
};

// Says what is doubtful about a model; a substance without a vapour pressure is no reason not to.
void add_suitability(const Resolved& resolved, double Tmin_K, double Tmax_K, Notices& notices) {
  try {
    const Mixture mixture(resolved.substances, resolved.model, resolved.parameters);
    notices.add(suitability(mixture, Purpose::vapour_liquid, Tmin_K, Tmax_K));
    for (const Notice& notice : mixture.range_notices(Tmin_K, Tmax_K)) {
      if (notice.code == "parameter-range") notices.add(notice.code, notice.text);
    }
  } catch (const CalculationError&) {
    return;
  }
}

class GammaOf {
 public:
  GammaOf(const GammaOptions& options, const Presentation& presentation)
      : options_(options), presentation_(presentation), basis_(parse_basis(options.mixture.basis)) {
    if (options.temperature.empty())
      throw RequestError("give --temperature, as in --temperature \"60 degC\"");
    T_K_ = parse_quantities(options.temperature, Dimension::temperature);
    if (options.points < 3 || options.points > 100001)
      throw RequestError("--points: expected a number from 3 to 100001");
    find_candidates();
  }

  Answer answer() {
    const auto [cold, hot] = std::minmax_element(T_K_.begin(), T_K_.end());
    for (const Candidate& candidate : candidates_) {
      if (candidate.model) add_suitability(candidate.resolved, *cold, *hot, answer_.notices);
    }
    header();
    if (options_.limiting) {
      limiting();
    } else {
      coefficients();
    }
    if (options_.working) {
      const Candidate& first = candidates_.front();
      const std::vector<double> x = worked_composition();
      const auto lines = jampot::working(*first.model, substances(), T_K_.front(), x);
      answer_.json["working"] = lines;
      answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
    }
    return std::move(answer_);
  }

 private:
  const std::vector<Substance>& substances() const { return candidates_.front().resolved.substances; }
  bool compared() const { return candidates_.size() > 1; }

  // MOSCED is no model of the whole composition; it stands beside the others at infinite dilution.
  void find_candidates() {
    MixtureOptions others = options_.mixture;
    bool mosced_first = others.liquid == "mosced", mosced = mosced_first;
    std::vector<std::string> rest;
    for (const std::string& piece : split(others.compare, ',')) {
      if (piece == "mosced") {
        mosced = true;
      } else if (!piece.empty()) {
        rest.push_back(piece);
      }
    }
    if (mosced && !options_.limiting) needs_pairs("mosced");  // says what MOSCED is for
    if (mosced && options_.working)
      throw RequestError("--working is written out for models of the whole composition");
    if (mosced_first) {
      others.liquid = rest.empty() ? "ideal" : rest.front();
      if (!rest.empty()) rest.erase(rest.begin());
    }
    others.compare = joined(rest, ",");
    auto resolved = others.resolve_all(answer_.notices);
    const auto add_mosced = [&] { candidates_.push_back({"mosced", resolved.front().second, nullptr}); };
    if (mosced_first) add_mosced();
    const bool stand_in = mosced_first && others.liquid == "ideal" && options_.mixture.compare.empty();
    for (auto& [label, own] : resolved) {
      if (stand_in) break;
      auto model = make_activity_model(own.model, own.substances, own.parameters);
      candidates_.push_back({label, own, std::move(model)});
    }
    if (mosced && !mosced_first) add_mosced();
    if (!mosced) return;
    for (const Substance& substance : substances()) {
      if (substance.name != "water") continue;
      answer_.notices.add(
          "mosced-water",
          "MOSCED knows water by its 2005 parameters only, for water as solute and as solvent; its later "
          "refit is not in the bank. Limits in water can be off by a factor of two and more");
    }
  }

  void header() {
    const Candidate& first = candidates_.front();
    if (first.model) {
      std::vector<PairParameters> pairs;
      for (std::size_t i = 0; needs_pairs(first.resolved.model) && i < substances().size(); ++i) {
        for (std::size_t j = i + 1; j < substances().size(); ++j) {
          pairs.push_back(*first.resolved.parameters.find(first.resolved.model, substances()[i].name,
                                                          substances()[j].name));
        }
      }
      answer_.json = liquid_header("gamma", substances(), *first.model, pairs);
    } else {
      answer_.json = plain_header("gamma");
      for (const Substance& substance : substances()) {
        answer_.json["substances"].push_back(jampot::to_json(substance));
        if (!substance.mosced) continue;
        answer_.json["parameters"].push_back({{"substance", substance.name},
                                              {"property", "MOSCED"},
                                              {"source", substance.mosced->source},
                                              {"grade", std::string(1, substance.mosced->grade)},
                                              {"range_K", nullptr}});
      }
      answer_.json["models"]["liquid"] = "mosced";
    }
    Json labels = Json::array();
    for (const Candidate& candidate : candidates_) labels.push_back(candidate.label);
    if (compared()) answer_.json["models"]["compared"] = labels;
  }

  std::vector<double> worked_composition() const {
    if (!options_.compositions.empty())
      return parse_composition(options_.compositions.front(), substances(), basis_);
    return std::vector<double>(substances().size(), 1.0 / static_cast<double>(substances().size()));
  }

  void limiting() {
    std::vector<LimitingCurve> curves;
    Table table{
        "Limiting activity coefficients", {{"solute in solvent"}, {"T", Dimension::temperature, 2}}, {}};
    for (const Candidate& candidate : candidates_) {
      table.columns.push_back({compared() ? "gamma " + candidate.label : "gamma", Dimension::number, 4});
    }
    for (std::size_t i = 0; i < substances().size(); ++i) {
      for (std::size_t j = 0; j < substances().size(); ++j) {
        if (i == j) continue;
        const std::string in =
            fmt::format("{} in {}", substances()[i].short_name(), substances()[j].short_name());
        const std::size_t first_curve = curves.size();
        for (const Candidate& candidate : candidates_) {
          curves.push_back({in + (compared() ? ", " + candidate.label : ""), {}});
        }
        for (const double T_K : T_K_) {
          std::vector<Cell> row{in, T_K};
          for (std::size_t c = 0; c < candidates_.size(); ++c) {
            const double ln_gamma = candidates_[c].model
                                        ? limiting_ln_gamma(*candidates_[c].model, T_K, i, j)
                                        : mosced_ln_gamma_inf(substances()[i], substances()[j], T_K);
            row.emplace_back(std::exp(ln_gamma));
            curves[first_curve + c].points.emplace_back(T_K, ln_gamma);
            answer_.json["limiting"].push_back({{"solute", substances()[i].name},
                                                {"solvent", substances()[j].name},
                                                {"T_K", T_K},
                                                {"gamma", std::exp(ln_gamma)},
                                                {"model", candidates_[c].label}});
          }
          table.rows.push_back(std::move(row));
        }
      }
    }
    answer_.tables.push_back(std::move(table));
    answer_.lines.emplace_back("\"A in B\": A is the solute, infinitely dilute in the solvent B");
    answer_.figure = figure("Limiting activity coefficients", limiting_panel(curves, presentation_.units));
  }

  void coefficients() {
    const std::size_t n = substances().size();
    if (n > 2 && options_.compositions.empty()) {
      throw RequestError("with more than two substances give the points: --composition \"A=0.3, B=0.2\"");
    }
    std::vector<GammaCurve> curves;
    answer_.json["points"] = Json::array();
    for (Candidate& candidate : candidates_) {
      for (const double T_K : T_K_) {
        std::vector<GammaPoint> points;
        if (options_.compositions.empty()) {
          points = gamma_line(*candidate.model, T_K, static_cast<std::size_t>(options_.points));
        } else {
          for (const std::string& text : options_.compositions) {
            points.push_back(gamma_at(*candidate.model, T_K, parse_composition(text, substances(), basis_)));
          }
        }
        const std::string T =
            fmt::format("{:.6g} {}", from_si(T_K, presentation_.units.temperature, Dimension::temperature),
                        presentation_.units.temperature);
        std::string label = compared() ? candidate.label : "";
        if (T_K_.size() > 1) label += (label.empty() ? "" : ", ") + T;
        answer_.tables.push_back(
            table_of(points, fmt::format("Activity coefficients at {}, {}", T, candidate.label)));
        answer_.screen.push_back(thinned(answer_.tables.back()));
        for (const GammaPoint& point : points) {
          Json json{{"T_K", point.T_K}, {"x", point.x}, {"ln_gamma", point.ln_gamma}};
          for (const double value : point.ln_gamma) json["gamma"].push_back(std::exp(value));
          json["gE_J_mol"] = point.gE_J_mol;
          json["hE_J_mol"] = point.hE_J_mol;
          if (compared()) json["model"] = candidate.label;
          answer_.json["points"].push_back(std::move(json));
        }
        curves.push_back({label, std::move(points)});
      }
    }
    if (n == 2 && curves.front().points.size() > 1) {
      answer_.figure = figure("Activity coefficients", gamma_panel(curves, substances()));
    } else if (!presentation_.figure.empty() && presentation_.plot.empty()) {
      throw RequestError("the figure shows the composition line of two substances: leave --composition out");
    }
  }

  Table table_of(const std::vector<GammaPoint>& points, const std::string& title) const {
    Table table{title, {}, {}};
    for (const Substance& substance : substances())
      table.columns.push_back({fraction_heading('x', substance, basis_), Dimension::fraction, 4});
    for (const char* what : {"gamma", "ln gamma"}) {
      for (const Substance& substance : substances())
        table.columns.push_back(
            {fmt::format("{}({})", what, substance.short_name()), Dimension::number, 5});
    }
    table.columns.push_back({"gE [J/mol]", Dimension::number, 1});
    table.columns.push_back({"hE [J/mol]", Dimension::number, 1});
    for (const GammaPoint& point : points) {
      const auto shown = basis_ == Basis::mole ? point.x : mass_fractions(point.x, substances());
      std::vector<Cell> row(shown.begin(), shown.end());
      for (const double value : point.ln_gamma) row.emplace_back(std::exp(value));
      row.insert(row.end(), point.ln_gamma.begin(), point.ln_gamma.end());
      row.insert(row.end(), {point.gE_J_mol, point.hE_J_mol});
      table.rows.push_back(std::move(row));
    }
    return table;
  }

  Figure figure(const std::string& what, Panel panel) const {
    Figure result;
    std::vector<std::string> names, labels;
    for (const Substance& substance : substances()) names.push_back(substance.name);
    for (const Candidate& candidate : candidates_) labels.push_back(candidate.label);
    result.title = fmt::format("{} of {}", what, joined(names, " and "));
    if (!options_.limiting && T_K_.size() == 1) {
      result.title += fmt::format(
          " at {:.6g} {}", from_si(T_K_.front(), presentation_.units.temperature, Dimension::temperature),
          printed_unit(presentation_.units.temperature));
    }
    result.footer = "liquid model: " + joined(labels, ", ");
    for (const Candidate& candidate : candidates_) {
      for (const PairParameters& pair : candidate.resolved.parameters.all()) {
        if (pair.model == candidate.resolved.model) result.footer += "; parameters: " + pair.source;
      }
    }
    for (const Notice& notice : answer_.notices) result.notices.push_back(notice.code);
    result.panels = {std::move(panel)};
    return result;
  }

  const GammaOptions& options_;
  const Presentation& presentation_;
  Basis basis_;
  std::vector<double> T_K_;
  std::vector<Candidate> candidates_;
  Answer answer_;
};

}  // namespace

void add_gamma(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<GammaOptions>();
  CLI::App* command =
      tool.add_subcommand("gamma", "Activity coefficients: along a composition, at points, or limiting");
  add_mixture(*command, options->mixture, false);
  add_compare(*command, options->mixture);
  command->add_option("--temperature", options->temperature, "\"60 degC\", a list or a range")
      ->type_name("QUANTITY");
  command
      ->add_option("--composition", options->compositions,
                   "\"A=0.3, B=0.7\"; may be repeated (default: the whole line of a binary)")
      ->type_name("TEXT")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command->add_option("--points", options->points, "Points along the composition (default 51)")
      ->type_name("N");
  command->add_flag("--limiting", options->limiting,
                    "At infinite dilution, each solute in each solvent; --liquid mosced is possible too");
  command->add_flag("--working", options->working,
                    "Write out the calculation of the first point, equation by equation");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example (which of two is the solute is spelt out):\n"
      "  jampot gamma ethanol water --liquid unifac --compare mosced --limiting --temperature \"30 to 90 by "
      "10 degC\"");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(GammaOf(*options, presentation).answer(), presentation);
  });
}

}  // namespace jampot::tool
