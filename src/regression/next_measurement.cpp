#include "jampot/regression/next_measurement.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>

#include "../basis/dense.hpp"
#include "../basis/eigen.hpp"
#include "fit_results.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/measured/assumed.hpp"
#include "scaled_pure_model.hpp"

namespace jampot {
namespace {

// Factors of vapour pressures stay as they were fitted.
// A factor of a vapour pressure or an offset of a set: none of the model's own.
bool is_nuisance(const FittedParameter& parameter) {
  return parameter.term == ScaledPureModel::term_name || is_offset(parameter);
}

std::vector<const FittedParameter*> planned_parameters(const Fit& fit) {
  std::vector<const FittedParameter*> list = fit.free();
  std::erase_if(list, [](const FittedParameter* parameter) { return is_nuisance(*parameter); });
  return list;
}

std::vector<FreeParameter> free_parameters(const Fit& fit) {
  std::vector<FreeParameter> list;
  std::vector<std::size_t> place(fit.parameters.size());
  for (std::size_t k = 0; k < fit.parameters.size(); ++k) {
    if (!fit.parameters[k].is_free() || is_nuisance(fit.parameters[k])) continue;
    place[k] = list.size();
    list.push_back({fit.parameters[k].term_index, fit.parameters[k].coefficient, 1.0, {}});
  }
  for (const FittedParameter& parameter : fit.parameters) {
    if (parameter.tied_to) list[place[*parameter.tied_to]].tied.push_back(parameter.term_index);
  }
  return list;
}

double median(std::vector<double> values, double otherwise) {
  if (values.empty()) return otherwise;
  std::nth_element(values.begin(), values.begin() + std::ssize(values) / 2, values.end());
  return values[values.size() / 2];
}

// Uncertainties as in the data; where these have none of a kind, those that are assumed.
struct Skill {
  explicit Skill(const Fit& fit) {
    std::vector<double> T, P_part, x, y;
    for (const ResidualRow& row : fit.residuals) {
      if (!row.used()) continue;
      T.push_back(row.measured.u_T_K);
      P_part.push_back(row.measured.u_P_Pa / row.measured.P_Pa);
      x.push_back(row.measured.u_x);
      if (!row.measured.y.empty()) y.push_back(row.measured.u_y);
    }
    for (const LiquidRow& row : fit.liquid_residuals) {
      T.push_back(row.measured.u_T_K);
      if (row.two_liquids()) two_liquids_x.push_back(row.measured.u_x);
    }
    AssumedUncertainties assumed;
    u_T_K = median(T, assumed.take("T", 300));
    u_P_part = median(P_part, assumed.take("P", 1));
    u_x = median(x, assumed.take("x", 0.5));
    u_y = median(y, assumed.take("y", 0.5));
  }
  double u_T_K, u_P_part, u_x, u_y;
  std::vector<double> two_liquids_x;
};

class Planner {
 public:
  Planner(const Fit& fit, const NextOptions& options, const Fit* rival)
      : fit_(fit),
        options_(options),
        rival_(rival),
        context_(fit.mixture(), free_parameters(fit)),
        skill_(fit),
        variance_(to_eigen(fit.covariance)) {
    const auto planned = static_cast<Eigen::Index>(planned_parameters(fit).size());
    variance_.conservativeResize(planned, planned);
    for (const FittedParameter* parameter : planned_parameters(fit)) values_.push_back(parameter->value);
    find_held();
  }

  NextMeasurement planned() {
    NextMeasurement result{options_, {}, {}, {}};
    if (options_.aim != Aim::models) set_up_aim(result);
    result.candidates = candidates();
    if (options_.aim == Aim::models) {
      tell_apart(result.candidates);
      result.batch = {result.candidates.front()};
      return result;
    }
    Eigen::MatrixXd now = inverse_of(variance_);
    for (Candidate& candidate : result.candidates) rate(candidate, now, result.aim);
    const auto better = [](const Candidate& a, const Candidate& b) { return a.share < b.share; };
    for (int k = 0; k < options_.batch; ++k) {
      std::vector<Candidate> all = result.candidates;
      for (Candidate& candidate : all) rate(candidate, now, result.aim);
      const Candidate& best = *std::min_element(all.begin(), all.end(), better);
      now += information(best);
      result.batch.push_back(best);
    }
    std::stable_sort(result.candidates.begin(), result.candidates.end(), better);
    return result;
  }

 private:
  void find_held() {
    double T = 0, P = 0;
    int points = 0, boiling = 0;
    for (const ResidualRow& row : fit_.residuals) {
      if (!row.used()) continue;
      T += row.measured.T_K;
      P += row.measured.P_Pa;
      ++points;
      ++boiling;
      isobaric_ = isobaric_ || fit_.isobaric[row.set];
    }
    for (const LiquidRow& row : fit_.liquid_residuals) {
      T += row.measured.T_K;
      ++points;
    }
    mean_T_K_ = T / points;
    mean_P_Pa_ = boiling > 0 ? P / boiling : 0;
    P_Pa_ = options_.P_Pa;
    T_K_ = options_.T_K_held;
    if (P_Pa_.empty() && T_K_.empty() && boiling > 0) {
      if (isobaric_)
        P_Pa_ = {mean_P_Pa_};
      else
        T_K_ = {mean_T_K_};
    }
  }

  // The aim is a function of the parameters; its slopes come from differences small beside the standard
  // errors.
  void set_up_aim(NextMeasurement& result) {
    if (options_.aim == Aim::parameters) {
      for (const FittedParameter* parameter : planned_parameters(fit_))
        result.aim.push_back({parameter->name, "", parameter->value, parameter->std_error});
      slopes_ = Eigen::MatrixXd::Identity(variance_.rows(), variance_.cols());
      return;
    }
    const auto [quantities, at] = aim_of();
    result.aim = quantities;
    const std::vector<double> here = at();
    slopes_.resize(std::ssize(here), std::ssize(values_));
    for (std::size_t p = 0; p < values_.size(); ++p) {
      const double step =
          0.02 * std::sqrt(variance_(static_cast<Eigen::Index>(p), static_cast<Eigen::Index>(p)));
      std::vector<double> moved = values_;
      moved[p] += step;
      context_.set(moved.data());
      const std::vector<double> above = at();
      moved[p] -= 2 * step;
      context_.set(moved.data());
      const std::vector<double> below = at();
      for (std::size_t q = 0; q < here.size(); ++q)
        slopes_(static_cast<Eigen::Index>(q), static_cast<Eigen::Index>(p)) =
            (above[q] - below[q]) / (2 * step);
    }
    context_.set(values_.data());
    for (std::size_t q = 0; q < here.size(); ++q) {
      result.aim[q].value = here[q];
      result.aim[q].u = uncertainty(static_cast<Eigen::Index>(q), variance_);
    }
  }

  using Function = std::function<std::vector<double>()>;
  std::pair<std::vector<AimQuantity>, Function> aim_of() {
    const std::string first = fit_.substances[0].short_name(), second = fit_.substances[1].short_name();
    Mixture& mixture = context_.mixture();
    switch (options_.aim) {
      case Aim::azeotrope: {
        if (mean_P_Pa_ == 0)
          throw RequestError("the data hold no boiling points, so an azeotrope is no aim of them");
        const auto all = [this, &mixture] {
          return (isobaric_ ? txy(mixture, mean_P_Pa_) : pxy(mixture, mean_T_K_)).azeotropes;
        };
        const auto found = all();
        if (found.empty())
          throw CalculationError("the fitted model has no azeotrope there; choose another aim");
        const double x1 = found.front().x1;
        return {{{fmt::format("x({}) of the azeotrope", first)}}, [all, x1] {
                  double nearest = HUGE_VAL;
                  for (const Azeotrope& azeotrope : all()) {
                    if (std::abs(azeotrope.x1 - x1) < std::abs(nearest - x1)) nearest = azeotrope.x1;
                  }
                  if (!std::isfinite(nearest))
                    throw CalculationError(
                        "the azeotrope of the fit comes and goes within "
                        "the uncertainty of its parameters");
                  return std::vector<double>{nearest};
                }};
      }
      case Aim::limits:
        return {{{fmt::format("ln gamma of {} in {}", first, second)},
                 {fmt::format("ln gamma of {} in {}", second, first)}},
                [this, &mixture] {
                  std::vector<double> result, ln_gamma(2);
                  mixture.activity().set_temperature(mean_T_K_);
                  for (const std::size_t i : {0u, 1u}) {
                    mixture.activity().evaluate(std::array{i == 0 ? 0.0 : 1.0, i == 0 ? 1.0 : 0.0}, ln_gamma);
                    result.push_back(ln_gamma[i]);
                  }
                  return result;
                }};
      case Aim::split: {
        const double T_K = options_.T_K > 0 ? options_.T_K : mean_T_K_;
        return {{{fmt::format("x({}) of one liquid", first)}, {fmt::format("x({}) of the other", first)}},
                [&mixture, T_K] {
                  const auto splits = binary_splits(mixture.activity(), T_K);
                  if (splits.empty())
                    throw CalculationError("the fitted model has one liquid at that temperature");
                  return std::vector<double>{splits[0].x1_alpha, splits[0].x1_beta};
                }};
      }
      default: {
        if (!(options_.x1 > 0 && options_.x1 < 1))
          throw RequestError("the liquid of the aim needs 0 < x < 1");
        const bool T_sought = !P_Pa_.empty();
        if (!T_sought && T_K_.empty())
          throw RequestError("give the pressure or the temperature at which the liquid boils");
        const double held = T_sought ? P_Pa_.front() : T_K_.front();
        return {{{fmt::format("{} of the liquid with x({}) = {:g}", T_sought ? "T" : "P", first, options_.x1),
                  T_sought ? "K" : "Pa"}},
                [this, &mixture, T_sought, held] {
                  const std::array x{options_.x1, 1 - options_.x1};
                  return std::vector<double>{T_sought ? bubble_temperature(mixture, held, x).T_K
                                                      : bubble_pressure(mixture, held, x).P_Pa};
                }};
      }
    }
  }

  double uncertainty(Eigen::Index q, const Eigen::MatrixXd& variance) const {
    return deviation(slopes_.row(q), variance);
  }

  std::vector<Candidate> candidates() {
    std::vector<Candidate> list;
    if (fit_.substances[0].vapour_pressure && fit_.substances[1].vapour_pressure) {
      for (const double P_Pa : P_Pa_) add_boiling(Sought::temperature, P_Pa, list);
      for (const double T_K : T_K_) add_boiling(Sought::pressure, T_K, list);
    }
    if (options_.aim == Aim::models) return list;
    add_values(list);
    add_two_liquids(list);
    return list;
  }

  void add_boiling(Sought sought, double held, std::vector<Candidate>& list) {
    const bool T_sought = sought == Sought::temperature;
    for (int k = 0; k < options_.points; ++k) {
      const double x1 = 0.02 + 0.96 * k / std::max(1, options_.points - 1);
      const std::vector<double> x{x1, 1 - x1};
      const VlePoint point = T_sought ? bubble_temperature(context_.mixture(), held, x)
                                      : bubble_pressure(context_.mixture(), held, x);
      DataPoint measured{point.T_K,  point.P_Pa, point.x, point.y, skill_.u_T_K, skill_.u_P_part * point.P_Pa,
                         skill_.u_x, skill_.u_y};
      list.push_back({T_sought ? DataKind::txy : DataKind::pxy, measured, {}});
      measured.y.clear();
      list.push_back({T_sought ? DataKind::tx : DataKind::px, measured, {}});
    }
  }

  void add_values(std::vector<Candidate>& list) {
    for (const KindDescription* kind : liquid_value_kinds()) {
      const LiquidValue& value = *kind->value;
      for (const double x1 : {0.25, 0.5, 0.75}) {
        for (const std::size_t i : {0u, 1u}) {
          if ((value.dilute && x1 != 0.5) || (!value.of_component && i == 1)) continue;
          DataPoint point{mean_T_K_, 0, {x1, 1 - x1}, {}, skill_.u_T_K, 0, skill_.u_x, 0};
          point.solute = i;
          point.solvent = 1 - i;
          if (value.dilute) point.x = {i == 0 ? 0.0 : 1.0, i == 0 ? 1.0 : 0.0};
          point.value = value.by_model(context_.mixture().activity(), point);
          point.u_value = AssumedUncertainties().take(value.column, point.value);
          list.push_back({kind->kind, point, {}});
        }
      }
    }
  }

  void add_two_liquids(std::vector<Candidate>& list) {
    for (const double T_K : {fit_.T_range_K[0], mean_T_K_, fit_.T_range_K[1]}) {
      for (const BinarySplit& split : binary_splits(context_.mixture().activity(), T_K)) {
        DataPoint point{
            T_K,          0, {split.x1_alpha, 1 - split.x1_alpha}, {split.x1_beta, 1 - split.x1_beta},
            skill_.u_T_K, 0};
        point.u_x = point.u_y = median(skill_.two_liquids_x, AssumedUncertainties().take_of_liquids());
        point.relative_u_x = assumed_relative_of_liquids;
        list.push_back({DataKind::lle, point, {}});
      }
    }
  }

  Eigen::MatrixXd information(const Candidate& candidate) {
    const std::vector<double> adjustments(candidate.point.x.size(), 0.0);
    context_.set(values_.data());
    switch (family_of(candidate.kind)) {
      case DataFamily::boiling:
        return information_of(AdjustedPointResidual(context_, candidate.point), values_.data(),
                              adjustments.data())
            .information;
      case DataFamily::liquid_value:
        return information_of(LiquidValueResidual(context_, *describe(candidate.kind).value, candidate.point),
                              values_.data(), nullptr)
            .information;
      case DataFamily::two_liquids:
        break;
    }
    TwoLiquidsResidual residual(context_, candidate.point);
    residual.refresh();
    return information_of(residual, values_.data(), nullptr).information;
  }

  void rate(Candidate& candidate, const Eigen::MatrixXd& now, const std::vector<AimQuantity>& aim) {
    const Eigen::MatrixXd after = inverse_of(now + information(candidate));
    candidate.u.clear();
    double sum = 0;
    for (std::size_t q = 0; q < aim.size(); ++q) {
      candidate.u.push_back(uncertainty(static_cast<Eigen::Index>(q), after));
      sum += (candidate.u[q] / aim[q].u) * (candidate.u[q] / aim[q].u);
    }
    candidate.share = std::sqrt(sum / static_cast<double>(aim.size()));
    if (options_.aim == Aim::parameters) {
      const double each = 1 / static_cast<double>(aim.size());
      candidate.share = std::sqrt(std::pow(determinant_of(after) / determinant_of(variance_), each));
    }
  }

  void tell_apart(std::vector<Candidate>& list) {
    FitContext other(rival_->mixture(), {});
    for (Candidate& candidate : list) {
      ResidualRow row;
      row.measured = candidate.point;
      standardise(other, row);
      double sum = row.standardised_P * row.standardised_P;
      for (const double value : row.standardised_y) sum += value * value;
      candidate.apart = std::sqrt(sum);
    }
    std::stable_sort(list.begin(), list.end(),
                     [](const auto& a, const auto& b) { return a.apart > b.apart; });
  }

  const Fit& fit_;
  const NextOptions& options_;
  const Fit* rival_;
  FitContext context_;
  Skill skill_;
  Eigen::MatrixXd variance_, slopes_;
  std::vector<double> values_, P_Pa_, T_K_;
  double mean_T_K_ = 0, mean_P_Pa_ = 0;
  bool isobaric_ = false;
};

}  // namespace

std::string_view name_of(Aim aim) {
  constexpr std::array<std::string_view, 6> names{"azeotrope",  "limits",  "split",
                                                  "parameters", "boiling", "models"};
  return names[static_cast<std::size_t>(aim)];
}

NextMeasurement next_measurement(const Fit& fit, const NextOptions& options, const Fit* rival) {
  if (fit.substances.size() != 2) throw RequestError("what to measure next is worked out for two substances");
  if (options.points < 3 || options.points > 1000)
    throw RequestError("`points`: expected a number from 3 to 1000");
  if (options.batch < 1 || options.batch > 50) throw RequestError("`batch`: expected a number from 1 to 50");
  if (options.aim == Aim::models && (rival == nullptr || rival->substances[0].name != fit.substances[0].name))
    throw RequestError("to tell two models apart both have to be fitted: name the other one (`rival`)");
  NextMeasurement result = Planner(fit, options, rival).planned();
  if (result.candidates.empty())
    throw RequestError("no measurement is possible: give a pressure or a temperature");
  return result;
}

}  // namespace jampot
