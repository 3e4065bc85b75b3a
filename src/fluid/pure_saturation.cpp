#include "jampot/fluid/pure_saturation.hpp"

#include <algorithm>
#include <boost/math/tools/toms748_solve.hpp>
#include <cmath>

#include "jampot/basis/constants.hpp"

namespace jampot {
namespace {

class Pure {
 public:
  Pure(EquationOfState& equation, std::size_t of)
      : equation_(equation), x_(equation.size()), state_(equation.size()) {
    x_[of] = 1;
  }

  VolumeRoots roots(double T_K, double P_Pa) { return equation_.volumes(T_K, P_Pa, x_); }

  // A pressure at which both volumes exist; nothing where there is none. Too high a pressure leaves a liquid,
  // too low a vapour.
  std::optional<double> two_volumes(double T_K) {
    double low = std::log(1e-8), high = std::log(1e9);
    constexpr int most = 200;
    for (int k = 0; k < most && high - low > 1e-10; ++k) {
      const double middle = (low + high) / 2;
      const VolumeRoots found = roots(T_K, std::exp(middle));
      if (found.size() == 2) return std::exp(middle);
      if (found.empty()) return std::nullopt;
      (vapour(T_K, found.front().v_m3_mol) ? low : high) = middle;
    }
    return std::nullopt;
  }

  bool vapour(double T_K, double v) { return equation_.vapour_like(T_K, v, x_); }

  std::optional<PureSaturation> at(double T_K) {
    auto P = two_volumes(T_K);
    if (!P) return std::nullopt;
    // Substitution: P rises by the quotient of the fugacities. Below it can leave the range of two volumes,
    // then back.
    double ln_P = std::log(*P), valid = ln_P;
    for (int k = 0; k < 200; ++k) {
      const VolumeRoots found = roots(T_K, std::exp(ln_P));
      if (found.size() < 2) {
        ln_P = (ln_P + valid) / 2;
        continue;
      }
      valid = ln_P;
      const double difference = found[0].gibbs - found[1].gibbs, dZ = found[1].Z - found[0].Z;
      const double step = difference / dZ;
      ln_P += std::clamp(step, -2.0, 2.0);
      if (std::abs(step) < 1e-14) break;
      if (std::abs(step) < 1e-12 && k > 100) break;
    }
    const VolumeRoots found = roots(T_K, std::exp(ln_P));
    if (found.size() < 2 || std::abs(found[0].gibbs - found[1].gibbs) > 1e-9) return std::nullopt;
    PureSaturation s{T_K, std::exp(ln_P), 0, 0, 0};
    fluid_state(equation_, T_K, found[1].v_m3_mol, x_, false, state_, s.P_Pa);
    s.v_vapour_m3_mol = state_.v_m3_mol;
    s.Hvap_J_mol = state_.h_residual_J_mol;
    fluid_state(equation_, T_K, found[0].v_m3_mol, x_, false, state_, s.P_Pa);
    s.v_liquid_m3_mol = state_.v_m3_mol;
    s.Hvap_J_mol -= state_.h_residual_J_mol;
    return s;
  }

  // The highest temperature with two volumes.
  double critical_T() {
    double low = 1, high = 5000;
    while (!two_volumes(low) && low < high) low *= 2;
    for (double T = low; T < high; T *= 1.3) {
      if (two_volumes(T)) {
        low = T;
      } else {
        high = T;
        break;
      }
    }
    while (high - low > 1e-9 * low) {
      const double middle = (low + high) / 2;
      (two_volumes(middle) ? low : high) = middle;
    }
    return low;
  }

 private:
  EquationOfState& equation_;
  std::vector<double> x_;
  FluidState state_;
};

}  // namespace

std::optional<PureSaturation> pure_saturation_P(EquationOfState& equation, std::size_t of, double T_K) {
  return Pure(equation, of).at(T_K);
}

std::optional<PureSaturation> pure_saturation_T(EquationOfState& equation, std::size_t of, double P_Pa) {
  Pure pure(equation, of);
  const auto rest = [&](double T_K) {
    const auto s = pure.at(T_K);
    return s ? std::log(s->P_Pa / P_Pa) : HUGE_VAL;
  };
  // From the critical point downwards.
  const double Tc = pure.critical_T();
  double high = Tc * (1 - 1e-7), low = high;
  if (!(rest(high) > 0) || rest(high) == HUGE_VAL) {
    high = Tc * (1 - 1e-5);
    if (!(rest(high) > 0)) return std::nullopt;
  }
  for (low = high; rest(low) > 0; low *= 0.9) {
    if (low < 0.1 * Tc) return std::nullopt;
    high = low;
  }
  std::uintmax_t most = 100;
  const auto bracket =
      boost::math::tools::toms748_solve(rest, low, high, boost::math::tools::eps_tolerance<double>(50), most);
  return pure.at((bracket.first + bracket.second) / 2);
}

PureCritical pure_critical(EquationOfState& equation, std::size_t of) {
  Pure pure(equation, of);
  const double T = pure.critical_T();
  return {T, pure.two_volumes(T).value_or(0)};
}

}  // namespace jampot
