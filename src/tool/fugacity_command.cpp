// fugacity: fugacity coefficients, compressibility and volume roots from an equation of state.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "commands.hpp"
#include "fluid_working.hpp"
#include "interactions.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/phase/composition.hpp"
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
    const VapourOptions file = expand_names(names, substance_files).vapour;
    if (equation.empty() && file.model != VapourOptions().model) equation = file.model;
    if (equation.empty()) equation = "pr";
    if (interactions.empty()) interactions = file.interactions;
    translated = translated || file.translated;
  }
};

class FugacityOf {
 public:
  explicit FugacityOf(const FugacityOptions& options)
      : options_(options),
        bank_(bank_with(options.substance_files)),
        substances_(substances_named(options.names, *bank_)),
        basis_(parse_basis(options.basis)) {
    if (options.temperature.empty() || options.pressure.empty())
      throw RequestError(
          "give --temperature and --pressure, as in --temperature \"25 degC\" --pressure \"10 bar\"");
    T_K_ = parse_quantities(options.temperature, Dimension::temperature);
    P_Pa_ = parse_quantities(options.pressure, Dimension::pressure);
    const InteractionTable interactions = read_interactions(options.interactions, *bank_);
    std::vector<std::string> wanted{options.equation};
    for (const std::string& piece : split(options.compare, ',')) {
      if (!piece.empty()) wanted.push_back(piece);
    }
    for (const std::string& name : wanted)
      models_.push_back(make_equation(name, substances_, interactions, options.translated));
    read_compositions();
  }

  Answer answer() {
    answer_.json = fluid_header("fugacity", substances_, *models_.front());
    Json names = Json::array();
    for (const auto& model : models_) names.push_back(model->name());
    answer_.json["models"] = {{"fluid", names}};
    answer_.json["roots"] = Json::array();
    for (const auto& model : models_) {
      for (const Notice& notice : model->notices()) {
        if (!answer_.notices.has(notice.code)) answer_.notices.add(notice.code, notice.text);
      }
      tabulate(*model);
    }
    if (models_.size() > 1) side_by_side();
    if (options_.working) work(*models_.front());
    return std::move(answer_);
  }

 private:
  void read_compositions() {
    if (substances_.size() == 1) {
      compositions_.push_back({1.0});
      return;
    }
    for (const std::string& text : options_.compositions)
      compositions_.push_back(parse_composition(text, substances_, basis_));
    if (compositions_.empty())
      throw RequestError(
          fmt::format("give the --composition, as in --composition \"{}=0.3\"", substances_[0].name));
  }

  void tabulate(EquationOfState& model) {
    const std::string title = model.name() == "pr"    ? "Peng-Robinson"
                              : model.name() == "srk" ? "Soave-Redlich-Kwong"
                                                      : "PC-SAFT";
    Table table{title,
                {{"T", Dimension::temperature, 2},
                 {"P", Dimension::pressure, 2},
                 {"root"},
                 {"Z", Dimension::number, 6},
                 {"v [cm3/mol]", Dimension::number, 2}},
                {}};
    for (const Substance& substance : substances_)
      table.columns.push_back({fmt::format("phi({})", substance.short_name()), Dimension::number, 5});
    table.columns.push_back({"h residual [J/mol]", Dimension::number, 1});
    table.columns.push_back({"s residual [J/(mol K)]", Dimension::number, 3});
    FluidState state(substances_.size());
    demand_count("states",
                 static_cast<double>(compositions_.size() * T_K_.size()) * static_cast<double>(P_Pa_.size()),
                 most_states);
    for (const auto& x : compositions_) {
      for (const double T_K : T_K_) {
        for (const double P_Pa : P_Pa_) {
          const auto roots = model.volumes(T_K, P_Pa, x);
          for (const VolumeRoot& root : roots) {
            const bool lowest = &root == &roots.stable();
            const std::string phase = roots.size() == 2
                                          ? (&root == &roots.front() ? "liquid" : "vapour")
                                          : (model.vapour_like(T_K, root.v_m3_mol, x) ? "gas" : "dense");
            fluid_state(model, T_K, root.v_m3_mol, x, false, state, P_Pa);
            std::vector<Cell> row{T_K, P_Pa, phase + (roots.size() == 2 && lowest ? ", stable" : ""), state.Z,
                                  1e6 * state.v_m3_mol};
            Json phi = Json::array();
            for (const double value : state.ln_phi) {
              row.emplace_back(std::exp(value));
              phi.push_back(std::exp(value));
            }
            row.insert(row.end(), {state.h_residual_J_mol, state.s_residual_J_mol_K});
            table.rows.push_back(std::move(row));
            answer_.json["roots"].push_back({{"fluid", model.name()},
                                             {"T_K", T_K},
                                             {"P_Pa", P_Pa},
                                             {"x", x},
                                             {"phase", phase},
                                             {"stable", lowest},
                                             {"Z", state.Z},
                                             {"v_m3_mol", state.v_m3_mol},
                                             {"phi", std::move(phi)},
                                             {"h_residual_J_mol", state.h_residual_J_mol},
                                             {"s_residual_J_mol_K", state.s_residual_J_mol_K}});
          }
        }
      }
    }
    answer_.tables.push_back(std::move(table));
  }

  // The stable root of every equation, beside each other.
  void side_by_side() {
    Table table{
        "Stable roots side by side", {{"T", Dimension::temperature, 2}, {"P", Dimension::pressure, 2}}, {}};
    for (const auto& model : models_) {
      table.columns.push_back({fmt::format("Z {}", model->name()), Dimension::number, 5});
      for (const Substance& substance : substances_)
        table.columns.push_back(
            {fmt::format("phi({}) {}", substance.short_name(), model->name()), Dimension::number, 5});
    }
    FluidState state(substances_.size());
    for (const auto& x : compositions_) {
      for (const double T_K : T_K_) {
        for (const double P_Pa : P_Pa_) {
          std::vector<Cell> row{T_K, P_Pa};
          for (const auto& model : models_) {
            const VolumeRoots roots = model->volumes(T_K, P_Pa, x);
            fluid_state(*model, T_K, roots.stable().v_m3_mol, x, false, state, P_Pa);
            row.emplace_back(state.Z);
            for (const double value : state.ln_phi) row.emplace_back(std::exp(value));
          }
          table.rows.push_back(std::move(row));
        }
      }
    }
    answer_.tables.push_back(std::move(table));
  }

  // The calculation for the first state, with the numbers put in.
  void work(EquationOfState& model) {
    const auto& x = compositions_.front();
    const double T = T_K_.front(), P = P_Pa_.front();
    const auto lines = fluid_working(model, substances_, T, P, x);
    answer_.json["working"] = lines;
    answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
  }

  const FugacityOptions& options_;
  std::shared_ptr<const Bank> bank_;
  std::vector<Substance> substances_;
  Basis basis_;
  std::vector<double> T_K_, P_Pa_;
  std::vector<std::unique_ptr<EquationOfState>> models_;
  std::vector<std::vector<double>> compositions_;
  Answer answer_;
};

}  // namespace

void add_fugacity(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<FugacityOptions>();
  CLI::App* command = tool.add_subcommand(
      "fugacity", "Fugacity coefficients, compressibility and volume roots from an equation of state");
  command
      ->add_option("MIX", options->names,
                   "Substances: name, alias, formula or CAS number; or one FILE.mixture.toml")
      ->required()
      ->type_name("NAME");
  command->parse_complete_callback([options] { options->expand(); });
  add_substance_files(*command, options->substance_files);
  command->add_option("--vapour", options->equation, "Equation of state: pr (default), srk or pc-saft")
      ->type_name("MODEL");
  command->add_option("--compare", options->compare, "Repeat with these equations")->type_name("LIST");
  command->add_option("--interactions", options->interactions, "k_ij of pairs: a table first, second, k_ij")
      ->type_name("FILE.csv");
  command->add_option("--temperature", options->temperature, "\"60 degC\", a list or a range")
      ->type_name("QUANTITY");
  command->add_option("--pressure", options->pressure, "\"10 bar\", a list or a range")
      ->type_name("QUANTITY");
  command
      ->add_option("--composition", options->compositions,
                   "\"A=0.3, B=0.7\", the last may be left out; may be repeated")
      ->type_name("TEXT")
      ->expected(1)
      ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
  command->add_option("--basis", options->basis, "Fractions of moles or mass: mole or mass")
      ->type_name("BASIS");
  command->add_flag("--translate", options->translated, "Translate the volumes of a cubic equation");
  command->add_flag(
      "--working", options->working,
      "Write out a, b, A, B, the cubic and its roots, or the packing fractions, for the first state");
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example:\n"
      "  jampot fugacity propane n-hexane --composition propane=0.4 --temperature \"80 degC\" --pressure "
      "\"5, 10 bar\" "
      "--compare srk,pc-saft --working");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(FugacityOf(*options).answer(), presentation);
  });
}

}  // namespace jampot::tool
