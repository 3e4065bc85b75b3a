// gamma: activity coefficients at points, along a composition, and at infinite dilution against temperature.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <functional>
#include <map>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/draw/gamma_figure.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/mosced.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/working.hpp"
#include "measured_files.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct GammaOptions {
  MixtureOptions mixture;
  std::string temperature;
  std::vector<std::string> compositions, measured;
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
    demand_count("states", static_cast<double>(T_K_.size()) * std::max(1, options.points), 10 * most_states);
    if (options.points < 3 || options.points > 100001)
      throw RequestError("--points: expected a number from 3 to 100001");
    find_candidates();
    sets_ = read_overlays(options.measured, substances(), *bank_with(options.mixture.substance_files),
                          options.limiting ? Overlay::limits : Overlay::vapours);
    for (const Candidate& candidate : candidates_) {
      if (!sets_.empty() && !candidate.model)
        throw RequestError("--measured is held against models of the whole composition, not against mosced");
    }
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
    overlays();
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

  // What a candidate rests on, behind what is there already.
  void add_parameters(const Candidate& candidate) {
    Json& all = answer_.json["parameters"];
    const auto add = [&](const Json& parameter) {
      if (std::find(all.begin(), all.end(), parameter) == all.end()) all.push_back(parameter);
    };
    if (!candidate.model) {
      for (const Substance& substance : substances()) {
        if (!substance.mosced) continue;
        add({{"substance", substance.name},
             {"property", "MOSCED"},
             {"source", substance.mosced->source},
             {"grade", std::string(1, substance.mosced->grade)},
             {"range_K", nullptr}});
      }
      return;
    }
    const std::string& model = candidate.resolved.model;
    std::vector<PairParameters> pairs;
    for (std::size_t i = 0; needs_pairs(model) && i < substances().size(); ++i) {
      for (std::size_t j = i + 1; j < substances().size(); ++j)
        pairs.push_back(
            *candidate.resolved.parameters.find(model, substances()[i].name, substances()[j].name));
    }
    const Json header = liquid_header("gamma", substances(), *candidate.model, pairs);
    for (const Json& parameter : header["parameters"]) add(parameter);
  }

  void header() {
    const Candidate& first = candidates_.front();
    answer_.json = plain_header("gamma");
    for (const Substance& substance : substances())
      answer_.json["substances"].push_back(jampot::to_json(substance));
    answer_.json["models"]["liquid"] = first.model ? std::string(first.model->name()) : "mosced";
    answer_.json["parameters"] = Json::array();
    add_parameters(first);
    for (const Candidate& candidate : candidates_) {
      if (&candidate != &first) add_parameters(candidate);
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

  // Measured activity coefficients beside each model's, and on the figure.
  void overlays() {
    for (const DataSet& set : sets_) {
      answer_.notices.add(set.notices);
      for (const Candidate& candidate : candidates_) {
        const auto measured = measured_gammas(*candidate.model, set);
        if (measured.empty())
          throw RequestError(
              fmt::format("no point of {} says anything about activity coefficients", set.name));
        deviations(measured, set, candidate.label);
        if (&candidate == &candidates_.front()) draw(measured, set);
      }
    }
    if (!sets_.empty() && !options_.limiting)
      answer_.lines.emplace_back("measured activity coefficients: y P / (x Psat), with an ideal vapour");
  }

  // "ethanol", or "ethanol in water" of a limit.
  std::string subject_of(const MeasuredGamma& point) const {
    std::string name = substances()[point.component].short_name();
    if (!options_.limiting) return name;
    const auto solvent = std::find(point.x.begin(), point.x.end(), 1.0) - point.x.begin();
    return fmt::format("{} in {}", name, substances()[static_cast<std::size_t>(solvent)].short_name());
  }

  void deviations(const std::vector<MeasuredGamma>& measured, const DataSet& set, const std::string& label) {
    const std::string name = compared() ? set.name + ", " + label : set.name;
    Table points{fmt::format("Measured activity coefficients, {}", name),
                 {{"line", Dimension::number, 0}, {"of"}, {"T", Dimension::temperature, 2}},
                 {}};
    if (!options_.limiting) {
      for (const Substance& substance : substances())
        points.columns.push_back({fraction_heading('x', substance, basis_), Dimension::fraction, 4});
    }
    for (const char* column : {"gamma measured", "gamma model", "ln gamma, model minus measured"})
      points.columns.push_back({column, Dimension::number, 4});
    Table summary{fmt::format("ln gamma, model minus measured, {}", name),
                  {{"of"},
                   {"points", Dimension::number, 0},
                   {"mean", Dimension::number, 4},
                   {"mean absolute", Dimension::number, 4},
                   {"RMS", Dimension::number, 4},
                   {"largest", Dimension::number, 4}},
                  {}};
    std::vector<std::pair<std::string, std::vector<double>>> of;
    Json json{{"file", set.name}, {"points", Json::array()}};
    if (compared()) json["liquid"] = label;
    for (const MeasuredGamma& point : measured) {
      const std::string subject = subject_of(point);
      const double deviation = point.model - point.ln_gamma;
      std::vector<Cell> row{static_cast<double>(point.line), subject, point.T_K};
      if (!options_.limiting) {
        for (const double value : basis_ == Basis::mole ? point.x : mass_fractions(point.x, substances()))
          row.emplace_back(value);
      }
      row.insert(row.end(), {std::exp(point.ln_gamma), std::exp(point.model), deviation});
      points.rows.push_back(std::move(row));
      json["points"].push_back({{"of", subject},
                                {"T_K", point.T_K},
                                {"x", point.x},
                                {"gamma", std::exp(point.ln_gamma)},
                                {"gamma_model", std::exp(point.model)}});
      auto entry = std::find_if(of.begin(), of.end(), [&](const auto& one) { return one.first == subject; });
      if (entry == of.end()) entry = of.insert(of.end(), {subject, {}});
      entry->second.push_back(deviation);
    }
    for (const auto& [subject, list] : of) {
      const DeviationSummary s = summarise(list);
      summary.rows.push_back(
          {subject, static_cast<double>(s.count), s.mean, s.mean_absolute, s.root_mean_square, s.largest});
      json["ln_gamma"].push_back({{"of", subject},
                                  {"count", s.count},
                                  {"mean", s.mean},
                                  {"mean_absolute", s.mean_absolute},
                                  {"rms", s.root_mean_square},
                                  {"largest", s.largest}});
    }
    answer_.json["measured"].push_back(std::move(json));
    // The points are many and stand in the files; the screen has the summary, and few limits themselves.
    if (answer_.screen.empty()) answer_.screen = answer_.tables;
    if (options_.limiting) answer_.screen.push_back(thinned(points));
    answer_.screen.push_back(summary);
    answer_.tables.push_back(std::move(points));
    answer_.tables.push_back(std::move(summary));
  }

  void draw(const std::vector<MeasuredGamma>& measured, const DataSet& set) {
    if (!answer_.figure) return;
    const std::string& unit = presentation_.units.temperature;
    const auto shown = [&](double T_K) { return from_si(T_K, unit, Dimension::temperature); };
    std::map<std::string, std::vector<Spot>> series;
    for (const MeasuredGamma& point : measured)
      series[fmt::format("{}, {}", subject_of(point), std::filesystem::path(set.name).filename().string())]
          .push_back({options_.limiting ? shown(point.T_K) : point.x[0], std::exp(point.ln_gamma)});
    add_measured(answer_.figure->panels.front(), series);
    if (options_.limiting) return;
    const auto [cold, hot] = std::minmax_element(measured.begin(), measured.end(),
                                                 [](const auto& a, const auto& b) { return a.T_K < b.T_K; });
    const auto [first, last] = std::minmax_element(T_K_.begin(), T_K_.end());
    constexpr double apart_K = 2;
    if (cold->T_K < *first - apart_K || hot->T_K > *last + apart_K) {
      answer_.notices.add(
          "measured-elsewhere",
          fmt::format(
              "{} was measured at {:.1f} to {:.1f} {}, not at the temperature of the curves; deviations "
              "are taken at the points' own",
              set.name, shown(cold->T_K), shown(hot->T_K), unit));
      answer_.figure->notices.emplace_back("measured-elsewhere");
    }
  }

  Table table_of(const std::vector<GammaPoint>& points, const std::string& title) const {
    Table table{title, {}, {}};
    for (const Substance& substance : substances())
      table.columns.push_back({fraction_heading('x', substance, basis_), Dimension::fraction, 4});
    for (const char* what : {"gamma", "ln gamma"}) {
      for (const Substance& substance : substances())
        table.columns.push_back({fmt::format("{}({})", what, substance.short_name()), Dimension::number, 5});
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
        if (pair.model == candidate.resolved.model && result.footer.find(pair.source) == std::string::npos)
          result.footer += fmt::format("; {}: {}", pair.model, pair.source);
      }
      if (const auto* unifac = dynamic_cast<const Unifac*>(candidate.model.get()))
        result.footer += "; " + unifac_source(unifac->table());
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
  std::vector<DataSet> sets_;
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
  command
      ->add_option("--measured", options->measured,
                   "Boiling points with their vapours, or with --limiting limits, laid over; may be repeated")
      ->type_name("FILE")
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
