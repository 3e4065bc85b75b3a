#pragma once
#include "jampot/liquid/contact_sum.hpp"
#include "jampot/liquid/model_description.hpp"
#include "jampot/liquid/pair_model.hpp"
#include "jampot/liquid/size_part.hpp"

namespace jampot {

/// Volume and surface of a molecule for UNIQUAC.
struct UniquacSize {
  double r = 0,           ///< volume
      q = 0;              ///< surface
  double q_residual = 0;  ///< q' of the residual part; equal to q unless the parameters say otherwise
};

/// UNIQUAC for any number of components: the size part (SizePart) and, with theta_i = q'_i x_i / sum q'_j
/// x_j,
///
///   ln gamma_i(residual) = q'_i (1 - ln sum_j theta_j tau_ji - sum_j theta_j tau_ij / sum_k theta_k tau_kj),
///   tau_ij = exp(-u_ij),  tau_ii = 1.
///
/// Terms of a pair: u_12 and u_21, each a TemperatureFunction. With u = inverse_T / T, inverse_T is
/// (u_ij - u_jj)/R in K.
///
/// Source: D. S. Abrams, J. M. Prausnitz, AIChE J. 21 (1975) 116-128; q' for water and alcohols: T. F.
/// Anderson, J. M. Prausnitz, Ind. Eng. Chem. Process Des. Dev. 17 (1978) 552-561.
class Uniquac final : public PairModel {
 public:
  static constexpr std::string_view model_name = "uniquac";  ///< as users write it

  /// With the sizes of all components and a set of parameters for each pair.
  Uniquac(const std::vector<UniquacSize>& sizes, const std::vector<PairParameters>& pairs);

  /// What the model is, for users and for fits.
  static ModelDescription description();

  std::string_view name() const override { return model_name; }
  std::size_t size() const override { return size_part_.size(); }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Uniquac>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  void write_out(Working& page) const override;
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;

  /// The combinatorial part.
  const SizePart& size_part() const { return size_part_; }
  /// Surfaces of the residual part.
  const std::vector<double>& residual_surfaces() const { return surface_; }
  /// Interaction at the temperature set last.
  double tau(std::size_t i, std::size_t j) const { return contacts_.psi(i, j); }

 private:
  void set_surfaces(std::span<const double> x);

  SizePart size_part_;
  std::vector<double> surface_;  ///< q'
  ContactSum contacts_;
  std::vector<double> s_, gradient_;
};

}  // namespace jampot
