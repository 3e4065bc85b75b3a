#include "jampot/report/pairs.hpp"

#include <fmt/format.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "fact_cells.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/printed_form.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {
namespace {

std::string range_text(const std::optional<std::array<double, 2>>& range, const DisplayUnits& units) {
  if (!range) return "not stated";
  const auto shown = [&](double T_K) { return from_si(T_K, units.temperature, Dimension::temperature); };
  return fmt::format("{:.1f} to {:.1f} {}", shown((*range)[0]), shown((*range)[1]), units.temperature);
}

class PairsAnswer {
 public:
  PairsAnswer(const std::vector<Substance>& substances, const PairsAnswerOptions& options)
      : substances_(substances), options_(options) {
    *answer_.json = plain_header("pairs");
    for (const Substance& substance : substances_)
      (*answer_.json)["substances"].push_back(to_json(substance));
    (*answer_.json)["pairs"] = Json::array();
  }

  void look(const PairsStudy& study) {
    Table table = empty_table("What would be used, pair by pair");
    for (const KnownPair& pair : study.pairs) add(pair, table);
    answer_.tables.push_back(std::move(table));
    predictions(study);
    facts(study);
    answer_.notices = study.notices;
  }

  void convert(const PairParameters& pair) {
    Table table = empty_table("As given, converted");
    for (const char* unit : {"K", "J/mol", "cal/mol", "1"}) {
      const EnergyUnit in = parse_energy_unit(unit);
      std::vector<Cell> cells = row(pair, between(0, 1), fmt::format("in {}", unit));
      for (std::size_t k = 0; k < 2; ++k) cells[2 + k] = printed(pair, k, in);
      table.rows.push_back(std::move(cells));
    }
    answer_.tables.push_back(std::move(table));
    Json json = to_json(pair);
    json["missing"] = false;
    (*answer_.json)["pairs"].push_back(std::move(json));
  }

  Answer told() {
    if (options_.unit != EnergyUnit::dimensionless) {
      answer_.lines.push_back(fmt::format(
          "values in {}: the term times T{}, at {:.2f} {} (a constant energy is the same at every T)",
          name_of(options_.unit), options_.unit == EnergyUnit::kelvin ? "" : " and R",
          from_si(options_.T_K, options_.units.temperature, Dimension::temperature),
          options_.units.temperature));
    }
    return std::move(answer_);
  }

 private:
  Table empty_table(const std::string& title) const {
    return {title,
            {{"pair"}, {"model"}, {"12"}, {"21"}, {"alpha"}, {"which"}, {"range"}, {"grade"}, {"source"}},
            {}};
  }

  std::string between(std::size_t i, std::size_t j) const {
    return substances_[i].short_name() + " - " + substances_[j].short_name();
  }

  std::vector<Cell> row(const PairParameters& pair, const std::string& names,
                        const std::string& which) const {
    return {names,
            pair.model,
            printed(pair, 0, options_.unit),
            printed(pair, 1, options_.unit),
            further(pair),
            which,
            range_text(pair.T_range_K, options_.units),
            std::string(1, pair.grade),
            pair.source};
  }

  // A term of a pair as print states it; with its name where that does not read "12" or "21".
  std::string printed(const PairParameters& pair, std::size_t k, EnergyUnit unit) const {
    const std::vector<TermForFit>& terms = terms_for_fit(pair.model);
    if (k >= terms.size()) return "";
    const std::string& name = terms[k].name;
    const std::string value = fmt::format("{:.6g}", print_of_term(pair.terms.at(name), unit, options_.T_K));
    return name.ends_with("_12") || name.ends_with("_21") ? value : name + " " + value;
  }

  // The terms behind the first two: alpha as it is, others with their names where they are not zero.
  std::string further(const PairParameters& pair) const {
    std::string text;
    const std::vector<TermForFit>& terms = terms_for_fit(pair.model);
    for (std::size_t k = 2; k < terms.size(); ++k) {
      const TemperatureFunction& term = pair.terms.at(terms[k].name);
      if (terms[k].name == "alpha") {
        text += fmt::format("{:.4g}", term.value(options_.T_K));
      } else if (term != TemperatureFunction{}) {
        text += (text.empty() ? "" : ", ") + printed(pair, k, options_.unit);
      }
    }
    return text;
  }

  void add(const KnownPair& pair, Table& table) {
    const std::string names = between(pair.first, pair.second);
    Json json{{"between", {substances_[pair.first].name, substances_[pair.second].name}},
              {"model", pair.model},
              {"missing", pair.known.empty()}};
    for (std::size_t k = 0; k < pair.known.size(); ++k) {
      table.rows.push_back(row(pair.known[k], names, k == 0 ? "used" : "alternative"));
      const Json entry = to_json(pair.known[k]);
      if (k == 0) {
        for (const char* key : {"values", "source", "range_K", "grade"}) json[key] = entry[key];
      } else {
        json["alternatives"].push_back(entry);
      }
    }
    if (pair.known.empty()) missing(pair, names, json, table);
    (*answer_.json)["pairs"].push_back(std::move(json));
  }

  // What an estimate would be, where one is possible.
  void missing(const KnownPair& pair, const std::string& names, Json& json, Table& table) const {
    std::string why = "neither given, nor published, nor fitted to facts";
    if (!pair.estimate) why += "; no estimate: " + pair.no_estimate;
    table.rows.push_back({names, pair.model, std::string(), std::string(), std::string(),
                          std::string("missing"), std::string(), std::string(), why});
    if (!pair.estimate) return;
    table.rows.push_back(row(pair.estimate->pair, names, "an estimate would be"));
    json["estimate"] = to_json(pair.estimate->pair);
    json["estimate"]["rms_ln_gamma"] = pair.estimate->rms_ln_gamma;
  }

  void predictions(const PairsStudy& study) {
    Table table{"Predictions", {{"model"}, {"possible"}, {"what is missing, or the source"}}, {}};
    for (const PossiblePrediction& one : study.predictions) {
      table.rows.push_back({one.model, std::string(one.possible ? "yes" : "no"), one.text});
      (*answer_.json)["predictions"].push_back(
          {{"model", one.model}, {"possible", one.possible}, {"text", one.text}});
    }
    answer_.tables.push_back(std::move(table));
  }

  void facts(const PairsStudy& study) {
    (*answer_.json)["facts"] = Json::array();
    if (study.facts.empty()) {
      answer_.lines.emplace_back("handbooks have no fact about these substances");
      return;
    }
    Table table{"Handbook facts (x of the first; two liquids: x of each, dilute in the other)",
                {{"fact"}, {"substances"}, {"at"}, {"handbooks"}, {"grade"}},
                {}};
    const FactCells cells(options_.units);
    for (const Fact* fact : study.facts) {
      table.rows.push_back({fact_name(*fact, substances_), together(fact->substances), cells.where(*fact),
                            cells.of_fact(*fact), std::string(1, fact->grade)});
      (*answer_.json)["facts"].push_back(to_json(*fact));
    }
    answer_.tables.push_back(std::move(table));
  }

  const std::vector<Substance>& substances_;
  const PairsAnswerOptions& options_;
  Answer answer_;
};

const char* equation_of(const std::string& model) {
  if (model == "nrtl") return "G_12 = exp(-alpha tau_12), G_21 = exp(-alpha tau_21)";
  if (model == "wilson") return "Lambda_12 = V_2/V_1 exp(-lambda_12), Lambda_21 = V_1/V_2 exp(-lambda_21)";
  if (model == "uniquac") return "tau_12 = exp(-u_12), tau_21 = exp(-u_21)";
  if (model == "margules") return "gE/RT = x1 x2 (A_21 x1 + A_12 x2)";
  return "gE/RT = x1 x2 sum_k B_k (x1 - x2)^k";
}

// ln gamma of each infinitely dilute in the other, to check another program by.
std::array<double, 2> limits_of(const PairParameters& pair, const std::vector<Substance>& substances,
                                double T_K) {
  ParameterCollection collection;
  collection.add(pair);
  Mixture mixture(substances, pair.model, collection);
  return {limiting_ln_gamma(mixture.activity(), T_K, 0, 1), limiting_ln_gamma(mixture.activity(), T_K, 1, 0)};
}

class Export {
 public:
  Export(const PairParameters& pair, const std::vector<Substance>& all, const PairsAnswerOptions& options)
      : pair_(pair), options_(options) {
    for (const std::string& name : pair.between) {
      for (const Substance& substance : all)
        if (substance.name == name) substances_.push_back(substance);
    }
  }

  void add_to(Answer& answer) const {
    const bool energy = options_.unit != EnergyUnit::dimensionless;
    const std::string unit = energy ? name_of(options_.unit) : "1";
    Table table{
        fmt::format("{}: {} (1) and {} (2)", pair_.model, pair_.between[0], pair_.between[1]),
        {{"term"},
         {energy ? "times " + std::string(options_.unit == EnergyUnit::kelvin ? "T" : "R T") : "value"},
         {"unit"},
         {"term at the temperature"}},
        {}};
    Json json{{"between", pair_.between},
              {"model", pair_.model},
              {"unit", unit},
              {"T_K", options_.T_K},
              {"equation", equation_of(pair_.model)},
              {"source", pair_.source}};
    std::string given;
    for (const TermForFit& term : terms_for_fit(pair_.model)) {
      const TemperatureFunction& function = pair_.terms.at(term.name);
      if (term.optional && function == TemperatureFunction{}) continue;
      const bool plain = !term.follows_T;
      const std::string formula =
          printed_formula(function, plain ? EnergyUnit::dimensionless : options_.unit);
      const std::string own_unit = plain ? "1" : unit;
      const double value = function.value(options_.T_K);
      table.rows.push_back({term.name, formula, own_unit, fmt::format("{:.8g}", value)});
      json["terms"].push_back(
          {{"name", term.name}, {"formula", formula}, {"unit", own_unit}, {"value", value}});
      given += fmt::format("{}{}={} {}", given.empty() ? "" : ", ", term.name, formula, own_unit);
    }
    const auto both = [&](const char* name, const char* of_unit, double first, double second) {
      for (const auto& [k, number] : {std::pair(1, first), std::pair(2, second)})
        table.rows.push_back({fmt::format("{}_{}", name, k), fmt::format("{:.8g}", number),
                              std::string(of_unit), std::string()});
      json[name] = {first, second};
    };
    if (pair_.molar_volumes_m3_mol)
      both("V", "cm3/mol", 1e6 * (*pair_.molar_volumes_m3_mol)[0], 1e6 * (*pair_.molar_volumes_m3_mol)[1]);
    if (pair_.sizes) {
      both("r", "1", pair_.sizes->r[0], pair_.sizes->r[1]);
      both("q", "1", pair_.sizes->q[0], pair_.sizes->q[1]);
      both("q_residual", "1", pair_.sizes->q_residual[0], pair_.sizes->q_residual[1]);
    }
    const auto limits = limits_of(pair_, substances_, options_.T_K);
    json["limiting_gamma"] = {std::exp(limits[0]), std::exp(limits[1])};
    json["given"] = given;
    answer.tables.push_back(std::move(table));
    (*answer.json)["printed"].push_back(std::move(json));
    answer.lines.push_back(fmt::format(
        "{}: {}{}; T in K", pair_.model, equation_of(pair_.model),
        energy
            ? "; each term is the energy over " +
                  std::string(
                      options_.unit == EnergyUnit::kelvin
                          ? "T"
                          : fmt::format("R T, R = 8.314462618 J/(mol K){}",
                                        options_.unit == EnergyUnit::calorie_mol ? ", 1 cal = 4.184 J" : ""))
            : ""));
    answer.lines.push_back(fmt::format(
        "to check by at {:.2f} {}: infinite-dilution activity coefficients {:.7g} of {} and {:.7g} of {}",
        from_si(options_.T_K, options_.units.temperature, Dimension::temperature), options_.units.temperature,
        std::exp(limits[0]), substances_[0].short_name(), std::exp(limits[1]), substances_[1].short_name()));
    answer.lines.push_back(fmt::format(
        "reads back by: jampot pairs \"{}\" \"{}\" --liquid {} --given \"{}\"{}", pair_.between[0],
        pair_.between[1], pair_.model, given,
        pair_.molar_volumes_m3_mol
            ? fmt::format(" --molar-volumes \"{:.8g}, {:.8g}\"", 1e6 * (*pair_.molar_volumes_m3_mol)[0],
                          1e6 * (*pair_.molar_volumes_m3_mol)[1])
            : ""));
  }

 private:
  const PairParameters& pair_;
  const PairsAnswerOptions& options_;
  std::vector<Substance> substances_;
};

}  // namespace

Answer answer_exported(const std::vector<PairParameters>& pairs, const std::vector<Substance>& substances,
                       const PairsAnswerOptions& options) {
  Answer answer;
  *answer.json = plain_header("pairs");
  for (const Substance& substance : substances) (*answer.json)["substances"].push_back(to_json(substance));
  (*answer.json)["pairs"] = Json::array();
  for (const PairParameters& pair : pairs) {
    (*answer.json)["pairs"].push_back(to_json(pair));
    Export(pair, substances, options).add_to(answer);
  }
  return answer;
}

Answer answer(const PairsStudy& study, const PairsAnswerOptions& options) {
  PairsAnswer answer(study.substances, options);
  answer.look(study);
  return answer.told();
}

Answer answer_converted(const PairParameters& pair, const std::vector<Substance>& substances,
                        const PairsAnswerOptions& options) {
  PairsAnswer answer(substances, options);
  answer.convert(pair);
  return answer.told();
}

}  // namespace jampot
