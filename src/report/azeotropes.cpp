#include "jampot/report/azeotropes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "in_words.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/residue_figure.hpp"
#include "singular_tables.hpp"

namespace jampot {
namespace {

class AzeotropesAnswer {
 public:
  AzeotropesAnswer(const AzeotropesStudy& study, const AzeotropesAnswerOptions& options)
      : study_(study), options_(options) {}

  Answer told() {
    *answer_.json = contenders_header("azeotropes", study_.contenders);
    (*answer_.json)["azeotropes"] = Json::array();
    Table table = empty_table();
    for (const FoundAzeotropes& search : study_.searches) add(search, table);
    answer_.in_words = pressure_in_words(study_);
    answer_.notices = study_.notices;
    if (!study_.working.empty()) add_working(study_.working, answer_);
    if (table.rows.empty()) answer_.lines.emplace_back("no azeotrope");
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
    if (study_.P_Pa.size() == 1) {
      draw_at_one_pressure();
    } else if (moves_.empty()) {
      answer_.no_figure = "there is no azeotrope to draw at any of these pressures";
    } else {
      draw_moves();
    }
    return std::move(answer_);
  }

 private:
  void add(const FoundAzeotropes& search, Table& table) {
    const SingularPoints& found = search.found;
    const std::string& label = study_.contenders[search.contender].label;
    for (std::size_t k = 0; k < found.points.size(); ++k) {
      add(found.points[k], study_.uncertainty ? search.uncertainties[k] : std::nullopt, search.P_Pa, label,
          table);
    }
    Json balance{{"P_Pa", search.P_Pa},
                 {"sum", found.index_sum},
                 {"expected", found.index_expected},
                 {"balanced", found.balanced()}};
    if (study_.compared()) balance["liquid"] = label;
    (*answer_.json)["index_balance"].push_back(std::move(balance));
    answer_.lines.push_back(fmt::format("{}{:.6g} kPa: {}", study_.compared() ? label + ", " : "",
                                        search.P_Pa / 1000, balance_of(found)));
  }

  void draw_moves() {
    for (const FollowedAzeotrope& one : study_.between) {
      const std::string title = curve_of(one.point, study_.contenders[one.contender].label);
      const auto curve =
          std::find_if(moves_.begin(), moves_.end(), [&](const Table& t) { return t.title == title; });
      if (curve != moves_.end())
        curve->rows.push_back({one.P_Pa, shown(one.point)[one.point.members.front()]});
    }
    for (Table& curve : moves_) {
      std::stable_sort(curve.rows.begin(), curve.rows.end(), [](const auto& a, const auto& b) {
        return std::get<double>(a.front()) < std::get<double>(b.front());
      });
    }
    answer_.figure = plot_figure(moves_, fraction() + " against P", options_.units);
    std::vector<std::string> names, labels;
    for (const Substance& substance : study_.substances()) names.push_back(substance.short_name());
    for (const Contender& contender : study_.contenders) labels.push_back(contender.label);
    answer_.figure->title = fmt::format("Azeotropes of {} against pressure", joined(names, ", "));
    if (moves_.size() == 1)
      answer_.figure->panels.front().y.label =
          fmt::format("{} of {} in {}", fraction(), first_member_, moves_.front().title);
    answer_.figure->footer =
        "of the substance named first in each azeotrope; models: " + joined(labels, "; ");
  }

  // Three substances: where the singular points lie in the triangle. Others need several pressures.
  void draw_at_one_pressure() {
    if (study_.substances().size() != 3 || study_.compared()) {
      answer_.no_figure = fmt::format(
          "at one pressure there is nothing to draw of {}; give several pressures, as in `pressure` \"0.5 to "
          "5 by "
          "0.5 bar\"{}",
          study_.compared() ? "several models" : fmt::format("{} substances", study_.substances().size()),
          study_.substances().size() == 2 ? ", or draw txy" : "");
      return;
    }
    ResidueMap points;
    points.P_Pa = study_.P_Pa.front();
    points.singular = study_.searches.front().found;
    ResidueFigureOptions drawing;
    drawing.units = options_.units;
    drawing.basis = options_.basis;
    answer_.figure = residue_figure(points, study_.substances(), drawing);
    answer_.figure->title.replace(0, answer_.figure->title.find(" of "), "Azeotropes");
    add_models(*answer_.figure, study_.contenders, answer_.notices);
  }

  std::vector<double> shown(const SingularPoint& point) const {
    return options_.basis == Basis::mole ? point.x : mass_fractions(point.x, study_.substances());
  }
  std::string curve_of(const SingularPoint& point, const std::string& label) const {
    return members_of(point, study_.substances()) + (study_.compared() ? ", " + label : "");
  }
  std::string fraction() const { return options_.basis == Basis::mole ? "mole fraction" : "mass fraction"; }

  Table empty_table() const {
    Table table{options_.all ? "Pure substances and azeotropes" : "Azeotropes", {}, {}};
    if (study_.compared()) table.columns.push_back({"model"});
    table.columns.insert(table.columns.end(),
                         {{"members"}, {"P", Dimension::pressure, 3}, {"T", Dimension::temperature, 3}});
    for (const Substance& substance : study_.substances())
      table.columns.push_back(
          {fmt::format("{}({})", options_.basis == Basis::mole ? "x" : "w", substance.short_name()),
           Dimension::fraction, 5});
    table.columns.insert(table.columns.end(), {{"kind"}, {"residue curves"}});
    if (study_.uncertainty) {
      table.columns.push_back({"u(T) [K]", Dimension::number, 3});
      for (const Substance& substance : study_.substances())
        table.columns.push_back({fmt::format("u(x({}))", substance.short_name()), Dimension::number, 5});
    }
    return table;
  }

  void add(const SingularPoint& point, const std::optional<SingularUncertainty>& u, double P_Pa,
           const std::string& label, Table& table) {
    const std::vector<double> shown = this->shown(point);
    const std::string members = members_of(point, study_.substances());
    Json json = to_json(point, P_Pa, study_.substances());
    if (study_.compared()) json["liquid"] = label;
    if (u && point.members.size() > 1) {
      json["u_x"] = u->u_x;
      json["u_T_K"] = u->u_T_K;
    }
    (*answer_.json)[point.members.size() == 1 ? "pure" : "azeotropes"].push_back(std::move(json));
    if (point.members.size() == 1 && !options_.all) return;
    std::vector<Cell> row;
    if (study_.compared()) row.emplace_back(label);
    row.insert(row.end(), {members, P_Pa, point.T_K});
    row.insert(row.end(), shown.begin(), shown.end());
    row.insert(row.end(), {kind_of(point), std::string(name_of(point.stability))});
    if (study_.uncertainty) {
      const bool given = u && point.members.size() > 1;
      row.emplace_back(given ? Cell(u->u_T_K)
                             : Cell(std::string(point.members.size() > 1 ? "vanishing" : "")));
      for (std::size_t i = 0; i < study_.substances().size(); ++i)
        row.emplace_back(given ? Cell(u->u_x[i]) : Cell(std::string()));
    }
    table.rows.push_back(std::move(row));
    if (point.members.size() == 1) return;
    const std::string title = curve_of(point, label);
    auto curve = std::find_if(moves_.begin(), moves_.end(), [&](const Table& t) { return t.title == title; });
    if (curve == moves_.end()) {
      moves_.push_back({title, {{"P", Dimension::pressure}, {fraction(), Dimension::fraction}}, {}});
      curve = moves_.end() - 1;
      first_member_ = study_.substances()[point.members.front()].short_name();
    }
    curve->rows.push_back({P_Pa, shown[point.members.front()]});
  }

  const AzeotropesStudy& study_;
  const AzeotropesAnswerOptions& options_;
  Answer answer_;
  std::vector<Table> moves_;
  std::string first_member_;  ///< of the last of them
};

}  // namespace

Answer answer(const AzeotropesStudy& study, const AzeotropesAnswerOptions& options) {
  return AzeotropesAnswer(study, options).told();
}

}  // namespace jampot
