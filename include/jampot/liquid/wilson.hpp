#pragma once
#include "jampot/liquid/contact_sum.hpp"
#include "jampot/liquid/model_description.hpp"
#include "jampot/liquid/pair_model.hpp"

namespace jampot {

/// The Wilson equation for any number of components:
///
///   ln gamma_i = 1 - ln(sum_j Lambda_ij x_j) - sum_k x_k Lambda_ki / sum_j Lambda_kj x_j,
///   Lambda_ij = (V_j/V_i) exp(-lambda_ij),  Lambda_ii = 1.
///
/// Terms of a pair: lambda_12 and lambda_21, each a TemperatureFunction. With lambda = inverse_T / T,
/// inverse_T is (lambda_ij - lambda_ii)/R in K. The molar volumes V are those the parameters were fitted
/// with; they do not change with temperature. It cannot describe two liquids, whatever its parameters.
///
/// Source: G. M. Wilson, J. Am. Chem. Soc. 86 (1964) 127-130.
class Wilson final : public PairModel {
 public:
  static constexpr std::string_view model_name = "wilson";  ///< as users write it

  /// @param volumes V_j/V_i enters; for a pair that states its own molar volumes these hold instead
  /// @throws RequestError where a pair lacks lambda_12 or lambda_21, or names another term
  Wilson(std::vector<double> volumes, const std::vector<PairParameters>& pairs);

  /// What the model is, for users and for fits.
  static ModelDescription description();

  std::string_view name() const override { return model_name; }
  std::size_t size() const override { return contacts_.size(); }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Wilson>(*this); }
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  void write_out(Working& page) const override;
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;

  /// Lambda_ij at the temperature the model stands at.
  double Lambda(std::size_t i, std::size_t j) const { return contacts_.psi(j, i); }

 private:
  std::vector<double> ratio_;  ///< of each term: V_j/V_i for lambda_ij
  ContactSum contacts_;        ///< with psi_mk = Lambda_km
  std::vector<double> gradient_;
};

}  // namespace jampot
