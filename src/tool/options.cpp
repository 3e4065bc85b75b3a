#include "options.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac_interactions.hpp"

namespace jampot::tool {

namespace {

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
  command
      .add_option(
          "--expect", options.expected,
          "A reference table laid beside the results: columns named as in the tables, with units; several "
          "tables parted by an empty line")
      ->type_name("FILE.csv");
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
      .add_option(
          "--liquid", options.liquid,
          fmt::format(
              "Liquid model: {}{}; best (default: that of the parameters, "
              "else best: published pairs, pairs fitted to handbook facts, or the prediction that does "
              "best on these). The table of unifac-dortmund holds {}",
              joined(liquid_model_names(), ", "), options.two_liquids ? "" : ", eos",
              extent_of(UnifacTable::dortmund).text()))
      ->type_name("MODEL");
  command.add_option("--parameters", options.parameter_files, "Pair parameters; may be repeated")
      ->type_name("FILE.pairs.toml")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command
      .add_option(
          "--missing-pairs", options.missing_pairs,
          "A pair that nothing is known of: refuse (default), known (fitted to its handbook facts now, else "
          "estimated), estimate from a prediction, or ideal")
      ->type_name("WHAT");
  command
      .add_option("--doubtful-groups", options.doubtful_groups,
                  "A UNIFAC table whose interaction contradicts what is known: refuse (default) or use")
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

void add_vapour(CLI::App& command, VapourWords& options) {
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
  command
      .add_option("--poynting", options.poynting,
                  "Poynting factor: on or off (default: on unless the vapour is ideal)")
      ->type_name("SWITCH");
  command.add_flag("--translate", options.translated,
                   "Translate the volumes of a cubic equation so that liquid densities come out better");
}

void add_non_volatile(CLI::App& command, std::vector<std::string>& names) {
  command
      .add_option("--non-volatile", names,
                  "A substance that stays in the liquid, as a sugar does; may be repeated")
      ->type_name("NAME")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
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

AnswerOptions asked(const Presentation& presentation, const MixtureOptions& options) {
  return {presentation.units, parse_basis(options.basis), presentation.draws()};
}

MixtureOptions expand_names(std::vector<std::string>& names, std::vector<std::string>& substance_files) {
  MixtureOptions options;
  options.names = std::move(names);
  options.substance_files = std::move(substance_files);
  options.expand();
  names = options.names;
  substance_files = options.substance_files;
  return options;
}

void repeatable(CLI::Option* option) {
  option->expected(1)->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
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
