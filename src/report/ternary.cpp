#include "jampot/report/ternary.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "in_words.hpp"
#include "liquid_tables.hpp"

namespace jampot {
namespace {

class TernaryAnswer {
 public:
  TernaryAnswer(const TernaryStudy& study, const TernaryAnswerOptions& options)
      : study_(study), options_(options), substances_(study.substances()), drawing_(options.looks) {
    drawing_.units = options.units;
    drawing_.basis = options.basis;
    drawing_.measured = study.measured;
    for (const AskedTieLine& asked : study.through) drawing_.through.push_back(asked.line);
  }

  Answer told() {
    *answer_.json = contenders_header("ternary", study_.contenders);
    (*answer_.json)["T_K"] = study_.T_K;
    for (const char* key : {"tie_lines", "plait_points", "three_liquids", "regions", "distribution"})
      (*answer_.json)[key] = Json::array();
    for (std::size_t k = 0; k < study_.diagrams.size(); ++k) by_model(k);
    answer_.lines.push_back(
        fmt::format("liquid model: {}", study_.contenders.front().mixture.liquid_model()));
    through();
    if (!study_.working.empty()) add_working(study_.working, answer_);
    answer_.notices = study_.notices;
    if (options_.figure) draw();
    return std::move(answer_);
  }

 private:
  std::string label_of(std::size_t k) const { return study_.compared() ? study_.contenders[k].label : ""; }

  void by_model(std::size_t k) {
    const TernaryDiagram& diagram = study_.diagrams[k].diagram;
    const std::string label = label_of(k), whose = label.empty() ? "" : label + ": ";
    distributions_.push_back(distribution(diagram, study_.diagrams[k].roles, substances_, options_.basis));
    const auto& roles = study_.diagrams[k].roles;
    const std::string sentence =
        solute_in_words(distribution(diagram, roles, substances_, Basis::mole),
                        distribution(diagram, roles, substances_, Basis::mass), substances_);
    if (!sentence.empty()) answer_.in_words.push_back(whose + sentence);
    tables(diagram, distributions_.back(), label);
    diagram_to_json(diagram, distributions_.back(), label);
    answer_.lines.push_back(whose +
                            diagram.description({substances_[0].short_name(), substances_[1].short_name(),
                                                 substances_[2].short_name()}));
    for (std::size_t r = 0; r < diagram.regions.size(); ++r) {
      const TwoLiquidRegion& region = diagram.regions[r];
      answer_.lines.push_back(fmt::format("{}region {}: alpha is rich in {}, beta in {}", whose, r + 1,
                                          substances_[region.alpha_rich].name,
                                          substances_[region.beta_rich].name));
    }
    if (k == 0 && (!study_.uncertainties.empty() || !study_.bands.empty())) uncertainty(diagram);
    std::vector<LiquidsBeside> own;
    for (const LiquidsBeside& one : study_.beside) {
      if (one.contender == k) own.push_back(one);
    }
    add_deviations(own, study_.contenders, answer_);
  }

  void draw() {
    std::vector<LabelledTernary> diagrams;
    std::vector<std::string> labels;
    for (std::size_t k = 0; k < study_.diagrams.size(); ++k) {
      labels.push_back(label_of(k));
      diagrams.push_back({labels.back(), study_.diagrams[k].diagram});
    }
    answer_.figure = ternary_figure(diagrams, substances_, drawing_);
    if (options_.overview && study_.parts()) {
      answer_.figure->panels.push_back(
          distribution_panel(distributions_, labels, substances_, options_.basis));
      answer_.figure->columns = 2;
      answer_.figure->width = 1400;
    }
    add_models(*answer_.figure, study_.contenders, answer_.notices);
  }

  std::vector<double> shown(const std::array<double, 3>& x) const {
    return options_.basis == Basis::mole ? std::vector<double>(x.begin(), x.end())
                                         : mass_fractions(x, substances_);
  }

  void tables(const TernaryDiagram& diagram, const Distribution& spread, const std::string& label) {
    const std::string suffix = label.empty() ? "" : ", " + label;
    const char* letter = options_.basis == Basis::mole ? "x" : "w";
    Table lines{fmt::format("Tie lines{}", suffix), {{"region"}}, {}};
    for (const char* side : {"alpha", "beta"}) {
      for (const Substance& substance : substances_)
        lines.columns.push_back(
            {fmt::format("{}({}) {}", letter, substance.short_name(), side), Dimension::fraction, 5});
    }
    for (const ShownTieLine& line : diagram.tie_lines) {
      std::vector<Cell> row{fmt::format("{}", line.region + 1)};
      for (const auto* x : {&line.line.alpha, &line.line.beta}) {
        const auto values = shown(*x);
        row.insert(row.end(), values.begin(), values.end());
      }
      lines.rows.push_back(std::move(row));
    }
    if (!lines.rows.empty()) answer_.tables.push_back(std::move(lines));
    Table special{fmt::format("Plait points and three liquids{}", suffix), {{"what"}}, {}};
    for (const Substance& substance : substances_)
      special.columns.push_back(
          {fmt::format("{}({})", letter, substance.short_name()), Dimension::fraction, 5});
    const auto add = [&](const std::string& what, const std::array<double, 3>& x) {
      std::vector<Cell> row{what};
      const auto values = shown(x);
      row.insert(row.end(), values.begin(), values.end());
      special.rows.push_back(std::move(row));
    };
    for (const PlaitPoint& plait : diagram.plait_points) add("plait point", three(plait.x));
    for (std::size_t k = 0; k < diagram.three_liquids.size(); ++k) {
      for (const auto& x : diagram.three_liquids[k]) add(fmt::format("three liquids {}", k + 1), x);
    }
    if (!special.rows.empty()) answer_.tables.push_back(std::move(special));
    if (spread.points.empty()) return;
    const Extraction& roles = spread.roles;
    const std::string solute = substances_[roles.solute].short_name(),
                      carrier = substances_[roles.carrier].short_name(),
                      solvent = substances_[roles.solvent].short_name();
    Table extraction{
        fmt::format("{} between the liquid of {} and that of {}{}", solute, carrier, solvent, suffix),
        {{fmt::format("{}({}) in {}", letter, solute, carrier), Dimension::fraction, 5},
         {fmt::format("{}({}) in {}", letter, solute, solvent), Dimension::fraction, 5},
         {"distribution coefficient", Dimension::number, 4},
         {fmt::format("selectivity over {}", carrier), Dimension::number, 3}},
        {}};
    for (const DistributionPoint& point : spread.points)
      extraction.rows.push_back({point.in_carrier, point.in_solvent, point.coefficient, point.selectivity});
    answer_.tables.push_back(std::move(extraction));
  }

  void diagram_to_json(const TernaryDiagram& diagram, const Distribution& spread, const std::string& label) {
    const auto add = [&](const char* key, Json json) {
      if (!label.empty()) json["liquid"] = label;
      (*answer_.json)[key].push_back(std::move(json));
    };
    for (const ShownTieLine& line : diagram.tie_lines) {
      add("tie_lines", {{"alpha", line.line.alpha},
                        {"beta", line.line.beta},
                        {"w_alpha", mass_fractions(line.line.alpha, substances_)},
                        {"w_beta", mass_fractions(line.line.beta, substances_)},
                        {"region", line.region},
                        {"residual", line.residual},
                        {"tangent_plane_distance", line.distance}});
    }
    for (const PlaitPoint& plait : diagram.plait_points) {
      add("plait_points", {{"x", plait.x},
                           {"w", mass_fractions(plait.x, substances_)},
                           {"curvature", plait.curvature},
                           {"third_derivative", plait.third}});
    }
    for (const ThreeLiquids& triangle : diagram.three_liquids) {
      Json liquids = Json::array();
      for (const auto& x : triangle) liquids.push_back({{"x", x}, {"w", mass_fractions(x, substances_)}});
      add("three_liquids", {{"liquids", std::move(liquids)}});
    }
    const auto end = [](const RegionEnd& where) {
      switch (where.kind) {
        case RegionEnd::Kind::edge:
          return "edge";
        case RegionEnd::Kind::plait:
          return "plait-point";
        default:
          return "three-liquids";
      }
    };
    for (const TwoLiquidRegion& region : diagram.regions) {
      Json alpha = Json::array(), beta = Json::array();
      for (const TieLine& line : region.tie_lines) {
        alpha.push_back(line.alpha);
        beta.push_back(line.beta);
      }
      add("regions", {{"begin", end(region.begin)},
                      {"end", end(region.end)},
                      {"alpha_rich_in", substances_[region.alpha_rich].name},
                      {"beta_rich_in", substances_[region.beta_rich].name},
                      {"binodal_alpha", std::move(alpha)},
                      {"binodal_beta", std::move(beta)}});
    }
    for (const DistributionPoint& point : spread.points) {
      add("distribution", {{"solute", substances_[spread.roles.solute].name},
                           {"carrier", substances_[spread.roles.carrier].name},
                           {"solvent", substances_[spread.roles.solvent].name},
                           {"basis", options_.basis == Basis::mole ? "mole" : "mass"},
                           {"in_carrier_liquid", point.in_carrier},
                           {"in_solvent_liquid", point.in_solvent},
                           {"coefficient", point.coefficient},
                           {"selectivity", point.selectivity}});
    }
    const std::string text =
        diagram.description({substances_[0].name, substances_[1].name, substances_[2].name});
    if (!answer_.json->contains("description")) (*answer_.json)["description"] = text;
  }

  // What the uncertainty of fitted parameters means for the tie lines and the binodal.
  void uncertainty(const TernaryDiagram& diagram) {
    Table table{"Standard uncertainties of the tie lines (mole fraction, the feed in the middle held)",
                {{"region"}},
                {}};
    for (const char* side : {"alpha", "beta"}) {
      for (const Substance& substance : substances_)
        table.columns.push_back(
            {fmt::format("u(x({}) {})", substance.short_name(), side), Dimension::fraction, 5});
    }
    const std::vector<TieLineUncertainty>& u = study_.uncertainties;
    for (std::size_t k = 0; k < u.size(); ++k) {
      std::vector<Cell> row{fmt::format("{}", diagram.tie_lines[k].region + 1)};
      row.insert(row.end(), u[k].u_alpha.begin(), u[k].u_alpha.end());
      row.insert(row.end(), u[k].u_beta.begin(), u[k].u_beta.end());
      table.rows.push_back(std::move(row));
      (*answer_.json)["tie_lines"][k]["u_alpha"] = u[k].u_alpha;
      (*answer_.json)["tie_lines"][k]["u_beta"] = u[k].u_beta;
    }
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
    constexpr double coverage = 2;  // standard uncertainties on either side
    for (std::size_t r = 0; r < diagram.regions.size(); ++r) {
      const TwoLiquidRegion& region = diagram.regions[r];
      const std::vector<TieLineUncertainty>& bands = study_.bands[r];
      for (const bool alpha : {true, false}) {
        std::vector<std::array<double, 3>> outer, inner;
        for (std::size_t k = 0; k < bands.size(); ++k) {
          const auto& x = alpha ? region.tie_lines[k].alpha : region.tie_lines[k].beta;
          const auto& step = alpha ? bands[k].across_alpha : bands[k].across_beta;
          std::array<double, 3> out{}, in{};
          for (std::size_t i = 0; i < 3; ++i) {
            out[i] = std::clamp(x[i] + coverage * step[i], 0.0, 1.0);
            in[i] = std::clamp(x[i] - coverage * step[i], 0.0, 1.0);
          }
          outer.push_back(out);
          inner.push_back(in);
        }
        outer.insert(outer.end(), inner.rbegin(), inner.rend());
        drawing_.bands.push_back(std::move(outer));
      }
    }
    answer_.lines.push_back("band: two standard uncertainties on either side of the binodal");
  }

  // Tie lines through given compositions, by the first model.
  void through() {
    Table table{"Tie lines through given compositions", {{"composition"}}, {}};
    const char* letter = options_.basis == Basis::mole ? "x" : "w";
    for (const char* side : {"alpha", "beta"}) {
      for (const Substance& substance : substances_)
        table.columns.push_back(
            {fmt::format("{}({}) {}", letter, substance.short_name(), side), Dimension::fraction, 5});
    }
    table.columns.push_back({"fraction of beta (moles)", Dimension::fraction, 5});
    for (const AskedTieLine& asked : study_.through) {
      std::vector<Cell> row{asked.through.name()};
      for (const auto* x : {&asked.line.alpha, &asked.line.beta}) {
        const auto values = shown(*x);
        row.insert(row.end(), values.begin(), values.end());
      }
      row.emplace_back(asked.share);
      table.rows.push_back(std::move(row));
      (*answer_.json)["through"].push_back({{"composition", asked.through.x},
                                            {"alpha", asked.line.alpha},
                                            {"beta", asked.line.beta},
                                            {"share_of_beta", asked.share}});
    }
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
  }

  const TernaryStudy& study_;
  const TernaryAnswerOptions& options_;
  const std::vector<Substance>& substances_;
  TernaryFigureOptions drawing_;
  std::vector<Distribution> distributions_;
  Answer answer_;
};

}  // namespace

Answer answer(const TernaryStudy& study, const TernaryAnswerOptions& options) {
  return TernaryAnswer(study, options).told();
}

}  // namespace jampot
