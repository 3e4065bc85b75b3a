// residue: residue curve maps of three substances, and what they say of a feed.
#include <fmt/format.h>

#include <algorithm>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/separation.hpp"
#include "jampot/draw/residue_figure.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "liquids.hpp"
#include "progress_line.hpp"
#include "singular_tables.hpp"
#include "triangle_options.hpp"

namespace jampot::tool {
namespace {

struct ResidueCommandOptions {
  MixtureOptions mixture;
  TriangleOptions triangle;
  FeedOptions feed;
  std::string pressure, isotherms, decanter;
  std::vector<std::string> through;
  int curves = 25, tie_lines = 12;
  bool working = false;
  PresentationOptions presentation;
};

using Composition = std::array<double, 3>;

class ResidueOf {
 public:
  ResidueOf(const ResidueCommandOptions& options, const Presentation& presentation)
      : options_(options),
        presentation_(presentation),
        basis_(parse_basis(options.mixture.basis)),
        contenders_(options.mixture.contenders(answer_.notices)),
        mixture_(contenders_.front().mixture) {
    if (mixture_.size() != 3)
      throw RequestError(
          fmt::format("a residue curve map has three substances; {} are named", mixture_.size()));
    if (options.pressure.empty()) throw RequestError("give the --pressure, as in --pressure \"1 atm\"");
    P_Pa_ = parse_quantity(options.pressure, Dimension::pressure);
    if (options.curves < 0 || options.curves > 500)
      throw RequestError(fmt::format("--curves {}: expected 0 to 500", options.curves));
    drawing_.units = presentation.units;
    drawing_.shown_tie_lines = options.tie_lines;
    options.triangle.read(drawing_, substances(), basis_, residue_layers());
    wanted_.curves = options.curves;
    for (const std::string& text : options.through)
      wanted_.through.push_back(three(parse_composition(text, substances(), basis_)));
    if (!options.isotherms.empty())
      isotherms_K_ = parse_quantities(options.isotherms, Dimension::temperature);
    demand_count("isotherms", static_cast<double>(isotherms_K_.size()), 200);
    if (!options.decanter.empty()) decanter_K_ = parse_quantity(options.decanter, Dimension::temperature);
    for (const std::string& text : options.feed.texts)
      feeds_.push_back(three(options.feed.read(text, substances(), options.mixture.basis).fractions()));
    if (options.feed.texts.empty() && !options.feed.amount.empty())
      throw RequestError("--amount says how much there is of a --feed; none is given");
    if (decanter_K_ && feeds_.empty())
      throw RequestError("--decanter says at which temperature the liquids of a --feed are parted; give one");
  }

  Answer answer(bool shows_progress) {
    Progress progress;
    const ProgressLine line("azeotropes and curves", progress, shows_progress);
    wanted_.progress = &progress;
    map_ = map_of(contenders_.front(), wanted_);
    for (std::size_t k = 1; k < contenders_.size(); ++k) {
      ResidueOptions only_structure = wanted_;  // of the others no curves are drawn
      only_structure.curves = 0;
      only_structure.through.clear();
      drawing_.compared.push_back({contenders_[k].label, map_of(contenders_[k], only_structure)});
    }
    to_json();
    singular_table();
    separatrix_table();
    two_liquids();
    three_liquids();
    summary(map_, compared() ? contenders_.front().label : "");
    for (const LabelledMap& other : drawing_.compared) summary(other.map, other.label);
    for (std::size_t k = 0; k < feeds_.size(); ++k) feed(k);
    if (!feeds_.empty())
      answer_.lines.emplace_back(
          "these are limits: sharp splits in long columns, boundaries taken as at total reflux");
    curves_table();
    if (options_.working) {
      const auto lines = azeotrope_working(mixture_, map_.singular);
      answer_.json["working"] = lines;
      answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
    }
    answer_.lines.push_back(fmt::format("liquid model: {}", contenders_.front().label));
    if (compared())
      answer_.lines.push_back("curves, tie lines and what is said of feeds are those of " +
                              contenders_.front().label);
    if (!presentation_.figure.empty() && presentation_.plot.empty()) {
      if (!isotherms_K_.empty())
        drawing_.isotherms = isotherms(mixture_, P_Pa_, map_.two_liquids, isotherms_K_);
      answer_.figure = residue_figure(map_, substances(), drawing_);
      sign(*answer_.figure, contenders_, answer_.notices);
    }
    return std::move(answer_);
  }

 private:
  bool compared() const { return contenders_.size() > 1; }

  ResidueMap map_of(Contender& contender, const ResidueOptions& wanted) {
    ResidueMap map = residue_map(contender.mixture, P_Pa_, wanted);
    double coldest = HUGE_VAL, hottest = 0;
    for (const SingularPoint& point : map.singular.points) {
      coldest = std::min(coldest, point.T_K);
      hottest = std::max(hottest, point.T_K);
    }
    for (const Notice& notice : map.notices)
      answer_.notices.add(notice.code, (compared() ? contender.label + ": " : "") + notice.text);
    add_doubtful_predictions(contender.mixture, map.singular.points, answer_.notices);
    for (const Notice& notice : contender.mixture.range_notices(coldest, hottest)) {
      const bool of_substance = notice.code.starts_with("vapour-pressure");  // said once, of the first
      if (!of_substance || &contender == &contenders_.front()) answer_.notices.add(notice.code, notice.text);
    }
    answer_.notices.add(suitability(contender.mixture, Purpose::vapour_liquid, coldest, hottest, P_Pa_));
    return map;
  }

  const std::vector<Substance>& substances() const { return mixture_.substances(); }
  const SingularPoint& singular(std::size_t k) const { return map_.singular.points[k]; }
  std::string letter() const { return basis_ == Basis::mole ? "x" : "w"; }

  std::vector<double> shown(const Composition& x) const {
    return basis_ == Basis::mole ? std::vector<double>(x.begin(), x.end()) : mass_fractions(x, substances());
  }
  std::string shown_T(double T_K) const {
    const std::string& unit = presentation_.units.temperature;
    return fmt::format("{:.2f} {}", from_si(T_K, unit, Dimension::temperature), unit);
  }
  std::string described(std::size_t k) const { return described(singular(k)); }
  std::string described(const SingularPoint& point) const {
    return fmt::format("{} ({})", members_of(point, substances()), shown_T(point.T_K));
  }
  // "ethanol 0.3000, water 0.7000": what is there.
  std::string described(const Composition& x) const {
    std::vector<std::string> parts;
    const std::vector<double> f = shown(x);
    constexpr double shown_at_all = 5e-5;
    for (std::size_t i = 0; i < 3; ++i) {
      if (f[i] >= shown_at_all) parts.push_back(fmt::format("{} {:.4f}", substances()[i].short_name(), f[i]));
    }
    return joined(parts, ", ");
  }

  void add_fractions(std::vector<Column>& columns, const std::string& suffix = "") const {
    for (const Substance& substance : substances())
      columns.push_back(
          {fmt::format("{}({}){}", letter(), substance.short_name(), suffix), Dimension::fraction, 5});
  }
  void add_fractions(std::vector<Cell>& row, const Composition& x) const {
    for (const double value : shown(x)) row.emplace_back(value);
  }

  void singular_table() {
    Table table{"Singular points", {{"members"}, {"T", Dimension::temperature, 3}}, {}};
    if (compared()) table.columns.insert(table.columns.begin(), {"model"});
    add_fractions(table.columns);
    table.columns.insert(table.columns.end(), {{"kind"}, {"residue curves"}, {"eigenvalues"}});
    const auto add = [&](const ResidueMap& map, const std::string& label) {
      for (const SingularPoint& point : map.singular.points) {
        std::vector<Cell> row;
        if (compared()) row.emplace_back(label);
        row.insert(row.end(), {members_of(point, substances()), point.T_K});
        add_fractions(row, three(point.x));
        row.insert(row.end(), {kind_of(point), std::string(name_of(point.stability)),
                               fmt::format("{:.3f}, {:.3f}", point.eigenvalues[0], point.eigenvalues[1])});
        table.rows.push_back(std::move(row));
      }
    };
    add(map_, contenders_.front().label);
    for (const LabelledMap& other : drawing_.compared) add(other.map, other.label);
    show(std::move(table));
  }

  void separatrix_table() {
    Table table{"Separatrices, from cold to hot", {{"from"}, {"to"}, {"distillation boundary"}}, {}};
    for (const Separatrix& line : map_.separatrices) {
      table.rows.push_back({line.begin ? described(*line.begin) : "lost",
                            line.end ? described(*line.end) : "lost", line.boundary ? "yes" : "no"});
    }
    if (!table.rows.empty()) show(std::move(table));
  }

  Table line_table(const std::string& title, const std::string& first) const {
    Table table{title, {{first}, {"T", Dimension::temperature, 3}}, {}};
    add_fractions(table.columns, " alpha");
    add_fractions(table.columns, " beta");
    for (const Substance& substance : substances())
      table.columns.push_back(
          {fmt::format("{}({})", basis_ == Basis::mole ? "y" : "w vapour", substance.short_name()),
           Dimension::fraction, 5});
    return table;
  }
  void add_line(Table& table, const std::string& first, const BoilingTieLine& line) const {
    std::vector<Cell> row{first, line.T_K};
    add_fractions(row, line.alpha);
    add_fractions(row, line.beta);
    add_fractions(row, line.y);
    table.rows.push_back(std::move(row));
  }

  void two_liquids() {
    Table all = line_table("Two boiling liquids and their vapour", "region");
    for (std::size_t k = 0; k < map_.two_liquids.regions.size(); ++k) {
      for (const BoilingTieLine& line : map_.two_liquids.regions[k].tie_lines)
        add_line(all, fmt::format("{}", k + 1), line);
    }
    if (!all.rows.empty()) {
      constexpr std::size_t on_screen = 12;
      answer_.screen.push_back(thinned(all, on_screen));
      answer_.tables.push_back(std::move(all));
    }
    BoilingLiquid boiling(mixture_, P_Pa_, map_.two_liquids);
    Table table = line_table("Tie lines through given compositions", "composition");
    table.columns.push_back({"share of beta (moles)", Dimension::fraction, 5});
    for (const std::string& text : options_.triangle.tie_lines) {
      const auto through = boiling.tie_line(three(parse_composition(text, substances(), basis_)));
      if (!through) {
        answer_.notices.add(
            "no-tie-line",
            fmt::format("no tie line passes through {}: it boils as one liquid or as three", text));
        continue;
      }
      add_line(table, text, through->line);
      table.rows.back().emplace_back(through->share);
      drawing_.tie_lines.push_back(through->line);
      Json json = line_json(through->line);
      json["share_of_beta"] = through->share;
      answer_.json["through_tie_lines"].push_back(std::move(json));
    }
    if (!table.rows.empty()) show(std::move(table));
  }

  // Of one map; `label` names its model where there are several.
  void summary(const ResidueMap& map, const std::string& label) {
    const std::string whose = label.empty() ? "" : label + ": ";
    const auto point = [&](std::size_t k) { return described(map.singular.points[k]); };
    answer_.lines.push_back(
        fmt::format("{}{} singular points; {}", whose, map.singular.points.size(), balance_of(map.singular)));
    const std::size_t count = map.regions.size();
    for (std::size_t k = 0; k < count; ++k) {
      const std::string which =
          count == 1 ? "one distillation region" : fmt::format("distillation region {} of {}", k + 1, count);
      answer_.lines.push_back(fmt::format("{}{}: from {} to {}", whose, which, point(map.regions[k].from),
                                          point(map.regions[k].to)));
    }
    for (const BoilingRegion& region : map.two_liquids.regions) {
      const auto [low, high] =
          std::minmax_element(region.tie_lines.begin(), region.tie_lines.end(),
                              [](const BoilingTieLine& a, const BoilingTieLine& b) { return a.T_K < b.T_K; });
      answer_.lines.push_back(
          fmt::format("{}two liquids boil between {} and {}", whose, shown_T(low->T_K), shown_T(high->T_K)));
    }
    for (const ThreeBoilingLiquids& liquids : map.two_liquids.three_liquids)
      answer_.lines.push_back(fmt::format("{}three liquids boil at {}", whose, shown_T(liquids.T_K)));
  }

  void three_liquids() {
    Table table{"Three boiling liquids and their vapour", {{"phase"}, {"T", Dimension::temperature, 3}}, {}};
    add_fractions(table.columns);
    for (const ThreeBoilingLiquids& three : map_.two_liquids.three_liquids) {
      Json json{{"liquids", three.liquids}, {"y", three.y}, {"T_K", three.T_K}};
      answer_.json["three_liquids"].push_back(std::move(json));
      for (std::size_t p = 0; p < 4; ++p) {
        std::vector<Cell> row{p < 3 ? fmt::format("liquid {}", p + 1) : std::string("vapour"), three.T_K};
        add_fractions(row, p < 3 ? three.liquids[p] : three.y);
        table.rows.push_back(std::move(row));
      }
    }
    if (!table.rows.empty()) show(std::move(table));
  }

  std::string end_of(const BalanceLine& line) const {
    if (line.separatrix) {
      const Separatrix& boundary = map_.separatrices[*line.separatrix];
      return fmt::format("on the boundary from {} to {}", boundary.begin ? described(*boundary.begin) : "?",
                         boundary.end ? described(*boundary.end) : "?");
    }
    if (line.side) return "on the side without " + substances()[*line.side].short_name();
    return "";
  }

  // Moles of distillate per mole of feed in the basis of the answer.
  double share(const BalanceLine& line) const {
    if (basis_ == Basis::mole) return line.distillate_share;
    const double top = line.distillate_share * molar_mass(line.distillate),
                 bottom = (1 - line.distillate_share) * molar_mass(line.bottoms);
    return top / (top + bottom);
  }
  double molar_mass(const Composition& x) const {
    double sum = 0;
    for (std::size_t i = 0; i < 3; ++i) sum += x[i] * substances()[i].molar_mass_kg_mol;
    return sum;
  }

  void feed(std::size_t k) {
    const FeedReading reading = read_feed(mixture_, map_, feeds_[k], decanter_K_);
    const std::string name = feeds_.size() > 1 ? fmt::format("feed {}", k + 1) : "feed";
    drawing_.marks.push_back({name, reading.z});
    const char* per = basis_ == Basis::mole ? "mole per mole" : "kg per kg";
    std::string first = fmt::format("{} ({}) boils at {}", name, described(reading.z), shown_T(reading.T_K));
    if (reading.region) {
      const DistillationRegion& region = map_.regions[*reading.region];
      first += map_.regions.size() == 1 ? std::string(", in the only region")
                                        : fmt::format(", in region {}: from {} to {}", *reading.region + 1,
                                                      described(region.from), described(region.to));
      answer_.lines.push_back(first);
      if (reading.direct) {
        answer_.lines.push_back(fmt::format(
            "{}, direct split: overhead {}, at most {:.4f} {} of feed; then the bottoms are {}, {}", name,
            described(region.from), share(*reading.direct), per, described(reading.direct->bottoms),
            end_of(*reading.direct)));
      }
      if (reading.indirect) {
        answer_.lines.push_back(fmt::format(
            "{}, indirect split: bottoms {}, at most {:.4f} {} of feed; then the distillate is {}, {}", name,
            described(region.to), 1 - share(*reading.indirect), per, described(reading.indirect->distillate),
            end_of(*reading.indirect)));
      }
    } else {
      answer_.lines.push_back(first + ", in no region that was found: the map is incomplete there");
    }
    if (reading.feed_decanter) answer_.lines.push_back(name + decanter(*reading.feed_decanter));
    if (reading.overhead_decanter)
      answer_.lines.push_back(name + ", overhead of the direct split" + decanter(*reading.overhead_decanter));
    else if (reading.direct && decanter_K_)
      answer_.lines.push_back(
          fmt::format("{}, overhead of the direct split: one liquid at {}", name, shown_T(*decanter_K_)));
    feed_json(reading);
  }

  std::string decanter(const DecanterReading& d) const {
    const auto where = [](const std::optional<std::size_t>& region) {
      return region ? fmt::format("region {}", *region + 1) : std::string("no region that was found");
    };
    return fmt::format(", decanter at {}: {} ({}) and {} ({}), beta {:.4f} of the moles: {}", shown_T(d.T_K),
                       described(d.alpha), where(d.region_alpha), described(d.beta), where(d.region_beta),
                       d.share,
                       d.crosses()                       ? "the decanter crosses a distillation boundary"
                       : d.region_alpha && d.region_beta ? "it crosses no distillation boundary"
                                                         : "whether it crosses a boundary is not known");
  }

  void show(Table table) {
    answer_.screen.push_back(table);
    answer_.tables.push_back(std::move(table));
  }

  // For files only: too long for the screen.
  void curves_table() {
    Table table{"Curves", {{"curve"}, {"T", Dimension::temperature, 4}}, {}};
    add_fractions(table.columns);
    const auto add = [&](const std::string& name, const ResidueCurve& curve) {
      for (std::size_t k = 0; k < curve.x.size(); ++k) {
        std::vector<Cell> row{name, curve.T_K[k]};
        add_fractions(row, curve.x[k]);
        table.rows.push_back(std::move(row));
      }
    };
    for (std::size_t k = 0; k < map_.curves.size(); ++k) add(fmt::format("curve {}", k + 1), map_.curves[k]);
    for (std::size_t k = 0; k < map_.through.size(); ++k)
      add("through " + options_.through[k], map_.through[k]);
    for (std::size_t k = 0; k < map_.separatrices.size(); ++k)
      add(fmt::format("separatrix {}", k + 1), map_.separatrices[k]);
    answer_.tables.push_back(std::move(table));
  }

  static Json end_json(const std::optional<std::size_t>& end) { return end ? Json(*end) : Json(nullptr); }
  static Json curve_json(const ResidueCurve& curve) {
    return {
        {"x", curve.x}, {"T_K", curve.T_K}, {"begin", end_json(curve.begin)}, {"end", end_json(curve.end)}};
  }
  static Json line_json(const BoilingTieLine& line) {
    return {{"alpha", line.alpha}, {"beta", line.beta}, {"y", line.y}, {"T_K", line.T_K}};
  }

  Json map_json(const ResidueMap& map) const {
    Json json;
    for (const char* key :
         {"singular_points", "curves", "through", "boundaries", "regions", "two_liquid_region"})
      json[key] = Json::array();
    for (const SingularPoint& point : map.singular.points)
      json["singular_points"].push_back(tool::to_json(point, P_Pa_, substances()));
    json["index_balance"] = {{"sum", map.singular.index_sum},
                             {"expected", map.singular.index_expected},
                             {"balanced", map.singular.balanced()}};
    for (const ResidueCurve& curve : map.curves) json["curves"].push_back(curve_json(curve));
    for (const ResidueCurve& curve : map.through) json["through"].push_back(curve_json(curve));
    for (const Separatrix& line : map.separatrices) {
      Json entry = curve_json(line);
      entry["saddle"] = line.saddle;
      entry["divides_regions"] = line.boundary;
      json["boundaries"].push_back(std::move(entry));
    }
    for (const DistillationRegion& region : map.regions)
      json["regions"].push_back({{"from", region.from}, {"to", region.to}, {"outlines", region.outlines}});
    for (const BoilingRegion& region : map.two_liquids.regions) {
      Json lines = Json::array();
      for (const BoilingTieLine& line : region.tie_lines) lines.push_back(line_json(line));
      json["two_liquid_region"].push_back({{"tie_lines", std::move(lines)}});
    }
    return json;
  }

  void to_json() {
    answer_.json = contenders_header("residue", contenders_);
    answer_.json["P_Pa"] = P_Pa_;
    answer_.json.update(map_json(map_));
    answer_.json["feeds"] = Json::array();
    for (const LabelledMap& other : drawing_.compared) {
      Json json{{"liquid", other.label}};
      json.update(map_json(other.map));
      answer_.json["compared"].push_back(std::move(json));
    }
  }

  void feed_json(const FeedReading& reading) {
    Json json{{"z", reading.z}, {"T_K", reading.T_K}, {"region", end_json(reading.region)}};
    const auto add = [&](const char* key, const std::optional<BalanceLine>& line) {
      if (!line) return;
      json[key] = {{"distillate", line->distillate},
                   {"bottoms", line->bottoms},
                   {"distillate_share", line->distillate_share},
                   {"boundary", end_json(line->separatrix)}};
    };
    add("direct_split", reading.direct);
    add("indirect_split", reading.indirect);
    const auto add_decanter = [&](const char* key, const std::optional<DecanterReading>& d) {
      if (!d) return;
      json[key] = {{"T_K", d->T_K},
                   {"z", d->z},
                   {"alpha", d->alpha},
                   {"beta", d->beta},
                   {"share_of_beta", d->share},
                   {"region_alpha", end_json(d->region_alpha)},
                   {"region_beta", end_json(d->region_beta)},
                   {"crosses_boundary", d->crosses()}};
    };
    add_decanter("decanter", reading.feed_decanter);
    add_decanter("overhead_decanter", reading.overhead_decanter);
    answer_.json["feeds"].push_back(std::move(json));
  }

  const ResidueCommandOptions& options_;
  const Presentation& presentation_;
  Answer answer_;
  Basis basis_;
  std::vector<Contender> contenders_;
  Mixture& mixture_;  ///< of the first of them
  double P_Pa_ = 0;
  ResidueOptions wanted_;
  std::vector<double> isotherms_K_;
  std::optional<double> decanter_K_;
  std::vector<Composition> feeds_;
  ResidueMap map_;
  ResidueFigureOptions drawing_;
};

}  // namespace

void add_residue(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<ResidueCommandOptions>();
  CLI::App* command = tool.add_subcommand(
      "residue", "Residue curve map of three substances: curves, azeotropes, boundaries, two liquids");
  add_mixture(*command, options->mixture, false);
  add_vapour(*command, options->mixture.vapour);
  add_compare(*command, options->mixture);
  command->add_option("--pressure", options->pressure, "\"1 atm\"")->type_name("QUANTITY");
  command
      ->add_option("--curves", options->curves, "How many curves are spread over the triangle (default 25)")
      ->type_name("N");
  repeatable(
      command
          ->add_option("--through", options->through, "The curve through this composition; may be repeated")
          ->type_name("COMPOSITION"));
  add_feed(*command, options->feed);
  command
      ->add_option("--decanter", options->decanter,
                   "Temperature at which liquids are parted (default: at boiling)")
      ->type_name("QUANTITY");
  command
      ->add_option("--isotherms", options->isotherms,
                   "Lines of these boiling temperatures: \"60 to 100 by 5 degC\"")
      ->type_name("QUANTITY");
  command->add_option("--tie-lines", options->tie_lines, "How many tie lines are drawn (default 12)")
      ->type_name("N");
  add_triangle(*command, options->triangle, residue_layers());
  command->add_flag("--working", options->working, "Write out the first azeotrope, equation by equation");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example:\n"
      "  jampot residue acetone chloroform methanol --liquid unifac --pressure \"1 atm\" --figure map.svg");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(ResidueOf(*options, presentation).answer(presenter.shows_progress()), presentation);
  });
}

}  // namespace jampot::tool
