// ternary: liquid-liquid diagrams of three substances.
#include <fmt/format.h>

#include <algorithm>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/ternary_figure.hpp"
#include "jampot/liquid/working.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "liquids.hpp"
#include "measured_files.hpp"
#include "triangle_options.hpp"

namespace jampot::tool {
namespace {

struct TernaryCommandOptions {
  MixtureOptions mixture;
  TriangleOptions triangle;
  std::string temperature, solute, solvent;
  std::vector<std::string> measured;
  int count = 25;
  bool overview = false, working = false, uncertainty = false;
  PresentationOptions presentation;
};

class TernaryOf {
 public:
  TernaryOf(const TernaryCommandOptions& options, const Presentation& presentation)
      : options_(options), presentation_(presentation), basis_(parse_basis(options.mixture.basis)) {
    contenders_ = liquid_contenders(options.mixture, answer_.notices);
    if (substances().size() != 3)
      throw RequestError(fmt::format("a triangle has three substances; {} are named", substances().size()));
    if (options.temperature.empty())
      throw RequestError("give --temperature, as in --temperature \"25 degC\"");
    T_K_ = parse_quantity(options.temperature, Dimension::temperature);
    sets_ = read_overlays(options.measured, main().substances(), *bank_with(options.mixture.substance_files),
                          Overlay::two_liquids);
    drawing_.units = presentation.units;
    drawing_.measured = sets_;
    options.triangle.read(drawing_, substances(), basis_, ternary_layers());
  }

  Answer answer() {
    answer_.json = contenders_header("ternary", contenders_);
    answer_.json["T_K"] = T_K_;
    for (const char* key : {"tie_lines", "plait_points", "three_liquids", "regions", "distribution"})
      answer_.json[key] = Json::array();
    add_liquid_notices(contenders_, T_K_, T_K_, answer_.notices);
    std::vector<LabelledTernary> diagrams;
    std::vector<Distribution> distributions;
    std::vector<std::string> labels;
    for (Contender& contender : contenders_) {
      const std::string label = compared() ? contender.label : "";
      TernaryOptions wanted;
      wanted.tie_lines = options_.count;
      TernaryDiagram diagram = ternary_diagram(contender.mixture.activity(), T_K_, wanted);
      answer_.notices.add(diagram.notices);
      const Extraction roles = roles_in(diagram, number(options_.solute), number(options_.solvent));
      Distribution spread = distribution(diagram, roles, substances(), basis_);
      tables(diagram, spread, label);
      to_json(diagram, spread, label);
      answer_.lines.push_back((label.empty() ? "" : label + ": ") +
                              diagram.description({substances()[0].short_name(), substances()[1].short_name(),
                                                   substances()[2].short_name()}));
      for (std::size_t k = 0; k < diagram.regions.size(); ++k) {
        const TwoLiquidRegion& region = diagram.regions[k];
        answer_.lines.push_back(
            fmt::format("{}region {}: alpha is rich in {}, beta in {}", label.empty() ? "" : label + ": ",
                        k + 1, substances()[region.alpha_rich].name, substances()[region.beta_rich].name));
      }
      if (options_.uncertainty && &contender == &contenders_.front()) uncertainty(diagram);
      overlays(contender, label);
      diagrams.push_back({label, std::move(diagram)});
      distributions.push_back(std::move(spread));
      labels.push_back(label);
    }
    answer_.lines.push_back(fmt::format("liquid model: {}", main().liquid_model()));
    through();
    if (options_.working) work(diagrams.front().diagram);
    const bool any = std::any_of(diagrams.begin(), diagrams.end(),
                                 [](const LabelledTernary& entry) { return !entry.diagram.regions.empty(); });
    if (!any)
      answer_.notices.add("one-liquid",
                          "the three are one liquid at every composition at this temperature, by this model");
    if (!presentation_.figure.empty() && presentation_.plot.empty()) {
      answer_.figure = ternary_figure(diagrams, substances(), drawing_);
      if (options_.overview && any) {
        answer_.figure->panels.push_back(distribution_panel(distributions, labels, substances(), basis_));
        answer_.figure->columns = 2;
        answer_.figure->width = 1400;
      }
      sign(*answer_.figure, contenders_, answer_.notices);
    }
    return std::move(answer_);
  }

 private:
  Mixture& main() { return contenders_.front().mixture; }
  const std::vector<Substance>& substances() { return main().substances(); }
  bool compared() const { return contenders_.size() > 1; }
  std::optional<std::size_t> number(const std::string& name) {
    return name.empty() ? std::nullopt : std::optional(member_named(name, substances()));
  }

  std::vector<double> shown(const std::array<double, 3>& x) {
    return basis_ == Basis::mole ? std::vector<double>(x.begin(), x.end()) : mass_fractions(x, substances());
  }

  void tables(const TernaryDiagram& diagram, const Distribution& spread, const std::string& label) {
    const std::string suffix = label.empty() ? "" : ", " + label;
    const char* letter = basis_ == Basis::mole ? "x" : "w";
    Table lines{fmt::format("Tie lines{}", suffix), {{"region"}}, {}};
    for (const char* side : {"alpha", "beta"}) {
      for (const Substance& substance : substances())
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
    for (const Substance& substance : substances())
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
    const std::string solute = substances()[roles.solute].short_name(),
                      carrier = substances()[roles.carrier].short_name(),
                      solvent = substances()[roles.solvent].short_name();
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

  void to_json(const TernaryDiagram& diagram, const Distribution& spread, const std::string& label) {
    const auto add = [&](const char* key, Json json) {
      if (!label.empty()) json["liquid"] = label;
      answer_.json[key].push_back(std::move(json));
    };
    for (const ShownTieLine& line : diagram.tie_lines) {
      add("tie_lines", {{"alpha", line.line.alpha},
                        {"beta", line.line.beta},
                        {"w_alpha", mass_fractions(line.line.alpha, substances())},
                        {"w_beta", mass_fractions(line.line.beta, substances())},
                        {"region", line.region},
                        {"residual", line.residual},
                        {"tangent_plane_distance", line.distance}});
    }
    for (const PlaitPoint& plait : diagram.plait_points) {
      add("plait_points", {{"x", plait.x},
                           {"w", mass_fractions(plait.x, substances())},
                           {"curvature", plait.curvature},
                           {"third_derivative", plait.third}});
    }
    for (const ThreeLiquids& triangle : diagram.three_liquids) {
      Json liquids = Json::array();
      for (const auto& x : triangle) liquids.push_back({{"x", x}, {"w", mass_fractions(x, substances())}});
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
                      {"alpha_rich_in", substances()[region.alpha_rich].name},
                      {"beta_rich_in", substances()[region.beta_rich].name},
                      {"binodal_alpha", std::move(alpha)},
                      {"binodal_beta", std::move(beta)}});
    }
    for (const DistributionPoint& point : spread.points) {
      add("distribution", {{"solute", substances()[spread.roles.solute].name},
                           {"carrier", substances()[spread.roles.carrier].name},
                           {"solvent", substances()[spread.roles.solvent].name},
                           {"basis", basis_ == Basis::mole ? "mole" : "mass"},
                           {"in_carrier_liquid", point.in_carrier},
                           {"in_solvent_liquid", point.in_solvent},
                           {"coefficient", point.coefficient},
                           {"selectivity", point.selectivity}});
    }
    const std::string text =
        diagram.description({substances()[0].name, substances()[1].name, substances()[2].name});
    if (!answer_.json.contains("description")) answer_.json["description"] = text;
  }

  void overlays(Contender& contender, const std::string& label) {
    for (const DataSet& set : sets_) {
      answer_.notices.add(set.notices);
      for (const DataPoint& point : set.points) {
        if (std::abs(point.T_K - T_K_) > 0.5 && !answer_.notices.has("other-temperature"))
          answer_.notices.add(
              "other-temperature",
              fmt::format("{} has pairs at other temperatures than the triangle; deviations are taken at "
                          "their own",
                          set.name));
      }
      const LiquidComparison comparison = compare_liquids(contender.mixture.activity(), set);
      const std::string name = label.empty() ? set.name : set.name + ", " + label;
      for (Table& table : liquid_deviation_tables(comparison, name, substances()))
        answer_.tables.push_back(std::move(table));
      Json json = tool::to_json(comparison);
      json["file"] = set.name;
      if (!label.empty()) json["liquid"] = label;
      answer_.json["measured"].push_back(std::move(json));
    }
  }

  // What the uncertainty of fitted parameters means for the tie lines and the binodal.
  void uncertainty(const TernaryDiagram& diagram) {
    Table table{"Standard uncertainties of the tie lines (mole fraction, the feed in the middle held)",
                {{"region"}},
                {}};
    for (const char* side : {"alpha", "beta"}) {
      for (const Substance& substance : substances())
        table.columns.push_back(
            {fmt::format("u(x({}) {})", substance.short_name(), side), Dimension::fraction, 5});
    }
    std::vector<TieLine> lines;
    for (const ShownTieLine& line : diagram.tie_lines) lines.push_back(line.line);
    const auto u = tie_line_uncertainties(main(), T_K_, lines);
    for (std::size_t k = 0; k < u.size(); ++k) {
      std::vector<Cell> row{fmt::format("{}", diagram.tie_lines[k].region + 1)};
      row.insert(row.end(), u[k].u_alpha.begin(), u[k].u_alpha.end());
      row.insert(row.end(), u[k].u_beta.begin(), u[k].u_beta.end());
      table.rows.push_back(std::move(row));
      answer_.json["tie_lines"][k]["u_alpha"] = u[k].u_alpha;
      answer_.json["tie_lines"][k]["u_beta"] = u[k].u_beta;
    }
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
    constexpr double coverage = 2;  // standard uncertainties on either side
    for (const TwoLiquidRegion& region : diagram.regions) {
      const auto bands = tie_line_uncertainties(main(), T_K_, region.tie_lines);
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
    const char* letter = basis_ == Basis::mole ? "x" : "w";
    for (const char* side : {"alpha", "beta"}) {
      for (const Substance& substance : substances())
        table.columns.push_back(
            {fmt::format("{}({}) {}", letter, substance.short_name(), side), Dimension::fraction, 5});
    }
    table.columns.push_back({"share of beta (moles)", Dimension::fraction, 5});
    for (const std::string& text : options_.triangle.tie_lines) {
      const auto z = three(parse_composition(text, substances(), basis_));
      const auto line = tie_line_through(main().activity(), T_K_, z);
      if (!line) {
        answer_.notices.add(
            "no-tie-line",
            fmt::format("no tie line passes through {}: it is one liquid or three there", text));
        continue;
      }
      std::vector<Cell> row{text};
      for (const auto* x : {&line->line.alpha, &line->line.beta}) {
        const auto values = shown(*x);
        row.insert(row.end(), values.begin(), values.end());
      }
      double share = 0, largest = 0;
      for (std::size_t i = 0; i < 3; ++i) {
        const double step = line->line.beta[i] - line->line.alpha[i];
        if (std::abs(step) <= largest) continue;
        largest = std::abs(step);
        share = (z[i] - line->line.alpha[i]) / step;
      }
      row.emplace_back(share);
      table.rows.push_back(std::move(row));
      drawing_.through.push_back(line->line);
      answer_.json["through"].push_back({{"composition", z},
                                         {"alpha", line->line.alpha},
                                         {"beta", line->line.beta},
                                         {"share_of_beta", share}});
    }
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
  }

  void work(const TernaryDiagram& diagram) {
    if (diagram.tie_lines.empty()) return;
    const auto& x = diagram.tie_lines[diagram.tie_lines.size() / 2].line.alpha;
    const auto lines = jampot::working(main().activity(), substances(), T_K_, {x.begin(), x.end()});
    answer_.json["working"] = lines;
    answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
  }

  const TernaryCommandOptions& options_;
  const Presentation& presentation_;
  Basis basis_;
  Answer answer_;
  std::vector<Contender> contenders_;
  std::vector<DataSet> sets_;
  TernaryFigureOptions drawing_;
  double T_K_ = 0;
};

}  // namespace

void add_ternary(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<TernaryCommandOptions>();
  CLI::App* command = tool.add_subcommand(
      "ternary", "Liquid-liquid diagram of three substances: binodal, tie lines, plait points, distribution");
  add_mixture(*command, options->mixture, false);
  add_compare(*command, options->mixture);
  command->add_option("--temperature", options->temperature, "\"25 degC\"")->type_name("QUANTITY");
  command->add_option("--tie-lines", options->count, "How many tie lines are shown (default 25)")
      ->type_name("N");
  command
      ->add_option("--solute", options->solute,
                   "What is extracted (default: the one in which neither liquid is rich)")
      ->type_name("NAME");
  command
      ->add_option("--solvent", options->solvent,
                   "What takes it up (default: of the other two the one named later)")
      ->type_name("NAME");
  repeatable(
      command->add_option("--measured", options->measured, "Measured tie lines laid over, with deviations")
          ->type_name("FILE"));
  add_triangle(*command, options->triangle, ternary_layers());
  command->add_flag("--overview", options->overview, "Draw distribution and selectivity beside the triangle");
  command->add_flag(
      "--uncertainty", options->uncertainty,
      "Draw and tabulate what the uncertainty of fitted parameters means: a band of two standard "
      "uncertainties");
  command->add_flag("--working", options->working, "Write out the activity coefficients of one liquid");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example:\n"
      "  jampot ternary water ethanol \"ethyl acetate\" --temperature \"25 degC\" --figure ternary.svg");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(TernaryOf(*options, presentation).answer(), presentation);
  });
}

}  // namespace jampot::tool
