#pragma once
#include "jampot/liquid/activity_model.hpp"

namespace jampot {

/// Some of the components of a mixture by themselves: the edge of a triangle as a binary of its own. Stands
/// on a model that somebody else keeps.
class Subsystem final : public ActivityModel {
 public:
  /// @param members numbers of the components, in the order they shall have here
  Subsystem(ActivityModel& whole, std::vector<std::size_t> members);

  std::string_view name() const override { return whole_->name(); }
  std::size_t size() const override { return members_.size(); }
  std::unique_ptr<ActivityModel> clone() const override { return std::make_unique<Subsystem>(*this); }
  void set_temperature(double T_K) override { whole_->set_temperature(T_K); }
  void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                std::span<double> dn) override;
  double third_derivative(std::span<const double> x, std::span<const double> u) const override;

  /// A composition of the members as one of the whole.
  std::vector<double> in_whole(std::span<const double> x) const;

 private:
  ActivityModel* whole_;
  std::vector<std::size_t> members_;
  std::vector<double> x_, ln_gamma_, dT_, dn_;
};

}  // namespace jampot
