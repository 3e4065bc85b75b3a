#pragma once
// The one question that every phase answers: given T, P and composition, what is ln phi_i?
#include <cstddef>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "jampot/liquid/activity_model.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Which derivatives a caller needs beside the values.
struct Wanted {
  bool T = false,           ///< with temperature
      ln_P = false,         ///< with the logarithm of pressure
      composition = false;  ///< with amounts
};

/// ln phi_i and its derivatives. Those not wanted are left as they were; `dn` may be empty then.
struct PhaseValues {
  /// With room for n components.
  explicit PhaseValues(std::size_t n = 0) : ln_phi(n), dT(n), dln_P(n), dn(n * n) {}
  std::vector<double> ln_phi;  ///< natural logarithm of the fugacity coefficient
  std::vector<double> dT;      ///< d ln phi_i / dT, 1/K
  std::vector<double> dln_P;   ///< d ln phi_i / d ln P
  std::vector<double> dn;      ///< [i*n + k] d ln phi_i / d n_k for one mole in all
  double v_m3_mol = 0;         ///< molar volume (before translation), of an equation of state
};

/// A phase of `size()` components. Holds scratch space: one object per thread.
class Phase {
 public:
  virtual ~Phase() = default;
  /// Number of components.
  virtual std::size_t size() const = 0;
  /// A copy of its own, for another thread or another temperature.
  virtual std::unique_ptr<Phase> clone() const = 0;

  /// Whether ln phi_i changes with composition; where it does not, equilibria are one equation in T or P.
  virtual bool depends_on_composition() const = 0;

  /// ln phi_i at T_K > 0, P_Pa > 0 and mole fractions w, with the derivatives that are wanted.
  void evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted, PhaseValues& out) {
    ++evaluations_;
    do_evaluate(T_K, P_Pa, w, wanted, out);
  }

  /// ln phi of a pure component, where it is to be had for less than `evaluate` takes.
  virtual std::optional<double> ln_phi_pure(std::size_t, double, double) { return std::nullopt; }

  /// The activity model behind a phase that has one (for fits and splits), else nullptr.
  virtual ActivityModel* activity() { return nullptr; }
  /// The same of a phase that must not change.
  const ActivityModel* activity() const { return const_cast<Phase*>(this)->activity(); }

  /// How often this phase was evaluated: what a solver costs, independent of the machine.
  long evaluations() const { return evaluations_; }

 protected:
  /// What a kind of phase computes; the arguments have been checked.
  virtual void do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                           PhaseValues& out) = 0;

 private:
  long evaluations_ = 0;
};

/// A vapour that is an ideal gas: ln phi_i = 0.
class IdealGas final : public Phase {
 public:
  /// For that many components.
  explicit IdealGas(std::size_t size) : size_(size) {}
  std::size_t size() const override { return size_; }
  std::unique_ptr<Phase> clone() const override { return std::make_unique<IdealGas>(*this); }
  bool depends_on_composition() const override { return false; }

 private:
  void do_evaluate(double, double, std::span<const double>, Wanted wanted, PhaseValues& out) override;
  std::size_t size_;
};

class SaturationCorrection;

/// A liquid described by an activity model: ln phi_i = ln gamma_i + ln(Psat_i/P) and, where a correction is
/// given, ln phi_i of the saturated vapour and the Poynting factor. Without one both are taken as 1 (low
/// pressure).
class ActivityLiquid final : public Phase {
 public:
  /// A substance without a vapour pressure is taken as non-volatile: it stays in the liquid.
  ActivityLiquid(const std::vector<Substance>& substances, std::unique_ptr<ActivityModel> model,
                 std::unique_ptr<SaturationCorrection> correction = nullptr);
  /// A copy with a state of its own.
  ActivityLiquid(const ActivityLiquid& other);
  ~ActivityLiquid() override;
  ActivityLiquid& operator=(const ActivityLiquid&) = delete;

  std::size_t size() const override { return vapour_pressures_.size(); }
  std::unique_ptr<Phase> clone() const override { return std::make_unique<ActivityLiquid>(*this); }
  bool depends_on_composition() const override { return true; }
  ActivityModel* activity() override { return model_.get(); }
  /// The correction at T_K, or nullptr.
  const SaturationCorrection* correction(double T_K);

 private:
  void do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                   PhaseValues& out) override;
  void set_temperature(double T_K);

  std::vector<std::optional<VapourPressure>> vapour_pressures_;
  std::vector<bool> solute_;  ///< after Henry's law
  std::unique_ptr<ActivityModel> model_;
  double T_K_ = 0;
  std::unique_ptr<SaturationCorrection> correction_;
  std::vector<double> ln_Psat_, dln_Psat_;  ///< at T_K_
};

/// A liquid among liquids: referred to the pure liquids, ln phi_i = ln gamma_i. Enough where no vapour takes
/// part, and needs no vapour pressures. Stands on a model that somebody else keeps.
class MixingLiquid final : public Phase {
 public:
  /// The model must outlive it.
  explicit MixingLiquid(ActivityModel& model) : model_(&model) {}
  std::size_t size() const override { return model_->size(); }
  std::unique_ptr<Phase> clone() const override { return std::make_unique<MixingLiquid>(*this); }
  bool depends_on_composition() const override { return true; }
  ActivityModel* activity() override { return model_; }

 private:
  void do_evaluate(double T_K, double P_Pa, std::span<const double> w, Wanted wanted,
                   PhaseValues& out) override;
  ActivityModel* model_;
};

}  // namespace jampot
