#pragma once
// Substances, the models of their phases, and where every number comes from.
#include <memory>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/liquid/pair_parameters.hpp"
#include "jampot/phase/fluid_phase.hpp"
#include "jampot/phase/phase.hpp"
#include "jampot/phase/vapour_models.hpp"
#include "jampot/substance/bank.hpp"

namespace jampot {

class Unifac;

/// A mixture of substances with a liquid and a vapour model. Copies are independent; use one per thread.
class Mixture {
 public:
  /// @param liquid_model a word of liquid_model_names(), or "eos": liquid and vapour from the equation of
  /// state that the vapour names
  /// @throws RequestError for fewer than two substances, the same one twice or an unknown model;
  ///         CalculationError for a missing pair or a substance without a vapour pressure
  Mixture(std::vector<Substance> substances, const std::string& liquid_model,
          const ParameterCollection& parameters, const VapourChoice& vapour = {});

  /// With an activity model of the caller's own making (a fit, a user-defined model).
  Mixture(std::vector<Substance> substances, std::unique_ptr<ActivityModel> model,
          std::vector<PairParameters> parameters, const VapourChoice& vapour = {});

  /// Liquid and vapour from one equation of state.
  Mixture(std::vector<Substance> substances, const VapourChoice& vapour);

  /// A copy has models of its own.
  Mixture(const Mixture& other);
  /// A copy has models of its own.
  Mixture& operator=(const Mixture& other);
  /// A copy has models of its own.
  Mixture(Mixture&&) noexcept;
  /// A copy has models of its own.
  Mixture& operator=(Mixture&&) noexcept;
  ~Mixture();  ///< with its models

  /// Number of components.
  std::size_t size() const { return substances_.size(); }
  /// In the order of the components.
  const std::vector<Substance>& substances() const { return substances_; }
  /// The liquid phase.
  Phase& liquid() { return *liquid_; }
  /// The vapour phase.
  Phase& vapour() { return *vapour_; }
  /// @throws CalculationError where an equation of state describes the liquid
  ActivityModel& activity();
  /// The equation of state that describes both phases, or nullptr.
  EquationOfState* equation() { return whole_ ? &whole_->equation() : nullptr; }
  /// True where one equation of state describes both phases.
  bool one_equation() const { return whole_ != nullptr; }
  /// The descriptions that a flash chooses from: vapour and liquid, or one equation of state for both.
  std::vector<Phase*> kinds();
  /// Name of the liquid model.
  std::string liquid_model() const;
  /// Name of the vapour model.
  std::string vapour_model() const { return choice_.model; }
  /// As it was asked for.
  const VapourChoice& vapour_choice() const { return choice_; }
  /// Whether a component is dissolved after Henry's law.
  bool is_solute(std::size_t i) const;
  /// The liquid's correction for its saturated vapour and the Poynting factor at T_K, or nullptr.
  const SaturationCorrection* correction(double T_K);

  /// The pair parameters in use, in the order of the substances.
  const std::vector<PairParameters>& parameters() const { return parameters_; }

  /// The UNIFAC model behind the liquid, or nullptr.
  const Unifac* unifac() const;

  /// Model evaluations so far (of the liquid, which is what costs).
  long evaluations() const { return liquid_->evaluations(); }

  /// @throws CalculationError where a liquid with an activity model holds a substance of which nothing is
  /// known about its vapour (`demand_volatility` in substance/saturation.hpp)
  void demand_volatilities() const;

  /// What has to be said about using this mixture between two temperatures: vapour pressures and pair
  /// parameters outside their range, temperatures
  /// above a critical point, acids in an ideal vapour.
  Notices range_notices(double Tmin_K, double Tmax_K) const;

 private:
  std::vector<Substance> substances_;
  std::vector<PairParameters> parameters_;
  VapourChoice choice_;
  Notices model_notices_;
  bool associating_vapour_ = false;
  std::unique_ptr<Phase> liquid_;
  std::unique_ptr<Phase> vapour_;
  std::unique_ptr<FluidPhase>
      whole_;  ///< liquid or vapour, whichever is stable; only of one equation of state
};

/// The substances of these names from the bank. @throws RequestError suggesting the nearest names.
std::vector<Substance> substances_named(const std::vector<std::string>& names,
                                        const Bank& bank = Bank::built_in());

}  // namespace jampot
