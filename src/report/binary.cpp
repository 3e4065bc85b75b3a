#include "jampot/report/binary.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "binary_tables.hpp"
#include "contenders.hpp"
#include "in_words.hpp"
#include "jampot/draw/vle_figures.hpp"

namespace jampot {
namespace {

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

class BinaryAnswer {
 public:
  BinaryAnswer(const BinaryStudy& study, const BinaryAnswerOptions& options)
      : study_(study),
        options_(options),
        looks_{options.units, options.basis, study.measured, study.handbook} {}

  Answer told() {
    *answer_.json = contenders_header(command(), study_.contenders);
    tables();
    std::vector<Table> deviations;
    add_deviations(study_.beside, study_.contenders, answer_, deviations);
    for (Table& table : deviations) add(std::move(table));
    if (options_.basis == Basis::mass && !study_.measured.empty())
      answer_.lines.emplace_back("deviations of y1 are in mole fractions");
    answer_.notices = study_.notices;
    draw();
    if (!study_.bands.empty()) uncertainty();
    if (!study_.working.empty()) add_working(study_.working, answer_);
    return std::move(answer_);
  }

 private:
  const Mixture& mixture() const { return study_.mixture(); }
  bool xy() const { return options_.diagram == BinaryDiagram::xy || options_.xy_asked; }
  const char* command() const { return xy() ? "xy" : study_.held.isobaric() ? "txy" : "pxy"; }

  void draw() {
    const std::vector<BinaryCurve>& curves = study_.curves;
    answer_.figure = options_.diagram == BinaryDiagram::overview ? overview_figure(curves, mixture(), looks_)
                     : options_.diagram == BinaryDiagram::xy     ? xy_figure(curves, mixture(), looks_)
                                                                 : boiling_figure(curves, mixture(), looks_);
    add_sources(*answer_.figure, study_.contenders);
  }

  // A band of twice the standard uncertainty, columns, and the azeotropes.
  void uncertainty() {
    const bool isobaric = study_.held.isobaric();
    Table table{"Standard uncertainties from the fitted parameters",
                {{fraction_heading('x', mixture().substances()[0], options_.basis), Dimension::fraction, 4}},
                {}};
    table.columns.push_back(isobaric ? Column{"u(T)", Dimension::temperature, 4, true}
                                     : Column{"u(P)", Dimension::pressure, 4, true});
    table.columns.push_back({options_.basis == Basis::mole ? "u(y1)" : "u(y1), moles", Dimension::number, 5});
    for (std::size_t k = 0; k < study_.bands.size(); ++k) {
      const BinaryCurve& curve = study_.curves[k];
      const UncertaintyBand& band = study_.bands[k];
      Json json = Json::array();
      for (std::size_t p = 0; p < band.points.size(); ++p) {
        const BandPoint& u = band.points[p];
        table.rows.push_back({shown_fraction(curve.points[p].x[0], mixture(), options_.basis),
                              isobaric ? u.u_T_K : u.u_P_Pa, u.u_y1});
        json.push_back({{"x", curve.points[p].x}, {"u_T_K", u.u_T_K}, {"u_P_Pa", u.u_P_Pa}, {"u_y", u.u_y1}});
      }
      (*answer_.json)["curves"][k]["uncertainty"] = std::move(json);
      for (std::size_t a = 0; a < band.azeotropes.size(); ++a) {
        const AzeotropeBand& u = band.azeotropes[a];
        (*answer_.json)["curves"][k]["azeotropes"][a]["u_x"] = u.u_x1;
        (*answer_.json)["curves"][k]["azeotropes"][a][isobaric ? "u_T_K" : "u_P_Pa"] =
            isobaric ? u.u_T_K : u.u_P_Pa;
        answer_.lines.push_back(fmt::format(
            "azeotrope: u(x1) = {:.5f}, {}", u.u_x1,
            isobaric ? fmt::format("u(T) = {:.4f} K", u.u_T_K) : fmt::format("u(P) = {:.4g} Pa", u.u_P_Pa)));
      }
      if (!xy()) add_band(*answer_.figure, curve, band, looks_, mixture());
    }
    answer_.screen.push_back(thinned(table, 12));
    answer_.tables.push_back(std::move(table));
  }

  void tables() {
    const bool compared = study_.compared(), one = study_.held.values.size() == 1;
    for (const BinaryCurve& curve : study_.curves) {
      Json json = to_json(curve, mixture().substances());
      if (compared) json["liquid"] = curve.label;
      (*answer_.json)["curves"].push_back(std::move(json));
      answer_.tables.push_back(curve_table(curve, mixture(), options_.basis, options_.units));
      if (compared) answer_.tables.back().title += ", " + curve.label;
      if (!compared || !one) answer_.screen.push_back(thinned(answer_.tables.back()));
    }
    if (compared && one) answer_.in_words = agreement_in_words(study_.curves);
    if (compared && one) {
      answer_.tables.push_back(side_by_side(study_.curves, mixture(), options_.basis));
      answer_.screen.push_back(thinned(answer_.tables.back()));
    }
    add(azeotrope_table(study_.curves, mixture(), options_.basis));
    if (answer_.screen.back().title != "Azeotropes") answer_.lines.emplace_back("no azeotrope");
    add(three_phase_table(study_.curves, mixture(), options_.basis));
    add(critical_table(study_.curves, mixture(), options_.basis));
  }

  void add(Table table) {
    if (table.rows.empty()) return;
    answer_.screen.push_back(table);
    answer_.tables.push_back(std::move(table));
  }

  const BinaryStudy& study_;
  const BinaryAnswerOptions& options_;
  FigureOptions looks_;
  Answer answer_;
};

}  // namespace

Answer answer(const BinaryStudy& study, const BinaryAnswerOptions& options) {
  return BinaryAnswer(study, options).told();
}

}  // namespace jampot
