#include "jampot/report/fugacity.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "contenders.hpp"

namespace jampot {
namespace {

std::string title_of(const std::string& equation) {
  return equation == "pr" ? "Peng-Robinson" : equation == "srk" ? "Soave-Redlich-Kwong" : "PC-SAFT";
}

void add_roots(const FugacityByEquation& result, const std::vector<Substance>& substances, Answer& answer) {
  Table table{title_of(result.equation),
              {{"T", Dimension::temperature, 2},
               {"P", Dimension::pressure, 2},
               {"root"},
               {"Z", Dimension::number, 6},
               {"v [cm3/mol]", Dimension::number, 2}},
              {}};
  for (const Substance& substance : substances)
    table.columns.push_back({fmt::format("phi({})", substance.short_name()), Dimension::number, 5});
  table.columns.push_back({"h residual [J/mol]", Dimension::number, 1});
  table.columns.push_back({"s residual [J/(mol K)]", Dimension::number, 3});
  for (const FugacityRoot& root : result.roots) {
    std::vector<Cell> row{root.T_K, root.P_Pa, root.phase + (!root.only && root.stable ? ", stable" : ""),
                          root.Z, 1e6 * root.v_m3_mol};
    row.insert(row.end(), root.phi.begin(), root.phi.end());
    row.insert(row.end(), {root.h_residual_J_mol, root.s_residual_J_mol_K});
    table.rows.push_back(std::move(row));
    (*answer.json)["roots"].push_back({{"fluid", result.equation},
                                       {"T_K", root.T_K},
                                       {"P_Pa", root.P_Pa},
                                       {"x", root.x},
                                       {"phase", root.phase},
                                       {"stable", root.stable},
                                       {"Z", root.Z},
                                       {"v_m3_mol", root.v_m3_mol},
                                       {"phi", root.phi},
                                       {"h_residual_J_mol", root.h_residual_J_mol},
                                       {"s_residual_J_mol_K", root.s_residual_J_mol_K}});
  }
  answer.tables.push_back(std::move(table));
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

}  // namespace

Answer answer(const FugacityStudy& study, const AnswerOptions&) {
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
  return answer;
}

}  // namespace jampot
