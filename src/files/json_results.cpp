#include "jampot/files/json_results.hpp"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>

#include "jampot/fluid/cubic.hpp"
#include "jampot/fluid/pc_saft.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {
namespace {

Json optional_number(const std::optional<double>& value) {
  return value ? Json(*value) : Json(nullptr);
}

Json matrix(const Matrix& values) {
  Json rows = Json::array();
  for (std::size_t r = 0; r < values.rows(); ++r) {
    Json row = Json::array();
    for (std::size_t c = 0; c < values.columns(); ++c) row.push_back(values(r, c));
    rows.push_back(std::move(row));
  }
  return rows;
}

// An open end is null: the data do not bound the parameter on that side.
Json interval(const FittedParameter& parameter) {
  const auto end = [](double value) { return std::isfinite(value) ? Json(value) : Json(nullptr); };
  return Json::array({end(parameter.low), end(parameter.high)});
}

Json to_json(const RootMeanSquares& rms) {
  return {{"T_K", optional_number(rms.T_K)},
          {"P_Pa", optional_number(rms.P_Pa)},
          {"x", optional_number(rms.x)},
          {"y", optional_number(rms.y)}};
}

Json to_json(const RunsTest& runs) {
  return {{"runs", runs.runs}, {"expected", runs.expected}, {"probability", runs.probability}};
}

Json to_json(const DataPoint& point) {
  Json json{{"T_K", point.T_K}, {"P_Pa", point.P_Pa}, {"x", point.x}};
  if (!point.y.empty()) json["y"] = point.y;
  return json;
}

Json terms_json(const PairParameters& pair) {
  Json values = Json::object();
  for (const auto& [name, function] : pair.terms) {
    Json term = Json::object();
    for (const Coefficient coefficient : all_coefficients) {
      if (function[coefficient] != 0) term[std::string(name_of(coefficient))] = function[coefficient];
    }
    values[name] = std::move(term);
  }
  return values;
}

}  // namespace

Json to_json(const DeviationSummary& summary) {
  return {{"count", summary.count},
          {"mean", summary.mean},
          {"mean_absolute", summary.mean_absolute},
          {"rms", summary.root_mean_square},
          {"max", summary.largest}};
}

Json to_json(const Notices& notices) {
  Json list = Json::array();
  for (const Notice& notice : notices) list.push_back({{"code", notice.code}, {"text", notice.text}});
  return list;
}

Json to_json(const Substance& substance) {
  Json json{{"name", substance.name}, {"formula", substance.formula}, {"cas", substance.cas}};
  if (!substance.label.empty()) json["label"] = substance.label;
  return json;
}

Json to_json(const PairParameters& pair) {
  Json json{{"model", pair.model},
            {"between", pair.between},
            {"values", terms_json(pair)},
            {"source", pair.source},
            {"grade", std::string(1, pair.grade)},
            {"estimated", pair.estimated}};
  json["range_K"] = pair.T_range_K ? Json(*pair.T_range_K) : Json(nullptr);
  if (pair.molar_volumes_m3_mol) json["molar_volumes_m3_mol"] = *pair.molar_volumes_m3_mol;
  if (pair.sizes) {
    json["r"] = pair.sizes->r;
    json["q"] = pair.sizes->q;
    json["q_residual"] = pair.sizes->q_residual;
  }
  const std::size_t n = pair.fitted.size();
  for (std::size_t k = 0; k < n && pair.covariance.size() == n * n; ++k)
    json["standard_errors"][pair.fitted[k].term][name_of(pair.fitted[k].coefficient)] =
        std::sqrt(pair.covariance[k * n + k]);
  return json;
}

Json to_json(const Unifac& unifac) {
  const auto coefficients = [](const GroupInteraction& value) {
    return Json{{"a_K", value.a_K},
                {"b", value.b},
                {"c_per_K", value.c_per_K},
                {"grade", std::string(1, value.grade)}};
  };
  const auto range = unifac_T_range_K(unifac.table());
  Json list = Json::array();
  for (const GroupPair& pair : unifac.group_pairs()) {
    list.push_back({{"model", unifac.name()},
                    {"between", pair.main_groups},
                    {"values", {{"12", coefficients(pair.forward)}, {"21", coefficients(pair.backward)}}},
                    {"source", unifac_source(unifac.table())},
                    {"grade", std::string(1, std::max(pair.forward.grade, pair.backward.grade))},
                    {"range_K", range ? Json(*range) : Json(nullptr)}});
  }
  return list;
}

Json to_json(const Comparison& comparison) {
  Json json;
  for (const Comparison::Row& row : comparison.rows) {
    json["points"].push_back({{"measured", to_json(row.measured)},
                              {"model", {{"T_K", row.T_K}, {"P_Pa", row.P_Pa}, {"y", row.y}}}});
  }
  if (comparison.T_K) json["deviations"]["T_K"] = to_json(*comparison.T_K);
  if (comparison.P_Pa) json["deviations"]["P_Pa"] = to_json(*comparison.P_Pa);
  if (!comparison.y.empty()) json["deviations"]["y"] = to_json(comparison.y.front());
  if (comparison.y.size() > 2) {
    for (const DeviationSummary& summary : comparison.y)
      json["deviations"]["y_each"].push_back(to_json(summary));
  }
  return json;
}

namespace {

Json known_json(const std::vector<double>& x, double T_K, double P_Pa) {
  Json json{{"T_K", T_K}};
  if (!x.empty()) json["x"] = x;
  if (P_Pa > 0) json["P_Pa"] = P_Pa;
  return json;
}

}  // namespace

Json to_json(const Fit& fit) {
  Json json{{"model", fit.options.model}, {"objective_kind", name_of(fit.options.objective)}};
  for (const FittedParameter& parameter : fit.parameters) {
    json["parameters"].push_back(
        {{"name", parameter.name},
         {"value", parameter.value},
         {"std_error", parameter.held ? Json(nullptr) : Json(parameter.std_error)},
         {"interval_95", parameter.held ? Json(nullptr) : interval(parameter)},
         {"profiled", parameter.profiled},
         {"held", parameter.held},
         {"tied_to", parameter.tied_to ? Json(fit.parameters[*parameter.tied_to].name) : Json(nullptr)}});
  }
  json["rms"] = to_json(fit.deviation);
  if (const auto liquids = fit.rms_liquids()) json["rms"]["liquids"] = *liquids;
  json["rms_adjustment"] = to_json(fit.adjustment);
  json["objective"] = fit.objective;
  json["aicc"] = std::isfinite(fit.aicc) ? Json(fit.aicc) : Json(nullptr);
  json["comparisons"] = fit.comparisons;
  json["points"] = fit.points;
  json["degrees_of_freedom"] = fit.degrees_of_freedom;
  if (fit.options.objective == Objective::maximum_likelihood) {
    json["chi_square_probability"] = fit.chi_square_probability;
  }
  json["runs"] = {{"boiling", to_json(fit.runs_P)}, {"y", to_json(fit.runs_y)}};
  json["correlation"] = matrix(fit.correlation);
  json["covariance"] = matrix(fit.covariance);
  for (const LocalMinimum& minimum : fit.minima) {
    json["minima"].push_back(
        {{"values", minimum.values}, {"objective", minimum.objective}, {"starts", minimum.starts}});
    if (!minimum.set_aside.empty()) json["minima"].back()["set_aside"] = minimum.set_aside;
  }
  json["search"] = {{"starts", fit.search.starts},
                    {"reached_best", fit.search.reached_best},
                    {"settled", fit.search.settled()}};
  json["errors"] = name_of(fit.options.errors);
  for (const Prior& prior : fit.options.priors)
    json["priors"].push_back({{"name", prior.name}, {"value", prior.value}, {"u", prior.u}});
  for (const PureFactor& pure : fit.pure_factors)
    json["pure_factors"].push_back({{"substance", pure.substance}, {"factor", pure.factor}, {"u", pure.u}});
  for (const SetAgreement& set : fit.sets) {
    json["data_sets"].push_back({{"name", set.name},
                                 {"points", set.points},
                                 {"chi_square", set.chi_square},
                                 {"degrees_of_freedom", set.degrees_of_freedom},
                                 {"probability", set.probability},
                                 {"without", set.without ? Json(*set.without) : Json(nullptr)},
                                 {"u_factor", set.u_factor}});
  }
  for (const SetOffset& offset : fit.offsets)
    json["offsets"].push_back({{"data", offset.name},
                               {"quantity", offset.of_pressure ? "P" : "T"},
                               {"value", offset.value},
                               {"u", offset.u}});
  for (const KnownRow& row : fit.known)
    json["known"].push_back({{"point", name_of(row.known.what)},
                             {"stated", known_json(row.known.x, row.known.T_K, row.known.P_Pa)},
                             {"model", known_json(row.x, row.T_K, row.P_Pa)},
                             {"distance", row.distance},
                             {"there", row.there}});
  if (fit.lack_of_fit)
    json["lack_of_fit"] = {{"places", fit.lack_of_fit->places},
                           {"pure_error", fit.lack_of_fit->pure_error},
                           {"lack", fit.lack_of_fit->lack},
                           {"probability", fit.lack_of_fit->probability}};
  for (const RegionPoint& point : fit.region)
    json["region"].push_back(point.open ? Json(nullptr) : Json(point.values));
  for (const ResidualRow& row : fit.residuals) {
    Json entry{{"data", fit.data[row.set]},
               {"line", row.measured.line},
               {"used", row.used()},
               {"measured", to_json(row.measured)},
               {"model", {{"T_K", row.T_K}, {"P_Pa", row.P_Pa}, {"y", row.y}}}};
    if (!row.pure) {
      entry["adjusted"] = to_json(row.adjusted);
      entry["standardised"] = {{"boiling", row.standardised_P}, {"y", row.standardised_y}};
    }
    if (row.used()) {
      entry["leverage"] = row.influence.leverage;
      entry["cook"] = row.influence.cook;
    }
    if (!row.reads_right.empty()) entry["reads_right"] = row.reads_right;
    json["residuals"].push_back(std::move(entry));
  }
  for (const LiquidRow& row : fit.liquid_residuals) {
    Json entry{{"data", fit.data[row.set]}, {"line", row.measured.line},
               {"kind", name_of(row.kind)}, {"used", row.measured.excluded.empty()},
               {"T_K", row.measured.T_K},   {"standardised", row.standardised}};
    if (row.two_liquids()) {
      entry["measured"] = {{"alpha", row.measured.x}, {"beta", row.measured.y}};
      entry["model"] = row.alpha.empty() ? Json(nullptr) : Json{{"alpha", row.alpha}, {"beta", row.beta}};
    } else {
      entry["measured"] = row.measured.value;
      entry["model"] = row.model;
      entry["x"] = row.measured.x;
    }
    if (row.measured.used()) {
      entry["leverage"] = row.influence.leverage;
      entry["cook"] = row.influence.cook;
    }
    json["liquid_residuals"].push_back(std::move(entry));
  }
  json["range_K"] = fit.T_range_K;
  json["evaluations"] = fit.evaluations;
  return json;
}

Json liquid_header(const std::string& command, const std::vector<Substance>& substances,
                   const ActivityModel& model, const std::vector<PairParameters>& pairs) {
  Json json{{"command", command}};
  for (const Substance& substance : substances) json["substances"].push_back(to_json(substance));
  json["models"] = {{"liquid", model.name()}};
  json["parameters"] = Json::array();
  for (const PairParameters& pair : pairs) json["parameters"].push_back(to_json(pair));
  if (const auto* unifac = dynamic_cast<const Unifac*>(&model)) {
    for (Json& entry : to_json(*unifac)) json["parameters"].push_back(std::move(entry));
  }
  return json;
}

Json fluid_header(const std::string& command, const std::vector<Substance>& substances,
                  const EquationOfState& equation) {
  Json json{{"command", command}};
  for (const Substance& substance : substances) json["substances"].push_back(to_json(substance));
  json["models"] = {{"liquid", "eos"}, {"vapour", equation.name()}};
  json["parameters"] = Json::array();
  const auto* saft = dynamic_cast<const PcSaft*>(&equation);
  const auto* cubic = dynamic_cast<const CubicEquation*>(&equation);
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const Substance& substance = substances[i];
    if (saft != nullptr && substance.pc_saft) {
      json["parameters"].push_back({{"substance", substance.name},
                                    {"property", "PC-SAFT parameters"},
                                    {"segments", substance.pc_saft->segments},
                                    {"diameter_A", substance.pc_saft->diameter_A},
                                    {"energy_K", substance.pc_saft->energy_K},
                                    {"association", substance.pc_saft->association_scheme},
                                    {"source", substance.pc_saft->source},
                                    {"grade", std::string(1, substance.pc_saft->grade)},
                                    {"range_K", nullptr}});
    }
    for (const auto& [what, value] : {std::pair("critical temperature", &substance.Tc_K),
                                      std::pair("critical pressure", &substance.Pc_Pa),
                                      std::pair("acentric factor", &substance.acentric_factor)}) {
      if (cubic == nullptr || !*value) continue;
      json["parameters"].push_back({{"substance", substance.name},
                                    {"property", what},
                                    {"value", (*value)->value},
                                    {"source", (*value)->source},
                                    {"grade", std::string(1, (*value)->grade)},
                                    {"range_K", nullptr}});
    }
    for (std::size_t j = 0; j < i; ++j) {
      const double k = saft != nullptr ? saft->k(j, i) : cubic != nullptr ? cubic->k(j, i) : 0;
      const auto printed =
          saft != nullptr ? published_pc_saft_interaction(substances[j].name, substance.name) : std::nullopt;
      json["parameters"].push_back({{"between", {substances[j].name, substance.name}},
                                    {"property", "k_ij"},
                                    {"value", k},
                                    {"source", printed && printed->value == k ? printed->source
                                               : k == 0                       ? "none: taken as 0"
                                                                              : "given"},
                                    {"range_K", nullptr}});
    }
  }
  return json;
}

Json answer_header(const std::string& command, const Mixture& mixture) {
  Mixture copy = mixture;
  if (mixture.one_equation()) return fluid_header(command, mixture.substances(), *copy.equation());
  Json json = liquid_header(command, mixture.substances(), copy.activity(), mixture.parameters());
  json["models"]["vapour"] = mixture.vapour_model();
  for (const Substance& substance : mixture.substances()) {
    if (!substance.vapour_pressure) continue;
    const VapourPressure& curve = *substance.vapour_pressure;
    json["parameters"].push_back(
        {{"substance", substance.name},
         {"property", "vapour pressure"},
         {"source", curve.source()},
         {"grade", std::string(1, curve.grade())},
         {"range_K", curve.estimated() ? Json(nullptr) : Json({curve.Tmin_K(), curve.Tmax_K()})}});
  }
  return json;
}

}  // namespace jampot
