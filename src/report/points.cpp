#include "jampot/report/points.hpp"

#include <fmt/format.h>

#include <nlohmann/json.hpp>

#include "binary_tables.hpp"
#include "contenders.hpp"
#include "fields.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/vle_figures.hpp"

namespace jampot {
namespace {

// What is told of a bubble or dew point: a quantity more is a line here.
Fields<VlePoint> point_fields(const std::vector<Substance>& substances, Basis basis) {
  const auto has = [](std::vector<double> VlePoint::*member) {
    return [member](const VlePoint& point) { return !(point.*member).empty(); };
  };
  const auto each = [&](const char* key, const char* heading, std::vector<double> VlePoint::*member) {
    return where(has(member), each_field<VlePoint>(key, heading, substances, {}, member_of(member)));
  };
  return {
      number_field<VlePoint>("T_K", {"T", Dimension::temperature, 3}, [](const auto& p) { return p.T_K; }),
      number_field<VlePoint>("P_Pa", {"P", Dimension::pressure, 3}, [](const auto& p) { return p.P_Pa; }),
      composition_field<VlePoint>("x", 'x', substances, basis, 5, member_of(&VlePoint::x)),
      composition_field<VlePoint>("y", 'y', substances, basis, 5, member_of(&VlePoint::y)),
      json_field<VlePoint>("w_liquid", [&](const auto& p) { return mass_fractions(p.x, substances); }),
      json_field<VlePoint>("w_vapour", [&](const auto& p) { return mass_fractions(p.y, substances); }),
      each_field<VlePoint>("K", "K", substances, {}, member_of(&VlePoint::K)),
      json_field<VlePoint>("residual", [](const auto& p) { return p.residual; }),
      each("gamma", "gamma", &VlePoint::gamma),
      each("phi", "phi", &VlePoint::phi),
      each("phi_saturated", "phi sat", &VlePoint::phi_saturated),
      each("poynting", "Poynting", &VlePoint::poynting)};
}

class PointsAnswer {
 public:
  PointsAnswer(const PointsStudy& study, const AnswerOptions& options)
      : study_(study), options_(options), substances_(study.mixture().substances()) {}

  Answer told() {
    *answer_.json = contenders_header(study_.bubble ? "bubble" : "dew", study_.contenders);
    const Fields<VlePoint> fields = point_fields(substances_, options_.basis);
    const std::string title = study_.bubble ? "Bubble points" : "Dew points";
    for (std::size_t k = 0; k < study_.points.size(); ++k) {
      const std::string& label = study_.contenders[k].label;
      for (const VlePoint& point : study_.points[k]) {
        Json json = json_of(fields, point);
        if (study_.compared()) json["liquid"] = label;
        (*answer_.json)["points"].push_back(std::move(json));
      }
      answer_.tables.push_back(
          table_of(study_.compared() ? title + ", " + label : title, fields, study_.points[k]));
    }
    if (study_.compared()) answer_.tables.push_back(side_by_side());
    add_deviations(study_.beside, study_.contenders, answer_, answer_.tables);
    if (!study_.working.empty()) add_working(study_.working, answer_);
    answer_.notices = study_.notices;
    if (options_.figure) draw();
    return std::move(answer_);
  }

 private:
  std::vector<double> shown(const std::vector<double>& x) const {
    return options_.basis == Basis::mole ? x : mass_fractions(x, substances_);
  }

  Table side_by_side() {
    Table table{"Models side by side", {}, {}};
    for (const Substance& substance : substances_) {
      table.columns.push_back(
          {fraction_heading(study_.bubble ? 'x' : 'y', substance, options_.basis), Dimension::fraction, 4});
    }
    for (const Contender& contender : study_.contenders) {
      table.columns.push_back({"T " + contender.label, Dimension::temperature, 3});
      table.columns.push_back({"P " + contender.label, Dimension::pressure, 3});
      for (const Substance& substance : substances_) {
        table.columns.push_back(
            {fraction_heading(study_.bubble ? 'y' : 'x', substance, options_.basis, contender.label),
             Dimension::fraction, 4});
      }
    }
    for (std::size_t k = 0; k < study_.points.front().size(); ++k) {
      const auto known = shown(study_.bubble ? study_.points.front()[k].x : study_.points.front()[k].y);
      std::vector<Cell> row(known.begin(), known.end());
      for (const auto& points : study_.points) {
        row.insert(row.end(), {points[k].T_K, points[k].P_Pa});
        const auto other = shown(study_.bubble ? points[k].y : points[k].x);
        row.insert(row.end(), other.begin(), other.end());
      }
      table.rows.push_back(std::move(row));
    }
    return table;
  }

  void draw() {
    const std::vector<VlePoint>& points = study_.points.front();
    if (study_.slice) {
      // Of the two fractions that vary the first is on the axis; along the line it rises from zero.
      const auto& from = study_.bubble ? points.front().x : points.front().y;
      const auto& to = study_.bubble ? points.back().x : points.back().y;
      std::size_t axis = 0;
      for (std::size_t i = 1; i < 3; ++i) axis = to[i] - from[i] > to[axis] - from[axis] + 1e-12 ? i : axis;
      answer_.figure =
          slice_figure(points, axis, study_.sought, study_.mixture(), {options_.units, options_.basis, {}});
      answer_.figure->title += fmt::format(", {}={:.6g}", substances_[study_.slice->component].short_name(),
                                           study_.slice->fraction);
      return;
    }
    if (substances_.size() != 3) {
      throw RequestError(
          "the figure of bubble and dew points is a triangle of three substances; of two the diagram is "
          "txy, and `plot` draws any two columns");
    }
    answer_.figure = bubble_triangle(points, study_.measured, study_.mixture(), {}, options_.basis);
  }

  const PointsStudy& study_;
  const AnswerOptions& options_;
  const std::vector<Substance>& substances_;
  Answer answer_;
};

}  // namespace

Answer answer(const PointsStudy& study, const AnswerOptions& options) {
  return PointsAnswer(study, options).told();
}

}  // namespace jampot
