#include "liquid_residual.hpp"

#include <cmath>

#include "jampot/basis/constants.hpp"

namespace jampot {

LimitingGammaResidual::LimitingGammaResidual(FitContext& context, const DataPoint& point)
    : context_(context),
      point_(point),
      ln_gamma_(point.x.size()),
      slopes_(point.x.size() * context.mixture().activity().terms().size()) {
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(1);
}

bool LimitingGammaResidual::Evaluate(double const* const* blocks, double* residuals,
                                     double** jacobians) const {
  context_.set(blocks[0]);
  ActivityModel& model = context_.mixture().activity();
  model.set_temperature(point_.T_K);
  model.evaluate(point_.x, ln_gamma_);
  const double weight = point_.value / point_.u_value;  // of the logarithm
  residuals[0] = weight * (ln_gamma_[point_.solute] - std::log(point_.value));
  if (!std::isfinite(residuals[0])) return false;
  if (jacobians == nullptr || jacobians[0] == nullptr) return true;
  model.term_derivatives(point_.x, slopes_);
  const std::size_t terms = model.terms().size();
  for (std::size_t p = 0; p < context_.free().size(); ++p) {
    jacobians[0][p] =
        weight * slopes_[point_.solute * terms + context_.free()[p].term] * context_.chain(p, point_.T_K);
  }
  return true;
}

ExcessEnthalpyResidual::ExcessEnthalpyResidual(FitContext& context, const DataPoint& point)
    : context_(context),
      point_(point),
      slope_(context.mixture().activity().terms().size()),
      slope_dT_(slope_.size()) {
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(1);
}

bool ExcessEnthalpyResidual::Evaluate(double const* const* blocks, double* residuals,
                                      double** jacobians) const {
  context_.set(blocks[0]);
  ActivityModel& model = context_.mixture().activity();
  const double T_K = point_.T_K, scale = -gas_constant * T_K * T_K / point_.u_value;
  model.set_temperature(T_K);
  model.gibbs_term_derivatives(point_.x, slope_, slope_dT_);
  double sum = 0;
  for (std::size_t t = 0; t < slope_.size(); ++t) sum += slope_[t] * model.terms()[t].function.dT(T_K);
  residuals[0] = scale * sum - point_.value / point_.u_value;
  if (!std::isfinite(residuals[0])) return false;
  if (jacobians == nullptr || jacobians[0] == nullptr) return true;
  for (std::size_t p = 0; p < context_.free().size(); ++p) {
    const FreeParameter& free = context_.free()[p];
    jacobians[0][p] = scale * free.scale *
                      (slope_dT_[free.term] * TemperatureFunction::basis(free.coefficient, T_K) +
                       slope_[free.term] * TemperatureFunction::basis_dT(free.coefficient, T_K));
  }
  return true;
}

TwoLiquidsResidual::TwoLiquidsResidual(FitContext& context, const DataPoint& point)
    : context_(context), point_(point) {
  const std::size_t n = point.x.size(), terms = context.mixture().activity().terms().size();
  for (Side* side : {&alpha_, &beta_})
    *side = {std::vector<double>(n), std::vector<double>(n), std::vector<double>(n * n),
             std::vector<double>(n * terms)};
  const auto N = static_cast<Eigen::Index>(n);
  weight_ = Eigen::MatrixXd::Identity(N, N);
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(static_cast<int>(n));
}

void TwoLiquidsResidual::evaluate(const std::vector<double>& x, Side& side, bool with_slopes) const {
  ActivityModel& model = context_.mixture().activity();
  model.set_temperature(point_.T_K);
  model.evaluate(x, side.ln_gamma, side.dT, side.dn);
  if (with_slopes) model.term_derivatives(x, side.slopes);
}

namespace {

// A fraction that was measured as zero still has a logarithm: half its uncertainty stands in.
std::vector<double> inside(const std::vector<double>& x, double u) {
  std::vector<double> result = x;
  double sum = 0;
  for (double& value : result) sum += value = std::max(value, 0.5 * u);
  for (double& value : result) value /= sum;
  return result;
}

}  // namespace

void TwoLiquidsResidual::refresh() {
  const std::vector<double> x = inside(point_.x, point_.u_x), y = inside(point_.y, point_.u_y);
  evaluate(x, alpha_, false);
  evaluate(y, beta_, false);
  const auto n = static_cast<Eigen::Index>(x.size());
  Eigen::MatrixXd variance = Eigen::MatrixXd::Zero(n, n);
  Eigen::VectorXd slope(n);
  const auto add = [&](double u) { variance += u * u * slope * slope.transpose(); };
  for (const auto& [side, fractions, u, sign] :
       {std::tuple(&alpha_, &x, point_.u_x, 1.0), std::tuple(&beta_, &y, point_.u_y, -1.0)}) {
    for (Eigen::Index k = 0; k + 1 < n; ++k) {  // x_k up, the last one down
      for (Eigen::Index i = 0; i < n; ++i) {
        const double ideal = (i == k ? 1 / (*fractions)[static_cast<std::size_t>(i)] : 0) -
                             (i == n - 1 ? 1 / (*fractions)[static_cast<std::size_t>(i)] : 0);
        slope[i] = sign * (ideal + side->dn[static_cast<std::size_t>(i * n + k)] -
                           side->dn[static_cast<std::size_t>(i * n + n - 1)]);
      }
      add(u);
    }
  }
  for (Eigen::Index i = 0; i < n; ++i)
    slope[i] = alpha_.dT[static_cast<std::size_t>(i)] - beta_.dT[static_cast<std::size_t>(i)];
  add(point_.u_T_K);
  const double floor = 1e-12 * variance.trace();
  variance.diagonal().array() += floor;
  const Eigen::LLT<Eigen::MatrixXd> cholesky(variance);
  if (cholesky.info() != Eigen::Success) return;  // keeps the weights it has
  weight_ = cholesky.matrixL().solve(Eigen::MatrixXd::Identity(n, n));
}

bool TwoLiquidsResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  context_.set(blocks[0]);
  const bool slopes = jacobians != nullptr && jacobians[0] != nullptr;
  const std::vector<double> x = inside(point_.x, point_.u_x), y = inside(point_.y, point_.u_y);
  evaluate(x, alpha_, slopes);
  evaluate(y, beta_, slopes);
  const auto n = static_cast<Eigen::Index>(x.size());
  Eigen::VectorXd F(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const auto k = static_cast<std::size_t>(i);
    F[i] = std::log(x[k] / y[k]) + alpha_.ln_gamma[k] - beta_.ln_gamma[k];
  }
  Eigen::Map<Eigen::VectorXd>(residuals, n) = weight_ * F;
  if (!F.allFinite()) return false;
  if (!slopes) return true;
  const std::size_t terms = context_.mixture().activity().terms().size();
  Eigen::VectorXd dF(n);
  const auto parameters = static_cast<Eigen::Index>(context_.free().size());
  Eigen::Map<Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>> J(jacobians[0], n,
                                                                                       parameters);
  for (Eigen::Index p = 0; p < parameters; ++p) {
    const std::size_t term = context_.free()[static_cast<std::size_t>(p)].term;
    for (Eigen::Index i = 0; i < n; ++i) {
      const std::size_t at = static_cast<std::size_t>(i) * terms + term;
      dF[i] =
          (alpha_.slopes[at] - beta_.slopes[at]) * context_.chain(static_cast<std::size_t>(p), point_.T_K);
    }
    J.col(p) = weight_ * dF;
  }
  return true;
}

double model_excess_enthalpy(ActivityModel& model, double T_K, const std::vector<double>& x) {
  std::vector<double> ln_gamma(x.size()), dT(x.size());
  model.set_temperature(T_K);
  model.evaluate(x, ln_gamma, dT);
  double sum = 0;
  for (std::size_t i = 0; i < x.size(); ++i) sum += x[i] * dT[i];
  return -gas_constant * T_K * T_K * sum;
}

}  // namespace jampot
