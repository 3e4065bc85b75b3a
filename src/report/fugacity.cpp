#include "jampot/report/fugacity.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "contenders.hpp"
#include "fields.hpp"

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
