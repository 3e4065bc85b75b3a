#include "jampot/phase/virial_vapour.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/dense.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"

namespace jampot {

struct VirialVapour::Work {
  Eigen::VectorXd unknown, residual;  // ln u_i = ln(monomers of i/y_i), ln N
  Eigen::MatrixXd jacobian, right, answer;
  LuSolver lu;
};

VirialVapour::VirialVapour(std::unique_ptr<VirialCoefficients> coefficients)
    : B_(std::move(coefficients)),
      row_(B_->size()),
      kappa_(B_->size() * B_->size()),
      kappa_T_(kappa_),
      kappa_P_(kappa_) {
  Work& work = *work_;
  const auto n = static_cast<Eigen::Index>(B_->size());
  work.unknown.resize(n + 1);
  work.residual.resize(n + 1);
  work.jacobian.resize(n + 1, n + 1);
  work.right.resize(n + 1, n + 2);
}

VirialVapour::VirialVapour(const VirialVapour& other) : VirialVapour(other.B_->clone()) {}

void VirialVapour::do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                               PhaseValues& out) {
  B_->set_temperature(T_K);
  B_->dimers() ? chemical(T_K, P_Pa, w, wanted, out) : physical(T_K, P_Pa, w, wanted, out);
}

void VirialVapour::physical(double T_K, double P_Pa, std::span<const double> y, Wanted wanted,
                            PhaseValues& out) {
  const std::size_t n = size();
  const double by = P_Pa / (gas_constant * T_K);
  double mixed = 0, mixed_T = 0;
  for (std::size_t i = 0; i < n; ++i) {
    double sum = 0, sum_T = 0;
    for (std::size_t j = 0; j < n; ++j) {
      sum += y[j] * B_->total(i, j).value;
      sum_T += y[j] * B_->total(i, j).dT;
    }
    row_[i] = sum;
    out.dT[i] = sum_T;
    mixed += y[i] * sum;
    mixed_T += y[i] * sum_T;
  }
  for (std::size_t i = 0; i < n; ++i) {
    out.ln_phi[i] = by * (2 * row_[i] - mixed);
    out.dT[i] = by * (2 * out.dT[i] - mixed_T) - out.ln_phi[i] / T_K;
    if (wanted.ln_P) out.dln_P[i] = out.ln_phi[i];
    for (std::size_t k = 0; wanted.composition && k < n; ++k)
      out.dn[i * n + k] = 2 * by * (B_->total(i, k).value - row_[i] - row_[k] + mixed);
  }
}

// With u_i the share of molecules of i that are single and N the molecules per mole weighed in:
//   1/u_i = 1 + sum_j (1 + delta_ij) y_j u_j kappa_ij/N,
//   N = sum_i y_i u_i + sum_{i <= j} y_i u_i y_j u_j kappa_ij/N,
// kappa_ij = K_ij P phi_i phi_j/phi_ij. Newton's method on the logarithms.
void VirialVapour::find_monomers(double T_K, double P_Pa, std::span<const double> y) {
  Work& work = *work_;
  const std::size_t n = size();
  const double RT = gas_constant * T_K, by = P_Pa / RT;
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = 0; j < n; ++j) {
      const auto free = [&](std::size_t a, std::size_t b) {
        return VirialCoefficient{B_->total(a, b).value - B_->bound(a, b).value,
                                 B_->total(a, b).dT - B_->bound(a, b).dT, 0};
      };
      const VirialCoefficient a = free(i, i), b = free(j, j), ab = free(i, j), &bound = B_->bound(i, j);
      const double excess = a.value + b.value - ab.value, excess_T = a.dT + b.dT - ab.dT;
      const std::size_t k = i * n + j;
      kappa_[k] = -(i == j ? 1 : 2) * bound.value * by * std::exp(by * excess);
      if (bound.value == 0) {
        kappa_T_[k] = kappa_P_[k] = 0;
        continue;
      }
      kappa_T_[k] = bound.dT / bound.value - 1 / T_K + by * (excess_T - excess / T_K);
      kappa_P_[k] = 1 + by * excess;
    }
  }
  work.unknown.setZero();
  for (std::size_t i = 0; i < n; ++i)  // as if each were alone: 1/u = 1 + 2 kappa u
    work.unknown[static_cast<Eigen::Index>(i)] =
        -std::log((1 + std::sqrt(1 + 8 * y[i] * kappa_[i * n + i])) / 2);
  const auto last = static_cast<Eigen::Index>(n);
  constexpr int most_steps = 80;
  for (int step = 0; step < most_steps; ++step) {
    const double N = std::exp(work.unknown[last]);
    work.jacobian.setZero();
    double total = 0, dimers = 0;
    for (std::size_t i = 0; i < n; ++i) {
      const auto row = static_cast<Eigen::Index>(i);
      const double u = std::exp(work.unknown[row]);
      double sum = 0;
      for (std::size_t j = 0; j < n; ++j) {
        const auto column = static_cast<Eigen::Index>(j);
        const double term = (i == j ? 2 : 1) * y[j] * std::exp(work.unknown[column]) * kappa_[i * n + j] / N;
        sum += term;
        work.jacobian(row, column) += u * term;
      }
      // u (1 + sum) = 1
      work.residual[row] = u * (1 + sum) - 1;
      work.jacobian(row, row) += u * (1 + sum);
      work.jacobian(row, last) = -u * sum;
      total += y[i] * u;
      dimers += y[i] * u * sum / 2;
      work.jacobian(last, row) = (y[i] * u + y[i] * u * sum) / N;
    }
    work.residual[last] = (total + dimers) / N - 1;
    work.jacobian(last, last) = -(total + 2 * dimers) / N;
    const double most = work.residual.lpNorm<Eigen::Infinity>();
    work.lu.factor(work.jacobian);
    work.lu.solve(work.residual, work.residual);
    const double longest = work.residual.lpNorm<Eigen::Infinity>();
    if (!std::isfinite(longest)) break;
    work.unknown -= work.residual * std::min(1.0, 2 / std::max(longest, 1e-300));
    if (most < 1e-14 || (longest < 1e-14 && most < 1e-12)) return;
  }
  throw CalculationError(
      "the association of this vapour was not solved; the pressure may be too high for a gas");
}

void VirialVapour::chemical(double T_K, double P_Pa, std::span<const double> y, Wanted wanted,
                            PhaseValues& out) {
  Work& work = *work_;
  find_monomers(T_K, P_Pa, y);
  const std::size_t n = size();
  const auto last = static_cast<Eigen::Index>(n);
  const double by = P_Pa / (gas_constant * T_K), N = std::exp(work.unknown[last]);
  // ln phi_i = ln u_i - ln N + B_ii(free) P/(R T)
  for (std::size_t i = 0; i < n; ++i) {
    const double free = B_->total(i, i).value - B_->bound(i, i).value;
    out.ln_phi[i] = work.unknown[static_cast<Eigen::Index>(i)] - work.unknown[last] + free * by;
  }
  if (!wanted.T && !wanted.ln_P && !wanted.composition) return;
  // How the equations change with T, ln P and the amounts (as if they did not sum to one: N counts
  // molecules).
  work.right.setZero();
  for (std::size_t i = 0; i < n; ++i) {
    const auto row = static_cast<Eigen::Index>(i);
    const double u = std::exp(work.unknown[row]);
    for (std::size_t j = 0; j < n; ++j) {
      const double pair = u * std::exp(work.unknown[static_cast<Eigen::Index>(j)]) * kappa_[i * n + j] / N;
      const double term = (i == j ? 2 : 1) * y[j] * pair;
      work.right(row, 0) += term * kappa_T_[i * n + j];
      work.right(row, 1) += term * kappa_P_[i * n + j];
      work.right(row, 2 + static_cast<Eigen::Index>(j)) += (i == j ? 2 : 1) * pair;
      work.right(last, 0) += y[i] * term * kappa_T_[i * n + j] / (2 * N);
      work.right(last, 1) += y[i] * term * kappa_P_[i * n + j] / (2 * N);
      work.right(last, 2 + row) += term / N;
    }
    work.right(last, 2 + row) += u / N;
  }
  work.lu.solve(work.right, work.answer);
  for (std::size_t i = 0; i < n; ++i) {
    const auto row = static_cast<Eigen::Index>(i);
    const double free = B_->total(i, i).value - B_->bound(i, i).value;
    const double free_T = B_->total(i, i).dT - B_->bound(i, i).dT;
    if (wanted.T) out.dT[i] = -work.answer(row, 0) + work.answer(last, 0) + by * (free_T - free / T_K);
    if (wanted.ln_P) out.dln_P[i] = -work.answer(row, 1) + work.answer(last, 1) + free * by;
    for (std::size_t k = 0; wanted.composition && k < n; ++k) {
      const auto column = 2 + static_cast<Eigen::Index>(k);
      // The true mole fraction of the monomer is u_i n_i/N, the apparent one n_i/sum n: their quotient gains
      // d ln (sum n)/d n_k = 1.
      out.dn[i * n + k] = -work.answer(row, column) + work.answer(last, column) + 1;
    }
  }
}

double VirialVapour::true_moles(double T_K, double P_Pa, std::span<const double> y) {
  Work& work = *work_;
  B_->set_temperature(T_K);
  if (!B_->dimers()) return 1;
  find_monomers(T_K, P_Pa, y);
  return std::exp(work.unknown[static_cast<Eigen::Index>(size())]);
}

}  // namespace jampot
