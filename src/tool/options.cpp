#include "options.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac_interactions.hpp"

namespace jampot::tool {
namespace {

// Answers come in the units of the question: those of the conditions and of the feed.
DisplayUnits units_of_question(const Command* command) {
  DisplayUnits units;
  if (command == nullptr) return units;
  using enum Dimension;
  const auto take = [&](const char* name, const std::vector<Dimension>& dimensions) {
    const Option* const option = command->find(name);
    if (option != nullptr && !option->given.empty()) units.take_from(option->given.front(), dimensions);
  };
  for (const char* name : {"--at", "--temperature"}) take(name, {temperature});
  take("--pressure", {pressure});
  for (const char* name : {"--feed", "--amount"}) take(name, {mass_flow, molar_flow, mass, amount});
  take("--duty", {power, energy});
  return units;
}

}  // namespace

Presentation PresentationOptions::read() const {
  if (json && json_lines) throw RequestError("give --json or --jsonl, not both");
  Presentation presentation{json, json_lines, csv, xlsx, table, report, figure, plot, expected, {}, {}};
  presentation.units = units.empty() ? units_of_question(command) : parse_display_units(units);
  if (figure.empty() && (!plot.empty() || !window.empty()))
    throw RequestError("--plot and --window change a figure: give --figure FILE as well");
  demand_forms(presentation);
  if (!window.empty()) presentation.window = parse_window(window);
  return presentation;
}

void add_presentation(Command& command, PresentationOptions& options, bool draws) {
  options.command = &command;
  command.flag("--json", options.json, "One JSON object on standard output, in SI, and nothing else there");
  command.flag("--jsonl", options.json_lines,
               "The same as JSON Lines: one object a line, one line for each point or state");
  command.option("--csv", options.csv, "FILE", "Write the tables to this file");
  command.option("--xlsx", options.xlsx, "FILE",
                 "Write the tables to this workbook, with a sheet of sources");
  command.option("--table", options.table, "FILE",
                 "Write the tables and their sources for a document: .md, .html, .tex, .csv or .xlsx");
  if (command.find("--report") == nullptr)
    command.option("--report", options.report, "FILE",
                   "Write a report with tables, figures and notices: .md or .html");
  command.option("--units", options.units, "LIST", "Units of the answer, as in \"bar, K\"");
  command.option("--expect", options.expected, "FILE.csv",
                 "Compare the results with a reference table: columns named as in the tables, with units; an "
                 "empty line separates tables");
  if (draws) {
    command.option("--figure", options.figure, "FILE",
                   "Draw into this file: .svg, .png, .pdf, or .html to point at and zoom");
    command.option("--window", options.window, "TEXT", "Part of the figure: \"x=0 to 0.1, y=60 to 70\"");
    command.option("--plot", options.plot, "TEXT", "Draw two columns of the tables: \"T against x(water)\"");
  }
}

void add_mixture(Command& command, MixtureOptions& options, bool binary) {
  Option& names = command
                      .option("MIX", options.names, "NAME",
                              "Substances: name, alias, formula or CAS number; or one FILE.mixture.toml")
                      .needed();
  options.binary = binary;
  command.expand = [&options] { options.expand(); };
  if (binary) {
    names.between(1, 2);
    command.option("--first", options.first, "NAME",
                   "The substance on the axis (default: the one named first)");
  }
  add_substance_files(command, options.substance_files);
  command.option(
      "--liquid,--model", options.liquid, "MODEL",
      fmt::format("Liquid model: {}{}; best (default: that of the parameters, "
                  "else best: published pairs, pairs fitted to handbook facts, or the prediction that does "
                  "best on these). The table of unifac-dortmund holds {}",
                  joined(liquid_model_names(), ", "), options.two_liquids ? "" : ", eos",
                  extent_of(UnifacTable::dortmund).text()));
  command
      .option("--parameters", options.parameter_files, "FILE.pairs.toml",
              "Pair parameters: a file or a collection (folder); may be repeated")
      .repeated();
  command.option("--missing-pairs", options.missing_pairs, "WHAT",
                 "A pair without parameters: refuse (default), known (fit it to handbook facts, else "
                 "estimate it), estimate (from a prediction), or ideal");
  command.option("--doubtful-groups", options.doubtful_groups, "WHAT",
                 "A UNIFAC interaction that contradicts known data: refuse (default) or use");
  command.option(
      "--estimate-from,--from", options.estimate_from, "MODEL",
      "Prediction that estimates are fitted to: unifac (default), unifac-lle, unifac-dortmund, mosced");
  command.option("--estimate-range", options.estimate_range, "RANGE",
                 "Temperatures of the estimates (default \"25 to 100 degC\")");
  command
      .option("--label", options.labels, "NAME=LABEL",
              "A short name for tables and figures: \"ethyl acetate=EA\"; may be repeated")
      .repeated();
  command.option("--basis", options.basis, "BASIS", "Fractions in input and output: mole (default) or mass");
}

void add_substance_files(Command& command, std::vector<std::string>& files) {
  command
      .option("--substance", files, "FILE.substance.toml",
              "A user-defined component, written by define; may be repeated")
      .repeated();
}

void add_compare(Command& command, MixtureOptions& options) {
  command.option("--compare", options.compare, "LIST",
                 "Repeat with these models or pair files and show all side by side: \"ideal, unifac\"");
}

void add_vapour(Command& command, VapourWords& options) {
  command.option(
      "--vapour", options.model, "MODEL",
      fmt::format("Vapour model: {} (default ideal); with --liquid eos the equation of state of both phases",
                  joined(vapour_model_names(), ", ")));
  command.option("--interactions", options.interactions, "FILE.csv",
                 "k_ij of pairs: a table first, second, k_ij");
  command.option("--saturation-fugacity", options.saturation_fugacity, "SWITCH",
                 "Fugacity coefficient of the pure saturated vapours: on or off (default: on unless the "
                 "vapour is ideal)");
  command.option("--poynting", options.poynting, "SWITCH",
                 "Poynting factor: on or off (default: on unless the vapour is ideal)");
  command.flag("--translate", options.translated,
               "Translate the volumes of a cubic equation for better liquid densities");
}

void add_non_volatile(Command& command, std::vector<std::string>& names) {
  command
      .option("--non-volatile", names, "NAME",
              "A substance that stays in the liquid, as a sugar does; may be repeated")
      .repeated();
}

void add_henry(Command& command, std::vector<std::string>& constants) {
  command
      .option("--henry", constants, "TEXT",
              "Henry's constant of a gas: \"carbon dioxide in water = 1640 bar at 25 degC, 2360 bar at "
              "40 degC\"; may be repeated")
      .repeated();
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

void add_feed(Command& command, FeedOptions& options) {
  command
      .option("--feed", options.texts, "TEXT",
              "\"A=1000 kg/h, B=500 kg/h\", in moles or mass; or fractions (--basis)")
      .repeated();
  command.option("--amount", options.amount, "QUANTITY",
                 "Total feed, when --feed gives fractions: \"1500 kg/h\"");
}

void add_condition(Command& command, Condition& condition) {
  command.option("--pressure", condition.pressure, "QUANTITY",
                 "\"1 atm\", \"1, 2, 4 bar\" or \"0.5 to 2 by 0.5 bar\"");
  command.option("--temperature", condition.temperature, "QUANTITY", "\"60 degC\", a list or a range");
}

void add_boiling_mixture(Command& command, MixtureOptions& options, Condition& condition) {
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
  if (!condition.pressure.empty())
    return {Sought::temperature, parse_quantities(condition.pressure, Dimension::pressure)};
  return {Sought::pressure, parse_quantities(condition.temperature, Dimension::temperature)};
}

}  // namespace jampot::tool
