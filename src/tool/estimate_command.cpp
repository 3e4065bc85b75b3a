// estimate: pair parameters fitted to a prediction, or exactly to two limiting activity coefficients.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "commands.hpp"
#include "fit_tables.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/estimate.hpp"
#include "jampot/regression/mosced_fit.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct EstimateCommand {
  std::vector<std::string> names, substance_files;
  std::string model = "nrtl", from = "unifac", temperature, form = "inverse_T", limits, mosced_data,
              molar_volume, out;
  double alpha = 0.3, q = 1;
  PresentationOptions presentation;
};

// "ethanol in water = 4.5, water in ethanol = 2.6", as ln gamma of the first in the second and the reverse.
std::array<double, 2> read_limits(const std::string& text, const std::vector<Substance>& pair,
                                  const Bank& bank) {
  std::array<double, 2> ln_gamma{NAN, NAN};
  for (const std::string& piece : split(text, ',')) {
    const std::size_t in = piece.find(" in "), equals = piece.rfind('=');
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(piece.substr(equals + 1));
    if (in == std::string::npos || equals < in || !value || !(*value > 0)) {
      throw RequestError(
          fmt::format("--limits '{}': expected \"SOLUTE in SOLVENT = GAMMA\", as in \"{} in {} = 3.2\"",
                      piece, pair[0].name, pair[1].name));
    }
    const std::string solute = bank.require(piece.substr(0, in)).name;
    const std::string solvent = bank.require(piece.substr(in + 4, equals - in - 4)).name;
    const bool first = solute == pair[0].name && solvent == pair[1].name;
    if (!first && !(solute == pair[1].name && solvent == pair[0].name)) {
      throw RequestError(
          fmt::format("--limits '{}' is not about {} and {}", piece, pair[0].name, pair[1].name));
    }
    ln_gamma[first ? 0 : 1] = std::log(*value);
  }
  if (std::isnan(ln_gamma[0]) || std::isnan(ln_gamma[1])) {
    throw RequestError("--limits needs both limits: each of the two in the other");
  }
  return ln_gamma;
}

Answer estimate(const EstimateCommand& options) {
  const auto bank = bank_with(options.substance_files);
  const std::vector<Substance> substances = substances_named(options.names, *bank);
  if (substances.size() < 2) throw RequestError("estimate needs at least two substances");
  Answer answer;
  std::vector<PairParameters> pairs;
  Table table{"Estimated parameters", {{"pair"}, {"term"}, {"coefficient"}, {"value"}}, {}};
  Table quality{"How well the model follows what it was fitted to",
                {{"pair"},
                 {"states", Dimension::number, 0},
                 {"RMS of ln gamma", Dimension::number, 4},
                 {"limits predicted"},
                 {"limits fitted"}},
                {}};
  Json fits = Json::array();
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      const std::vector<Substance> pair{substances[i], substances[j]};
      const std::string names = substances[i].short_name() + " - " + substances[j].short_name();
      Json json{{"model", options.model}};
      if (!options.limits.empty()) {
        if (options.temperature.empty()) throw RequestError("--limits needs the --temperature they hold at");
        if (substances.size() != 2) throw RequestError("--limits states one pair: name two substances");
        const double T_K = parse_quantity(options.temperature, Dimension::temperature);
        pairs.push_back(pair_from_limits(pair[0], pair[1], options.model,
                                         read_limits(options.limits, pair, *bank), T_K, options.alpha));
        json["objective"] = 0.0;
      } else {
        EstimateOptions wanted;
        wanted.model = options.model;
        wanted.from = options.from;
        wanted.form = parse_form(options.form);
        wanted.alpha = options.alpha;
        if (!options.temperature.empty()) {
          const std::string& T = options.temperature;
          const auto ends =
              parse_quantities(T.find(" to ") == std::string::npos ? T : T + " in 2", Dimension::temperature);
          wanted.range_K = {std::min(ends.front(), ends.back()), std::max(ends.front(), ends.back())};
        }
        const Estimate found = estimate_pair(pair[0], pair[1], wanted);
        pairs.push_back(found.pair);
        answer.notices.add(found.notices);
        const auto both = [&](const std::array<double, 2>& ln_gamma) {
          return fmt::format("{:.4g} ({} in {}), {:.4g} ({} in {})", std::exp(ln_gamma[0]),
                             pair[0].short_name(), pair[1].short_name(), std::exp(ln_gamma[1]),
                             pair[1].short_name(), pair[0].short_name());
        };
        quality.rows.push_back({names, static_cast<double>(found.states), found.rms_ln_gamma,
                                both(found.predicted_limits), both(found.fitted_limits)});
        json["objective"] = found.rms_ln_gamma * found.rms_ln_gamma * found.states;
        json["rms_ln_gamma"] = found.rms_ln_gamma;
      }
      for (const TermForFit& term : terms_for_fit(options.model)) {
        for (const Coefficient coefficient : all_coefficients) {
          const double value = pairs.back().terms.at(term.name)[coefficient];
          if (value == 0) continue;
          table.rows.push_back(
              {names, term.name, std::string(name_of(coefficient)), fmt::format("{:.6g}", value)});
          json["parameters"].push_back({{"name", fmt::format("{}.{}", term.name, name_of(coefficient))},
                                        {"value", value},
                                        {"std_error", nullptr}});
        }
      }
      fits.push_back(std::move(json));
    }
  }
  answer.json = plain_header("estimate");
  answer.json["models"]["liquid"] = options.model;
  for (const Substance& substance : substances)
    answer.json["substances"].push_back(jampot::to_json(substance));
  for (const PairParameters& pair : pairs) answer.json["parameters"].push_back(jampot::to_json(pair));
  answer.json["fits"] = std::move(fits);
  answer.tables.push_back(std::move(table));
  if (!quality.rows.empty()) answer.tables.push_back(std::move(quality));
  if (!options.out.empty()) answer.files.emplace_back(options.out, pairs_text(pairs));
  return answer;
}

// MOSCED parameters of one substance from its limits: columns solute, solvent, T, gamma (and u(gamma)).
std::vector<MoscedPoint> read_mosced_points(const std::string& file, const std::string& own,
                                            const Bank& bank) {
  const CsvTable table(read_file(file), file);
  std::string T_unit;
  std::size_t T_column = table.header().size();
  for (std::size_t k = 0; k < table.header().size(); ++k) {
    const std::string& title = table.header()[k];
    const std::size_t open = title.find('[');
    if (trimmed(title.substr(0, open)) != "T" || open == std::string::npos) continue;
    T_column = k;
    T_unit = title.substr(open + 1, title.find(']') - open - 1);
  }
  if (T_column == table.header().size()) throw RequestError(table.header_place(), "no column 'T [degC]'");
  const std::size_t solute = table.column("solute"), solvent = table.column("solvent"),
                    gamma = table.column("gamma");
  const auto uncertainty = std::find(table.header().begin(), table.header().end(), "u(gamma)");
  std::vector<MoscedPoint> points;
  for (std::size_t row = 0; row < table.rows(); ++row) {
    const bool as_solute = lower_case(table.text(row, solute)) == lower_case(own);
    if (!as_solute && lower_case(table.text(row, solvent)) != lower_case(own)) {
      throw RequestError(table.place(row, solute), fmt::format("neither solute nor solvent is {}", own));
    }
    MoscedPoint point;
    try {
      point.partner = bank.require(table.text(row, as_solute ? solvent : solute));
    } catch (const RequestError& error) {
      throw RequestError(table.place(row, as_solute ? solvent : solute), error.what());
    }
    point.as_solute = as_solute;
    point.T_K = to_si(table.number(row, T_column), T_unit, Dimension::temperature);
    point.gamma = table.number(row, gamma);
    if (!(point.gamma > 0) || !(point.T_K > 0))
      throw RequestError(table.place(row, gamma), "gamma and T are positive");
    point.u_gamma = 0.05 * point.gamma;
    if (uncertainty != table.header().end()) {
      point.u_gamma = table.number(row, static_cast<std::size_t>(uncertainty - table.header().begin()));
      if (!(point.u_gamma > 0)) throw RequestError(table.place(row, gamma), "u(gamma) must be positive");
    }
    point.line = table.place(row, 0).line;
    points.push_back(std::move(point));
  }
  return points;
}

Answer estimate_mosced(const EstimateCommand& options) {
  if (options.names.size() != 1) throw RequestError("--mosced-from is about one substance: name it alone");
  const auto volume = parse_number(options.molar_volume.substr(0, options.molar_volume.find(' ')));
  if (!volume || !(*volume > 0))
    throw RequestError("--mosced-from needs --molar-volume, in cm3/mol, as in --molar-volume 92");
  const auto bank = bank_with(options.substance_files);
  const std::string& name = options.names.front();
  const auto points = read_mosced_points(options.mosced_data, name, *bank);
  const MoscedFit found = fit_mosced(points, *volume, options.q);
  const MoscedParameters& p = found.parameters;
  Answer answer;
  answer.json = plain_header("estimate");
  answer.json["models"]["liquid"] = "mosced";
  Table table{
      fmt::format("MOSCED parameters of {}", name),
      {{"parameter"}, {"value", Dimension::number, 4}, {"standard error", Dimension::number, 4}, {"remark"}},
      {}};
  Json fit{{"model", "mosced"}, {"rms_ln_gamma", found.rms_ln_gamma}};
  const auto add = [&](const char* parameter, double value, std::optional<double> error) {
    table.rows.push_back(
        {std::string(parameter), value, error ? Cell(*error) : Cell(), std::string(error ? "" : "given")});
    fit["parameters"].push_back(
        {{"name", parameter}, {"value", value}, {"std_error", error ? Json(*error) : Json(nullptr)}});
  };
  add("v", p.v_cm3_mol, std::nullopt);
  add("q", p.q, std::nullopt);
  add("lambda", p.lambda, found.std_error[0]);
  add("tau", p.tau, found.std_error[1]);
  add("alpha", p.alpha, found.std_error[2]);
  add("beta", p.beta, found.std_error[3]);
  answer.tables.push_back(std::move(table));
  Table limits{fmt::format("Limits, RMS of ln gamma {:.3f}", found.rms_ln_gamma),
               {{"line", Dimension::number, 0},
                {"solute in solvent"},
                {"T", Dimension::temperature, 2},
                {"measured", Dimension::number, 3},
                {"model", Dimension::number, 3}},
               {}};
  for (std::size_t k = 0; k < points.size(); ++k) {
    const std::string& partner = points[k].partner.name;
    limits.rows.push_back({static_cast<double>(points[k].line),
                           points[k].as_solute ? fmt::format("{} in {}", name, partner)
                                               : fmt::format("{} in {}", partner, name),
                           points[k].T_K, points[k].gamma, found.model[k]});
  }
  answer.tables.push_back(std::move(limits));
  answer.json["fits"] = Json::array({std::move(fit)});
  answer.notices.add(found.notices);
  answer.lines.push_back(
      fmt::format("to use them: jampot define {} ... --mosced \"v={:.6g}, lambda={:.6g}, tau={:.6g}, "
                  "q={:.6g}, alpha={:.6g}, beta={:.6g}\"",
                  name, p.v_cm3_mol, p.lambda, p.tau, p.q, p.alpha, p.beta));
  return answer;
}

}  // namespace

void add_estimate(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<EstimateCommand>();
  CLI::App* command = tool.add_subcommand(
      "estimate",
      "Pair parameters from a prediction (UNIFAC, MOSCED) or from two limiting activity coefficients");
  command
      ->add_option("MIX", options->names,
                   "Substances: name, alias, formula or CAS number; or those of one FILE.mixture.toml")
      ->required()
      ->type_name("NAME");
  command->parse_complete_callback([options] { expand_names(options->names, options->substance_files); });
  add_substance_files(*command, options->substance_files);
  command
      ->add_option("--model", options->model, "Whose parameters: wilson, nrtl (default), uniquac or margules")
      ->type_name("MODEL");
  command->add_option("--from", options->from, "unifac (default), unifac-lle, unifac-dortmund or mosced")
      ->type_name("MODEL");
  command->add_option("--temperature", options->temperature, "Range to fit over (default \"25 to 100 degC\")")
      ->type_name("RANGE");
  command
      ->add_option("--form", options->form, "Coefficients of the temperature dependence (default inverse_T)")
      ->type_name("LIST");
  command->add_option("--alpha", options->alpha, "Of NRTL (default 0.3)")->type_name("NUMBER");
  command
      ->add_option("--limits", options->limits,
                   "Limiting activity coefficients to meet exactly: \"ethanol in water = 4.5, water in "
                   "ethanol = 2.6\"")
      ->type_name("LIST");
  command
      ->add_option("--mosced-from", options->mosced_data,
                   "MOSCED parameters of one new substance from its limits: solute, solvent, T, gamma")
      ->type_name("FILE.csv");
  command->add_option("--molar-volume", options->molar_volume, "Of that substance, in cm3/mol")
      ->type_name("NUMBER");
  command->add_option("--induction", options->q, "Its parameter q: 1 (default), 0.9 for aromatic molecules")
      ->type_name("NUMBER");
  command->add_option("--out", options->out, "Write the parameters to this file")
      ->type_name("FILE.pairs.toml");
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example:\n  jampot estimate ethanol toluene --model wilson --temperature \"60 to 110 degC\" --out "
      "estimate.pairs.toml");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(options->mosced_data.empty() ? estimate(*options) : estimate_mosced(*options),
                      presentation);
  });
}

}  // namespace jampot::tool
