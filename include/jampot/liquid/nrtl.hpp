#pragma once
#include "jampot/liquid/model_description.hpp"
#include "jampot/liquid/pair_model.hpp"

namespace jampot {

/// NRTL, the non-random two-liquid model, for any number of components:
///
///   ln gamma_i = C_i/S_i + sum_j (x_j G_ij / S_j) (tau_ij - C_j/S_j),
///   S_j = sum_k G_kj x_k,  C_j = sum_k tau_kj G_kj x_k,  G_ij = exp(-alpha_ij tau_ij),
///   tau_ii = 0,  alpha_ij = alpha_ji.
///
/// Terms of a pair: tau_12, tau_21 and alpha, each a TemperatureFunction. With tau = inverse_T / T, inverse_T
/// is (g_ij - g_jj)/R in K.
///
/// Source: H. Renon, J. M. Prausnitz, AIChE J. 14 (1968) 135-144.
class Nrtl final : public PairModel {
 public:
  static constexpr std::string_view model_name = "nrtl";  ///< as users write it

  /// `pairs[p]` for i < j in the order (0,1), (0,2), ... (1,2), ..., with i as substance 1.
  /// @throws RequestError where a pair lacks tau_12, tau_21 or alpha, or names another term.
  Nrtl(std::size_t size, const std::vector<PairParameters>& pairs);

  /// What the model is, for users and for fits.
  static ModelDescription description();

  std::string_view name() const override { return model_name; }
  std::size_t size() const override { return n_; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Nrtl>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  void evaluate_states(std::span<const double> x, std::span<double> ln_gamma) override;
  void evaluate_states(std::span<const double> T_K, std::span<const double> x,
                       std::span<double> ln_gamma) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  void write_out(Working& page) const override;
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;

 private:
  std::size_t at(std::size_t i, std::size_t j) const { return i * n_ + j; }
  void sums(std::span<const double> x);
  /// ln gamma alone, with the number of components known to the compiler (0: not known).
  template <std::size_t N>
  void ln_gamma_only(const double* x, double* ln_gamma);
  template <std::size_t N>
  void sums_of(const double* x);
  template <std::size_t N>
  void amounts_derivatives(const double* x, double* dn) const;
  /// Adds to `out` (n numbers, `stride` apart) the change of ln gamma when G_ab and tau_ab G_ab change.
  void add_entry_change(std::span<const double> x, std::size_t a, std::size_t b, double dG, double dtauG,
                        double* out, std::size_t stride) const;

  std::size_t n_;
  std::vector<double> tau_, alpha_, G_, tauG_;  ///< n x n, at T_K_
  std::vector<double> S_, R_, E_;               ///< at the last composition; R_j = C_j/S_j, E_ij = dR_j/dn_i
  std::vector<double> dS_, dR_;                 ///< scratch
};

}  // namespace jampot
