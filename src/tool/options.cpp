#include "options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "expected.hpp"
#include "interactions.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/substance_toml.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/liquid/unifac.hpp"

namespace jampot::tool {

namespace {

bool one_of(const std::vector<std::string>& names, const std::string& name) {
  return std::find(names.begin(), names.end(), name) != names.end();
}

// "x=0 to 0.1, y=60 to 70", in the units shown.
Window parse_window(const std::string& text) {
  Window window;
  for (const std::string& piece : split(text, ',')) {
    const std::size_t equals = piece.find('='), to = piece.find(" to ");
    const std::string axis(trimmed(std::string_view(piece).substr(0, std::min(equals, piece.size()))));
    std::optional<double> low, high;
    if (equals != std::string::npos && to != std::string::npos && to > equals) {
      low = parse_number(piece.substr(equals + 1, to - equals - 1));
      high = parse_number(piece.substr(to + 4));
    }
    if (!low || !high || !(*high > *low) || (axis != "x" && axis != "y")) {
      throw RequestError(fmt::format(
          "--window '{}': expected the ends of the axes in the units shown, as in \"x=0 to 0.1, y=60 to 70\"",
          text));
    }
    (axis == "x" ? window.x : window.y) = {*low, *high};
  }
  return window;
}

// Answers come in the units of the question: those of the conditions and of the feed.
DisplayUnits units_of_question(const CLI::App* command) {
  DisplayUnits units;
  if (command == nullptr) return units;
  using Targets = std::vector<std::pair<Dimension, std::string*>>;
  const Targets temperature{{Dimension::temperature, &units.temperature}},
      pressure{{Dimension::pressure, &units.pressure}};
  const Targets feed{{Dimension::mass_flow, &units.mass_flow},
                     {Dimension::molar_flow, &units.molar_flow},
                     {Dimension::mass, &units.mass},
                     {Dimension::amount, &units.amount}};
  const Targets duty{{Dimension::power, &units.power}, {Dimension::energy, &units.energy}};
  for (const auto& [name, targets] :
       {std::pair("--at", &temperature), std::pair("--temperature", &temperature),
        std::pair("--pressure", &pressure), std::pair("--feed", &feed), std::pair("--amount", &feed),
        std::pair("--duty", &duty)}) {
    const CLI::Option* const option = command->get_option_no_throw(name);
    if (option == nullptr || option->results().empty()) continue;
    for (const auto& [dimension, target] : *targets) {
      if (auto unit = unit_in(option->results().front(), dimension)) *target = *unit;
    }
  }
  return units;
}

}  // namespace

Presentation PresentationOptions::read() const {
  Presentation presentation{json, csv, xlsx, figure, plot, expected, {}, {}};
  presentation.units = units.empty() ? units_of_question(command) : parse_display_units(units);
  if (!figure.empty()) {
    const std::string ending = lower_case(std::filesystem::path(figure).extension().string());
    if (ending != ".svg" && ending != ".png" && ending != ".pdf") {
      throw RequestError(fmt::format("--figure '{}': the ending must be .svg, .png or .pdf", figure));
    }
  } else if (!plot.empty() || !window.empty()) {
    throw RequestError("--plot and --window change a figure: give --figure FILE as well");
  }
  const std::string ending = lower_case(std::filesystem::path(csv).extension().string());
  if (ending == ".xlsx" || ending == ".md" || ending == ".html" || ending == ".tex" || ending == ".json")
    throw RequestError(fmt::format("--csv '{}': --csv writes comma-separated values, whatever the name; {}",
                                   csv,
                                   ending == ".xlsx"   ? "--xlsx writes a workbook"
                                   : ending == ".json" ? "--json writes JSON to standard output"
                                                       : "a job writes a report as .md or .html"));
  if (!window.empty()) presentation.window = parse_window(window);
  return presentation;
}

void add_presentation(CLI::App& command, PresentationOptions& options, bool draws) {
  options.command = &command;
  command.add_flag("--json", options.json,
                   "One JSON object on standard output, in SI, and nothing else there");
  command.add_option("--csv", options.csv, "Write the tables to this file")->type_name("FILE");
  command.add_option("--xlsx", options.xlsx, "Write the tables to this workbook, with a sheet of sources")
      ->type_name("FILE");
  command.add_option("--units", options.units, "Units of the answer, as in \"bar, K\"")->type_name("LIST");
  add_expected_option(command, options.expected);
  if (draws) {
    command.add_option("--figure", options.figure, "Draw into this file: .svg, .png or .pdf")
        ->type_name("FILE");
    command.add_option("--window", options.window, "Part of the figure: \"x=0 to 0.1, y=60 to 70\"")
        ->type_name("TEXT");
    command.add_option("--plot", options.plot, "Draw two columns of the tables: \"T against x(water)\"")
        ->type_name("TEXT");
  }
}

void add_mixture(CLI::App& command, MixtureOptions& options, bool binary) {
  auto* names = command.add_option(
      "MIX", options.names, "Substances: name, alias, formula or CAS number; or one FILE.mixture.toml");
  names->required()->type_name("NAME");
  options.binary = binary;
  command.parse_complete_callback([&options] { options.expand(); });
  if (binary) {
    names->expected(1, 2);
    command.add_option("--first", options.first, "The substance on the axis (default: the one named first)")
        ->type_name("NAME");
  }
  add_substance_files(command, options.substance_files);
  command
      .add_option("--liquid", options.liquid,
                  fmt::format("Liquid model: {}{} (default: that of the parameters)",
                              joined(liquid_model_names(), ", "), options.two_liquids ? "" : ", eos"))
      ->type_name("MODEL");
  command.add_option("--parameters", options.parameter_files, "Pair parameters; may be repeated")
      ->type_name("FILE.pairs.toml")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command
      .add_option(
          "--missing-pairs", options.missing_pairs,
          "A pair neither given nor published: refuse (default), estimate from a prediction, or ideal")
      ->type_name("WHAT");
  command
      .add_option("--estimate-from", options.estimate_from,
                  "What estimates are fitted to: unifac (default), unifac-lle, unifac-dortmund, mosced")
      ->type_name("MODEL");
  command
      .add_option("--estimate-range", options.estimate_range,
                  "Over which temperatures (default \"25 to 100 degC\")")
      ->type_name("RANGE");
  command
      .add_option("--label", options.labels,
                  "A short name for tables and figures: \"ethyl acetate=EA\"; may be repeated")
      ->type_name("NAME=LABEL")
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

void add_compare(CLI::App& command, MixtureOptions& options) {
  command
      .add_option("--compare", options.compare,
                  "Repeat with these models or pair files and show all side by side: \"ideal, unifac\"")
      ->type_name("LIST");
}

namespace {

// The substances that are no solutes after Henry's law.
std::vector<Substance> solvents(const Resolved& resolved) {
  std::vector<Substance> list;
  for (std::size_t i = 0; i < resolved.substances.size(); ++i) {
    const bool solute = std::any_of(resolved.henry.begin(), resolved.henry.end(),
                                    [&](const HenryConstant& constant) { return constant.solute == i; });
    if (!solute) list.push_back(resolved.substances[i]);
  }
  return list;
}

}  // namespace

VapourChoice VapourOptions::read(const Bank& bank) const {
  VapourChoice choice;
  choice.model = model;
  if (!one_of(vapour_model_names(), model)) {
    throw RequestError(fmt::format("--vapour '{}': there are {}.{}", model,
                                   joined(vapour_model_names(), ", "),
                                   did_you_mean(model, vapour_model_names())));
  }
  choice.interactions = read_interactions(interactions, bank);
  choice.translated = translated;
  const auto switched = [](const char* option, const std::string& text) -> std::optional<bool> {
    if (text.empty()) return std::nullopt;
    if (text != "on" && text != "off") throw RequestError(fmt::format("{} '{}': on or off", option, text));
    return text == "on";
  };
  choice.saturation_fugacity = switched("--saturation-fugacity", saturation_fugacity);
  choice.poynting = switched("--poynting", poynting);
  return choice;
}

void add_vapour(CLI::App& command, VapourOptions& options) {
  command
      .add_option(
          "--vapour", options.model,
          fmt::format(
              "Vapour model: {} (default ideal); with --liquid eos the equation of state of both phases",
              joined(vapour_model_names(), ", ")))
      ->type_name("MODEL");
  command.add_option("--interactions", options.interactions, "k_ij of pairs: a table first, second, k_ij")
      ->type_name("FILE.csv");
  command
      .add_option("--saturation-fugacity", options.saturation_fugacity,
                  "Fugacity coefficient of the pure saturated vapours: on or off (default: on unless the "
                  "vapour is ideal)")
      ->type_name("SWITCH");
  command.add_option("--poynting", options.poynting, "Poynting factor: on or off (default likewise)")
      ->type_name("SWITCH");
  command.add_flag("--translate", options.translated,
                   "Translate the volumes of a cubic equation so that liquid densities come out better");
}

std::string Resolved::label() const {
  if (model == "eos") return vapour.model;
  return vapour.model == "ideal" ? model : fmt::format("{}, {} vapour", model, vapour.model);
}

namespace {

std::vector<Substance> substances_of(const MixtureOptions& options, const Bank& bank) {
  constexpr double most_substances = 40;
  demand_count("substances", static_cast<double>(options.names.size()), most_substances);
  std::vector<Substance> substances = substances_named(options.names, bank);
  if (substances.size() < 2) throw RequestError("a mixture needs at least two substances");
  if (options.binary && substances.size() != 2)
    throw RequestError(fmt::format("this is about two substances; {} are named", substances.size()));
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      if (substances[i].name == substances[j].name) {
        throw RequestError(fmt::format("{} is named twice in this mixture", substances[i].name));
      }
    }
  }
  for (const std::string& text : options.labels) {
    const std::size_t equals = text.find('=');
    const std::string label(equals == std::string::npos ? "" : trimmed(text.substr(equals + 1)));
    if (label.empty())
      throw RequestError(fmt::format("--label '{}': expected \"substance=label\", as in \"{}=A\"", text,
                                     substances[0].name));
    substances[member_named(std::string(trimmed(text.substr(0, equals))), substances)].label = label;
  }
  mark_non_volatile(options.non_volatile, substances);
  if (options.first.empty()) return substances;
  const Substance& wanted = bank.require(options.first);
  const auto found = std::find_if(substances.begin(), substances.end(),
                                  [&](const Substance& candidate) { return candidate.name == wanted.name; });
  if (found == substances.end()) {
    throw RequestError(fmt::format("--first: {} is not one of the substances", wanted.name));
  }
  std::rotate(substances.begin(), found, found + 1);
  return substances;
}

// The model of the parameter files; without any, the first whose pairs are all published.
std::string default_model(const ParameterCollection& given, const std::vector<Substance>& substances) {
  if (!given.all().empty()) {
    const std::string& model = given.all().front().model;
    for (const PairParameters& pair : given.all()) {
      if (pair.model == model) continue;
      throw RequestError(
          fmt::format("the parameter files hold {} and {}; --liquid says which to use", model, pair.model));
    }
    return model;
  }
  for (const char* model : {"nrtl", "wilson", "uniquac"}) {
    bool all = true;
    for (std::size_t i = 0; i < substances.size(); ++i) {
      for (std::size_t j = i + 1; j < substances.size(); ++j) {
        all = all && !published_pairs(model, substances[i].name, substances[j].name).empty();
      }
    }
    if (all) return model;
  }
  return "nrtl";
}

EstimateOptions estimate_options(const MixtureOptions& options) {
  EstimateOptions estimate;
  estimate.from = options.estimate_from;
  if (options.estimate_range.empty()) return estimate;
  const auto ends = parse_quantities(options.estimate_range + " in 2", Dimension::temperature);
  estimate.range_K = {std::min(ends.front(), ends.back()), std::max(ends.front(), ends.back())};
  return estimate;
}

}  // namespace

Resolved MixtureOptions::resolve(Notices& notices) const {
  const std::shared_ptr<const Bank> bank = bank_with(substance_files);
  ParameterCollection given;
  for (const std::string& file : parameter_files) read_pairs(file, given, *bank);
  Resolved resolved{substances_of(*this, *bank), liquid, {}, vapour.read(*bank), {}};
  if (one_of(equation_names(), liquid)) {  // the name of an equation means that equation for both phases
    if (vapour.model != VapourOptions{}.model && vapour.model != liquid)
      throw RequestError(fmt::format("--liquid {0} describes the vapour too; --vapour {1} contradicts it",
                                     liquid, vapour.model));
    resolved.model = "eos";
    resolved.vapour.model = liquid;
  }
  if (resolved.model == "eos") {
    if (!henry.empty())
      throw RequestError(
          "--henry belongs to a liquid with an activity model; an equation of state knows the gas itself");
    return resolved;
  }
  for (const std::string& text : henry) {
    const HenryConstant constant = parse_henry(text, resolved.substances);
    resolved.henry.push_back(constant);
    if (constant.slope_K == 0)
      notices.add(
          "henry-one-temperature",
          fmt::format(
              "Henry's constant of {} in {} is taken as the same at every temperature; two values would "
              "give its change",
              resolved.substances[constant.solute].name, resolved.substances[constant.solvent].name));
  }
  const std::vector<Substance> among = solvents(resolved);
  if (resolved.model.empty()) {
    const bool predicted = two_liquids && given.all().empty();
    resolved.model = predicted ? "unifac-lle" : default_model(given, among);
  }
  resolved.parameters = complete_pairs(resolved.model, among, given, parse_missing_pairs(missing_pairs),
                                       estimate_options(*this), notices);
  return resolved;
}

Mixture Resolved::mixture() const {
  if (henry.empty()) return {substances, model, parameters, vapour};
  const std::vector<Substance> among = solvents(*this);
  auto solution = std::make_unique<HenrySolution>(
      substances, among.size() < 2 ? nullptr : make_activity_model(model, among, parameters), henry);
  std::vector<PairParameters> used;
  for (std::size_t i = 0; needs_pairs(model) && i < among.size(); ++i) {
    for (std::size_t j = i + 1; j < among.size(); ++j) {
      if (auto pair = parameters.find(model, among[i].name, among[j].name)) used.push_back(std::move(*pair));
    }
  }
  return {substances, std::move(solution), std::move(used), vapour};
}

void add_non_volatile(CLI::App& command, std::vector<std::string>& names) {
  command
      .add_option("--non-volatile", names,
                  "A substance that stays in the liquid, as a sugar does; may be repeated")
      ->type_name("NAME")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
}

void mark_non_volatile(const std::vector<std::string>& names, std::vector<Substance>& substances) {
  for (const std::string& name : names) {
    Substance& substance = substances[member_named(name, substances)];
    substance.non_volatile = true;
    substance.vapour_pressure.reset();
  }
}

void add_henry(CLI::App& command, std::vector<std::string>& constants) {
  command
      .add_option("--henry", constants,
                  "Henry's constant of a gas: \"carbon dioxide in water = 1640 bar at 25 degC, 2360 bar at "
                  "40 degC\"; may be "
                  "repeated")
      ->type_name("TEXT")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
}

Mixture MixtureOptions::read(Notices& notices) const {
  Resolved resolved = resolve(notices);
  return resolved.mixture();
}

std::vector<std::pair<std::string, Resolved>> MixtureOptions::resolve_all(Notices& notices) const {
  std::vector<std::pair<std::string, Resolved>> all;
  Resolved own = resolve(notices);
  const std::string own_label = own.label();
  all.emplace_back(own_label, std::move(own));
  for (const std::string& piece : split(compare, ',')) {
    if (piece.empty()) continue;
    MixtureOptions other = *this;
    std::string label = piece;
    if (piece.ends_with(".toml")) {
      other.parameter_files = {piece};
      other.liquid.clear();
      label = std::filesystem::path(piece).stem().stem().string();
    } else if (one_of(equation_names(), piece)) {
      other.liquid = "eos";
      other.vapour.model = piece;
    } else if (piece != "ideal" && one_of(vapour_model_names(), piece)) {
      if (other.liquid == "eos")
        throw RequestError(
            fmt::format("--compare {}: beside an equation of state for both phases, another vapour needs "
                        "a liquid of its own",
                        piece));
      other.vapour.model = piece;
    } else {
      other.liquid = piece;
      if (piece != "eos") needs_pairs(piece);  // refuses an unknown word
      if (liquid == "eos") other.vapour.model = "ideal";
    }
    Resolved resolved = other.resolve(notices);
    if (!piece.ends_with(".toml")) label = resolved.label();
    // The default model asked for once more by its name.
    if (std::any_of(all.begin(), all.end(), [&](const auto& known) { return known.first == label; }))
      continue;
    all.emplace_back(label, std::move(resolved));
  }
  return all;
}

std::vector<Contender> MixtureOptions::contenders(Notices& notices) const {
  std::vector<Contender> list;
  for (auto& [label, resolved] : resolve_all(notices)) {
    list.push_back({label, resolved.mixture()});
  }
  return list;
}

void add_sources(Figure& figure, const std::vector<Contender>& contenders) {
  const auto add = [&](const std::string& prefix, const std::string& source) {
    if (figure.footer.find(source) == std::string::npos) figure.footer += "; " + prefix + source;
  };
  for (const Contender& contender : contenders) {
    for (const PairParameters& pair : contender.mixture.parameters()) add(pair.model + ": ", pair.source);
    if (const Unifac* unifac = contender.mixture.unifac()) add("", unifac_source(unifac->table()));
  }
}

Json contenders_header(const std::string& command, const std::vector<Contender>& contenders) {
  Json json = answer_header(command, contenders.front().mixture);
  for (std::size_t k = 1; k < contenders.size(); ++k) {
    const Json other = answer_header(command, contenders[k].mixture);
    for (const Json& parameter : other["parameters"]) {
      if (std::find(json["parameters"].begin(), json["parameters"].end(), parameter) ==
          json["parameters"].end())
        json["parameters"].push_back(parameter);
    }
    json["models"]["compared"].push_back(contenders[k].label);
  }
  return json;
}

std::vector<Coefficient> parse_form(const std::string& text) {
  std::vector<std::string> names;
  for (const Coefficient coefficient : all_coefficients) names.emplace_back(name_of(coefficient));
  std::vector<Coefficient> form;
  for (const std::string& piece : split(text, ',')) {
    const auto found = std::find(names.begin(), names.end(), piece);
    if (found == names.end()) {
      throw RequestError(fmt::format("--form: '{}' is not a coefficient; there are {}.{}", piece,
                                     joined(names, ", "), did_you_mean(piece, names)));
    }
    form.push_back(static_cast<Coefficient>(found - names.begin()));
    if (std::count(form.begin(), form.end(), form.back()) > 1) {
      throw RequestError(fmt::format("--form names '{}' twice", piece));
    }
  }
  return form;
}

const std::vector<std::string>& FeedOptions::all() const {
  if (texts.empty())
    throw RequestError("give the --feed, as in --feed \"ethanol=1000 kg/h, water=500 kg/h\"");
  return texts;
}

Feed FeedOptions::read(const std::string& text, const std::vector<Substance>& substances,
                       const std::string& basis) const {
  return parse_feed(text, amount, substances, parse_basis(basis));
}

Feed FeedOptions::read(const std::vector<Substance>& substances, const std::string& basis) const {
  if (all().size() > 1) throw RequestError("one --feed only; for a mixture of several give their sum");
  return read(all().front(), substances, basis);
}

void add_feed(CLI::App& command, FeedOptions& options) {
  command
      .add_option("--feed", options.texts,
                  "\"A=1000 kg/h, B=500 kg/h\", moles or mass by their unit; or fractions by --basis")
      ->type_name("TEXT")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command.add_option("--amount", options.amount, "Of a feed given in fractions, the whole: \"1500 kg/h\"")
      ->type_name("QUANTITY");
}

void add_condition(CLI::App& command, Condition& condition) {
  command
      .add_option("--pressure", condition.pressure, "\"1 atm\", \"1, 2, 4 bar\" or \"0.5 to 2 by 0.5 bar\"")
      ->type_name("QUANTITY");
  command.add_option("--temperature", condition.temperature, "\"60 degC\", a list or a range")
      ->type_name("QUANTITY");
}

void add_boiling_mixture(CLI::App& command, MixtureOptions& options, Condition& condition) {
  add_mixture(command, options, false);
  add_vapour(command, options.vapour);
  add_non_volatile(command, options.non_volatile);
  add_henry(command, options.henry);
  add_compare(command, options);
  add_condition(command, condition);
}

void demand_count(const char* what, double wanted, double most) {
  if (wanted > most)
    throw RequestError(fmt::format("{:.0f} {} are too many for one request; at most {:.0f} are calculated",
                                   wanted, what, most));
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

}  // namespace jampot::tool
