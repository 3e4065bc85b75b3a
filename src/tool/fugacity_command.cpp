// fugacity: fugacity coefficients, compressibility and volume roots from an equation of state.
#include <fmt/format.h>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/interactions_csv.hpp"
#include "jampot/report/fugacity.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct FugacityOptions {
  std::vector<std::string> names, substance_files, compositions;
  std::string equation, compare, interactions, temperature, pressure, basis = "mole";
  bool working = false, translated = false;
  PresentationOptions presentation;

  // What a mixture file says of the equation holds where nothing is given beside it.
  void expand() {
    const VapourWords file = expand_names(names, substance_files).vapour;
    if (equation.empty() && file.model != VapourWords().model) equation = file.model;
    if (equation.empty()) equation = "pr";
    if (interactions.empty()) interactions = file.interactions;
    translated = translated || file.translated;
  }
};

FugacityRequest request_of(const FugacityOptions& options) {
  const auto bank = bank_with(options.substance_files);
  FugacityRequest request;
  request.substances = substances_named(options.names, *bank);
  if (options.temperature.empty() || options.pressure.empty())
    throw RequestError(
        "give --temperature and --pressure, as in --temperature \"25 degC\" --pressure \"10 bar\"");
  request.T_K = parse_quantities(options.temperature, Dimension::temperature);
  request.P_Pa = parse_quantities(options.pressure, Dimension::pressure);
  request.interactions = read_interactions(options.interactions, *bank);
  request.translated = options.translated;
  request.equations = {options.equation};
  for (const std::string& piece : split(options.compare, ',')) {
    if (!piece.empty()) request.equations.push_back(piece);
  }
  const Basis basis = parse_basis(options.basis);
  for (const std::string& text : options.compositions) {
    if (request.substances.size() > 1)
      request.compositions.push_back(parse_composition(text, request.substances, basis));
  }
  if (request.substances.size() > 1 && request.compositions.empty())
    throw RequestError(
        fmt::format("give the --composition, as in --composition \"{}=0.3\"", request.substances[0].name));
  request.working = options.working;
  return request;
}

}  // namespace

void add_fugacity(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<FugacityOptions>();
  Command& command = tool.add(
      "fugacity", "Fugacity coefficients, compressibility and volume roots from an equation of state");
  command
      .option("MIX", options->names, "NAME",
              "Substances: name, alias, formula or CAS number; or one FILE.mixture.toml")
      .needed();
  command.expand = [options] { options->expand(); };
  add_substance_files(command, options->substance_files);
  command.option("--vapour", options->equation, "MODEL", "Equation of state: pr (default), srk or pc-saft");
  command.option("--compare", options->compare, "LIST", "Repeat with these equations");
  command.option("--interactions", options->interactions, "FILE.csv",
                 "k_ij of pairs: a table first, second, k_ij");
  command.option("--temperature", options->temperature, "QUANTITY", "\"60 degC\", a list or a range");
  command.option("--pressure", options->pressure, "QUANTITY", "\"10 bar\", a list or a range");
  command
      .option("--composition", options->compositions, "TEXT",
              "\"A=0.3, B=0.7\", the last may be left out; may be repeated")
      .repeated();
  command.option("--basis", options->basis, "BASIS", "Fractions of moles or mass: mole or mass");
  command.flag("--translate", options->translated, "Translate the volumes of a cubic equation");
  command.flag(
      "--working", options->working,
      "Write out a, b, A, B, the cubic and its roots, or the packing fractions, for the first state");
  add_presentation(command, options->presentation, true);
  command.footer =
      "Example:\n"
      "  jampot fugacity propane n-hexane --composition propane=0.4 --temperature \"80 degC\" --pressure "
      "\"5, 10 bar\" "
      "--compare srk,pc-saft --working";
  answers(command, options->presentation, presenter, [options](const Presentation& presentation) {
    return answer(study(request_of(*options)), {presentation.units});
  });
}

}  // namespace jampot::tool
