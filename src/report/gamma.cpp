#include "jampot/report/gamma.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <map>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/draw/gamma_figure.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"

namespace jampot {
namespace {

class GammaAnswer {
 public:
  GammaAnswer(const GammaStudy& study, const AnswerOptions& options) : study_(study), options_(options) {}

  Answer told() {
    answer_.notices = study_.notices;
    header();
    if (study_.limiting) {
      limiting();
    } else {
      coefficients();
    }
    for (const GammasBeside& set : study_.beside) {
      deviations(set.points, set.set, study_.candidates[set.candidate].label);
      if (set.candidate == 0) draw(set);
    }
    if (std::any_of(study_.beside.begin(), study_.beside.end(),
                    [](const GammasBeside& set) { return set.from_boiling; }))
      answer_.lines.emplace_back("measured activity coefficients: y P / (x Psat), with an ideal vapour");
    if (!study_.working.empty()) add_working(study_.working, answer_);
    return std::move(answer_);
  }

 private:
  const std::vector<Substance>& substances() const { return study_.substances(); }
  bool compared() const { return study_.compared(); }

  // What a candidate rests on, behind what is there already.
  void add_parameters(const GammaCandidate& candidate) {
    Json& all = (*answer_.json)["parameters"];
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
    const std::string& model = candidate.spec.liquid;
    std::vector<PairParameters> pairs;
    for (std::size_t i = 0; needs_pairs(model) && i < substances().size(); ++i) {
      for (std::size_t j = i + 1; j < substances().size(); ++j)
        pairs.push_back(*candidate.spec.parameters.find(model, substances()[i].name, substances()[j].name));
    }
    const Json header = liquid_header("gamma", substances(), *candidate.model, pairs);
    for (const Json& parameter : header["parameters"]) add(parameter);
  }

  void header() {
    const GammaCandidate& first = study_.candidates.front();
    *answer_.json = plain_header("gamma");
    for (const Substance& substance : substances())
      (*answer_.json)["substances"].push_back(jampot::to_json(substance));
    (*answer_.json)["models"]["liquid"] = first.model ? std::string(first.model->name()) : "mosced";
    (*answer_.json)["parameters"] = Json::array();
    add_parameters(first);
    for (const GammaCandidate& candidate : study_.candidates) {
      if (&candidate != &first) add_parameters(candidate);
    }
    Json labels = Json::array();
    for (const GammaCandidate& candidate : study_.candidates) labels.push_back(candidate.label);
    if (compared()) (*answer_.json)["models"]["compared"] = labels;
  }

  void limiting() {
    std::vector<LimitingCurve> curves;
    Table table{
        "Limiting activity coefficients", {{"solute in solvent"}, {"T", Dimension::temperature, 2}}, {}};
    for (const GammaCandidate& candidate : study_.candidates)
      table.columns.push_back({compared() ? "gamma " + candidate.label : "gamma", Dimension::number, 4});
    const std::size_t count = study_.candidates.size();
    for (std::size_t l = 0; l < study_.limits.size(); ++l) {
      const LimitingGamma& one = study_.limits[l];
      const std::string in = fmt::format("{} in {}", substances()[one.solute].short_name(),
                                         substances()[one.solvent].short_name());
      if (l % study_.T_K.size() == 0) {  // the first temperature of a pair
        for (const GammaCandidate& candidate : study_.candidates)
          curves.push_back({in + (compared() ? ", " + candidate.label : ""), {}});
      }
      std::vector<Cell> row{in, one.T_K};
      for (std::size_t c = 0; c < count; ++c) {
        const double gamma = std::exp(one.ln_gamma[c]);
        row.emplace_back(gamma);
        curves[curves.size() - count + c].points.emplace_back(one.T_K, one.ln_gamma[c]);
        (*answer_.json)["limiting"].push_back({{"solute", substances()[one.solute].name},
                                               {"solvent", substances()[one.solvent].name},
                                               {"T_K", one.T_K},
                                               {"gamma", gamma},
                                               {"model", study_.candidates[c].label}});
      }
      table.rows.push_back(std::move(row));
    }
    answer_.tables.push_back(std::move(table));
    answer_.lines.emplace_back("\"A in B\": A is the solute, infinitely dilute in the solvent B");
    answer_.figure = figure("Limiting activity coefficients", limiting_panel(curves, options_.units));
  }

  void coefficients() {
    std::vector<GammaCurve> curves;
    (*answer_.json)["points"] = Json::array();
    for (const GammaSeries& series : study_.series) {
      const std::string& own = study_.candidates[series.candidate].label;
      const std::string T =
          fmt::format("{:.6g} {}", from_si(series.T_K, options_.units.temperature, Dimension::temperature),
                      options_.units.temperature);
      std::string label = compared() ? own : "";
      if (study_.T_K.size() > 1) label += (label.empty() ? "" : ", ") + T;
      answer_.tables.push_back(
          table_of(series.points, fmt::format("Activity coefficients at {}, {}", T, own)));
      answer_.screen.push_back(thinned(answer_.tables.back()));
      for (const GammaPoint& point : series.points) {
        Json json{{"T_K", point.T_K}, {"x", point.x}, {"ln_gamma", point.ln_gamma}};
        for (const double value : point.ln_gamma) json["gamma"].push_back(std::exp(value));
        json["gE_J_mol"] = point.gE_J_mol;
        json["hE_J_mol"] = point.hE_J_mol;
        if (compared()) json["model"] = own;
        (*answer_.json)["points"].push_back(std::move(json));
      }
      curves.push_back({label, series.points});
    }
    if (substances().size() == 2 && curves.front().points.size() > 1) {
      answer_.figure = figure("Activity coefficients", gamma_panel(curves, substances()));
    } else if (options_.figure) {
      throw RequestError("the figure shows the composition line of two substances: leave `composition` out");
    }
  }

  void draw(const GammasBeside& set) {
    if (!answer_.figure) return;
    const auto shown = [&](double T_K) {
      return from_si(T_K, options_.units.temperature, Dimension::temperature);
    };
    std::map<std::string, std::vector<Spot>> series;
    for (const MeasuredGamma& point : set.points)
      series[fmt::format("{}, {}", subject_of(point), std::filesystem::path(set.set).filename().string())]
          .push_back({study_.limiting ? shown(point.T_K) : point.x[0], std::exp(point.ln_gamma)});
    add_measured(answer_.figure->panels.front(), series);
  }

  // "ethanol", or "ethanol in water" of a limit.
  std::string subject_of(const MeasuredGamma& point) const {
    std::string name = substances()[point.component].short_name();
    if (!study_.limiting) return name;
    const auto solvent = std::find(point.x.begin(), point.x.end(), 1.0) - point.x.begin();
    return fmt::format("{} in {}", name, substances()[static_cast<std::size_t>(solvent)].short_name());
  }

  void deviations(const std::vector<MeasuredGamma>& measured, const std::string& set,
                  const std::string& label) {
    const std::string name = compared() ? set + ", " + label : set;
    Table points{fmt::format("Measured activity coefficients, {}", name),
                 {{"line", Dimension::number, 0}, {"of"}, {"T", Dimension::temperature, 2}},
                 {}};
    if (!study_.limiting) {
      for (const Substance& substance : substances())
        points.columns.push_back({fraction_heading('x', substance, options_.basis), Dimension::fraction, 4});
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
    Json json{{"file", set}, {"points", Json::array()}};
    if (compared()) json["liquid"] = label;
    for (const MeasuredGamma& point : measured) {
      const std::string subject = subject_of(point);
      const double deviation = point.model - point.ln_gamma;
      std::vector<Cell> row{static_cast<double>(point.line), subject, point.T_K};
      if (!study_.limiting) {
        for (const double value :
             options_.basis == Basis::mole ? point.x : mass_fractions(point.x, substances()))
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
      Json deviations{{"of", subject}};
      deviations.update(jampot::to_json(s));
      json["ln_gamma"].push_back(std::move(deviations));
    }
    (*answer_.json)["measured"].push_back(std::move(json));
    // The points are many and stand in the files; the screen has the summary, and few limits themselves.
    if (answer_.screen.empty()) answer_.screen = answer_.tables;
    if (study_.limiting) answer_.screen.push_back(thinned(points));
    answer_.screen.push_back(summary);
    answer_.tables.push_back(std::move(points));
    answer_.tables.push_back(std::move(summary));
  }

  Table table_of(const std::vector<GammaPoint>& points, const std::string& title) const {
    Table table{title, {}, {}};
    for (const Substance& substance : substances())
      table.columns.push_back({fraction_heading('x', substance, options_.basis), Dimension::fraction, 4});
    for (const char* what : {"gamma", "ln gamma"}) {
      for (const Substance& substance : substances())
        table.columns.push_back({fmt::format("{}({})", what, substance.short_name()), Dimension::number, 5});
    }
    table.columns.push_back({"gE [J/mol]", Dimension::number, 1});
    table.columns.push_back({"hE [J/mol]", Dimension::number, 1});
    for (const GammaPoint& point : points) {
      const auto shown = options_.basis == Basis::mole ? point.x : mass_fractions(point.x, substances());
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
    for (const GammaCandidate& candidate : study_.candidates) labels.push_back(candidate.label);
    result.title = fmt::format("{} of {}", what, joined(names, " and "));
    if (!study_.limiting && study_.T_K.size() == 1) {
      result.title += fmt::format(
          " at {:.6g} {}", from_si(study_.T_K.front(), options_.units.temperature, Dimension::temperature),
          printed_unit(options_.units.temperature));
    }
    result.footer = "liquid model: " + joined(labels, ", ");
    for (const GammaCandidate& candidate : study_.candidates) {
      for (const PairParameters& pair : candidate.spec.parameters.all()) {
        if (pair.model == candidate.spec.liquid && result.footer.find(pair.source) == std::string::npos)
          result.footer += fmt::format("; {}: {}", pair.model, pair.source);
      }
      if (const auto* unifac = dynamic_cast<const Unifac*>(candidate.model.get()))
        result.footer += "; " + unifac_source(unifac->table());
    }
    for (const Notice& notice : answer_.notices) result.notices.push_back(notice.code);
    result.panels = {std::move(panel)};
    return result;
  }

  const GammaStudy& study_;
  const AnswerOptions& options_;
  Answer answer_;
};

}  // namespace

Answer answer(const GammaStudy& study, const AnswerOptions& options) {
  return GammaAnswer(study, options).told();
}

}  // namespace jampot
