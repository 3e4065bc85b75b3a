// pairs: the look before the calculation, and conversion between the conventions in which parameters are
// printed.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/printed_form.hpp"
#include "jampot/report/pairs.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct PairsOptions {
  MixtureOptions mixture;
  std::string temperature = "25 degC", show_in = "K", given, molar_volumes, out, export_in;
  PresentationOptions presentation;
};

// "-1.2 + 550/T 1": the unit is the last word, unless that belongs to the formula.
std::pair<std::string, std::string> formula_and_unit(const std::string& value) {
  const std::size_t blank = value.rfind(' ');
  if (blank == std::string::npos) return {value, ""};
  const std::string last = value.substr(blank + 1);
  const bool of_formula = last == "T" || last == "T^2" || last.ends_with("/T");
  if (of_formula) return {value, ""};
  return {std::string(trimmed(std::string_view(value).substr(0, blank))), last};
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
    const auto [formula, unit] = formula_and_unit(value);
    if (unit.empty() && name != "alpha") {
      throw RequestError(fmt::format(
          "--given '{}': {} needs its unit: K, J/mol, cal/mol, or 1 for the term itself", piece, name));
    }
    try {
      pair.terms[name] = parse_formula(formula, parse_energy_unit(unit));
    } catch (const RequestError& error) {
      throw RequestError(fmt::format("--given '{}': {}", piece, error.what()));
    }
    std::erase(missing, name);
  }
  for (const TermForFit& term : terms_for_fit(model)) {
    if (term.held) std::erase(missing, term.name);  // stays at its usual value
  }
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

Answer converted(const PairsOptions& options, const std::vector<Substance>& substances,
                 const PairsAnswerOptions& wanted) {
  const std::string& model = options.mixture.liquid;
  if (model.empty())
    throw RequestError(
        "--given needs the model it is of: --liquid wilson, nrtl, uniquac, margules or redlich-kister");
  if (!needs_pairs(model))
    throw RequestError(
        fmt::format("{} takes no pair parameters; there are {}", model, joined(pair_model_names(), ", ")));
  const PairParameters pair = pair_from_print(options, substances, model);
  Answer told = answer_converted(pair, substances, wanted);
  if (!options.out.empty()) told.files.emplace_back(options.out, pairs_text({pair}));
  return told;
}

Answer pairs(const PairsOptions& options, const Presentation& presentation) {
  const PairsAnswerOptions wanted{{presentation.units},
                                  parse_energy_unit(options.show_in),
                                  parse_quantity(options.temperature, Dimension::temperature)};
  const auto bank = options.mixture.bank();
  PairsRequest request;
  request.substances = substances_named(options.mixture.names, *bank);
  for (const std::string& file : options.mixture.parameter_files) read_pairs(file, request.given, *bank);
  if (!options.given.empty()) return converted(options, request.substances, wanted);
  if (!options.mixture.liquid.empty()) request.models = {options.mixture.liquid};
  if (options.temperature != PairsOptions{}.temperature) request.T_K = wanted.T_K;
  request.estimate_from = options.mixture.estimate_from;
  const PairsStudy found = study(request);
  if (!options.export_in.empty()) {
    if (options.mixture.liquid.empty())
      throw RequestError("--export is of one model: say which with --liquid");
    PairsAnswerOptions printed = wanted;
    printed.unit = parse_energy_unit(options.export_in);
    const auto used = found.used();
    if (used.empty()) throw CalculationError("there is no known pair to export");
    return answer_exported(used, request.substances, printed);
  }
  Answer told = answer(found, wanted);
  if (options.out.empty()) return told;
  if (options.mixture.liquid.empty())
    throw RequestError("--out writes the pairs of one model: say which with --liquid");
  const auto used = found.used();
  if (used.empty()) throw CalculationError("there is no known pair to write");
  told.files.emplace_back(options.out, pairs_text(used));
  return told;
}

}  // namespace

void add_pairs(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<PairsOptions>();
  Command& command = tool.add(
      "pairs", "Which pair parameters a calculation would use, their sources, and which are missing");
  add_mixture(command, options->mixture, false);
  command.option("--show-in", options->show_in, "UNIT",
                 "Unit of the values: K (default), J/mol, cal/mol, or 1 for the term itself");
  command.option("--temperature", options->temperature, "QUANTITY",
                 "Temperature at which T-dependent terms are shown (default 25 degC)");
  command.option("--given", options->given, "LIST",
                 "A published set to convert: \"lambda_12=291.27 cal/mol, lambda_21=1448.01 cal/mol\"");
  command.option("--molar-volumes", options->molar_volumes, "LIST",
                 "Molar volumes published with the set, in cm3/mol: \"74.05, 18.07\"");
  command.option(
      "--export", options->export_in, "UNIT",
      "Write the parameters as formulas of T, for another program or a document: in K, J/mol, cal/mol, "
      "or 1 for the "
      "term itself");
  command.option("--out", options->out, "FILE.pairs.toml", "Write what is used (or given) to this file");
  add_presentation(command, options->presentation, false);
  command.footer = "Example:\n  jampot pairs acetone methanol water --show-in cal/mol";
  answers(command, options->presentation, presenter,
          [options](const Presentation& presentation) { return pairs(*options, presentation); });
}

}  // namespace jampot::tool
