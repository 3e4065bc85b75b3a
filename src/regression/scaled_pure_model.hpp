#pragma once
// A liquid model with one more term for each substance: the logarithm of a factor of its vapour pressure.
#include <memory>
#include <vector>

#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// ln gamma_i of another model, plus ln f_i. Beside vapour pressures that are off by the factors f_i it gives
/// the fugacities of a liquid whose vapour pressures are right, so that the factors can be fitted like any
/// other term.
class ScaledPureModel final : public ActivityModel {
 public:
  static constexpr const char* term_name = "Psat";

  explicit ScaledPureModel(std::unique_ptr<ActivityModel> base);
  std::string_view name() const override { return base_->name(); }
  std::size_t size() const override { return base_->size(); }
  std::unique_ptr<ActivityModel> clone() const override;
  void set_temperature(double T_K) override;
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;
  std::span<const ModelTerm> terms() const override { return terms_; }
  void set_coefficient(std::size_t term, Coefficient coefficient, double value) override;
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;
  /// What is measured in a liquid alone knows no vapour pressure.
  ActivityModel& base() { return *base_; }

 private:
  std::unique_ptr<ActivityModel> base_;
  std::size_t own_;               ///< terms of the base
  std::vector<ModelTerm> terms_;  ///< those of the base, then one for each substance
  std::vector<double> factor_ln_;
  std::vector<double> scratch_;
};

}  // namespace jampot
