#include "jampot/report/fugacity.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "fields.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/draw/looks.hpp"

namespace jampot {
namespace {

std::string title_of(const std::string& equation) {
  return equation == "pr" ? "Peng-Robinson" : equation == "srk" ? "Soave-Redlich-Kwong" : "PC-SAFT";
}

Fields<FugacityRoot> root_fields(const std::vector<Substance>& substances) {
  using R = FugacityRoot;
  const auto volume = [](const R& root) { return 1e6 * root.v_m3_mol; };
  return {
      number_field<R>("T_K", {"T", Dimension::temperature, 2}, member_of(&R::T_K)),
      number_field<R>("P_Pa", {"P", Dimension::pressure, 2}, member_of(&R::P_Pa)),
      json_field<R>("x", member_of(&R::x)),
      json_field<R>("phase", member_of(&R::phase)),
      text_field<R>("", "root",
                    [](const R& root) { return root.phase + (!root.only && root.stable ? ", stable" : ""); }),
      json_field<R>("stable", member_of(&R::stable)),
      number_field<R>("Z", {"Z", Dimension::number, 6}, member_of(&R::Z)),
      json_field<R>("v_m3_mol", member_of(&R::v_m3_mol)),
      number_field<R>("", {"v [cm3/mol]", Dimension::number, 2}, volume),
      each_field<R>("phi", "phi", substances, {"", Dimension::number, 5}, member_of(&R::phi)),
      number_field<R>("h_residual_J_mol", {"h residual [J/mol]", Dimension::number, 1},
                      member_of(&R::h_residual_J_mol)),
      number_field<R>("s_residual_J_mol_K", {"s residual [J/(mol K)]", Dimension::number, 3},
                      member_of(&R::s_residual_J_mol_K))};
}

void add_roots(const FugacityByEquation& result, const std::vector<Substance>& substances, Answer& answer) {
  const Fields<FugacityRoot> fields = root_fields(substances);
  answer.tables.push_back(table_of(title_of(result.equation), fields, result.roots));
  for (const FugacityRoot& root : result.roots) {
    Json json{{"fluid", result.equation}};
    json.update(json_of(fields, root));
    (*answer.json)["roots"].push_back(std::move(json));
  }
}

std::vector<const FugacityRoot*> stable_roots(const FugacityByEquation& result) {
  std::vector<const FugacityRoot*> list;
  for (const FugacityRoot& root : result.roots) {
    if (root.stable) list.push_back(&root);
  }
  return list;
}

// The stable root of every equation, beside each other.
Table side_by_side(const FugacityStudy& study) {
  Table table{
      "Stable roots side by side", {{"T", Dimension::temperature, 2}, {"P", Dimension::pressure, 2}}, {}};
  std::vector<std::vector<const FugacityRoot*>> stable;
  for (const FugacityByEquation& result : study.results) {
    stable.push_back(stable_roots(result));
    table.columns.push_back({fmt::format("Z {}", result.equation), Dimension::number, 5});
    for (const Substance& substance : study.substances)
      table.columns.push_back(
          {fmt::format("phi({}) {}", substance.short_name(), result.equation), Dimension::number, 5});
  }
  for (std::size_t k = 0; k < stable.front().size(); ++k) {
    std::vector<Cell> row{stable.front()[k]->T_K, stable.front()[k]->P_Pa};
    for (const auto& of_equation : stable) {
      row.emplace_back(of_equation[k]->Z);
      row.insert(row.end(), of_equation[k]->phi.begin(), of_equation[k]->phi.end());
    }
    table.rows.push_back(std::move(row));
  }
  return table;
}

// Fugacity coefficients and compressibility of the stable roots, against the pressure where it varies, else
// the temperature.
class FugacityDrawer {
 public:
  FugacityDrawer(const FugacityStudy& study, const DisplayUnits& units) : study_(study), units_(units) {
    for (const FugacityRoot* root : stable_roots(study.results.front())) {
      const FugacityRoot& first = study.results.front().roots.front();
      P_varies_ = P_varies_ || root->P_Pa != first.P_Pa;
      T_varies_ = T_varies_ || root->T_K != first.T_K;
      x_varies_ = x_varies_ || root->x != first.x;
    }
  }

  bool can_draw() const { return P_varies_ || T_varies_; }

  Figure drawn() const {
    Panel phi, Z;
    for (std::size_t i = 0; i < study_.substances.size(); ++i)
      add(phi, static_cast<int>(i % 8), fmt::format("phi({})", study_.substances[i].short_name()),
          [i](const FugacityRoot& root) { return root.phi[i]; });
    add(Z, colours::plain, "Z", [](const FugacityRoot& root) { return root.Z; });
    Figure figure;
    figure.panels = {with_axes(std::move(phi), "fugacity coefficient"),
                     with_axes(std::move(Z), "compressibility factor Z")};
    figure.columns = 2;
    figure.width = 1400;
    std::vector<std::string> names;
    for (const Substance& substance : study_.substances) names.push_back(substance.name);
    figure.title = "Fugacity coefficients of " + joined(names, ", ");
    if (!T_varies_) figure.title += " at " + shown(study_.results.front().roots.front().T_K, true);
    if (!P_varies_) figure.title += " at " + shown(study_.results.front().roots.front().P_Pa, false);
    std::vector<std::string> equations;
    for (const FugacityByEquation& result : study_.results) equations.push_back(title_of(result.equation));
    figure.footer = joined(equations, ", ") + "; the stable root of each state";
    for (const Notice& notice : study_.notices) figure.notices.push_back(notice.code);
    return figure;
  }

 private:
  std::string shown(double value, bool temperature) const {
    const std::string& unit = temperature ? units_.temperature : units_.pressure;
    return fmt::format("{:.6g} {}",
                       from_si(value, unit, temperature ? Dimension::temperature : Dimension::pressure),
                       printed_unit(unit));
  }

  static bool dense(const FugacityRoot& root) { return root.phase == "liquid" || root.phase == "dense"; }

  double along(const FugacityRoot& root) const {
    return P_varies_ ? from_si(root.P_Pa, units_.pressure, Dimension::pressure)
                     : from_si(root.T_K, units_.temperature, Dimension::temperature);
  }

  using Roots = std::vector<const FugacityRoot*>;

  // Of every composition and, where the pressure varies too, temperature: in the order of the axis.
  std::vector<Roots> runs(const FugacityByEquation& result) const {
    std::vector<Roots> all;
    for (const FugacityRoot* root : stable_roots(result)) {
      const auto same = [&](const Roots& run) {
        return run.front()->x == root->x &&
               (P_varies_ ? run.front()->T_K == root->T_K : run.front()->P_Pa == root->P_Pa);
      };
      const auto found = std::find_if(all.begin(), all.end(), same);
      if (found == all.end())
        all.push_back({root});
      else
        found->push_back(root);
    }
    for (Roots& run : all)
      std::stable_sort(run.begin(), run.end(),
                       [&](const FugacityRoot* a, const FugacityRoot* b) { return along(*a) < along(*b); });
    return all;
  }

  // Where the stable root changes from vapour to liquid a new curve begins; the longest one has the label.
  template <class Value>
  std::vector<Series> pieces(const Roots& run, const Series& like, const Value& value) const {
    std::vector<Series> list;
    for (std::size_t k = 0; k < run.size(); ++k) {
      if (k == 0 || dense(*run[k]) != dense(*run[k - 1])) list.push_back(like);
      list.back().spots.push_back({along(*run[k]), value(*run[k])});
    }
    const auto longest = std::max_element(list.begin(), list.end(), [](const Series& a, const Series& b) {
      return a.spots.size() < b.spots.size();
    });
    for (auto piece = list.begin(); piece != list.end(); ++piece) {
      if (piece != longest) piece->label.clear();
    }
    return list;
  }

  // A curve for every equation, composition and temperature.
  template <class Value>
  void add(Panel& panel, int colour, const std::string& label, const Value& value) const {
    constexpr std::array strokes{Stroke::solid, Stroke::dashed, Stroke::dotted};
    for (std::size_t e = 0; e < study_.results.size(); ++e) {
      for (const Roots& run : runs(study_.results[e])) {
        std::vector<std::string> parts{label};
        if (study_.results.size() > 1) parts.push_back(study_.results[e].equation);
        if (x_varies_) parts.push_back(fmt::format("x1 {:.4g}", run.front()->x.front()));
        if (P_varies_ && T_varies_) parts.push_back(shown(run.front()->T_K, true));
        const Series like{{}, joined(parts, ", "), strokes[e % strokes.size()], Mark::none, colour, 2};
        for (Series& piece : pieces(run, like, value)) panel.series.push_back(std::move(piece));
      }
    }
  }

  Panel with_axes(Panel panel, const std::string& label) const {
    double left = HUGE_VAL, right = -HUGE_VAL, low = HUGE_VAL, high = -HUGE_VAL;
    for (const Series& series : panel.series) {
      for (const Spot& spot : series.spots) {
        left = std::min(left, spot.x);
        right = std::max(right, spot.x);
        low = std::min(low, spot.y);
        high = std::max(high, spot.y);
      }
    }
    constexpr double wide = 20;
    panel.x = rounded_axis(P_varies_ ? "pressure / " + printed_unit(units_.pressure)
                                     : "temperature / " + printed_unit(units_.temperature),
                           left, right);
    panel.y =
        low > 0 && high > wide * low ? logarithmic_axis(label, low, high) : rounded_axis(label, low, high);
    return panel;
  }

  const FugacityStudy& study_;
  const DisplayUnits& units_;
  bool P_varies_ = false, T_varies_ = false, x_varies_ = false;
};

}  // namespace

Answer answer(const FugacityStudy& study, const AnswerOptions& options) {
  Answer answer;
  *answer.json = fluid_header("fugacity", study.substances, *study.first);
  Json names = Json::array();
  for (const FugacityByEquation& result : study.results) names.push_back(result.equation);
  (*answer.json)["models"] = {{"fluid", names}};
  (*answer.json)["roots"] = Json::array();
  for (const FugacityByEquation& result : study.results) add_roots(result, study.substances, answer);
  if (study.results.size() > 1) answer.tables.push_back(side_by_side(study));
  if (!study.working.empty()) add_working(study.working, answer);
  answer.notices = study.notices;
  const FugacityDrawer drawer(study, options.units);
  if (drawer.can_draw()) {
    answer.figure = drawer.drawn();
  } else {
    answer.no_figure = "a figure needs several temperatures or pressures";
  }
  return answer;
}

}  // namespace jampot
