// azeotropes: all of them, of all orders, with the way residue curves run about them.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "commands.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/fluid_azeotropes.hpp"
#include "jampot/draw/residue_figure.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/regression/uncertainty.hpp"
#include "liquids.hpp"
#include "options.hpp"
#include "progress_line.hpp"
#include "singular_tables.hpp"

namespace jampot::tool {
namespace {

struct AzeotropesOptions {
  MixtureOptions mixture;
  std::string pressure;
  bool all = false, uncertainty = false, working = false;
  PresentationOptions presentation;
};

class AzeotropesOf {
 public:
  explicit AzeotropesOf(const AzeotropesOptions& options)
      : options_(options),
        basis_(parse_basis(options.mixture.basis)),
        contenders_(options.mixture.contenders(answer_.notices)) {
    if (options.pressure.empty())
      throw RequestError("give the --pressure, as in --pressure \"1 atm\" or \"1, 2, 5 bar\"");
    P_Pa_ = parse_quantities(options.pressure, Dimension::pressure);
    demand_count("pressures", static_cast<double>(P_Pa_.size()), 200);
  }

  Answer answer(bool shows_progress) {
    answer_.json = contenders_header("azeotropes", contenders_);
    answer_.json["azeotropes"] = Json::array();
    Table table = empty_table();
    Progress progress;
    const ProgressLine line("searches for azeotropes", progress, shows_progress);
    for (Contender& contender : contenders_) {
      double coldest = HUGE_VAL, hottest = 0;
      for (const double P_Pa : P_Pa_) {
        const SingularPoints found = contender.mixture.one_equation()
                                         ? fluid_singular_points(contender.mixture, P_Pa)
                                         : singular_points(contender.mixture, P_Pa, &progress);
        std::vector<std::optional<SingularUncertainty>> u(found.points.size());
        if (options_.uncertainty) u = singular_uncertainties(contender.mixture, P_Pa, found.points);
        for (std::size_t k = 0; k < found.points.size(); ++k) {
          const SingularPoint& point = found.points[k];
          coldest = std::min(coldest, point.T_K);
          hottest = std::max(hottest, point.T_K);
          add(point, u[k], P_Pa, contender, table);
        }
        if (!first_) first_ = found;
        answer_.notices.add(found.notices);
        add_doubtful_predictions(contender.mixture, found.points, answer_.notices);
        if (options_.working && working_.empty()) working_ = azeotrope_working(contender.mixture, found);
        Json balance{{"P_Pa", P_Pa},
                     {"sum", found.index_sum},
                     {"expected", found.index_expected},
                     {"balanced", found.balanced()}};
        if (compared()) balance["liquid"] = contender.label;
        answer_.json["index_balance"].push_back(std::move(balance));
        answer_.lines.push_back(fmt::format("{}{:.6g} kPa: {}", compared() ? contender.label + ", " : "",
                                            P_Pa / 1000, balance_of(found)));
      }
      answer_.notices.add(contender.mixture.range_notices(coldest, hottest));
      answer_.notices.add(
          suitability(contender.mixture, Purpose::vapour_liquid, coldest, hottest, P_Pa_.back()));
    }
    if (options_.working) {
      answer_.json["working"] = working_;
      answer_.lines.insert(answer_.lines.end(), working_.begin(), working_.end());
    }
    if (table.rows.empty()) answer_.lines.emplace_back("no azeotrope");
    if (!table.rows.empty()) answer_.tables.push_back(std::move(table));
    if (P_Pa_.size() == 1) {
      draw_at_one_pressure();
    } else if (moves_.empty()) {
      answer_.no_figure = "there is no azeotrope to draw at any of these pressures";
    } else {
      answer_.figure = plot_figure(moves_, fraction() + " against P", options_.presentation.read().units);
      std::vector<std::string> names;
      for (const Substance& substance : substances()) names.push_back(substance.short_name());
      answer_.figure->title = fmt::format("Azeotropes of {} against pressure", joined(names, ", "));
      if (moves_.size() == 1)
        answer_.figure->panels.front().y.label =
            fmt::format("{} of {} in {}", fraction(), first_member_, moves_.front().title);
      answer_.figure->footer = "of the substance named first in each azeotrope; models: " + labels();
    }
    return std::move(answer_);
  }

 private:
  // Three substances: where the singular points lie in the triangle. Others need several pressures.
  void draw_at_one_pressure() {
    if (substances().size() != 3 || compared()) {
      answer_.no_figure = fmt::format(
          "at one pressure there is nothing to draw of {}; give several pressures, as in --pressure \"0.5 to "
          "5 by "
          "0.5 bar\"{}",
          compared() ? "several models" : fmt::format("{} substances", substances().size()),
          substances().size() == 2 ? ", or draw txy" : "");
      return;
    }
    ResidueMap points;
    points.P_Pa = P_Pa_.front();
    points.singular = *first_;
    ResidueFigureOptions drawing;
    drawing.units = options_.presentation.read().units;
    drawing.basis = basis_;
    answer_.figure = residue_figure(points, substances(), drawing);
    answer_.figure->title.replace(0, answer_.figure->title.find(" of "), "Azeotropes");
    jampot::tool::sign(*answer_.figure, contenders_, answer_.notices);
  }

  std::string fraction() const { return basis_ == Basis::mole ? "mole fraction" : "mass fraction"; }
  bool compared() const { return contenders_.size() > 1; }
  const std::vector<Substance>& substances() const { return contenders_.front().mixture.substances(); }

  std::string labels() const {
    std::vector<std::string> list;
    for (const Contender& contender : contenders_) list.push_back(contender.label);
    return joined(list, "; ");
  }

  Table empty_table() const {
    Table table{options_.all ? "Pure substances and azeotropes" : "Azeotropes", {}, {}};
    if (compared()) table.columns.push_back({"model"});
    table.columns.insert(table.columns.end(),
                         {{"members"}, {"P", Dimension::pressure, 3}, {"T", Dimension::temperature, 3}});
    for (const Substance& substance : substances())
      table.columns.push_back(
          {fmt::format("{}({})", basis_ == Basis::mole ? "x" : "w", substance.short_name()),
           Dimension::fraction, 5});
    table.columns.insert(table.columns.end(), {{"kind"}, {"residue curves"}});
    if (options_.uncertainty) {
      table.columns.push_back({"u(T) [K]", Dimension::number, 3});
      for (const Substance& substance : substances())
        table.columns.push_back({fmt::format("u(x({}))", substance.short_name()), Dimension::number, 5});
    }
    return table;
  }

  void add(const SingularPoint& point, const std::optional<SingularUncertainty>& u, double P_Pa,
           const Contender& contender, Table& table) {
    const std::vector<double> shown = basis_ == Basis::mole ? point.x : mass_fractions(point.x, substances());
    const std::string members = members_of(point, substances());
    Json json = to_json(point, P_Pa, substances());
    if (compared()) json["liquid"] = contender.label;
    if (u && point.members.size() > 1) {
      json["u_x"] = u->u_x;
      json["u_T_K"] = u->u_T_K;
    }
    answer_.json[point.members.size() == 1 ? "pure" : "azeotropes"].push_back(std::move(json));
    if (point.members.size() == 1 && !options_.all) return;
    std::vector<Cell> row;
    if (compared()) row.emplace_back(contender.label);
    row.insert(row.end(), {members, P_Pa, point.T_K});
    row.insert(row.end(), shown.begin(), shown.end());
    row.insert(row.end(), {kind_of(point), std::string(name_of(point.stability))});
    if (options_.uncertainty) {
      const bool given = u && point.members.size() > 1;
      row.emplace_back(given ? Cell(u->u_T_K)
                             : Cell(std::string(point.members.size() > 1 ? "vanishing" : "")));
      for (std::size_t i = 0; i < substances().size(); ++i)
        row.emplace_back(given ? Cell(u->u_x[i]) : Cell(std::string()));
    }
    table.rows.push_back(std::move(row));
    if (point.members.size() == 1) return;
    const std::string title = members + (compared() ? ", " + contender.label : "");
    auto curve = std::find_if(moves_.begin(), moves_.end(), [&](const Table& t) { return t.title == title; });
    if (curve == moves_.end()) {
      moves_.push_back({title, {{"P", Dimension::pressure}, {fraction(), Dimension::fraction}}, {}});
      curve = moves_.end() - 1;
      first_member_ = substances()[point.members.front()].short_name();
    }
    curve->rows.push_back({P_Pa, shown[point.members.front()]});
  }

  const AzeotropesOptions& options_;
  Answer answer_;
  Basis basis_;
  std::vector<Contender> contenders_;
  std::vector<double> P_Pa_;
  std::optional<SingularPoints> first_;
  std::vector<Table> moves_;
  std::vector<std::string> working_;
  std::string first_member_;  ///< of the last of them
};

}  // namespace

void add_azeotropes(CLI::App& tool, Presenter& presenter) {
  auto options = std::make_shared<AzeotropesOptions>();
  CLI::App* command = tool.add_subcommand(
      "azeotropes", "All azeotropes of two to five substances, and how residue curves run about them");
  add_mixture(*command, options->mixture, false);
  add_vapour(*command, options->mixture.vapour);
  add_compare(*command, options->mixture);
  command
      ->add_option("--pressure", options->pressure,
                   "\"1 atm\", or several to see how azeotropes move: \"0.2 to 5 by 0.4 bar\"")
      ->type_name("QUANTITY");
  command->add_flag("--all", options->all, "List the pure substances too");
  command->add_flag(
      "--uncertainty", options->uncertainty,
      "Standard uncertainties of T and mole fractions that follow from those of fitted parameters");
  command->add_flag("--working", options->working, "Write out the first azeotrope, equation by equation");
  add_presentation(*command, options->presentation, true);
  command->footer(
      "Example:\n  jampot azeotropes acetone chloroform methanol --liquid unifac --pressure \"1 atm\" --all");
  command->callback([options, &presenter] {
    const Presentation presentation = options->presentation.read();
    presenter.present(AzeotropesOf(*options).answer(presenter.shows_progress()), presentation);
  });
}

}  // namespace jampot::tool
