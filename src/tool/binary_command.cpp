// txy, pxy and xy: diagrams of a binary at one or several pressures or temperatures.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "binary_tables.hpp"
#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/vle_figures.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "measured_files.hpp"
#include "options.hpp"
#include "vle_working.hpp"

namespace jampot::tool {
namespace {

enum class Diagram { txy, pxy, xy };

struct BinaryOptions {
  MixtureOptions mixture;
  Condition condition;
  int points = 101;
  std::vector<std::string> measured;
  bool overview = false, working = false, uncertainty = false;
  PresentationOptions presentation;
};

void check_condition(Diagram diagram, const Condition& condition) {
  if (diagram == Diagram::txy && !condition.temperature.empty()) {
    throw RequestError("txy is drawn at a --pressure; at a temperature the diagram is pxy");
  }
  if (diagram == Diagram::pxy && !condition.pressure.empty()) {
    throw RequestError("pxy is drawn at a --temperature; at a pressure the diagram is txy");
  }
}

// Measured points that were taken at another pressure or temperature than the diagram's do not belong on it.
void check_overlays(const std::vector<BinaryCurve>& curves, const std::vector<DataSet>& sets,
                    Notices& notices) {
  for (const DataSet& set : sets) {
    const bool drawn_isobaric = curves.front().sought == Sought::temperature;
    int off = 0;
    for (const DataPoint& point : set.points) {
      bool near = false;
      for (const BinaryCurve& curve : curves) {
        const BinaryPoint& any = curve.points.front();
        near = near || (drawn_isobaric ? std::abs(std::log(point.P_Pa / any.P_Pa)) < 0.02
                                       : std::abs(point.T_K - any.T_K) < 0.5);
      }
      if (!near) ++off;
    }
    if (off > 0) {
      notices.add(
          "measured-elsewhere",
          fmt::format("{} of {} points of {} were measured at another {} than the diagram is drawn at; their "
                      "deviations are computed at their own",
                      off, set.points.size(), set.name, drawn_isobaric ? "pressure" : "temperature"));
    }
  }
}

// The boiling curves of all models beside each other: a row for each composition they share.
Table side_by_side(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis) {
  const Substance& first = mixture.substances()[0];
  const bool isobaric = curves.front().sought == Sought::temperature;
  Table table{"Models side by side", {{fraction_heading('x', first, basis), Dimension::fraction, 4}}, {}};
  for (const BinaryCurve& curve : curves) {
    table.columns.push_back({fmt::format("{} {}", isobaric ? "T" : "P", curve.label),
                             isobaric ? Dimension::temperature : Dimension::pressure, 3});
    table.columns.push_back(
        {basis == Basis::mole ? "y " + curve.label : "w vapour " + curve.label, Dimension::fraction, 4});
  }
  for (const BinaryPoint& point : curves.front().points) {
    std::vector<Cell> row{shown_fraction(point.x[0], mixture, basis)};
    for (const BinaryCurve& curve : curves) {
      const auto found =
          std::find_if(curve.points.begin(), curve.points.end(),
                       [&](const BinaryPoint& other) { return std::abs(other.x[0] - point.x[0]) < 1e-9; });
      if (found == curve.points.end()) {
        row.insert(row.end(), {Cell(), Cell()});  // inside a split of that model
      } else {
        row.insert(row.end(),
                   {isobaric ? found->T_K : found->P_Pa, shown_fraction(found->y[0], mixture, basis)});
      }
    }
    table.rows.push_back(std::move(row));
  }
  return table;
}

// The bubble point of the middle of the diagram, written out.
std::vector<std::string> bubble_working(Mixture& mixture, const BinaryCurve& curve) {
  const BinaryPoint& point = curve.points[curve.points.size() / 2];
  const std::vector<double> x{point.x[0], point.x[1]};
  return vle_working(mixture, point.T_K, point.P_Pa, x, {point.y[0], point.y[1]});
}

class DiagramOf {
 public:
  DiagramOf(Diagram diagram, const BinaryOptions& options, const Presentation& presentation)
      : diagram_(diagram),
        options_(options),
        presentation_(presentation),
        held_(read_held(options.condition)),
        basis_(parse_basis(options.mixture.basis)),
        contenders_(options.mixture.contenders(answer_.notices)),
        sets_(read_overlays(options.measured, main().substances(),
                            *bank_with(options.mixture.substance_files))) {}

  Answer answer() {
    demand_count("points of curves",
                 static_cast<double>(held_.values.size() * contenders_.size()) * std::max(3, options_.points),
                 10 * most_states);
    answer_.json = contenders_header(name(), contenders_);
    for (Contender& contender : contenders_) calculate(contender);
    tables();
    for (Contender& contender : contenders_) overlays(contender);
    check_overlays(curves_, sets_, answer_.notices);
    const FigureOptions figure{presentation_.units, basis_, sets_};
    answer_.figure = options_.overview         ? overview_figure(curves_, main(), figure)
                     : diagram_ == Diagram::xy ? xy_figure(curves_, main(), figure)
                                               : boiling_figure(curves_, main(), figure);
    add_sources(*answer_.figure, contenders_);
    if (options_.uncertainty) draw_uncertainty();
    if (options_.working) {
      const auto lines = bubble_working(contenders_.front().mixture, curves_.front());
      answer_.json["working"] = lines;
      answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
    }
    return std::move(answer_);
  }

 private:
  Mixture& main() { return contenders_.front().mixture; }
  bool compared() const { return contenders_.size() > 1; }
  const char* name() const {
    return diagram_ == Diagram::txy ? "txy" : diagram_ == Diagram::pxy ? "pxy" : "xy";
  }

  void calculate(Contender& contender) {
    Mixture& mixture = contender.mixture;
    double coldest = HUGE_VAL, hottest = 0, highest = 0;
    for (const double value : held_.values) {
      const CurveOptions curve_options{static_cast<std::size_t>(options_.points)};
      BinaryCurve curve = held_.sought == Sought::temperature ? txy(mixture, value, curve_options)
                                                              : pxy(mixture, value, curve_options);
      for (const BinaryPoint& point : curve.points) {
        coldest = std::min(coldest, point.T_K);
        hottest = std::max(hottest, point.T_K);
        highest = std::max(highest, point.P_Pa);
      }
      if (compared()) curve.label = contender.label;
      curves_.push_back(std::move(curve));
    }
    // What is said of one of several models names it.
    const Notices suits = suitability(mixture, Purpose::vapour_liquid, coldest, hottest, highest);
    for (std::size_t k = curves_.size() - held_.values.size(); k < curves_.size(); ++k) {
      if (k + held_.values.size() == curves_.size()) curves_[k].notices.add(suits);
      // What concerns the substances is the same for every model compared; once is enough.
      for (const Notice& notice : curves_[k].notices) {
        const bool of_substance = notice.code.starts_with("vapour-pressure");
        if (of_substance && &contender != &contenders_.front()) continue;
        answer_.notices.add(notice.code, notice.text);
      }
    }
  }

  // What the fitted parameters' covariance means for the first mixture's curves: a band of twice the standard
  // uncertainty, columns, and the azeotropes.
  void draw_uncertainty() {
    const bool isobaric = held_.sought == Sought::temperature;
    Table table{"Standard uncertainties from the fitted parameters",
                {{fraction_heading('x', main().substances()[0], basis_), Dimension::fraction, 4}},
                {}};
    table.columns.push_back(isobaric ? Column{"u(T)", Dimension::temperature, 4, true}
                                     : Column{"u(P)", Dimension::pressure, 4, true});
    table.columns.push_back({basis_ == Basis::mole ? "u(y1)" : "u(y1), moles", Dimension::number, 5});
    for (std::size_t k = 0; k < held_.values.size(); ++k) {  // the first contender's curves come first
      const BinaryCurve& curve = curves_[k];
      const UncertaintyBand band = uncertainty_band(main(), curve);
      Json json = Json::array();
      for (std::size_t p = 0; p < band.points.size(); ++p) {
        const BandPoint& u = band.points[p];
        table.rows.push_back(
            {shown_fraction(curve.points[p].x[0], main(), basis_), isobaric ? u.u_T_K : u.u_P_Pa, u.u_y1});
        json.push_back({{"x", curve.points[p].x}, {"u_T_K", u.u_T_K}, {"u_P_Pa", u.u_P_Pa}, {"u_y", u.u_y1}});
      }
      answer_.json["curves"][k]["uncertainty"] = std::move(json);
      for (std::size_t a = 0; a < band.azeotropes.size(); ++a) {
        const AzeotropeBand& u = band.azeotropes[a];
        answer_.json["curves"][k]["azeotropes"][a]["u_x"] = u.u_x1;
        answer_.json["curves"][k]["azeotropes"][a][isobaric ? "u_T_K" : "u_P_Pa"] =
            isobaric ? u.u_T_K : u.u_P_Pa;
        answer_.lines.push_back(fmt::format(
            "azeotrope: u(x1) = {:.5f}, {}", u.u_x1,
            isobaric ? fmt::format("u(T) = {:.4f} K", u.u_T_K) : fmt::format("u(P) = {:.4g} Pa", u.u_P_Pa)));
      }
      if (diagram_ != Diagram::xy)
        add_band(*answer_.figure, curve, band, {presentation_.units, basis_, sets_}, main());
    }
    answer_.screen.push_back(thinned(table, 12));
    answer_.tables.push_back(std::move(table));
  }

  void tables() {
    for (const BinaryCurve& curve : curves_) {
      Json json = to_json(curve, main().substances());
      if (compared()) json["liquid"] = curve.label;
      answer_.json["curves"].push_back(std::move(json));
      answer_.tables.push_back(curve_table(curve, main(), basis_, presentation_.units));
      if (compared()) answer_.tables.back().title += ", " + curve.label;
      if (!compared() || held_.values.size() > 1) answer_.screen.push_back(thinned(answer_.tables.back()));
    }
    if (compared() && held_.values.size() == 1) {
      answer_.tables.push_back(side_by_side(curves_, main(), basis_));
      answer_.screen.push_back(thinned(answer_.tables.back()));
    }
    add(azeotrope_table(curves_, main(), basis_));
    if (answer_.screen.back().title != "Azeotropes") answer_.lines.emplace_back("no azeotrope");
    add(three_phase_table(curves_, main(), basis_));
    add(critical_table(curves_, main(), basis_));
  }

  void add(Table table) {
    if (table.rows.empty()) return;
    answer_.screen.push_back(table);
    answer_.tables.push_back(std::move(table));
  }

  void overlays(Contender& contender) {
    for (const DataSet& set : sets_) {
      const Comparison comparison = compare(contender.mixture, set);
      Json json = to_json(comparison);
      json["file"] = set.name;
      if (compared()) json["liquid"] = contender.label;
      answer_.json["measured"].push_back(std::move(json));
      add(deviation_table(comparison,
                          compared() ? fmt::format("{}, {}", set.name, contender.label) : set.name));
      answer_.notices.add(set.notices);
    }
    if (basis_ == Basis::mass && !sets_.empty() && &contender == &contenders_.front())
      answer_.lines.emplace_back("deviations of y1 are in mole fractions");
  }

  Diagram diagram_;
  const BinaryOptions& options_;
  const Presentation& presentation_;
  Answer answer_;
  Held held_;
  Basis basis_;
  std::vector<Contender> contenders_;
  std::vector<DataSet> sets_;
  std::vector<BinaryCurve> curves_;
};

Answer diagram_of(Diagram diagram, const BinaryOptions& options, const Presentation& presentation) {
  check_condition(diagram, options.condition);
  if (options.points < 3 || options.points > 100001)
    throw RequestError("--points: expected a number from 3 to 100001");
  return DiagramOf(diagram, options, presentation).answer();
}

void add_one(CLI::App& tool, Presenter& presenter, Diagram diagram, const std::string& name,
             const std::string& about, const std::string& example) {
  auto options = std::make_shared<BinaryOptions>();
  CLI::App* command = tool.add_subcommand(name, about);
  add_mixture(*command, options->mixture, true);
  add_vapour(*command, options->mixture.vapour);
  add_non_volatile(*command, options->mixture.non_volatile);
  add_compare(*command, options->mixture);
  add_condition(*command, options->condition);
  command->add_option("--points", options->points, "Points along the composition (default 101)")
      ->type_name("N");
  command
      ->add_option("--measured", options->measured,
                   "Measured data laid over, with deviations; may be repeated")
      ->type_name("FILE")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command->add_flag("--overview", options->overview,
                    "Draw the boiling diagram, x-y and activity coefficients in one figure");
  command->add_flag("--uncertainty", options->uncertainty,
                    "Draw and tabulate what the uncertainty of fitted parameters means: a band of two "
                    "standard uncertainties");
  command->add_flag("--working", options->working,
                    "Write out the calculation of one point, equation by equation");
  add_presentation(*command, options->presentation, true);
  command->footer("Example:\n  " + example);
  command->callback([options, diagram, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(diagram_of(diagram, *options, presentation), presentation);
  });
}

}  // namespace

void add_binary_diagrams(CLI::App& tool, Presenter& presenter) {
  add_one(tool, presenter, Diagram::txy, "txy",
          "Boiling and dew temperatures of a binary at one or several pressures",
          "jampot txy ethanol toluene --liquid ideal --pressure \"1, 2 bar\" --figure txy.svg");
  add_one(tool, presenter, Diagram::pxy, "pxy",
          "Boiling and dew pressures of a binary at one or several temperatures",
          "jampot pxy ethanol toluene --liquid ideal --temperature \"60, 70 degC\" --figure pxy.svg");
  add_one(tool, presenter, Diagram::xy, "xy", "Vapour against liquid composition of a binary",
          "jampot xy ethanol toluene --liquid ideal --pressure \"1 atm\" --figure xy.svg");
}

}  // namespace jampot::tool
