#include "fit_tables.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

std::string probability_text(double probability) {
  return probability < 1e-15 ? "below 1e-15" : fmt::format("{:.2g}", probability);
}

std::string runs_text(const RunsTest& runs) {
  return fmt::format("{} runs, {:.1f} expected, probability {}", runs.runs, runs.expected,
                     probability_text(runs.probability));
}

}  // namespace

namespace {

std::string interval_text(const FittedParameter& parameter) {
  if (parameter.held) return "";
  const auto end = [](double value) {
    return std::isfinite(value) ? fmt::format("{:.5g}", value) : std::string("open");
  };
  return fmt::format("{} to {}{}", end(parameter.low), end(parameter.high),
                     parameter.profiled ? " (profile)" : "");
}

}  // namespace

std::string file_name(const std::string& path) {
  return std::filesystem::path(path).filename().string();
}

Table parameter_table(const Fit& fit) {
  const std::string numbers =
      fit.substances.size() == 2
          ? fmt::format(" (1 = {}, 2 = {})", fit.substances[0].name, fit.substances[1].name)
          : std::string();
  Table table{fmt::format("{} parameters{}", fit.options.model, numbers),
              {{"parameter"},
               {"value", Dimension::number, 4},
               {"standard error", Dimension::number, 4},
               {"95 % interval"},
               {"unit"}},
              {}};
  for (const FittedParameter& parameter : fit.parameters) {
    std::string unit;
    if (parameter.coefficient == Coefficient::inverse_T || parameter.term == "offset of T") unit = "K";
    if (parameter.coefficient == Coefficient::linear_T) unit = "1/K";
    if (parameter.held) unit = "held, not fitted";
    if (parameter.tied_to) unit = "tied to " + fit.parameters[*parameter.tied_to].name;
    table.rows.push_back({parameter.name, parameter.value,
                          parameter.held ? Cell() : Cell(parameter.std_error), interval_text(parameter),
                          unit});
  }
  const auto free = fit.free();
  for (std::size_t k = 0; k < free.size() && free.size() > 1; ++k) {
    table.columns.push_back({fmt::format("r({})", free[k]->name), Dimension::number, 3});
    std::size_t row = 0;
    for (std::size_t p = 0; p < fit.parameters.size(); ++p) {
      table.rows[p].push_back(fit.parameters[p].is_free() ? Cell(fit.correlation(row++, k)) : Cell());
    }
  }
  return table;
}

Table statistics_table(const Fit& fit) {
  Table table{"Quality of the fit", {{"quantity"}, {"value"}}, {}};
  const auto add = [&](const std::string& name, std::string value) {
    table.rows.push_back({name, std::move(value)});
  };
  const bool likelihood = fit.options.objective == Objective::maximum_likelihood;
  add("objective", std::string(name_of(fit.options.objective)));
  add("points used", fmt::format("{}", fit.points));
  add(likelihood ? "chi-square" : "sum of squares", fmt::format("{:.6g}", fit.objective));
  if (std::isfinite(fit.aicc)) add("AICc", fmt::format("{:.2f}", fit.aicc));
  add("degrees of freedom", fmt::format("{:.0f}", fit.degrees_of_freedom));
  if (likelihood) add("probability of a larger chi-square", probability_text(fit.chi_square_probability));
  if (fit.runs_P.runs > 0) add("signs along x, boiling point", runs_text(fit.runs_P));
  if (fit.runs_y.runs > 0) add("signs along x, vapour", runs_text(fit.runs_y));
  const auto rms = [&](const char* name, const std::optional<double>& value, double factor,
                       const char* unit) {
    if (value) add(name, fmt::format("{:#.3g}{}", *value * factor, unit));
  };
  rms("RMS deviation of T at measured x and P", fit.deviation.T_K, 1, " K");
  rms("RMS deviation of P at measured x and T", fit.deviation.P_Pa, 1e-3, " kPa");
  rms("RMS deviation of y at measured x", fit.deviation.y, 1, "");
  rms("RMS deviation of two liquids, to the nearest tie line", fit.rms_liquids(), 100, " mol %");
  rms("RMS adjustment of T", fit.adjustment.T_K, 1, " K");
  rms("RMS adjustment of P", fit.adjustment.P_Pa, 1e-3, " kPa");
  rms("RMS adjustment of x", fit.adjustment.x, 1, "");
  rms("RMS adjustment of y", fit.adjustment.y, 1, "");
  add("starting points, distinct minima", fmt::format("{}, {}", fit.search.starts, fit.minima.size()));
  add("lowest minimum reached", times_text(static_cast<std::size_t>(fit.search.reached_best)));
  if (likelihood)
    add("standard errors rest on", fit.options.errors == Errors::stated    ? "the stated uncertainties"
                                   : fit.options.errors == Errors::scatter ? "the scatter"
                                                                           : "the scatter of each data set");
  for (const SetOffset& offset : fit.offsets)
    add(fmt::format("{} measured too high in {}", offset.of_pressure ? "pressure" : "temperature",
                    offset.name),
        offset.of_pressure ? fmt::format("{:+.3f} +- {:.3f} %", 100 * offset.value, 100 * offset.u)
                           : fmt::format("{:+.3f} +- {:.3f} K", offset.value, offset.u));
  if (fit.lack_of_fit) {
    const LackOfFit& lack = *fit.lack_of_fit;
    add("points measured again",
        fmt::format("at {}; their own scatter {:.3g}, the misfit besides {:.3g} (mean squares), "
                    "probability {}",
                    counted(lack.places, "composition"), lack.pure_error, lack.lack,
                    probability_text(lack.probability)));
  }
  for (const PureFactor& pure : fit.pure_factors)
    add("vapour pressure of " + pure.substance,
        fmt::format("times {:.5f}{}", pure.factor, pure.u > 0 ? fmt::format(" +- {:.5f}", pure.u) : ""));
  for (const Prior& prior : fit.options.priors) {
    if (prior.name.starts_with("offset of ") || prior.name == "Psat") continue;  // told above
    add("known in addition to the data", fmt::format("{} = {:g} +- {:g}", prior.name, prior.value, prior.u));
  }
  return table;
}

Table residual_table(const Fit& fit) {
  Table table{"Residuals (model at measured x; z: measured minus model over its standard uncertainty)",
              {{"line", Dimension::number, 0},
               {"x1", Dimension::number, 4},
               {"T measured", Dimension::temperature, 3},
               {"T model", Dimension::temperature, 3},
               {"P measured", Dimension::pressure, 3},
               {"P model", Dimension::pressure, 3},
               {"y1 measured", Dimension::number, 4},
               {"y1 model", Dimension::number, 4},
               {"z boiling", Dimension::number, 2},
               {"z y1", Dimension::number, 2},
               {"remark"}},
              {}};
  for (const ResidualRow& row : fit.residuals) {
    const DataPoint& m = row.measured;
    table.rows.push_back({static_cast<double>(m.line), m.x[0], m.T_K, row.T_K, m.P_Pa, row.P_Pa,
                          m.y.empty() ? Cell() : Cell(m.y[0]), row.y[0],
                          row.pure ? Cell() : Cell(row.standardised_P),
                          row.standardised_y.empty() ? Cell() : Cell(row.standardised_y[0]),
                          row.pure             ? std::string("pure, not used")
                          : m.excluded.empty() ? std::string()
                                               : "excluded: " + m.excluded});
  }
  return table;
}

namespace {

// The mole fractions that say the composition.
std::string all_but_last(const std::vector<double>& x) {
  return numbers_text(std::span(x).first(x.size() - 1), 4);
}

// Model minus measured by component, both liquids: "-0.12, +0.30 | +0.02, -0.40".
std::string differences(const LiquidRow& row) {
  if (!row.two_liquids() || row.alpha.empty()) return {};
  const auto side = [](const std::vector<double>& model, const std::vector<double>& measured) {
    std::vector<std::string> list;
    const std::size_t shown = model.size() == 2 ? 1 : model.size();
    for (std::size_t i = 0; i < shown; ++i)
      list.push_back(fmt::format("{:+.2f}", 100 * (model[i] - measured[i])));
    return joined(list, ", ");
  };
  return side(row.alpha, row.measured.x) + " | " + side(row.beta, row.measured.y);
}

}  // namespace

Table liquid_residual_table(const Fit& fit) {
  Table table{"Residuals of what was measured in the liquid (distance in standard uncertainties)",
              {{"line", Dimension::number, 0},
               {"kind"},
               {"T", Dimension::temperature, 2},
               {"measured"},
               {"model"},
               {"difference [mol %]"},
               {"distance", Dimension::number, 2},
               {"remark"}},
              {}};
  const bool liquids_measured = std::any_of(fit.liquid_residuals.begin(), fit.liquid_residuals.end(),
                                            [](const LiquidRow& row) { return row.two_liquids(); });
  constexpr std::size_t difference_column = 5;
  for (const LiquidRow& row : fit.liquid_residuals) {
    const DataPoint& m = row.measured;
    std::string measured, model;
    const auto liquids = [](const std::vector<double>& alpha, const std::vector<double>& beta) {
      return fmt::format("x = {} | {}", all_but_last(alpha), all_but_last(beta));
    };
    if (const LiquidValue* value = describe(row.kind).value) {
      const auto shown = [&](double number) {
        const std::string text = fmt::format(fmt::runtime(value->format), number);
        return value->unit.empty() ? text : fmt::format("{} {}", text, value->unit);
      };
      measured = shown(m.value);
      if (value->dilute)
        measured += fmt::format(" ({} in {})", fit.substances[m.solute].short_name(),
                                fit.substances[m.solvent].short_name());
      else
        measured +=
            fmt::format("{} at x1 = {:.4f}",
                        value->of_component ? " of " + fit.substances[m.solute].short_name() : "", m.x[0]);
      model = shown(row.model);
    } else {
      measured = liquids(m.x, m.y);
      model =
          row.alpha.empty() ? std::string(m.x.size() == 2 ? "one liquid" : "") : liquids(row.alpha, row.beta);
    }
    table.rows.push_back({static_cast<double>(m.line), std::string(name_of(row.kind)), m.T_K, measured, model,
                          differences(row), m.excluded.empty() ? Cell(row.distance()) : Cell(),
                          m.excluded.empty() ? std::string() : "excluded: " + m.excluded});
  }
  if (!liquids_measured) {
    table.columns.erase(table.columns.begin() + difference_column);
    for (auto& row : table.rows) row.erase(row.begin() + difference_column);
  }
  return table;
}

// Points whose leaving out moves the parameters most.
Table influence_table(const Fit& fit, const FittedAzeotropes* azeotropes) {
  Table table{"Points that weigh most (leverage: 0 to the number of quantities measured there)",
              {{"line", Dimension::number, 0},
               {"kind of point"},
               {"leverage", Dimension::number, 3},
               {"Cook's distance", Dimension::number, 3},
               {"off the fit without it", Dimension::number, 2}},
              {}};
  struct Entry {
    std::string set, kind;
    int line;
    const Influence* influence;
    std::optional<double> off;
    std::size_t number = 0;  // among all rows, boiling ones first
  };
  const bool one = azeotropes && azeotropes->curve.azeotropes.size() == 1 && !azeotropes->shifts[0].empty();
  const bool T_sought = azeotropes && azeotropes->curve.sought == Sought::temperature;
  if (one) {
    table.columns.push_back({fmt::format("x({}) of the azeotrope without it", fit.substances[0].short_name()),
                             Dimension::fraction, 4});
    table.columns.push_back(T_sought ? Column{"T of the azeotrope without it", Dimension::temperature, 3}
                                     : Column{"P of the azeotrope without it", Dimension::pressure, 3});
  }
  std::size_t number = 0;
  std::vector<Entry> entries;
  for (const ResidualRow& row : fit.residuals) {
    if (row.used())
      entries.push_back({fit.data[row.set], "boiling", row.measured.line, &row.influence,
                         row.distance_without > 0 ? std::optional(row.distance_without) : std::nullopt,
                         number});
    ++number;
  }
  for (const LiquidRow& row : fit.liquid_residuals) {
    if (row.measured.used())
      entries.push_back(
          {fit.data[row.set], std::string(name_of(row.kind)), row.measured.line, &row.influence, {}, number});
    ++number;
  }
  std::stable_sort(entries.begin(), entries.end(),
                   [](const Entry& a, const Entry& b) { return a.influence->cook > b.influence->cook; });
  constexpr std::size_t shown = 5;
  for (std::size_t k = 0; k < std::min(shown, entries.size()); ++k) {
    const Entry& entry = entries[k];
    table.rows.push_back({static_cast<double>(entry.line), entry.kind, entry.influence->leverage,
                          entry.influence->cook, entry.off ? Cell(*entry.off) : Cell()});
    if (one) {
      const Azeotrope& azeotrope = azeotropes->curve.azeotropes[0];
      const AzeotropeShift& shift = azeotropes->shifts[0][entry.number];
      table.rows.back().emplace_back(azeotrope.x1 + shift.x1);
      table.rows.back().emplace_back(T_sought ? azeotrope.T_K + shift.T_K : azeotrope.P_Pa + shift.P_Pa);
    }
    if (fit.data.size() > 1) table.rows.back().insert(table.rows.back().begin(), file_name(entry.set));
  }
  if (fit.data.size() > 1) table.columns.insert(table.columns.begin(), {"data set"});
  return table;
}

Table sets_table(const Fit& fit) {
  Table table{
      "Data sets, each compared with the others (chi-square over degrees of freedom: about 1 where they "
      "agree)",
      {{"data set"},
       {"points", Dimension::number, 0},
       {"chi-square", Dimension::number, 2},
       {"degrees of freedom", Dimension::number, 1},
       {"probability"},
       {"all the others without it", Dimension::number, 2}},
      {}};
  const bool weighted = fit.options.errors == Errors::sets;
  if (weighted) table.columns.push_back({"uncertainties times", Dimension::number, 2});
  for (const SetAgreement& set : fit.sets) {
    table.rows.push_back({file_name(set.name), static_cast<double>(set.points), set.chi_square,
                          set.degrees_of_freedom, probability_text(set.probability),
                          set.without ? Cell(*set.without) : Cell()});
    if (weighted) table.rows.back().push_back(set.u_factor);
  }
  return table;
}

Table known_table(const Fit& fit) {
  Table table{"Points that were known beforehand",
              {{"point"},
               {"stated"},
               {"T stated", Dimension::temperature, 3},
               {"composition of the model"},
               {"T of the model", Dimension::temperature, 3},
               {"distance", Dimension::number, 2},
               {"remark"}},
              {}};
  const auto fractions = [](const std::vector<double>& x) {
    return x.empty() ? std::string("not stated") : "x = " + all_but_last(x);
  };
  for (const KnownRow& row : fit.known) {
    table.rows.push_back({std::string(name_of(row.known.what)), fractions(row.known.x), row.known.T_K,
                          row.x.empty() ? std::string() : fractions(row.x),
                          row.x.empty() ? Cell() : Cell(row.T_K), row.there ? Cell(row.distance) : Cell(),
                          std::string(row.there ? "" : "the model has none near it")});
  }
  return table;
}

Table ranking_table(const std::vector<RankedFit>& ranked) {
  Table table{"Models side by side, the best first",
              {{"model"},
               {"fitted", Dimension::number, 0},
               {"objective", Dimension::number, 3},
               {"AICc", Dimension::number, 2},
               {"above the best", Dimension::number, 2},
               {"RMS of points left out"},
               {"RMS of sets left out"},
               {"RMS T", Dimension::temperature, 4, true},
               {"RMS P", Dimension::pressure, 4, true},
               {"RMS y1", Dimension::number, 5},
               {"verdict"}},
              {}};
  const auto cell = [](const std::optional<double>& value) { return value ? Cell(*value) : Cell(); };
  for (const RankedFit& entry : ranked) {
    table.rows.push_back(
        {entry.fit.options.model, static_cast<double>(entry.fit.free().size()), entry.fit.objective,
         entry.fit.aicc, entry.aicc_above_best,
         entry.cross_validation ? fmt::format("{:.3f}", *entry.cross_validation)
                                : std::string("too few points"),
         entry.cross_validation_sets ? fmt::format("{:.3f}", *entry.cross_validation_sets) : std::string(),
         cell(entry.fit.deviation.T_K), cell(entry.fit.deviation.P_Pa), cell(entry.fit.deviation.y),
         entry.verdict});
  }
  return table;
}

Table table_of(const FittedAzeotropes& azeotropes, const Fit& fit) {
  const bool T_sought = azeotropes.curve.sought == Sought::temperature;
  Table table{
      fmt::format(
          "Azeotropes of the fit at the mean {} of the data, u: standard uncertainty from the parameters",
          T_sought ? "pressure" : "temperature"),
      {{"T", Dimension::temperature, 4},
       {"P", Dimension::pressure, 4},
       {fmt::format("x({})", fit.substances[0].short_name()), Dimension::fraction, 5},
       T_sought ? Column{"u(T)", Dimension::temperature, 4, true}
                : Column{"u(P)", Dimension::pressure, 4, true},
       {"u(x)", Dimension::fraction, 5},
       {"kind"},
       {"extremum"}},
      {}};
  for (std::size_t k = 0; k < azeotropes.curve.azeotropes.size(); ++k) {
    const Azeotrope& azeotrope = azeotropes.curve.azeotropes[k];
    const AzeotropeUncertainty& u = azeotropes.uncertainties[k];
    const bool known = !azeotrope.heterogeneous;
    table.rows.push_back({azeotrope.T_K, azeotrope.P_Pa, azeotrope.x1,
                          known ? Cell(T_sought ? u.u_T_K : u.u_P_Pa) : Cell(), known ? Cell(u.u_x1) : Cell(),
                          std::string(known ? "homogeneous" : "heterogeneous"),
                          std::string(name_of(azeotrope.extremum))});
  }
  return table;
}

Json to_json(const FittedAzeotropes& azeotropes) {
  Json list = Json::array();
  for (std::size_t k = 0; k < azeotropes.curve.azeotropes.size(); ++k) {
    const Azeotrope& azeotrope = azeotropes.curve.azeotropes[k];
    const AzeotropeUncertainty& u = azeotropes.uncertainties[k];
    Json json{{"T_K", azeotrope.T_K},
              {"P_Pa", azeotrope.P_Pa},
              {"x", {azeotrope.x1, 1 - azeotrope.x1}},
              {"kind", azeotrope.heterogeneous ? "heterogeneous" : "homogeneous"},
              {"extremum", name_of(azeotrope.extremum)}};
    if (!azeotrope.heterogeneous) {
      json["u_x"] = u.u_x1;
      if (azeotropes.curve.sought == Sought::temperature) {
        json["u_T_K"] = u.u_T_K;
      } else {
        json["u_P_Pa"] = u.u_P_Pa;
      }
    }
    list.push_back(std::move(json));
  }
  return list;
}

}  // namespace jampot
