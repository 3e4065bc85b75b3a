// find, substance and saturation: a molecule, what is known of it, and where it boils.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/report/substance.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct FindOptions {
  std::string text;
  std::vector<std::string> substance_files;
  PresentationOptions presentation;
};

struct SubstanceOptions {
  std::string name, at, reference = "ideal-gas";
  Condition condition;
  std::vector<std::string> substance_files;
  std::string axes = "log", compare;
  bool together = false;
  PresentationOptions presentation;
};

SubstanceRequest states_of(const SubstanceOptions& options) {
  SubstanceRequest request;
  request.substance = bank_with(options.substance_files)->require(options.name);
  request.reference = parse_reference(options.reference);
  if (!options.condition.temperature.empty())
    request.T_K = parse_quantities(options.condition.temperature, Dimension::temperature);
  if (!options.condition.pressure.empty())
    request.P_Pa = parse_quantities(options.condition.pressure, Dimension::pressure);
  request.together = options.together;
  return request;
}

SaturationAxes read_axes(const std::string& text) {
  if (text == "log") return SaturationAxes::log_P_against_inverse_T;
  if (text == "linear") return SaturationAxes::P_against_T;
  throw RequestError(
      fmt::format("--axes '{}': expected log (log P against 1/T) or linear (P against T)", text));
}

SaturationRequest curve_of(const SubstanceOptions& options) {
  SaturationRequest request;
  request.substance = bank_with(options.substance_files)->require(options.name);
  request.held = read_held(options.condition);
  for (const std::string& name : split(options.compare, ',')) {
    if (!name.empty()) request.equations.push_back(name);
  }
  return request;
}

}  // namespace

void add_find(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<FindOptions>();
  Command& command = tool.add("find", "Search the component databank by name, alias, formula or CAS number");
  command.option("TEXT", options->text, "", "Full or partial name, alias, formula or CAS number").needed();
  add_substance_files(command, options->substance_files);
  add_presentation(command, options->presentation, false);
  command.footer = "Example:\n  jampot find etyl";
  command.run = [options, &presenter] {
    const auto bank = bank_with(options->substance_files);
    presenter.present(answer(study(FindRequest{options->text, bank.get()})), options->presentation.read());
  };
}

void add_substance(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<SubstanceOptions>();
  Command& command = tool.add("substance", "One substance: constants, sources, and properties at a state");
  command.option("NAME", options->name, "", "Name, alias, formula or CAS number").needed();
  command.option("--at,--temperature", options->condition.temperature, "QUANTITY",
                 "Properties at this temperature; saturated "
                 "unless a pressure is given too");
  command.option("--pressure", options->condition.pressure, "QUANTITY",
                 "Properties at this pressure; saturated unless a "
                 "temperature is given too");
  command.option("--reference-enthalpy", options->reference, "STATE",
                 "State of zero h and s: ideal-gas (1 atm; default), liquid (saturated), either with a "
                 "temperature (\"liquid at 0 degC\"; else 25 degC), or elements");
  command.flag("--together", options->together,
               "Step the ranges of temperature and pressure in pairs instead of combining all");
  add_substance_files(command, options->substance_files);
  add_presentation(command, options->presentation, true);
  command.footer = "Example:\n  jampot substance MTBE --at \"25, 55 degC\"";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(states_of(*options)), {presentation.units, Basis::mole, presentation.draws()});
  });
}

void add_saturation(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<SubstanceOptions>();
  Command& command = tool.add("saturation", "Saturation curve of one substance: P at T or T at P");
  command.option("NAME", options->name, "", "Name, alias, formula or CAS number").needed();
  add_condition(command, options->condition);
  command.option("--compare", options->compare, "LIST",
                 "Compare the correlation with equations of state: \"srk, pr, pc-saft\"");
  command.option("--axes", options->axes, "KIND",
                 "Axes of the figure: log (log P against 1/T; default) or linear (P against T)");
  add_substance_files(command, options->substance_files);
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n  jampot saturation water --pressure \"0.1 to 20 by 0.5 bar\" --figure water.svg";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(curve_of(*options)), {{presentation.units}, read_axes(options->axes)});
  });
}

}  // namespace jampot::tool
