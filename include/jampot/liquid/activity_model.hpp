#pragma once
// The face of every excess-Gibbs-energy model.
#include <cstddef>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "jampot/liquid/temperature_function.hpp"

namespace jampot {

/// One adjustable quantity of a model, e.g. tau_12 of the pair (i, j).
struct ModelTerm {
  std::size_t i,                 ///< component number
      j;                         ///< component number, i < j; "_12" in `name` reads i with j
  std::string name;              ///< as fits and files call it
  TemperatureFunction function;  ///< of temperature
};

class Working;

/// Activity coefficients of a liquid of `size()` components, on mole fractions, referred to the pure liquids.
///
/// A model stands at one temperature at a time (`set_temperature`); what depends on T alone is computed then
/// and compositions afterwards cost a few multiply-adds. An object is cheap to copy (`clone`) and holds
/// scratch space: use one per thread. `set_temperature` and `evaluate` allocate nothing.
class ActivityModel {
 public:
  virtual ~ActivityModel() = default;
  /// The word by which it is chosen: "nrtl", "pr".
  virtual std::string_view name() const = 0;
  /// Number of components.
  virtual std::size_t size() const = 0;
  /// A copy of its own, for another thread or another temperature.
  virtual std::unique_ptr<ActivityModel> clone() const = 0;

  /// Computes what depends on the temperature alone. @param T_K  above 0
  virtual void set_temperature(double T_K) = 0;

  /// ln gamma_i at composition `x`, and where the spans are not empty:
  ///   dT[i]         d ln gamma_i / dT at constant x, in 1/K
  ///   dn[i*n + k]   d ln gamma_i / d n_k at constant other amounts, for one mole in all: the symmetric
  ///   matrix whose
  ///                 rows obey sum_k x_k dn[i*n + k] = 0 (homogeneity) and sum_i x_i dn[i*n + k] = 0
  ///                 (Gibbs-Duhem). Along a change dx that sums to zero, d ln gamma_i = sum_k dn[i*n + k]
  ///                 dx_k.
  /// @pre x_i >= 0 summing to 1 (amounts that sum to another total give the same values, and dn divided by
  /// the total)
  virtual void evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT = {},
                        std::span<double> dn = {}) = 0;

  /// ln gamma of many compositions at the current temperature. Fractions and results stand component by
  /// component: x[i*states + k] is component i of state k. What it gives is what `evaluate` gives, state by
  /// state; NRTL of two to four components takes several states at a time.
  /// @pre as `evaluate`; both of size size() * states
  virtual void evaluate_states(std::span<const double> x, std::span<double> ln_gamma);

  /// The same with a temperature for each state, to 1e-13 relative. The model stands at the last one
  /// afterwards.
  /// @param T_K  one for each state
  virtual void evaluate_states(std::span<const double> T_K, std::span<const double> x,
                               std::span<double> ln_gamma);

  /// Third derivative of the excess Gibbs energy gE/(RT) of the amounts x + s u with s, at s = 0: with
  /// sum u_i = 0 what decides whether a critical liquid is a plait point. Every built-in model has it in
  /// closed form; a user-defined model that does not gets differences of its second derivatives.
  virtual double third_derivative(std::span<const double> x, std::span<const double> u) const;

  /// Writes the calculation at the current temperature out, equations and numbers, so that each result can be
  /// followed. A user-defined model that does not gives its results alone.
  virtual void write_out(Working& page) const;

  /// The adjustable terms; none for ideal and predictive models.
  virtual std::span<const ModelTerm> terms() const { return {}; }

  /// Sets one coefficient of one term. Takes effect with the next `set_temperature`.
  virtual void set_coefficient(std::size_t term, Coefficient coefficient, double value);

  /// out[i*terms + t] = d ln gamma_i / d term_t at the current temperature.
  /// @throws std::logic_error where a model has terms and does not say so (a user-defined PairModel takes
  /// differences)
  virtual void term_derivatives(std::span<const double> x, std::span<double> out);

  /// Of the excess Gibbs energy gE/(RT): slope[t] its derivative with term t at the current temperature, and
  /// slope_dT[t] the change of that with T (through all terms, their coefficients held). The excess enthalpy
  /// is -R T^2 sum_t slope[t] dterm_t/dT.
  virtual void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                      std::span<double> slope_dT);
};

}  // namespace jampot
