// bubble and dew: points of a mixture of any number of substances.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "binary_tables.hpp"
#include "commands.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/files/text_file.hpp"
#include "measured_files.hpp"
#include "options.hpp"
#include "vle_working.hpp"

namespace jampot::tool {
namespace {

struct PointOptions {
  MixtureOptions mixture;
  Condition condition;
  std::vector<std::string> compositions, measured;
  std::string slice;
  int points = 21;
  bool working = false;
  PresentationOptions presentation;
};

Table point_table(const std::vector<VlePoint>& points, const Mixture& mixture, Basis basis,
                  const std::string& title) {
  Table table{title, {{"T", Dimension::temperature, 3}, {"P", Dimension::pressure, 3}}, {}};
  for (const char phase : {'x', 'y'}) {
    for (const Substance& substance : mixture.substances())
      table.columns.push_back({fraction_heading(phase, substance, basis), Dimension::fraction, 5});
  }
  const std::vector<std::pair<const char*, std::vector<double> VlePoint::*>> quantities{
      {"K", &VlePoint::K},
      {"gamma", &VlePoint::gamma},
      {"phi", &VlePoint::phi},
      {"phi sat", &VlePoint::phi_saturated},
      {"Poynting", &VlePoint::poynting}};
  for (const auto& [quantity, member] : quantities) {
    if ((points.front().*member).empty()) continue;
    for (const Substance& substance : mixture.substances())
      table.columns.push_back({fmt::format("{}({})", quantity, substance.short_name())});
  }
  for (const VlePoint& point : points) {
    std::vector<Cell> row{point.T_K, point.P_Pa};
    for (const auto* fractions : {&point.x, &point.y}) {
      const auto shown = basis == Basis::mole ? *fractions : mass_fractions(*fractions, mixture.substances());
      row.insert(row.end(), shown.begin(), shown.end());
    }
    for (const auto& [quantity, member] : quantities)
      row.insert(row.end(), (point.*member).begin(), (point.*member).end());
    table.rows.push_back(std::move(row));
  }
  return table;
}

// Compositions from a CSV file with the columns x1, x2 ...; the last may be left out.
std::vector<std::vector<double>> read_compositions(const std::string& file, const Mixture& mixture,
                                                   Basis basis) {
  const CsvTable table(read_file(file), file);
  const std::size_t n = mixture.size();
  std::vector<std::size_t> columns;
  for (std::size_t i = 0; i < n; ++i) {
    const std::string name = fmt::format("x{}", i + 1);
    const Substance& substance = mixture.substances()[i];
    const auto found =
        std::find_if(table.header().begin(), table.header().end(), [&](const std::string& title) {
          // as typed, or as a table of this tool names it
          return title == name || title == fraction_heading('x', substance, basis) ||
                 title == fmt::format("{}({})", basis == Basis::mole ? 'x' : 'w', substance.name);
        });
    if (found == table.header().end() && i + 1 < n) {
      throw RequestError(table.header_place(),
                         fmt::format("no column '{}' or '{}({})'; expected x1, x2 ... in the order of the "
                                     "substances, or their names; the last may be left out",
                                     name, basis == Basis::mole ? 'x' : 'w', substance.name));
    }
    if (found != table.header().end())
      columns.push_back(static_cast<std::size_t>(found - table.header().begin()));
  }
  std::vector<std::vector<double>> compositions;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    std::vector<double> x;
    double sum = 0;
    for (const std::size_t column : columns) {
      x.push_back(table.number(row, column));
      sum += x.back();
      if (!(x.back() >= 0 && x.back() <= 1)) {
        throw RequestError(table.place(row, column),
                           fmt::format("{} is not a fraction between 0 and 1", x.back()));
      }
    }
    constexpr double rounding = 1e-6;
    if (sum > 1 + rounding || (x.size() == n && sum < 1 - rounding)) {
      throw RequestError(table.place(row, columns.back()),
                         fmt::format("the fractions sum to {:.6g}, not to 1", sum));
    }
    if (x.size() < n) x.push_back(std::max(0.0, 1 - sum));
    compositions.push_back(basis == Basis::mass ? mole_fractions(x, mixture.substances()) : x);
  }
  return compositions;
}

// "water=0.1": that fraction held, the other two of three varied from one to the other.
std::vector<std::vector<double>> slice(const std::string& text, int points, const Mixture& mixture,
                                       Basis basis) {
  const std::size_t equals = text.find('=');
  const auto held = equals == std::string::npos ? std::nullopt : parse_number(text.substr(equals + 1));
  if (mixture.size() != 3 || !held || !(*held >= 0 && *held < 1)) {
    throw RequestError(fmt::format("--slice '{}': expected NAME=FRACTION, of three substances", text));
  }
  const std::string zero = fmt::format("{}={}", text.substr(0, equals), *held);
  std::size_t fixed = 0;
  for (std::size_t i = 0; i < 3; ++i) {  // parse_composition knows names and aliases
    std::vector<std::string> pieces{zero};
    for (std::size_t k = 0; k < 3; ++k) {
      if (k != i) pieces.push_back(fmt::format("{}={}", mixture.substances()[k].name, (1 - *held) / 2));
    }
    try {
      parse_composition(joined(pieces, ", "), mixture.substances(), Basis::mole);
      fixed = i;
      break;
    } catch (const RequestError&) {
      if (i == 2)
        throw RequestError(fmt::format("--slice '{}': the name is not one of the three substances", text));
    }
  }
  std::vector<std::vector<double>> compositions;
  for (int k = 0; k < points; ++k) {
    std::vector<double> x(3);
    const double share = static_cast<double>(k) / (points - 1);
    x[fixed] = *held;
    x[fixed == 0 ? 1 : 0] = (1 - *held) * share;
    x[fixed == 2 ? 1 : 2] = (1 - *held) * (1 - share);
    compositions.push_back(basis == Basis::mass ? mole_fractions(x, mixture.substances()) : x);
  }
  return compositions;
}

class PointsOf {
 public:
  PointsOf(const PointOptions& options, bool bubble, const Presentation& presentation)
      : options_(options),
        bubble_(bubble),
        presentation_(presentation),
        basis_(parse_basis(options.mixture.basis)),
        contenders_(options.mixture.contenders(answer_.notices)),
        sets_(read_overlays(options.measured, main().substances(),
                            *bank_with(options.mixture.substance_files))) {}

  Answer answer() {
    const Held held = conditions();
    const auto compositions = read_all();
    demand_count("states",
                 static_cast<double>(compositions.size()) *
                     static_cast<double>(std::max<std::size_t>(1, held.values.size())),
                 most_states);
    answer_.json = contenders_header(bubble_ ? "bubble" : "dew", contenders_);
    std::vector<std::vector<VlePoint>> all;
    for (Contender& contender : contenders_) {
      all.push_back(solve(contender, held, compositions));
      for (const VlePoint& point : all.back()) {
        Json json = to_json(point, main().substances());
        if (compared()) json["liquid"] = contender.label;
        answer_.json["points"].push_back(std::move(json));
      }
      const std::string title = bubble_ ? "Bubble points" : "Dew points";
      answer_.tables.push_back(
          point_table(all.back(), main(), basis_, compared() ? title + ", " + contender.label : title));
    }
    if (compared()) answer_.tables.push_back(side_by_side(all));
    for (Contender& contender : contenders_) overlays(contender);
    if (options_.working) {
      const VlePoint& point = all.front().front();
      const auto lines = vle_working(main(), point.T_K, point.P_Pa, point.x, point.y);
      answer_.json["working"] = lines;
      answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
    }
    if (!presentation_.figure.empty() && presentation_.plot.empty()) draw(all.front());
    return std::move(answer_);
  }

 private:
  Mixture& main() { return contenders_.front().mixture; }
  bool compared() const { return contenders_.size() > 1; }

  // Without a condition the measured points bring their own, but only where there are no other compositions.
  Held conditions() const {
    const bool own = options_.condition.temperature.empty() && options_.condition.pressure.empty() &&
                     !sets_.empty() && options_.compositions.empty() && options_.slice.empty();
    return own ? Held{Sought::temperature, {}} : read_held(options_.condition);
  }

  std::vector<std::vector<double>> read_all() {
    std::vector<std::vector<double>> compositions;
    for (const std::string& text : options_.compositions) {
      if (lower_case(text).ends_with(".csv")) {
        for (auto& x : read_compositions(text, main(), basis_)) compositions.push_back(std::move(x));
      } else {
        compositions.push_back(parse_composition(text, main().substances(), basis_));
      }
    }
    if (!options_.slice.empty()) {
      if (options_.points < 3 || options_.points > 10001)
        throw RequestError("--points: expected a number from 3 to 10001");
      for (auto& x : slice(options_.slice, options_.points, main(), basis_))
        compositions.push_back(std::move(x));
    }
    if (compositions.empty() && sets_.empty()) {
      throw RequestError(fmt::format("give the {}'s --composition, as in --composition \"{}=0.3\"",
                                     bubble_ ? "liquid" : "vapour", main().substances()[0].name));
    }
    return compositions;
  }

  std::vector<VlePoint> solve(Contender& contender, const Held& held,
                              const std::vector<std::vector<double>>& compositions) {
    const bool T_sought = held.sought == Sought::temperature;
    const auto solver = [&](Mixture& mixture, double value, const std::vector<double>& z) {
      if (bubble_)
        return T_sought ? bubble_temperature(mixture, value, z) : bubble_pressure(mixture, value, z);
      return T_sought ? dew_temperature(mixture, value, z) : dew_pressure(mixture, value, z);
    };
    std::vector<VlePoint> points;
    for (const std::vector<double>& z : compositions) {
      for (const double value : held.values) points.push_back(solver(contender.mixture, value, z));
    }
    if (compositions.empty()) {  // the measured points at their own conditions
      for (const DataSet& set : sets_) {
        for (const DataPoint& point : set.points) {
          points.push_back(isobaric(set.kind) ? bubble_temperature(contender.mixture, point.P_Pa, point.x)
                                              : bubble_pressure(contender.mixture, point.T_K, point.x));
        }
      }
    }
    double coldest = HUGE_VAL, hottest = 0, highest = 0;
    for (const VlePoint& point : points) {
      coldest = std::min(coldest, point.T_K);
      hottest = std::max(hottest, point.T_K);
      highest = std::max(highest, point.P_Pa);
    }
    // One statement for the whole range instead of one for every point.
    answer_.notices.add(contender.mixture.range_notices(coldest, hottest));
    answer_.notices.add(suitability(contender.mixture, Purpose::vapour_liquid, coldest, hottest, highest));
    for (const VlePoint& point : points) {
      for (const Notice& notice : point.notices) {
        if (!answer_.notices.has(notice.code)) answer_.notices.add(notice.code, notice.text);
      }
    }
    return points;
  }

  std::vector<double> shown(const std::vector<double>& x) {
    return basis_ == Basis::mole ? x : mass_fractions(x, main().substances());
  }

  Table side_by_side(const std::vector<std::vector<VlePoint>>& all) {
    Table table{"Models side by side", {}, {}};
    const auto& substances = main().substances();
    for (const Substance& substance : substances) {
      table.columns.push_back(
          {fraction_heading(bubble_ ? 'x' : 'y', substance, basis_), Dimension::fraction, 4});
    }
    for (const Contender& contender : contenders_) {
      table.columns.push_back({"T " + contender.label, Dimension::temperature, 3});
      table.columns.push_back({"P " + contender.label, Dimension::pressure, 3});
      for (const Substance& substance : substances) {
        table.columns.push_back({fraction_heading(bubble_ ? 'y' : 'x', substance, basis_, contender.label),
                                 Dimension::fraction, 4});
      }
    }
    for (std::size_t k = 0; k < all.front().size(); ++k) {
      const auto known = shown(bubble_ ? all.front()[k].x : all.front()[k].y);
      std::vector<Cell> row(known.begin(), known.end());
      for (const auto& points : all) {
        row.insert(row.end(), {points[k].T_K, points[k].P_Pa});
        const auto other = shown(bubble_ ? points[k].y : points[k].x);
        row.insert(row.end(), other.begin(), other.end());
      }
      table.rows.push_back(std::move(row));
    }
    return table;
  }

  void overlays(Contender& contender) {
    for (const DataSet& set : sets_) {
      const Comparison comparison = compare(contender.mixture, set);
      Json json = to_json(comparison);
      json["file"] = set.name;
      if (compared()) json["liquid"] = contender.label;
      answer_.json["measured"].push_back(std::move(json));
      answer_.tables.push_back(deviation_table(
          comparison, compared() ? fmt::format("{}, {}", set.name, contender.label) : set.name));
      answer_.notices.add(set.notices);
    }
  }

  void draw(const std::vector<VlePoint>& points) {
    if (!options_.slice.empty()) {
      // Of the two fractions that vary the first is on the axis; along the line it rises from zero.
      const auto& from = bubble_ ? points.front().x : points.front().y;
      const auto& to = bubble_ ? points.back().x : points.back().y;
      std::size_t axis = 0;
      for (std::size_t i = 1; i < 3; ++i) axis = to[i] - from[i] > to[axis] - from[axis] + 1e-12 ? i : axis;
      const Sought sought = options_.condition.pressure.empty() ? Sought::pressure : Sought::temperature;
      answer_.figure = slice_figure(points, axis, sought, main(), {presentation_.units, basis_, {}});
      answer_.figure->title += ", " + options_.slice;
      return;
    }
    if (main().size() != 3) {
      throw RequestError(
          "the figure of bubble and dew points is a triangle of three substances; of two the diagram is "
          "txy, and --plot draws any two columns");
    }
    answer_.figure = bubble_triangle(points, sets_, main(), {}, basis_);
  }

  const PointOptions& options_;
  bool bubble_;
  const Presentation& presentation_;
  Answer answer_;
  Basis basis_;
  std::vector<Contender> contenders_;
  std::vector<DataSet> sets_;
};

void add_one(CLI::App& tool, Presenter& presenter, const std::string& name, bool bubble,
             const std::string& about, const std::string& example) {
  auto options = std::make_shared<PointOptions>();
  CLI::App* command = tool.add_subcommand(name, about);
  add_boiling_mixture(*command, options->mixture, options->condition);
  command
      ->add_option(
          "--composition", options->compositions,
          "\"A=0.3, B=0.7\", the last may be left out; or a CSV file with x1, x2 ...; may be repeated")
      ->type_name("TEXT")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  if (bubble) {
    command
        ->add_option(
            "--measured", options->measured,
            "Measured data laid over, with deviations; without --composition at their own conditions")
        ->type_name("FILE")
        ->expected(1)
        ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  }
  command
      ->add_option("--slice", options->slice,
                   "Of three: hold one fraction and vary the others, \"water=0.1\"")
      ->type_name("NAME=FRACTION");
  command->add_option("--points", options->points, "Points of a slice (default 21)")->type_name("N");
  command->add_flag("--working", options->working,
                    "Write out the calculation of the first point, equation by equation");
  add_presentation(*command, options->presentation, true);
  command->footer("Example:\n  " + example);
  command->callback([options, bubble, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(PointsOf(*options, bubble, presentation).answer(), presentation);
  });
}

}  // namespace

void add_bubble_and_dew(CLI::App& tool, Presenter& presenter) {
  add_one(tool, presenter, "bubble", true,
          "Where a liquid begins to boil: T at P or P at T, with the vapour it gives",
          "jampot bubble ethanol acetone toluene --liquid ideal --composition \"ethanol=0.3, acetone=0.3\" "
          "--pressure \"1, 2 bar\"");
  add_one(tool, presenter, "dew", false,
          "Where a vapour begins to condense: T at P or P at T, with the liquid it gives",
          "jampot dew ethanol acetone toluene --liquid ideal --composition \"ethanol=0.3, acetone=0.3\" "
          "--temperature \"70 degC\"");
}

}  // namespace jampot::tool
