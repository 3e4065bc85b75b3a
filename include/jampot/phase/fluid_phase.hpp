#pragma once
// A phase described by an equation of state.
#include "jampot/fluid/equation_of_state.hpp"
#include "jampot/phase/phase.hpp"

namespace jampot {

/// A vapour, a liquid, or whichever of the two is stable, from an equation of state.
class FluidPhase final : public Phase {
 public:
  /// Which root of the equation.
  enum class Root {
    stable,  ///< the volume with the lowest Gibbs energy
    liquid,  ///< the smallest volume
    vapour   ///< the largest
  };
  /// With an equation and the root it takes.
  FluidPhase(std::unique_ptr<EquationOfState> equation, Root root)
      : equation_(std::move(equation)), root_(root), state_(equation_->size()) {}
  /// With an equation and the root it takes.
  FluidPhase(const FluidPhase& other)
      : Phase(other), equation_(other.equation_->clone()), root_(other.root_), state_(other.state_) {}
  FluidPhase& operator=(const FluidPhase&) = delete;
  std::size_t size() const override { return equation_->size(); }
  std::unique_ptr<Phase> clone() const override { return std::make_unique<FluidPhase>(*this); }
  bool depends_on_composition() const override { return true; }
  std::optional<double> ln_phi_pure(std::size_t i, double T_K, double P_Pa) override {
    return root_ == Root::stable ? equation_->ln_phi_pure(i, T_K, P_Pa) : std::nullopt;
  }

  /// Molar volume and residual properties at the state of the last `evaluate`.
  const FluidState& state() const { return state_; }
  /// The equation of state.
  EquationOfState& equation() { return *equation_; }
  /// All derivatives of the Helmholtz energy at the volume of the last `evaluate`.
  Helmholtz helmholtz(double T_K, std::span<const double> x);
  /// Molar volume found last, before translation, m3/mol.
  double untranslated_volume() const { return volume_; }

 private:
  void do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                   PhaseValues& out) override;

  std::unique_ptr<EquationOfState> equation_;
  Root root_;
  FluidState state_;
  double volume_ = 0;
};

}  // namespace jampot
