#include "liquid_residual.hpp"

#include <algorithm>
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
    jacobians[0][p] = weight * context_.derivative(p, point_.T_K, [&](std::size_t term) {
      return slopes_[point_.solute * terms + term];
    });
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
    const double basis = TemperatureFunction::basis(free.coefficient, T_K),
                 basis_dT = TemperatureFunction::basis_dT(free.coefficient, T_K);
    double sum_of_terms = slope_dT_[free.term] * basis + slope_[free.term] * basis_dT;
    for (const std::size_t term : free.tied)
      sum_of_terms += slope_dT_[term] * basis + slope_[term] * basis_dT;
    jacobians[0][p] = scale * free.scale * sum_of_terms;
  }
  return true;
}

TwoLiquidsResidual::TwoLiquidsResidual(FitContext& context, const DataPoint& point)
    : context_(context), point_(point) {
  const std::size_t n = point.x.size(), terms = context.mixture().activity().terms().size();
  for (Side* side : {&alpha_, &beta_})
    *side = {std::vector<double>(n), std::vector<double>(n), std::vector<double>(n * n),
             std::vector<double>(n * terms)};
  present_ = point.present();
  const auto N = static_cast<Eigen::Index>(present_.size());
  weight_ = Eigen::MatrixXd::Identity(N, N);
  mutable_parameter_block_sizes()->push_back(static_cast<int>(context.free().size()));
  set_num_residuals(static_cast<int>(present_.size()));
}

void TwoLiquidsResidual::evaluate(const std::vector<double>& x, Side& side, bool with_slopes) const {
  ActivityModel& model = context_.mixture().activity();
  model.set_temperature(point_.T_K);
  model.evaluate(x, side.ln_gamma, side.dT, side.dn);
  if (with_slopes) model.term_derivatives(x, side.slopes);
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

}  // namespace

void TwoLiquidsResidual::refresh() {
  const std::vector<double> x = inside(point_.x, point_.u_x, present_),
                            y = inside(point_.y, point_.u_y, present_);
  evaluate(x, alpha_, false);
  evaluate(y, beta_, false);
  const std::size_t n = x.size(), m = present_.size();
  const auto M = static_cast<Eigen::Index>(m);
  Eigen::MatrixXd variance = Eigen::MatrixXd::Zero(M, M);
  Eigen::VectorXd slope(M);
  const auto add = [&](double u) { variance += u * u * slope * slope.transpose(); };
  for (const auto& [side, fractions, u, sign] :
       {std::tuple(&alpha_, &x, point_.u_x, 1.0), std::tuple(&beta_, &y, point_.u_y, -1.0)}) {
    // x_k up, the largest one down, which a dilute component does not disturb.
    const std::size_t last = *std::max_element(
        present_.begin(), present_.end(), [&, f = fractions](auto a, auto b) { return (*f)[a] < (*f)[b]; });
    for (const std::size_t k : present_) {
      if (k == last) continue;
      for (std::size_t r = 0; r < m; ++r) {
        const std::size_t i = present_[r];
        const double ideal = (i == k ? 1 / (*fractions)[i] : 0) - (i == last ? 1 / (*fractions)[i] : 0);
        slope[static_cast<Eigen::Index>(r)] = sign * (ideal + side->dn[i * n + k] - side->dn[i * n + last]);
      }
      add(u_of_fraction((*fractions)[k], u, point_.relative_u_x));
    }
  }
  for (std::size_t r = 0; r < m; ++r) {
    slope[static_cast<Eigen::Index>(r)] = alpha_.dT[present_[r]] - beta_.dT[present_[r]];
  }
  add(point_.u_T_K);
  const double floor = 1e-12 * variance.trace();
  variance.diagonal().array() += floor;
  const Eigen::LLT<Eigen::MatrixXd> cholesky(variance);
  if (cholesky.info() != Eigen::Success) return;  // keeps the weights it has
  weight_ = cholesky.matrixL().solve(Eigen::MatrixXd::Identity(M, M));
}

bool TwoLiquidsResidual::Evaluate(double const* const* blocks, double* residuals, double** jacobians) const {
  context_.set(blocks[0]);
  const bool slopes = jacobians != nullptr && jacobians[0] != nullptr;
  const std::vector<double> x = inside(point_.x, point_.u_x, present_),
                            y = inside(point_.y, point_.u_y, present_);
  evaluate(x, alpha_, slopes);
  evaluate(y, beta_, slopes);
  const auto M = static_cast<Eigen::Index>(present_.size());
  Eigen::VectorXd F(M);
  for (Eigen::Index r = 0; r < M; ++r) {
    const std::size_t i = present_[static_cast<std::size_t>(r)];
    F[r] = std::log(x[i] / y[i]) + alpha_.ln_gamma[i] - beta_.ln_gamma[i];
  }
  Eigen::Map<Eigen::VectorXd>(residuals, M) = weight_ * F;
  if (!F.allFinite()) return false;
  if (!slopes) return true;
  const std::size_t terms = context_.mixture().activity().terms().size();
  Eigen::VectorXd dF(M);
  const auto parameters = static_cast<Eigen::Index>(context_.free().size());
  Eigen::Map<Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::RowMajor>> J(jacobians[0], M,
                                                                                       parameters);
  for (Eigen::Index p = 0; p < parameters; ++p) {
    const auto parameter = static_cast<std::size_t>(p);
    for (Eigen::Index r = 0; r < M; ++r) {
      const std::size_t row = present_[static_cast<std::size_t>(r)] * terms;
      dF[r] = context_.derivative(parameter, point_.T_K, [&](std::size_t term) {
        return alpha_.slopes[row + term] - beta_.slopes[row + term];
      });
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
