// fugacity: fugacity coefficients, compressibility and volume roots from an equation of state.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "interactions.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/fluid/cubic.hpp"
#include "jampot/phase/composition.hpp"
#include "options.hpp"

namespace jampot::tool {
namespace {

struct FugacityOptions {
  std::vector<std::string> names, substance_files, compositions;
  std::string equation = "pr", compare, interactions, temperature, pressure, basis = "mole";
  bool working = false;
  PresentationOptions presentation;
};

const std::vector<std::string>& equations() {
  static const std::vector<std::string> list{"pr", "srk"};
  return list;
}

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
    for (const std::string& name : wanted) {
      if (std::find(equations().begin(), equations().end(), name) == equations().end())
        throw RequestError(fmt::format("'{}' is not an equation of state; there are {}.{}", name,
                                       joined(equations(), ", "), did_you_mean(name, equations())));
      models_.emplace_back(
          name == "pr" ? CubicEquation::Form::peng_robinson : CubicEquation::Form::soave_redlich_kwong,
          substances_, interactions);
    }
    read_compositions();
  }

  Answer answer() {
    answer_.json = plain_header("fugacity");
    for (const Substance& substance : substances_) answer_.json["substances"].push_back(to_json(substance));
    Json names = Json::array();
    for (const CubicEquation& model : models_) names.push_back(model.name());
    answer_.json["models"] = {{"fluid", names}};
    answer_.json["roots"] = Json::array();
    parameters();
    for (CubicEquation& model : models_) {
      for (const Notice& notice : model.notices()) {
        if (!answer_.notices.has(notice.code)) answer_.notices.add(notice.code, notice.text);
      }
      tabulate(model);
    }
    if (options_.working) work(models_.front());
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

  void parameters() {
    for (const Substance& substance : substances_) {
      for (const auto& [what, value] : {std::pair("critical temperature", &substance.Tc_K),
                                        std::pair("critical pressure", &substance.Pc_Pa),
                                        std::pair("acentric factor", &substance.acentric_factor)}) {
        answer_.json["parameters"].push_back({{"substance", substance.name},
                                              {"property", what},
                                              {"value", (*value)->value},
                                              {"source", (*value)->source},
                                              {"grade", std::string(1, (*value)->grade)},
                                              {"range_K", nullptr}});
      }
    }
  }

  void tabulate(CubicEquation& model) {
    const std::string title = model.name() == "pr" ? "Peng-Robinson" : "Soave-Redlich-Kwong";
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
    for (const auto& x : compositions_) {
      for (const double T_K : T_K_) {
        for (const double P_Pa : P_Pa_) {
          const auto roots = model.volumes(T_K, P_Pa, x);
          const auto stable =
              std::min_element(roots.begin(), roots.end(),
                               [](const VolumeRoot& a, const VolumeRoot& b) { return a.gibbs < b.gibbs; });
          for (const VolumeRoot& root : roots) {
            const bool lowest = &root == &*stable;
            // A single root is named by its density against the critical one of a cubic.
            const double b = model.mixed(T_K, P_Pa, x).b;
            constexpr double critical = 4;  // v/b at the critical point is 3.8 to 3.95
            const std::string phase = roots.size() == 2 ? (&root == &roots.front() ? "liquid" : "vapour")
                                                        : (root.v_m3_mol < critical * b ? "dense" : "gas");
            fluid_state(model, T_K, root.v_m3_mol, x, false, state);
            std::vector<Cell> row{T_K, P_Pa, phase + (roots.size() == 2 && lowest ? ", stable" : ""), root.Z,
                                  1e6 * root.v_m3_mol};
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
                                             {"Z", root.Z},
                                             {"v_m3_mol", root.v_m3_mol},
                                             {"phi", std::move(phi)},
                                             {"h_residual_J_mol", state.h_residual_J_mol},
                                             {"s_residual_J_mol_K", state.s_residual_J_mol_K}});
          }
        }
      }
    }
    answer_.tables.push_back(std::move(table));
  }

  // The calculation for the first state, with the numbers put in.
  void work(CubicEquation& model) {
    const auto& x = compositions_.front();
    const double T = T_K_.front(), P = P_Pa_.front();
    const auto m = model.mixed(T, P, x);
    std::vector<std::string> lines;
    const bool pr = model.name() == "pr";
    lines.push_back(pr ? "P = R T/(v - b) - a/(v^2 + 2 b v - b^2)" : "P = R T/(v - b) - a/(v (v + b))");
    lines.push_back(
        pr ? "a_i = 0.45724 (R Tc)^2/Pc alpha,  b_i = 0.07780 R Tc/Pc,  alpha = (1 + m (1 - sqrt(T/Tc)))^2"
           : "a_i = 0.42748 (R Tc)^2/Pc alpha,  b_i = 0.08664 R Tc/Pc,  alpha = (1 + m (1 - sqrt(T/Tc)))^2");
    for (std::size_t i = 0; i < substances_.size(); ++i) {
      lines.push_back(fmt::format(
          "{}: Tc = {:.2f} K, Pc = {:.1f} kPa, w = {:.4f}: a = {:.5f} Pa m6/mol2, b = {:.4f} cm3/mol",
          substances_[i].short_name(), double(*substances_[i].Tc_K), *substances_[i].Pc_Pa / 1000,
          double(*substances_[i].acentric_factor), model.a(i, T), 1e6 * model.b(i)));
    }
    for (std::size_t i = 0; i < substances_.size(); ++i) {
      for (std::size_t j = i + 1; j < substances_.size(); ++j)
        lines.push_back(fmt::format("k({}, {}) = {:.4f}", substances_[i].short_name(),
                                    substances_[j].short_name(), model.k(i, j)));
    }
    lines.push_back(
        fmt::format("mixture: a = sum x_i x_j sqrt(a_i a_j) (1 - k_ij) = {:.5f} Pa m6/mol2, b = sum x_i b_i "
                    "= {:.4f} cm3/mol",
                    m.a, 1e6 * m.b));
    lines.push_back(fmt::format("A = a P/(R T)^2 = {:.6f}, B = b P/(R T) = {:.6f}", m.A, m.B));
    lines.push_back(fmt::format("Z^3 {:+.6f} Z^2 {:+.6f} Z {:+.6f} = 0", m.cubic[1], m.cubic[2], m.cubic[3]));
    std::string roots = "roots with dP/dv < 0:";
    for (const VolumeRoot& root : model.volumes(T, P, x))
      roots += fmt::format(" Z = {:.6f} (sum x ln phi = {:.6f})", root.Z, root.gibbs);
    lines.push_back(roots + "; the lowest sum x ln phi is stable");
    answer_.json["working"] = lines;
    answer_.lines.insert(answer_.lines.end(), lines.begin(), lines.end());
  }

  const FugacityOptions& options_;
  std::shared_ptr<const Bank> bank_;
  std::vector<Substance> substances_;
  Basis basis_;
  std::vector<double> T_K_, P_Pa_;
  std::vector<CubicEquation> models_;
  std::vector<std::vector<double>> compositions_;
  Answer answer_;
};

}  // namespace

void add_fugacity(CLI::App& tool) {
  auto options = std::make_shared<FugacityOptions>();
  CLI::App* command = tool.add_subcommand(
      "fugacity", "Fugacity coefficients, compressibility and volume roots from an equation of state");
  command->add_option("MIX", options->names, "Substances: name, alias, formula or CAS number")
      ->required()
      ->type_name("NAME");
  add_substance_files(*command, options->substance_files);
  command->add_option("--vapour", options->equation, "Equation of state: pr (default) or srk")
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
  command->add_flag("--working", options->working,
                    "Write out a, b, A, B, the cubic and its roots for the first state");
  add_presentation(*command, options->presentation, false);
  command->footer(
      "Example:\n"
      "  jampot fugacity propane n-hexane --composition propane=0.4 --temperature \"80 degC\" --pressure "
      "\"5, 10 bar\" "
      "--compare srk --working");
  command->callback([options] {
    const Presentation presentation = options->presentation.read();
    present(FugacityOf(*options).answer(), presentation);
  });
}

}  // namespace jampot::tool
