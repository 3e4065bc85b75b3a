// pairs: the look before the calculation, and conversion between the conventions in which parameters are
// printed.
#include <fmt/format.h>

#include <cmath>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/liquid/unifac.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct PairsOptions {
  MixtureOptions mixture;
  std::string temperature = "25 degC", show_in = "K", given, molar_volumes, out;
  PresentationOptions presentation;
};

std::string range_text(const std::optional<std::array<double, 2>>& range, const DisplayUnits& units) {
  if (!range) return "not stated";
  const auto shown = [&](double T_K) { return from_si(T_K, units.temperature, Dimension::temperature); };
  return fmt::format("{:.1f} to {:.1f} {}", shown((*range)[0]), shown((*range)[1]), units.temperature);
}

// "lambda_12=291.27 cal/mol, lambda_21=1448.01 cal/mol": a set as it stands in print.
PairParameters pair_from_print(const PairsOptions& options, const std::vector<Substance>& substances,
                               const std::string& model) {
  if (substances.size() != 2) throw RequestError("--given states one pair: name two substances");
  PairParameters pair = neutral_pair(model, substances[0], substances[1]);
  std::vector<std::string> missing;
  for (const TermForFit& term : terms_for_fit(model)) missing.push_back(term.name);
  const std::vector<std::string> known = missing;
  for (const std::string& piece : split(options.given, ',')) {
    const std::size_t equals = piece.find('=');
    const std::string name(trimmed(std::string_view(piece).substr(0, std::min(equals, piece.size()))));
    if (equals == std::string::npos || std::find(known.begin(), known.end(), name) == known.end()) {
      throw RequestError(fmt::format("--given '{}': expected NAME=VALUE UNIT; {} has {}.{}", piece, model,
                                     joined(known, ", "), did_you_mean(name, known)));
    }
    const std::string value(trimmed(std::string_view(piece).substr(equals + 1)));
    const std::size_t blank = value.find(' ');
    const auto number = parse_number(value.substr(0, blank));
    if (!number)
      throw RequestError(fmt::format("--given '{}': '{}' is not a number", piece, value.substr(0, blank)));
    const std::string unit =
        blank == std::string::npos ? "" : std::string(trimmed(std::string_view(value).substr(blank)));
    if (unit.empty() && name != "alpha") {
      throw RequestError(fmt::format(
          "--given '{}': {} needs its unit: K, J/mol, cal/mol, or 1 for the term itself", piece, name));
    }
    pair.terms[name] = term_from_print(*number, parse_energy_unit(unit));
    std::erase(missing, name);
  }
  std::erase(missing, "alpha");  // stays at its usual value
  if (!missing.empty()) throw RequestError(fmt::format("--given lacks {}", joined(missing, " and ")));
  if (!options.molar_volumes.empty()) {
    const auto volumes = split(options.molar_volumes, ',');
    const auto first = volumes.size() == 2 ? parse_number(volumes[0]) : std::nullopt;
    const auto second = volumes.size() == 2 ? parse_number(volumes[1]) : std::nullopt;
    if (!first || !second || !(*first > 0 && *second > 0) || model != "wilson") {
      throw RequestError("--molar-volumes: expected two numbers in cm3/mol, for the wilson model");
    }
    pair.molar_volumes_m3_mol = {1e-6 * *first, 1e-6 * *second};
  }
  pair.source = "as given in print";
  return pair;
}

class PairsOf {
 public:
  PairsOf(const PairsOptions& options, const Presentation& presentation)
      : options_(options),
        presentation_(presentation),
        unit_(parse_energy_unit(options.show_in)),
        T_K_(parse_quantity(options.temperature, Dimension::temperature)) {
    bank_ = bank_with(options.mixture.substance_files);
    substances_ = substances_named(options.mixture.names, *bank_);
    for (const std::string& file : options.mixture.parameter_files) read_pairs(file, given_, *bank_);
    if (substances_.size() < 2) throw RequestError("pairs needs at least two substances");
  }

  Answer answer() {
    answer_.json = plain_header("pairs");
    for (const Substance& substance : substances_)
      answer_.json["substances"].push_back(jampot::to_json(substance));
    answer_.json["pairs"] = Json::array();
    if (!options_.given.empty()) {
      converted();
    } else {
      Table table = empty_table("What would be used, pair by pair");
      for (std::size_t i = 0; i < substances_.size(); ++i) {
        for (std::size_t j = i + 1; j < substances_.size(); ++j) one_pair(i, j, table);
      }
      answer_.tables.push_back(std::move(table));
      predictions();
      write_used();
    }
    if (unit_ != EnergyUnit::dimensionless) {
      answer_.lines.push_back(fmt::format(
          "values in {}: the term times T{}, at {:.2f} {} (a constant energy is the same at every T)",
          options_.show_in, unit_ == EnergyUnit::kelvin ? "" : " and R",
          from_si(T_K_, presentation_.units.temperature, Dimension::temperature),
          presentation_.units.temperature));
    }
    return std::move(answer_);
  }

 private:
  Table empty_table(const std::string& title) const {
    return {title,
            {{"pair"}, {"model"}, {"12"}, {"21"}, {"alpha"}, {"which"}, {"range"}, {"grade"}, {"source"}},
            {}};
  }

  std::vector<std::string> models() const {
    if (options_.mixture.liquid.empty()) return pair_model_names();
    if (!needs_pairs(options_.mixture.liquid)) {
      throw RequestError(fmt::format("{} takes no pair parameters; there are {}", options_.mixture.liquid,
                                     joined(pair_model_names(), ", ")));
    }
    return {options_.mixture.liquid};
  }

  std::string between(std::size_t i, std::size_t j) const {
    return substances_[i].short_name() + " - " + substances_[j].short_name();
  }

  std::vector<Cell> row(const PairParameters& pair, const std::string& names,
                        const std::string& which) const {
    const std::vector<TermForFit>& terms = terms_for_fit(pair.model);
    const auto value = [&](std::size_t k) {
      return fmt::format("{:.6g}", print_of_term(pair.terms.at(terms[k].name), unit_, T_K_));
    };
    const auto alpha = pair.terms.find("alpha");
    return {names,
            pair.model,
            value(0),
            value(1),
            alpha == pair.terms.end() ? std::string() : fmt::format("{:.4g}", alpha->second.value(T_K_)),
            which,
            range_text(pair.range_K, presentation_.units),
            std::string(1, pair.grade),
            pair.source};
  }

  void one_pair(std::size_t i, std::size_t j, Table& table) {
    const Substance &first = substances_[i], &second = substances_[j];
    for (const std::string& model : models()) {
      std::vector<PairParameters> known;
      if (auto own = given_.find(model, first.name, second.name)) known.push_back(std::move(*own));
      for (PairParameters& pair : published_pairs(model, first.name, second.name))
        known.push_back(std::move(pair));
      Json json{{"between", {first.name, second.name}}, {"model", model}, {"missing", known.empty()}};
      for (std::size_t k = 0; k < known.size(); ++k) {
        table.rows.push_back(row(known[k], between(i, j), k == 0 ? "used" : "alternative"));
        const Json entry = jampot::to_json(known[k]);
        if (k == 0) {
          for (const char* key : {"values", "source", "range_K", "grade"}) json[key] = entry[key];
          used_.push_back(known[k]);
          if (known[k].range_K && (T_K_ < (*known[k].range_K)[0] || T_K_ > (*known[k].range_K)[1]))
            out_of_range(known[k]);
        } else {
          json["alternatives"].push_back(entry);
        }
      }
      if (known.empty()) missing(i, j, model, json, table);
      answer_.json["pairs"].push_back(std::move(json));
    }
  }

  void out_of_range(const PairParameters& pair) {
    if (options_.temperature == "25 degC") return;  // nobody asked for that temperature
    answer_.notices.add("parameter-range", fmt::format("the {} parameters of {} and {} hold from {}",
                                                       pair.model, pair.between[0], pair.between[1],
                                                       range_text(pair.range_K, presentation_.units)));
  }

  // What an estimate would be, where one is possible.
  void missing(std::size_t i, std::size_t j, const std::string& model, Json& json, Table& table) {
    table.rows.push_back({between(i, j), model, std::string(), std::string(), std::string(),
                          std::string("missing"), std::string(), std::string(),
                          std::string("neither given nor published")});
    EstimateOptions wanted;
    wanted.model = model;
    wanted.from = options_.mixture.estimate_from;
    try {
      const Estimate estimate = estimate_pair(substances_[i], substances_[j], wanted);
      table.rows.push_back(row(estimate.pair, between(i, j), "an estimate would be"));
      json["estimate"] = jampot::to_json(estimate.pair);
      json["estimate"]["rms_ln_gamma"] = estimate.rms_ln_gamma;
    } catch (const CalculationError& error) {
      table.rows.back().back() = fmt::format("neither given nor published; no estimate: {}", error.what());
    }
  }

  void predictions() {
    Table table{"Predictions", {{"model"}, {"possible"}, {"what is missing, or what it rests on"}}, {}};
    for (const UnifacTable unifac : all_unifac_tables) {
      try {
        const Unifac model(substances_, unifac);
        std::string doubtful;
        for (const GroupPair& pair : model.group_pairs()) {
          if (pair.forward.grade != 'C' && pair.backward.grade != 'C') continue;
          doubtful += fmt::format("{} {} - {}", doubtful.empty() ? "; grade C:" : ",", pair.main_groups[0],
                                  pair.main_groups[1]);
        }
        table.rows.push_back({name_of(unifac), std::string("yes"), unifac_source(unifac) + doubtful});
      } catch (const CalculationError& error) {
        table.rows.push_back({name_of(unifac), std::string("no"), std::string(error.what())});
      }
    }
    std::vector<std::string> without;
    for (const Substance& substance : substances_) {
      if (!substance.mosced) without.push_back(substance.name);
    }
    table.rows.push_back({std::string("mosced"), std::string(without.empty() ? "yes" : "no"),
                          without.empty() ? std::string("limiting activity coefficients only")
                                          : "no parameters of " + joined(without, ", ")});
    for (const auto& row : table.rows) {
      answer_.json["predictions"].push_back({{"model", std::get<std::string>(row[0])},
                                             {"possible", std::get<std::string>(row[1]) == "yes"},
                                             {"text", std::get<std::string>(row[2])}});
    }
    answer_.tables.push_back(std::move(table));
  }

  void converted() {
    if (options_.mixture.liquid.empty())
      throw RequestError("--given needs the model it is of: --liquid wilson, nrtl, uniquac or margules");
    const PairParameters pair = pair_from_print(options_, substances_, models().front());
    Table table = empty_table("As given, converted");
    for (const char* unit : {"K", "J/mol", "cal/mol", "1"}) {
      const EnergyUnit in = parse_energy_unit(unit);
      const std::vector<TermForFit>& terms = terms_for_fit(pair.model);
      std::vector<Cell> cells = row(pair, between(0, 1), fmt::format("in {}", unit));
      for (std::size_t k = 0; k < 2; ++k)
        cells[2 + k] = fmt::format("{:.6g}", print_of_term(pair.terms.at(terms[k].name), in, T_K_));
      table.rows.push_back(std::move(cells));
    }
    answer_.tables.push_back(std::move(table));
    Json json = jampot::to_json(pair);
    json["missing"] = false;
    answer_.json["pairs"].push_back(std::move(json));
    if (!options_.out.empty()) answer_.files.emplace_back(options_.out, pairs_text({pair}));
  }

  void write_used() {
    if (options_.out.empty()) return;
    if (options_.mixture.liquid.empty())
      throw RequestError("--out writes the pairs of one model: say which with --liquid");
    if (used_.empty()) throw CalculationError("there is no known pair to write");
    answer_.files.emplace_back(options_.out, pairs_text(used_));
  }

  const PairsOptions& options_;
  const Presentation& presentation_;
  EnergyUnit unit_;
  double T_K_;
  std::shared_ptr<const Bank> bank_;
  std::vector<Substance> substances_;
  ParameterCollection given_;
  std::vector<PairParameters> used_;
  Answer answer_;
};

}  // namespace

void add_pairs(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<PairsOptions>();
  CLI::App* command = tool.add_subcommand(
      "pairs", "Before anything is calculated: which pair parameters would be used, and what is missing");
  add_mixture(*command, options->mixture, false);
  command
      ->add_option("--show-in", options->show_in,
                   "Unit of the values: K (default), J/mol, cal/mol, or 1 for the term itself")
      ->type_name("UNIT");
  command
      ->add_option("--temperature", options->temperature,
                   "At which terms that depend on T are shown (default 25 degC)")
      ->type_name("QUANTITY");
  command
      ->add_option("--given", options->given,
                   "A set from print to convert: \"lambda_12=291.27 cal/mol, lambda_21=1448.01 cal/mol\"")
      ->type_name("LIST");
  command
      ->add_option("--molar-volumes", options->molar_volumes,
                   "Those stated with it, in cm3/mol: \"74.05, 18.07\"")
      ->type_name("LIST");
  command->add_option("--out", options->out, "Write what is used (or given) to this file")
      ->type_name("FILE.pairs.toml");
  add_presentation(*command, options->presentation, false);
  command->footer("Example:\n  jampot pairs acetone methanol water --show-in cal/mol");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(PairsOf(*options, presentation).answer(), presentation);
  });
}

}  // namespace jampot::tool
