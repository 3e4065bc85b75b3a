// estimate: pair parameters fitted to a prediction, or exactly to two limiting activity coefficients.
#include <fmt/format.h>

#include <algorithm>

#include "commands.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/known_words.hpp"
#include "jampot/files/mosced_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/report/estimate.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct EstimateCommand {
  std::vector<std::string> names, substance_files;
  std::string model = "nrtl", from = "unifac", temperature, form = "inverse_T", limits, mosced_data,
              molar_volume, out, doubtful_groups = "refuse";
  double alpha = 0.3, q = 1;
  PresentationOptions presentation;
};

EstimateRequest request_of(const EstimateCommand& options) {
  const auto bank = bank_with(options.substance_files);
  EstimateRequest request;
  request.substances = substances_named(options.names, *bank);
  request.options.model = options.model;
  request.options.alpha = options.alpha;
  request.options.doubtful_groups = parse_doubtful_groups(options.doubtful_groups);
  if (!options.limits.empty()) {
    if (options.temperature.empty()) throw RequestError("--limits needs the --temperature they hold at");
    if (request.substances.size() != 2) throw RequestError("--limits states one pair: name two substances");
    const double T_K = parse_quantity(options.temperature, Dimension::temperature);
    request.limits = LimitsToMeet{read_ln_gamma_inf(options.limits, request.substances, *bank), T_K};
    return request;
  }
  request.options.from = options.from;
  request.options.form = read_form(options.form);
  if (!options.temperature.empty()) {
    const std::string& T = options.temperature;
    const auto ends =
        parse_quantities(T.find(" to ") == std::string::npos ? T : T + " in 2", Dimension::temperature);
    request.options.T_range_K = {std::min(ends.front(), ends.back()), std::max(ends.front(), ends.back())};
  }
  return request;
}

Answer estimate(const EstimateCommand& options) {
  const EstimateStudy found = study(request_of(options));
  Answer told = answer(found);
  if (options.out.empty()) return told;
  std::vector<PairParameters> pairs;
  for (const EstimatedPair& one : found.pairs) pairs.push_back(one.estimate.pair);
  told.files.emplace_back(options.out, pairs_text(pairs));
  return told;
}

MoscedRequest mosced_of(const EstimateCommand& options) {
  if (options.names.size() != 1) throw RequestError("--mosced-from is about one substance: name it alone");
  const auto volume = parse_number(options.molar_volume.substr(0, options.molar_volume.find(' ')));
  if (!volume || !(*volume > 0))
    throw RequestError("--mosced-from needs --molar-volume, in cm3/mol, as in --molar-volume 92");
  const std::string& name = options.names.front();
  return {name, read_mosced_points(options.mosced_data, name, *bank_with(options.substance_files)), *volume,
          options.q};
}

}  // namespace

void add_estimate(Commands& tool, Presenter& presenter) {
  auto options = std::make_shared<EstimateCommand>();
  Command& command = tool.add(
      "estimate",
      "Pair parameters from a prediction (UNIFAC, MOSCED) or from two limiting activity coefficients");
  command
      .option("MIX", options->names, "NAME",
              "Substances: name, alias, formula or CAS number; or those of one FILE.mixture.toml")
      .needed();
  command.expand = [options] { expand_names(options->names, options->substance_files); };
  add_substance_files(command, options->substance_files);
  command.option("--model,--liquid", options->model, "MODEL",
                 "Model of the parameters: wilson, nrtl (default), uniquac, margules or redlich-kister");
  command.option("--from,--estimate-from", options->from, "MODEL",
                 "unifac (default), unifac-lle, unifac-dortmund or mosced");
  command.option("--doubtful-groups", options->doubtful_groups, "WHAT",
                 "A UNIFAC interaction that contradicts known data: refuse (default) or use");
  command.option("--temperature", options->temperature, "RANGE",
                 "Range to fit over (default \"25 to 100 degC\")");
  command.option("--form", options->form, "LIST",
                 "Coefficients of the temperature dependence (default inverse_T)");
  command.option("--alpha", options->alpha, "NUMBER", "Parameter alpha of NRTL (default 0.3)");
  command.option(
      "--limits", options->limits, "LIST",
      "Infinite-dilution activity coefficients to meet exactly: \"ethanol in water = 4.5, water in "
      "ethanol = 2.6\"");
  command.option("--mosced-from", options->mosced_data, "FILE.csv",
                 "MOSCED parameters of one new substance from its limits: solute, solvent, T, gamma");
  command.option("--molar-volume", options->molar_volume, "NUMBER",
                 "Molar volume of that substance, in cm3/mol");
  command.option("--induction", options->q, "NUMBER",
                 "MOSCED parameter q: 1 (default), 0.9 for aromatic molecules");
  command.option("--out", options->out, "FILE.pairs.toml", "Write the parameters to this file");
  add_presentation(command, options->presentation, false);
  command.footer =
      "Example:\n  jampot estimate ethanol toluene --model wilson --temperature \"60 to 110 degC\" --out "
      "estimate.pairs.toml";
  answers(command, options->presentation, presenter, [options](const Presentation&) {
    return options->mosced_data.empty() ? estimate(*options) : answer(study(mosced_of(*options)));
  });
}

}  // namespace jampot::tool
