// What a fit can be asked for: its parameters as those of a mixture, and what their uncertainty means.
#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <filesystem>

#include "../basis/dense.hpp"
#include "../basis/eigen.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/regression/fit.hpp"
#include "mean_square.hpp"
#include "parameter_plan.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {

// Here once, and not in every file that uses one: they are long.
Fit::Fit() = default;
Fit::Fit(const Fit&) = default;
Fit::Fit(Fit&&) noexcept = default;
Fit& Fit::operator=(const Fit&) = default;
Fit& Fit::operator=(Fit&&) noexcept = default;
Fit::~Fit() = default;
namespace {

constexpr std::array<std::string_view, 3> objective_names{"maximum-likelihood", "bubble-pressure",
                                                          "bubble-temperature"};

constexpr std::array<std::string_view, 3> errors_names{"stated", "scatter", "sets"};

}  // namespace

std::string_view name_of(Errors errors) {
  return errors_names[static_cast<std::size_t>(errors)];
}

Errors parse_errors(std::string_view text) {
  for (std::size_t k = 0; k < errors_names.size(); ++k) {
    if (errors_names[k] == text) return static_cast<Errors>(k);
  }
  const std::vector<std::string> names(errors_names.begin(), errors_names.end());
  throw RequestError(fmt::format("standard errors rest on {}, not on '{}'.{}", joined(names, ", "), text,
                                 did_you_mean(text, names)));
}

std::string_view name_of(Objective objective) {
  return objective_names[static_cast<std::size_t>(objective)];
}

Objective parse_objective(std::string_view text) {
  for (std::size_t k = 0; k < objective_names.size(); ++k) {
    if (objective_names[k] == text) return static_cast<Objective>(k);
  }
  const std::vector<std::string> names(objective_names.begin(), objective_names.end());
  throw RequestError(fmt::format("'{}' is not an objective; there are {}.{}", text, joined(names, ", "),
                                 did_you_mean(text, names)));
}

std::vector<const FittedParameter*> Fit::free() const& {
  std::vector<const FittedParameter*> list;
  for (const FittedParameter& parameter : parameters) {
    if (parameter.is_free()) list.push_back(&parameter);
  }
  return list;
}

std::vector<const FittedParameter*> Fit::fitted() const& {
  std::vector<const FittedParameter*> list;
  for (const FittedParameter& parameter : parameters) {
    if (!parameter.held) list.push_back(&parameter);
  }
  return list;
}

Matrix Fit::fitted_covariance() const {
  const auto from = free(), to = fitted();
  Eigen::MatrixXd follows = Eigen::MatrixXd::Zero(std::ssize(to), std::ssize(from));
  for (Eigen::Index row = 0; row < follows.rows(); ++row) {
    const FittedParameter* parameter = to[static_cast<std::size_t>(row)];
    if (parameter->tied_to) parameter = &parameters[*parameter->tied_to];
    follows(row, std::find(from.begin(), from.end(), parameter) - from.begin()) = 1;
  }
  return from_eigen(product(product(follows, to_eigen(covariance)), follows.transpose()));
}

std::string Fit::source() const {
  std::vector<std::string> files;
  for (const std::string& name : data) files.push_back(std::filesystem::path(name).filename().string());
  return fmt::format("fitted to {} ({})", joined(files, ", "), counted(points, "point"));
}

std::string Fit::fitted_to() const {
  const bool split = std::any_of(liquid_residuals.begin(), liquid_residuals.end(),
                                 [](const LiquidRow& row) { return row.two_liquids(); });
  if (!split) return "vle";
  return residuals.empty() ? "lle" : "vle+lle";
}

std::optional<double> Fit::rms_liquids() const {
  MeanSquare all;
  for (const LiquidRow& row : liquid_residuals) {
    if (!row.two_liquids() || row.alpha.empty() || !row.measured.excluded.empty()) continue;
    for (std::size_t i = 0; i < row.alpha.size(); ++i) {
      all.add(row.alpha[i] - row.measured.x[i]);
      all.add(row.beta[i] - row.measured.y[i]);
    }
  }
  return all.root();
}

double LiquidRow::distance() const {
  double sum = 0;
  for (const double value : standardised) sum += value * value;
  return std::sqrt(sum);
}

std::vector<PairParameters> Fit::pairs() const {
  const std::size_t terms = terms_for_fit(options.model).size();
  std::vector<PairParameters> list;
  const Eigen::MatrixXd covariance_of_all = to_eigen(fitted_covariance());
  const auto joint = std::make_shared<const std::vector<double>>(
      covariance_of_all.data(), covariance_of_all.data() + covariance_of_all.size());
  std::size_t p = 0;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j, ++p) {
      PairParameters pair = neutral_pair(options.model, substances[i], substances[j]);
      for (auto& [name, function] : pair.terms) function = {};
      pair.T_range_K = T_range_K;
      pair.source = source();
      pair.fitted_to = fitted_to();
      if (options.vapour.model != "ideal") pair.vapour = options.vapour.model;
      for (const FittedParameter& parameter : parameters) {
        if (parameter.term_index / terms == p)
          pair.terms[parameter.term][parameter.coefficient] = parameter.value;
      }
      const std::vector<const FittedParameter*> all = fitted();
      for (std::size_t row = 0; row < all.size(); ++row) {
        if (all[row]->term_index / terms != p)
          continue;  // factors of vapour pressures stand behind all pairs
        if (pair.fitted.empty()) pair.joint_row = row;
        pair.fitted.push_back({all[row]->term, all[row]->coefficient});
      }
      const auto own = std::ssize(pair.fitted), from = static_cast<Eigen::Index>(pair.joint_row);
      const Eigen::MatrixXd block = covariance_of_all.block(from, from, own, own);
      pair.covariance.assign(block.data(), block.data() + block.size());
      if (substances.size() > 2) pair.joint_covariance = joint;
      list.push_back(std::move(pair));
    }
  }
  return list;
}

Mixture Fit::mixture() const {
  ParameterCollection collection;
  for (const PairParameters& pair : pairs()) collection.add(pair);
  return {substances, options.model, collection, options.vapour};
}

namespace {

// How x1 and what is sought (T in K, or ln P) of an azeotrope move with each fitted parameter.
struct AzeotropeSlopes {
  Eigen::VectorXd x1, held;
};

AzeotropeSlopes slopes_of(const Fit& fit, const std::vector<const FittedParameter*>& parameters,
                          Sought sought, const Azeotrope& azeotrope) {
  Mixture mixture = fit.mixture();
  if (fit.options.pure == PurePressures::fit) {  // the factors of the vapour pressures are terms, too
    mixture = Mixture(fit.substances, std::make_unique<ScaledPureModel>(mixture.activity().clone()), {},
                      fit.options.vapour);
  }
  const AzeotropeSensitivity sensitivity = azeotrope_sensitivity(mixture, sought, azeotrope);
  AzeotropeSlopes slopes{Eigen::VectorXd::Zero(std::ssize(parameters)),
                         Eigen::VectorXd::Zero(std::ssize(parameters))};
  for (std::size_t p = 0; p < parameters.size(); ++p) {
    if (is_offset(*parameters[p])) continue;
    const double basis = TemperatureFunction::basis(parameters[p]->coefficient, azeotrope.T_K);
    slopes.x1[static_cast<Eigen::Index>(p)] = sensitivity.dx1[parameters[p]->term_index] * basis;
    slopes.held[static_cast<Eigen::Index>(p)] = sensitivity.dheld[parameters[p]->term_index] * basis;
  }
  return slopes;
}

}  // namespace

AzeotropeUncertainty azeotrope_uncertainty(const Fit& fit, Sought sought, const Azeotrope& azeotrope) {
  const auto [dx, dheld] = slopes_of(fit, fit.fitted(), sought, azeotrope);
  const Eigen::MatrixXd covariance = to_eigen(fit.fitted_covariance());
  AzeotropeUncertainty result;
  result.u_x1 = deviation(dx, covariance);
  const double u = deviation(dheld, covariance);
  (sought == Sought::temperature ? result.u_T_K : result.u_P_Pa) =
      sought == Sought::temperature ? u : u * azeotrope.P_Pa;
  return result;
}

std::vector<AzeotropeShift> azeotrope_shifts(const Fit& fit, Sought sought, const Azeotrope& azeotrope) {
  const auto fitted = fit.fitted();
  const auto slopes = slopes_of(fit, fitted, sought, azeotrope);
  const auto free = fit.free();
  std::vector<AzeotropeShift> shifts;
  const auto add = [&](const Influence& influence) {
    AzeotropeShift shift;
    for (std::size_t p = 0; p < fitted.size() && !influence.change.empty(); ++p) {
      const FittedParameter* leader = fitted[p]->tied_to ? &fit.parameters[*fitted[p]->tied_to] : fitted[p];
      const auto number =
          static_cast<std::size_t>(std::find(free.begin(), free.end(), leader) - free.begin());
      const double change = influence.change[number];
      shift.x1 += slopes.x1[static_cast<Eigen::Index>(p)] * change;
      const double held = slopes.held[static_cast<Eigen::Index>(p)] * change;
      (sought == Sought::temperature ? shift.T_K : shift.P_Pa) +=
          sought == Sought::temperature ? held : held * azeotrope.P_Pa;
    }
    shifts.push_back(shift);
  };
  for (const ResidualRow& row : fit.residuals) add(row.influence);
  for (const LiquidRow& row : fit.liquid_residuals) add(row.influence);
  return shifts;
}

}  // namespace jampot
