#include "liquid_residual.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/diagram/liquid_comparison.hpp"

namespace jampot {

LiquidValueResidual::LiquidValueResidual(FitContext& context, const LiquidValue& kind, const DataPoint& point)
    : context_(context),
      kind_(kind),
      point_(point),
      measured_(kind.logarithmic ? std::log(point.value) : point.value),
      weight_(kind.logarithmic ? point.value / point.u_value : 1 / point.u_value) {
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(1);
}

bool LiquidValueResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  context_.set(blocks[0]);
  const bool derivatives = jacobians != nullptr && jacobians[0] != nullptr;
  kind_.evaluate(context_.liquid_alone(), point_, derivatives, model_);
  residuals[0] = weight_ * (model_.value - measured_);
  if (!std::isfinite(residuals[0])) return false;
  if (!derivatives) return true;
  for (std::size_t p = 0; p < context_.free().size(); ++p) {
    const FreeParameter& free = context_.free()[p];
    const double basis = TemperatureFunction::basis(free.coefficient, point_.T_K),
                 basis_dT = TemperatureFunction::basis_dT(free.coefficient, point_.T_K);
    const auto of_term = [&](std::size_t t) {
      if (t >= model_.by_term.size()) return 0.0;  // a factor of a vapour pressure, an offset
      return model_.by_term[t] * basis + model_.by_term_dT[t] * basis_dT;
    };
    double sum = of_term(free.term);
    for (const std::size_t term : free.tied) sum += of_term(term);
    jacobians[0][p] = weight_ * free.scale * sum;
  }
  return true;
}

namespace {

// A fraction that was measured as zero still has a logarithm: half its uncertainty stands in. No other number
// is touched.
std::vector<double> inside(const std::vector<double>& x, double u, const std::vector<std::size_t>& present) {
  std::vector<double> result = x;
  double sum = 0;
  for (const std::size_t i : present) sum += result[i] = result[i] > 0 ? result[i] : 0.5 * u;
  for (double& value : result) value /= sum;
  return result;
}

using RowMajor = Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>;

}  // namespace

TwoLiquidsResidual::TwoLiquidsResidual(FitContext& context, const DataPoint& point)
    : context_(context), point_(point), present_(point.present()) {
  const std::size_t n = point.x.size(), terms = context.mixture().activity().terms().size();
  for (Side* side : {&alpha_, &beta_})
    *side = {std::vector<double>(n), std::vector<double>(n), std::vector<double>(n * n),
             std::vector<double>(n * terms)};
  measured_ = {inside(point.x, point.u_x, present_), inside(point.y, point.u_y, present_), point.T_K};
  rest_alpha_ = rest(measured_.alpha);
  rest_beta_ = rest(measured_.beta);
  const auto N = static_cast<Eigen::Index>(present_.size());
  weight_ = Eigen::MatrixXd::Identity(N, N);
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(static_cast<int>(present_.size()));
}

// The largest fraction follows from the others, which a dilute component does not disturb.
std::size_t TwoLiquidsResidual::rest(const std::vector<double>& fractions) const {
  return *std::max_element(present_.begin(), present_.end(),
                           [&](auto a, auto b) { return fractions[a] < fractions[b]; });
}

void TwoLiquidsResidual::evaluate(const std::vector<double>& x, double T_K, Side& side,
                                  bool with_slopes) const {
  ActivityModel& model = context_.mixture().activity();
  model.set_temperature(T_K);
  model.evaluate(x, side.ln_gamma, side.dT, side.dn);
  if (with_slopes) model.term_derivatives(x, side.slopes);
}

TwoLiquidsResidual::Linearised TwoLiquidsResidual::linearised(const LiquidPair& at) const {
  evaluate(at.alpha, at.T_K, alpha_, false);
  evaluate(at.beta, at.T_K, beta_, false);
  const std::size_t n = at.alpha.size(), m = present_.size();
  const auto M = static_cast<Eigen::Index>(m), columns = 2 * (M - 1) + 1;
  Linearised result{Eigen::VectorXd(M), Eigen::MatrixXd(M, columns), Eigen::VectorXd(columns)};
  for (Eigen::Index r = 0; r < M; ++r) {
    const std::size_t i = present_[static_cast<std::size_t>(r)];
    result.F[r] = std::log(at.alpha[i] / at.beta[i]) + alpha_.ln_gamma[i] - beta_.ln_gamma[i];
    result.B(r, columns - 1) = alpha_.dT[i] - beta_.dT[i];
  }
  result.u[columns - 1] = point_.u_T_K;
  Eigen::Index column = 0;
  for (const auto& [side, here, measured, last, u, sign] :
       {std::tuple(&alpha_, &at.alpha, &measured_.alpha, rest_alpha_, point_.u_x, 1.0),
        std::tuple(&beta_, &at.beta, &measured_.beta, rest_beta_, point_.u_y, -1.0)}) {
    for (const std::size_t k : present_) {
      if (k == last) continue;
      for (Eigen::Index r = 0; r < M; ++r) {
        const std::size_t i = present_[static_cast<std::size_t>(r)];
        const double ideal = (i == k ? 1 / (*here)[i] : 0) - (i == last ? 1 / (*here)[i] : 0);
        result.B(r, column) = sign * (ideal + side->dn[i * n + k] - side->dn[i * n + last]);
      }
      result.u[column++] = u_of_fraction((*measured)[k], u, point_.relative_u_x);
    }
  }
  return result;
}

LiquidPair TwoLiquidsResidual::moved(const LiquidPair& from, const Eigen::VectorXd& step) const {
  LiquidPair to = from;
  Eigen::Index column = 0;
  for (const auto& [fractions, last] : {std::pair(&to.alpha, rest_alpha_), std::pair(&to.beta, rest_beta_)}) {
    double others = 0;
    for (const std::size_t k : present_) {
      if (k == last) continue;
      // Never past a tenth of the way to zero in one step.
      (*fractions)[k] = std::max((*fractions)[k] + step[column++], 0.1 * (*fractions)[k]);
      others += (*fractions)[k];
    }
    (*fractions)[last] = std::max(1 - others, 0.1 * (*fractions)[last]);
    const double sum = others + (*fractions)[last];
    for (const std::size_t k : present_) (*fractions)[k] /= sum;
  }
  to.T_K = std::max(from.T_K + step[column], 0.5 * from.T_K);
  return to;
}

Eigen::VectorXd TwoLiquidsResidual::difference(const LiquidPair& from, const LiquidPair& to) const {
  Eigen::VectorXd result(2 * (static_cast<Eigen::Index>(present_.size()) - 1) + 1);
  Eigen::Index column = 0;
  for (const std::size_t k : present_)
    if (k != rest_alpha_) result[column++] = to.alpha[k] - from.alpha[k];
  for (const std::size_t k : present_)
    if (k != rest_beta_) result[column++] = to.beta[k] - from.beta[k];
  result[column] = to.T_K - from.T_K;
  return result;
}

namespace {

// B U B', with a floor against columns that say nothing.
CholeskyFactor variance_of(const Eigen::MatrixXd& B, const Eigen::VectorXd& u) {
  Eigen::MatrixXd variance = weighted_square(B, u.array().square());
  const double floor = 1e-12 * variance.trace();
  variance.diagonal().array() += floor;
  return CholeskyFactor(variance);
}

}  // namespace

// Onto the equilibria of the model by the shortest way. False where that leads to one liquid or nowhere.
bool TwoLiquidsResidual::restore(LiquidPair& line) const {
  constexpr int most_steps = 40;
  for (int step = 0; step < most_steps; ++step) {
    const Linearised here = linearised(line);
    if (!here.F.allFinite()) return false;
    if (here.F.lpNorm<Eigen::Infinity>() < 1e-11) {
      double apart = 0;
      for (const std::size_t i : present_) apart = std::max(apart, std::abs(line.alpha[i] - line.beta[i]));
      constexpr double one_liquid = 1e-4;
      return apart > one_liquid;
    }
    const auto variance = variance_of(here.B, here.u);
    if (!variance.sound()) return false;
    const Eigen::VectorXd way = transposed_times(here.B, variance.solve(here.F));
    line = moved(line, -(here.u.array().square() * way.array()).matrix());
  }
  return false;
}

// Along the equilibria to the pair nearest to the measured one.
bool TwoLiquidsResidual::approach(LiquidPair& line) const {
  if (!restore(line)) return false;
  constexpr int most_steps = 200;
  for (int step = 0; step < most_steps; ++step) {
    const Linearised here = linearised(line);
    const auto variance = variance_of(here.B, here.u);
    if (!variance.sound()) return false;
    const Eigen::VectorXd whole = difference(line, measured_);
    const Eigen::VectorXd across = transposed_times(here.B, variance.solve(here.B * whole));
    const Eigen::VectorXd along = whole - (here.u.array().square() * across.array()).matrix();
    const auto length = [&](const Eigen::VectorXd& d) {
      return (d.array() / here.u.array()).matrix().norm();
    };
    const double distance = length(whole);
    if (length(along) < 1e-7 * (1 + distance)) return true;
    bool shorter = false;
    for (double share = 1; share > 1e-6 && !shorter; share /= 2) {
      LiquidPair next = moved(line, share * along);
      if (!restore(next)) continue;
      shorter = length(difference(next, measured_)) < distance;
      if (shorter) line = std::move(next);
    }
    if (!shorter) return true;  // rounding
  }
  return true;
}

void TwoLiquidsResidual::refresh() {
  const Linearised here = linearised(measured_);
  const auto variance = variance_of(here.B, here.u);
  if (!variance.sound()) return;  // keeps the weights it has
  weight_ = variance.inverse_of_lower();
}

void TwoLiquidsResidual::make_exact() {
  nearest_.reset();
  ActivityModel& model = context_.mixture().activity();
  const auto found = nearest_liquids(model, point_);
  if (!found) return;
  LiquidPair line{found->alpha, found->beta, point_.T_K};
  for (auto* fractions : {&line.alpha, &line.beta}) {
    for (const std::size_t i : present_) (*fractions)[i] = std::max((*fractions)[i], 1e-300);
  }
  if (approach(line)) nearest_ = std::move(line);
}

bool TwoLiquidsResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  context_.set(blocks[0]);
  const bool slopes = jacobians != nullptr && jacobians[0] != nullptr;
  Eigen::Map<Eigen::VectorXd> into(residuals, static_cast<Eigen::Index>(present_.size()));
  if (nearest_) {
    LiquidPair line = *nearest_;
    if (!approach(line)) return false;
    const Linearised here = linearised(line);
    const auto variance = variance_of(here.B, here.u);
    if (!variance.sound()) return false;
    // At the nearest pair the way to the measured one is U B' times something: L^-1 B of it has its length.
    into = variance.solve_lower(here.B * difference(line, measured_));
    if (slopes) {
      evaluate(line.alpha, line.T_K, alpha_, true);
      evaluate(line.beta, line.T_K, beta_, true);
      jacobian(variance.inverse_of_lower(), line.T_K, jacobians[0]);
    }
    nearest_ = std::move(line);
    return into.allFinite();
  }
  const Linearised here = linearised(measured_);
  into = weight_ * here.F;
  if (!here.F.allFinite()) return false;
  if (!slopes) return true;
  evaluate(measured_.alpha, measured_.T_K, alpha_, true);
  evaluate(measured_.beta, measured_.T_K, beta_, true);
  jacobian(weight_, measured_.T_K, jacobians[0]);
  return true;
}

// weight dF/dparameters, from the slopes of both sides.
void TwoLiquidsResidual::jacobian(const Eigen::MatrixXd& weight, double T_K, double* into) const {
  const std::size_t terms = context_.mixture().activity().terms().size();
  const auto M = static_cast<Eigen::Index>(present_.size()),
             parameters = static_cast<Eigen::Index>(context_.free().size());
  Eigen::VectorXd dF(M);
  Eigen::Map<RowMajor> J(into, M, parameters);
  for (Eigen::Index p = 0; p < parameters; ++p) {
    for (Eigen::Index r = 0; r < M; ++r) {
      const std::size_t row = present_[static_cast<std::size_t>(r)] * terms;
      dF[r] = context_.derivative(static_cast<std::size_t>(p), T_K, [&](std::size_t term) {
        return alpha_.slopes[row + term] - beta_.slopes[row + term];
      });
    }
    J.col(p) = weight * dF;
  }
}

}  // namespace jampot
