#include "jampot/report/residue.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "jampot/basis/text.hpp"
#include "singular_tables.hpp"

namespace jampot {
namespace {

using Composition = std::array<double, 3>;

class ResidueAnswer {
 public:
  ResidueAnswer(const ResidueStudy& study, const ResidueAnswerOptions& options)
      : study_(study), options_(options), drawing_(options.looks) {
    drawing_.units = options.units;
    drawing_.basis = options.basis;
    drawing_.isotherms = study.isotherms;
    for (const AskedBoilingLine& asked : study.tie_lines) drawing_.tie_lines.push_back(asked.line);
    for (const HandbookAzeotrope& azeotrope : study.handbook) drawing_.handbook.push_back(azeotrope.x);
    for (std::size_t k = 1; k < study.maps.size(); ++k)
      drawing_.compared.push_back({study.contenders[k].label, study.maps[k]});
  }

  Answer told() {
    map_to_json();
    singular_table();
    separatrix_table();
    two_liquids();
    three_liquids();
    const std::string& own = study_.contenders.front().label;
    summary(study_.map(), study_.compared() ? own : "");
    for (const LabelledMap& other : drawing_.compared) summary(other.map, other.label);
    for (std::size_t k = 0; k < study_.feeds.size(); ++k) feed(k);
    if (!study_.feeds.empty())
      answer_.lines.emplace_back(
          "these are limits: sharp splits in long columns, boundaries taken as at total reflux");
    curves_table();
    if (!study_.working.empty()) add_working(study_.working, answer_);
    answer_.lines.push_back(fmt::format("liquid model: {}", own));
    if (study_.compared())
      answer_.lines.push_back("curves, tie lines and the statements on feeds are those of " + own);
    answer_.notices = study_.notices;
    if (options_.figure) {
      answer_.figure = residue_figure(study_.map(), substances(), drawing_);
      add_models(*answer_.figure, study_.contenders, answer_.notices);
    }
    return std::move(answer_);
  }

 private:
  const std::vector<Substance>& substances() const { return study_.substances(); }
  const SingularPoint& singular(std::size_t k) const { return study_.map().singular.points[k]; }
  std::string letter() const { return options_.basis == Basis::mole ? "x" : "w"; }

  std::vector<double> shown(const Composition& x) const {
    return options_.basis == Basis::mole ? std::vector<double>(x.begin(), x.end())
                                         : mass_fractions(x, substances());
  }
  std::string shown_T(double T_K) const {
    const std::string& unit = options_.units.temperature;
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
    if (study_.compared()) table.columns.insert(table.columns.begin(), {"model"});
    add_fractions(table.columns);
    table.columns.insert(table.columns.end(), {{"kind"}, {"residue curves"}, {"eigenvalues"}});
    const auto add = [&](const ResidueMap& map, const std::string& label) {
      for (const SingularPoint& point : map.singular.points) {
        std::vector<Cell> row;
        if (study_.compared()) row.emplace_back(label);
        row.insert(row.end(), {members_of(point, substances()), point.T_K});
        add_fractions(row, three(point.x));
        row.insert(row.end(), {kind_of(point), std::string(name_of(point.stability)),
                               fmt::format("{:.3f}, {:.3f}", point.eigenvalues[0], point.eigenvalues[1])});
        table.rows.push_back(std::move(row));
      }
    };
    add(study_.map(), study_.contenders.front().label);
    for (const LabelledMap& other : drawing_.compared) add(other.map, other.label);
    show(std::move(table));
  }

  void separatrix_table() {
    Table table{"Separatrices, from cold to hot", {{"from"}, {"to"}, {"distillation boundary"}}, {}};
    for (const Separatrix& line : study_.map().separatrices) {
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
          {fmt::format("{}({})", options_.basis == Basis::mole ? "y" : "w vapour", substance.short_name()),
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
    for (std::size_t k = 0; k < study_.map().two_liquids.regions.size(); ++k) {
      for (const BoilingTieLine& line : study_.map().two_liquids.regions[k].tie_lines)
        add_line(all, fmt::format("{}", k + 1), line);
    }
    if (!all.rows.empty()) {
      constexpr std::size_t on_screen = 12;
      answer_.screen.push_back(thinned(all, on_screen));
      answer_.tables.push_back(std::move(all));
    }
    Table table = line_table("Tie lines through given compositions", "composition");
    table.columns.push_back({"fraction of beta (moles)", Dimension::fraction, 5});
    for (const AskedBoilingLine& asked : study_.tie_lines) {
      add_line(table, asked.through.name(), asked.line);
      table.rows.back().emplace_back(asked.share);
      Json json = line_json(asked.line);
      json["share_of_beta"] = asked.share;
      (*answer_.json)["through_tie_lines"].push_back(std::move(json));
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
    for (const ThreeBoilingLiquids& three : study_.map().two_liquids.three_liquids) {
      Json json{{"liquids", three.liquids}, {"y", three.y}, {"T_K", three.T_K}};
      (*answer_.json)["three_liquids"].push_back(std::move(json));
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
      const Separatrix& boundary = study_.map().separatrices[*line.separatrix];
      return fmt::format("on the boundary from {} to {}", boundary.begin ? described(*boundary.begin) : "?",
                         boundary.end ? described(*boundary.end) : "?");
    }
    if (line.side) return "on the side without " + substances()[*line.side].short_name();
    return "";
  }

  // Moles of distillate per mole of feed in the basis of the answer.
  double share(const BalanceLine& line) const {
    if (options_.basis == Basis::mole) return line.distillate_share;
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
    const FeedReading& reading = study_.feeds[k];
    const std::string name = study_.feeds.size() > 1 ? fmt::format("feed {}", k + 1) : "feed";
    drawing_.marks.push_back({name, reading.z});
    const char* per = options_.basis == Basis::mole ? "mole per mole" : "kg per kg";
    std::string first = fmt::format("{} ({}) boils at {}", name, described(reading.z), shown_T(reading.T_K));
    if (reading.region) {
      const DistillationRegion& region = study_.map().regions[*reading.region];
      first += study_.map().regions.size() == 1
                   ? std::string(", in the only region")
                   : fmt::format(", in region {}: from {} to {}", *reading.region + 1, described(region.from),
                                 described(region.to));
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
    else if (reading.direct && study_.decanter_T_K)
      answer_.lines.push_back(fmt::format("{}, overhead of the direct split: one liquid at {}", name,
                                          shown_T(*study_.decanter_T_K)));
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
    for (std::size_t k = 0; k < study_.map().curves.size(); ++k)
      add(fmt::format("curve {}", k + 1), study_.map().curves[k]);
    for (std::size_t k = 0; k < study_.map().through.size(); ++k)
      add("through " + study_.through[k].name(), study_.map().through[k]);
    for (std::size_t k = 0; k < study_.map().separatrices.size(); ++k)
      add(fmt::format("separatrix {}", k + 1), study_.map().separatrices[k]);
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
      json["singular_points"].push_back(jampot::to_json(point, study_.P_Pa, substances()));
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

  void map_to_json() {
    *answer_.json = contenders_header("residue", study_.contenders);
    (*answer_.json)["P_Pa"] = study_.P_Pa;
    answer_.json->update(map_json(study_.map()));
    (*answer_.json)["feeds"] = Json::array();
    for (const HandbookAzeotrope& azeotrope : study_.handbook)
      (*answer_.json)["handbook"].push_back(
          {{"x", azeotrope.x}, {"T_K", azeotrope.T_K}, {"heterogeneous", azeotrope.heterogeneous}});
    for (const LabelledMap& other : drawing_.compared) {
      Json json{{"liquid", other.label}};
      json.update(map_json(other.map));
      (*answer_.json)["compared"].push_back(std::move(json));
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
    (*answer_.json)["feeds"].push_back(std::move(json));
  }

  const ResidueStudy& study_;
  const ResidueAnswerOptions& options_;
  ResidueFigureOptions drawing_;
  Answer answer_;
};

}  // namespace

Answer answer(const ResidueStudy& study, const ResidueAnswerOptions& options) {
  return ResidueAnswer(study, options).told();
}

}  // namespace jampot
