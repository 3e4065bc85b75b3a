#include "jampot/liquid/contact_sum.hpp"

#include <cmath>

#include "jampot/liquid/along_line.hpp"

namespace jampot {

void ContactSum::gradient(std::span<const double> s, std::span<double> g) {
  S_ = 0;
  for (std::size_t k = 0; k < n_; ++k) {
    S_ += s[k];
    inverse_T_[k] = 0;  // T_k first
  }
  for (std::size_t m = 0; m < n_; ++m) {
    const double* row = &psi_[m * n_];
    for (std::size_t k = 0; k < n_; ++k) inverse_T_[k] += s[m] * row[k];
  }
  for (std::size_t k = 0; k < n_; ++k) {
    g[k] = 1 - std::log(inverse_T_[k] / S_);
    inverse_T_[k] = 1 / inverse_T_[k];
    share_[k] = s[k] * inverse_T_[k];
  }
  for (std::size_t j = 0; j < n_; ++j) {
    const double* row = &psi_[j * n_];
    double sum = 0;
    for (std::size_t k = 0; k < n_; ++k) sum += row[k] * share_[k];
    g[j] -= sum;
  }
}

void ContactSum::gradient_dT(std::span<const double> s, std::span<double> out) {
  for (std::size_t k = 0; k < n_; ++k) {
    double dT = 0;
    for (std::size_t m = 0; m < n_; ++m) dT += s[m] * dpsi_[m * n_ + k];
    out[k] = -dT * inverse_T_[k];
    weight_[k] = share_[k] * dT * inverse_T_[k];
  }
  for (std::size_t j = 0; j < n_; ++j) {
    for (std::size_t k = 0; k < n_; ++k) {
      out[j] += psi_[j * n_ + k] * weight_[k] - dpsi_[j * n_ + k] * share_[k];
    }
  }
}

void ContactSum::hessian(std::span<const double>, std::span<double> h) const {
  for (std::size_t j = 0; j < n_; ++j) {
    for (std::size_t l = j; l < n_; ++l) {
      double sum = 1 / S_ - psi_[l * n_ + j] * inverse_T_[j] - psi_[j * n_ + l] * inverse_T_[l];
      for (std::size_t k = 0; k < n_; ++k) {
        sum += share_[k] * inverse_T_[k] * psi_[j * n_ + k] * psi_[l * n_ + k];
      }
      h[j * n_ + l] = h[l * n_ + j] = sum;
    }
  }
}

double ContactSum::third_derivative(std::span<const double> s, std::span<const double> u) const {
  AlongLine S;
  double sum = 0;
  for (std::size_t k = 0; k < n_; ++k) {
    AlongLine T;
    for (std::size_t m = 0; m < n_; ++m) T.add(psi_[m * n_ + k], s[m], u[m]);
    S.add(1, s[k], u[k]);
    sum -= third_of_a_ln_c({s[k], u[k]}, T);
  }
  return sum + third_of_a_ln_c(S, S);
}

void ContactSum::add_entry_change(std::span<const double> s, std::size_t a, std::size_t b, double factor,
                                  double* out, std::size_t stride) const {
  const double dT = factor * s[a] * inverse_T_[b];  // relative
  out[b * stride] -= dT;
  out[a * stride] -= factor * share_[b];
  for (std::size_t j = 0; j < n_; ++j) out[j * stride] += share_[b] * psi_[j * n_ + b] * dT;
}

ContactSum::EntrySlope ContactSum::entry_slope(std::span<const double> s, std::size_t a,
                                               std::size_t b) const {
  double dT = 0;
  for (std::size_t m = 0; m < n_; ++m) dT += s[m] * dpsi_[m * n_ + b];
  const double value = -s[a] * s[b] * inverse_T_[b];
  return {value, -value * dT * inverse_T_[b]};
}

}  // namespace jampot
