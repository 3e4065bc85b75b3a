#pragma once
// The sum over contacts that Wilson, UNIQUAC and UNIFAC share.
#include <cstddef>
#include <span>
#include <vector>

namespace jampot {

/// For surfaces s_k of `size()` kinds (molecules or groups) with contact factors psi_mk,
///
///   E = -sum_k s_k ln(T_k / S),  T_k = sum_m s_m psi_mk,  S = sum_k s_k,
///
/// and its derivatives. With s = mole numbers and psi_mk = Lambda_km it is the Wilson equation; with s = q x
/// and psi = tau the residual part of UNIQUAC; with s = Q times the amounts of groups that of UNIFAC. E is
/// homogeneous of degree one in s.
class ContactSum {
 public:
  /// For that many components.
  explicit ContactSum(std::size_t size)
      : n_(size), psi_(size * size, 1.0), dpsi_(size * size), inverse_T_(size), share_(size), weight_(size) {}

  /// Number of components.
  std::size_t size() const { return n_; }
  /// psi_mk and d psi_mk / dT, row m, column k; to be filled by the model at each temperature.
  double& psi(std::size_t m, std::size_t k) { return psi_[m * n_ + k]; }
  /// Weight of a contact.
  double psi(std::size_t m, std::size_t k) const { return psi_[m * n_ + k]; }
  /// Derivative of the weight with T.
  double& dpsi(std::size_t m, std::size_t k) { return dpsi_[m * n_ + k]; }
  /// Derivative of the weight with T.
  double dpsi(std::size_t m, std::size_t k) const { return dpsi_[m * n_ + k]; }

  /// dE/ds_j = 1 - ln(T_j/S) - sum_k s_k psi_jk / T_k. Keeps the sums for the calls below.
  void gradient(std::span<const double> s, std::span<double> g);

  /// d(dE/ds_j)/dT at the surfaces of the last `gradient`.
  void gradient_dT(std::span<const double> s, std::span<double> out);

  /// d2E/ds_j ds_l at the surfaces of the last `gradient`; symmetric.
  void hessian(std::span<const double> s, std::span<double> h) const;

  /// d3E/dt3 along the surfaces s + t u.
  double third_derivative(std::span<const double> s, std::span<const double> u) const;

  /// Change of every dE/ds_j with psi_ab, added to out[j * stride] times `factor`.
  void add_entry_change(std::span<const double> s, std::size_t a, std::size_t b, double factor, double* out,
                        std::size_t stride) const;

  /// dE/dpsi_ab and its change with T at the surfaces of the last `gradient`.
  struct EntrySlope {
    double value,  ///< derivative of the sum
        dT;        ///< its derivative with T
  };
  /// Derivative with one psi.
  EntrySlope entry_slope(std::span<const double> s, std::size_t a, std::size_t b) const;

 private:
  std::size_t n_;
  std::vector<double> psi_, dpsi_;
  std::vector<double> inverse_T_;  ///< 1/T_k
  std::vector<double> share_;      ///< s_k/T_k
  std::vector<double> weight_;     ///< scratch: s_k dT_k/T_k^2
  double S_ = 0;
};

}  // namespace jampot
