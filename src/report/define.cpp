#include "jampot/report/define.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/draw/saturation_figure.hpp"
#include "jampot/draw/substance_figure.hpp"

namespace jampot {
namespace {

// Which atoms of the string went into which group.
Table division_table(const std::string& title, const Molecule& molecule, const GroupDivision& division,
                     Json& json) {
  Table table{title, {{"group"}, {"atoms (position in the string)"}}, {}};
  for (const GroupDivision::Part& part : division.parts) {
    std::string atoms;
    Json members = Json::array();
    for (const std::size_t atom : part.atoms) {
      atoms += fmt::format("{}{} ({})", atoms.empty() ? "" : ", ", molecule.atoms[atom].element,
                           molecule.atoms[atom].position);
      members.push_back(
          {{"element", molecule.atoms[atom].element}, {"position", molecule.atoms[atom].position}});
    }
    table.rows.push_back({part.group, atoms});
    json.push_back({{"group", part.group}, {"atoms", members}});
  }
  return table;
}

// How the curve meets the points that were given.
Table points_table(const Substance& substance, const std::vector<VapourPressurePoint>& points, Json& json) {
  Table table{"Vapour-pressure points and the curve",
              {{"T", Dimension::temperature, 2},
               {"P given", Dimension::pressure, 4},
               {"P curve", Dimension::pressure, 4},
               {"deviation [%]", Dimension::number, 2}},
              {}};
  for (const VapourPressurePoint& point : points) {
    const double P = substance.vapour_pressure->P_Pa(point.T_K), deviation = 100 * (P / point.P_Pa - 1);
    table.rows.push_back({point.T_K, point.P_Pa, P, deviation});
    json["vapour_pressure_points"].push_back({{"T_K", point.T_K}, {"P_Pa", point.P_Pa}, {"curve_P_Pa", P}});
  }
  return table;
}

Table constants_table(const DefinedSubstance& defined) {
  Table table{fmt::format("{}  {}", defined.substance.name, defined.substance.formula),
              {{"constant"}, {"value"}, {"method"}, {"typical error"}},
              {}};
  for (const DefinedConstant& constant : defined.constants) {
    table.rows.push_back({constant.name, fmt::format("{:.6g}", constant.value),
                          std::string(constant.estimated ? "estimated: " : "") + constant.method,
                          constant.typical_error});
  }
  return table;
}

// Side by side, with the deviation from the one in the bank.
Table comparison_table(const DefineStudy& study, Json& json) {
  const std::string &own = study.defined.substance.name, &other = study.against->name;
  Table table{fmt::format("{} against {}", own, other), {{"quantity"}, {own}, {other}, {"deviation"}}, {}};
  const auto text = [](std::optional<double> value) {
    return value ? fmt::format("{:.5g}", *value) : "none";
  };
  for (const QuantityOfBoth& both : study.comparison) {
    const auto &a = both.own, &b = both.other;
    table.rows.push_back({both.name, text(a), text(b),
                          a && b && *b != 0 ? fmt::format("{:+.1f} %", 100 * (*a / *b - 1)) : std::string()});
    json.push_back({{"quantity", both.name},
                    {"own", a ? Json(*a) : Json(nullptr)},
                    {"other", b ? Json(*b) : Json(nullptr)}});
  }
  return table;
}

// Where the figure of a substance without a comparison begins: well below its boiling point.
double figure_from(const Substance& substance) {
  if (!substance.vapour_pressure) {
    throw CalculationError(fmt::format("{} has no vapour pressure to draw", substance.name));
  }
  return std::max(substance.vapour_pressure->lowest_K(),
                  0.75 * substance.vapour_pressure->T_K(standard_atmosphere));
}

Figure drawn_of(const DefineStudy& study, const DisplayUnits& units) {
  const Substance& own = study.defined.substance;
  if (study.against) return substance_comparison_figure(own, *study.against, units);
  const SaturationPoint from = saturation_at_temperature(own, figure_from(own));
  return saturation_figure(own, {from, saturation_at_pressure(own, 2e5)},
                           SaturationAxes::log_P_against_inverse_T, units);
}

}  // namespace

Answer answer(const DefineStudy& study, const AnswerOptions& options) {
  Answer answer;
  *answer.json = plain_header("define");
  if (study.divided) {
    const Molecule& molecule = study.divided->molecule;
    answer.tables.push_back(division_table(fmt::format("Groups of {} ({})", study.smiles, molecule.formula()),
                                           molecule, study.divided->groups, (*answer.json)["division"]));
    if (study.divided->unifac)
      answer.tables.push_back(division_table("Subgroups of UNIFAC", molecule, *study.divided->unifac,
                                             (*answer.json)["unifac_division"]));
  }
  (*answer.json)["substances"].push_back(to_json(study.defined.substance));
  for (const DefinedConstant& constant : study.defined.constants) {
    (*answer.json)[constant.estimated ? "estimates" : "given"].push_back(
        {{"property", constant.name},
         {"value", constant.value},
         {"method", constant.method},
         {"typical_error", constant.typical_error}});
  }
  answer.tables.push_back(constants_table(study.defined));
  if (!study.known.vapour_pressure_points.empty() && study.defined.substance.vapour_pressure)
    answer.tables.push_back(
        points_table(study.defined.substance, study.known.vapour_pressure_points, *answer.json));
  answer.notices = study.notices;
  if (study.against) {
    Json comparison = Json::array();
    answer.tables.push_back(comparison_table(study, comparison));
    (*answer.json)["against"] = std::move(comparison);
  }
  if (options.figure) answer.figure = drawn_of(study, options.units);
  return answer;
}

}  // namespace jampot
