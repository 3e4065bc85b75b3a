#include "options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/substance_toml.hpp"

namespace jampot::tool {

Presentation PresentationOptions::read() const {
  Presentation presentation{json, csv, xlsx, figure, {}};
  if (!units.empty()) presentation.units = parse_display_units(units);
  if (!figure.empty()) {
    const std::string ending = lower_case(std::filesystem::path(figure).extension().string());
    if (ending != ".svg" && ending != ".png" && ending != ".pdf") {
      throw RequestError(fmt::format("--figure '{}': the ending must be .svg, .png or .pdf", figure));
    }
  }
  return presentation;
}

void add_presentation(CLI::App& command, PresentationOptions& options, bool draws) {
  command.add_flag("--json", options.json,
                   "One JSON object on standard output, in SI, and nothing else there");
  command.add_option("--csv", options.csv, "Write the tables to this file")->type_name("FILE");
  command.add_option("--xlsx", options.xlsx, "Write the tables to this workbook, with a sheet of sources")
      ->type_name("FILE");
  command.add_option("--units", options.units, "Units of the answer, as in \"bar, K\"")->type_name("LIST");
  if (draws) {
    command.add_option("--figure", options.figure, "Draw into this file: .svg, .png or .pdf")
        ->type_name("FILE");
  }
}

void add_mixture(CLI::App& command, MixtureOptions& options, bool binary) {
  auto* names = command.add_option("MIX", options.names, "Substances: name, alias, formula or CAS number");
  names->required()->type_name("NAME");
  if (binary) {
    names->expected(2);
    command.add_option("--first", options.first, "The substance on the axis (default: the one named first)")
        ->type_name("NAME");
  }
  add_substance_files(command, options.substance_files);
  command
      .add_option("--liquid", options.liquid, "Liquid model: ideal or nrtl (default: that of the parameters)")
      ->type_name("MODEL");
  command.add_option("--parameters", options.parameter_files, "Pair parameters; may be repeated")
      ->type_name("FILE.pairs.toml")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command.add_option("--basis", options.basis, "Fractions of moles or mass, in and out: mole or mass")
      ->type_name("BASIS");
}

std::shared_ptr<const Bank> bank_with(const std::vector<std::string>& substance_files) {
  const Bank& built_in = Bank::built_in();
  if (substance_files.empty()) return {std::shared_ptr<const Bank>(), &built_in};
  std::vector<Substance> substances = built_in.all();
  for (const std::string& file : substance_files) {
    Substance own = read_substance(file).substance;
    for (const Substance& other : substances) {
      if (lower_case(other.name) == lower_case(own.name) || built_in.find(own.name) != nullptr) {
        throw RequestError({file, 0, {}},
                           fmt::format("the name '{}' is already taken; give yours another", own.name));
      }
    }
    own.formula.clear();  // a formula shall not stand for a substance of one's own, nor make one of the bank
                          // ambiguous
    substances.push_back(std::move(own));
  }
  return std::make_shared<const Bank>(std::move(substances));
}

void add_substance_files(CLI::App& command, std::vector<std::string>& files) {
  command.add_option("--substance", files, "A substance of your own, written by define; may be repeated")
      ->type_name("FILE.substance.toml")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
}

Mixture MixtureOptions::read() const {
  const std::shared_ptr<const Bank> bank = bank_with(substance_files);
  std::vector<Substance> substances = substances_named(names, *bank);
  if (!first.empty()) {
    const Substance& wanted = bank->require(first);
    const auto found = std::find_if(substances.begin(), substances.end(), [&](const Substance& candidate) {
      return candidate.name == wanted.name;
    });
    if (found == substances.end()) {
      throw RequestError(fmt::format("--first: {} is not one of the substances", wanted.name));
    }
    std::rotate(substances.begin(), found, found + 1);
  }
  ParameterCollection parameters;
  for (const std::string& file : parameter_files) read_pairs(file, parameters, *bank);
  std::string model = liquid;
  if (model.empty()) {
    model = parameters.all().empty() ? "nrtl" : parameters.all().front().model;
    for (const PairParameters& pair : parameters.all()) {
      if (pair.model != model) {
        throw RequestError(
            fmt::format("the parameter files hold {} and {}; --liquid says which to use", model, pair.model));
      }
    }
  }
  return {std::move(substances), model, parameters};
}

void add_condition(CLI::App& command, Condition& condition) {
  command
      .add_option("--pressure", condition.pressure, "\"1 atm\", \"1, 2, 4 bar\" or \"0.5 to 2 by 0.5 bar\"")
      ->type_name("QUANTITY");
  command.add_option("--temperature", condition.temperature, "\"60 degC\", a list or a range")
      ->type_name("QUANTITY");
}

Held read_held(const Condition& condition) {
  if (condition.temperature.empty() == condition.pressure.empty()) {
    throw RequestError(
        condition.pressure.empty()
            ? "give --pressure or --temperature, as in --pressure \"1 atm\""
            : "--pressure and --temperature cannot both be given here: one is held, the other computed");
  }
  if (!condition.pressure.empty()) {
    return {Sought::temperature, parse_quantities(condition.pressure, Dimension::pressure)};
  }
  return {Sought::pressure, parse_quantities(condition.temperature, Dimension::temperature)};
}

std::vector<DataSet> read_overlays(const std::vector<std::string>& files, const Mixture& mixture,
                                   const Bank& bank) {
  std::vector<DataSet> sets;
  for (const std::string& file : files) sets.push_back(in_order_of(mixture, read_measured(file, bank)));
  return sets;
}

}  // namespace jampot::tool
