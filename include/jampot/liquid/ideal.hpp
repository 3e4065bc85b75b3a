#pragma once
#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/model_description.hpp"

namespace jampot {

/// The ideal solution: every activity coefficient is 1 (Raoult's law).
class IdealSolution final : public ActivityModel {
 public:
  /// For that many components.
  explicit IdealSolution(std::size_t size) : size_(size) {}
  /// What the model is, for users and for fits.
  static ModelDescription description();

  std::string_view name() const override { return "ideal"; }
  std::size_t size() const override { return size_; }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<IdealSolution>(*this); }
  void set_temperature(double) override {}
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double>, std::span<const double>) const override { return 0; }
  void write_out(Working& page) const override;

 private:
  std::size_t size_;
};

}  // namespace jampot
