#include "jampot/equilibrium/bubble_states.hpp"

#include <algorithm>
#include <cmath>

#include "../liquid/many_exp.hpp"
#include "../liquid/states_size.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/sought.hpp"

namespace jampot {
namespace {

constexpr double close_enough = 1e-9;  // of ln P

// Ideal gas over an activity model without Henry's law: then P = sum x_i gamma_i Psat_i.
bool sums_up(Mixture& mixture) {
  if (mixture.one_equation() || dynamic_cast<const IdealGas*>(&mixture.vapour()) == nullptr) return false;
  if (mixture.correction(room_T_K) != nullptr) return false;
  for (std::size_t i = 0; i < mixture.size(); ++i) {
    if (mixture.is_solute(i) || !mixture.substances()[i].vapour_pressure) return false;
  }
  return true;
}

}  // namespace

BubbleStates::BubbleStates(Mixture& mixture)
    : mixture_(mixture), side_by_side_(sums_up(mixture)), z_(mixture.size()), boiling_K_(mixture.size()) {}

// The mean of the pure substances, as a rule some tens of kelvins off.
double BubbleStates::start(std::span<const double> x, std::size_t states, std::size_t k) const {
  double T_K = 0;
  for (std::size_t i = 0; i < z_.size(); ++i) T_K += x[i * states + k] * boiling_K_[i];
  return std::isfinite(T_K) && T_K > 0 ? T_K : 350;
}

// Alone, as bubble_temperature and bubble_pressure have it. @returns T or P, 0 where there is none
double BubbleStates::one(Sought sought, double held, std::span<const double> x, std::size_t states,
                         std::size_t k, std::span<double> y) {
  for (std::size_t i = 0; i < z_.size(); ++i) z_[i] = x[i * states + k];
  try {
    const bool T_sought = sought == Sought::temperature;
    const VlePoint point =
        T_sought ? bubble_temperature(mixture_, held, z_) : bubble_pressure(mixture_, held, z_);
    for (std::size_t i = 0; i < z_.size(); ++i) y[i * states + k] = point.y[i];
    return T_sought ? point.T_K : point.P_Pa;
  } catch (const CalculationError&) {
    for (std::size_t i = 0; i < z_.size(); ++i) y[i * states + k] = 0;
    return 0;
  }
}

// x_i gamma_i Psat_i of every state, their sums, and the slopes d ln(sum)/d(1/T) that the vapour pressures
// give.
void BubbleStates::terms(std::span<const double> T_K, std::span<const double> x) {
  const std::size_t n = z_.size(), states = T_K.size();
  mixture_.activity().evaluate_states(T_K, x, ln_gamma_);
  std::fill_n(sum_.begin(), states, 0.0);
  std::fill_n(slope_.begin(), states, 0.0);
  for (std::size_t i = 0; i < n; ++i) {
    const VapourPressure& pure = *mixture_.substances()[i].vapour_pressure;
    double* const share = &share_[i * states];
    for (std::size_t k = 0; k < states; ++k) share[k] = ln_gamma_[i * states + k] + pure.ln_P(T_K[k]);
    exp_of_all(share, states);
    for (std::size_t k = 0; k < states; ++k) {
      share[k] *= x[i * states + k];
      sum_[k] += share[k];
      slope_[k] -= share[k] * pure.dln_P_dT(T_K[k]) * T_K[k] * T_K[k];
    }
  }
  for (std::size_t k = 0; k < states; ++k) slope_[k] /= sum_[k];
}

std::size_t BubbleStates::temperatures(double P_Pa, std::span<const double> x, std::span<double> T_K,
                                       std::span<double> y) {
  demand_pressure(P_Pa);
  const std::size_t n = z_.size(), states = T_K.size();
  demand_states(x.size(), y.size(), n, states);
  if (states == 0) return 0;
  if (side_by_side_) {
    for (std::size_t i = 0; i < n; ++i) boiling_K_[i] = mixture_.substances()[i].vapour_pressure->T_K(P_Pa);
    T_.assign(T_K.begin(), T_K.end());
    for (std::size_t k = 0; k < states; ++k) {
      if (!(T_[k] > 0)) T_[k] = start(x, states, k);
    }
    std::size_t open = states;
    for (auto* array : {&ln_gamma_, &share_}) array->resize(n * states);
    for (auto* array : {&slope_, &sum_, &f_, &u_}) array->resize(states);
    const double ln_P = std::log(P_Pa);
    constexpr int most_rounds = 12;
    for (int round = 0; round < most_rounds && open > 0; ++round) {
      terms(T_, x);
      open = 0;
      for (std::size_t k = 0; k < states; ++k) {
        const double f = std::log(sum_[k]) - ln_P, u = 1 / T_[k];
        if (std::abs(f) < close_enough) continue;  // its temperature stays
        ++open;
        // After the first step the slope that was met on it, with the activity coefficients in it.
        double slope = slope_[k];
        if (round > 0 && std::abs(u - u_[k]) > 1e-14 * u) {
          const double met = (f - f_[k]) / (u - u_[k]);
          if (met / slope > 0.3 && met / slope < 3) slope = met;
        }
        f_[k] = f;
        u_[k] = u;
        T_[k] = 1 / (u - std::clamp(f / slope, -0.15 * u, 0.15 * u));
      }
    }
  }
  std::size_t missing = 0;
  for (std::size_t k = 0; k < states; ++k) {
    const bool met = side_by_side_ && std::abs(std::log(sum_[k]) - std::log(P_Pa)) < close_enough;
    if (met) {
      for (std::size_t i = 0; i < n; ++i) y[i * states + k] = share_[i * states + k] / sum_[k];
      T_K[k] = T_[k];
      continue;
    }
    T_K[k] = one(Sought::temperature, P_Pa, x, states, k, y);
    missing += T_K[k] == 0;
  }
  return missing;
}

std::size_t BubbleStates::pressures(std::span<const double> T_K, std::span<const double> x,
                                    std::span<double> P_Pa, std::span<double> y) {
  const std::size_t n = z_.size(), states = T_K.size();
  demand_states(x.size(), y.size(), n, states);
  demand_states(P_Pa.size(), states, 1, states);
  for (const double T : T_K) demand_temperature(T);
  if (states == 0) return 0;
  std::size_t missing = 0;
  if (side_by_side_) {
    for (auto* array : {&ln_gamma_, &share_}) array->resize(n * states);
    for (auto* array : {&slope_, &sum_}) array->resize(states);
    terms(T_K, x);
    for (std::size_t k = 0; k < states; ++k) {
      const bool found = std::isfinite(sum_[k]) && sum_[k] > 0;
      P_Pa[k] = found ? sum_[k] : 0;
      for (std::size_t i = 0; i < n; ++i) y[i * states + k] = found ? share_[i * states + k] / sum_[k] : 0;
      missing += !found;
    }
    return missing;
  }
  for (std::size_t k = 0; k < states; ++k) {
    P_Pa[k] = one(Sought::pressure, T_K[k], x, states, k, y);
    missing += P_Pa[k] == 0;
  }
  return missing;
}

}  // namespace jampot
