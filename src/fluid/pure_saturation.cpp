#include "jampot/fluid/pure_saturation.hpp"

#include <algorithm>
#include <cmath>

#include "../basis/bracket.hpp"
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

  // Between the ends of vapour and liquid, where the pressure along the isotherm turns, both volumes exist.
  std::optional<double> two_volumes(double T_K) {
    constexpr double high_P = 1e9;
    const double densest = 1 / roots(T_K, high_P).front().v_m3_mol;
    constexpr int intervals = 64;
    const auto density = [&](int k) { return densest * k / intervals; };
    int lowest = 1;
    double least = HUGE_VAL;
    for (int k = 1; k < intervals; ++k) {
      const double slope = slope_at(T_K, density(k));
      if (slope < least) {
        least = slope;
        lowest = k;
      }
    }
    double inside = density(lowest);
    if (!(least < 0)) {  // it may turn between two of these
      const auto minimum = minimum_between([&](double d) { return slope_at(T_K, d); }, density(lowest - 1),
                                           density(lowest + 1), 30);
      if (!(minimum.second < 0)) return std::nullopt;
      inside = minimum.first;
    }
    const double most = pressure_at_turn(T_K, inside, 1e-9 * densest),
                 least_P = pressure_at_turn(T_K, inside, densest);
    return least_P > 0 ? (most + least_P) / 2 : most / 2;
  }

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

  // The highest temperature with two volumes. From above: far below the triple point some equations have more
  // of them.
  double critical_T() {
    double high = 3000, low = high;
    while (!two_volumes(low)) {
      high = low;
      low /= 1.15;
      if (low < 1) return 0;
    }
    while (high - low > 1e-10 * low) {
      const double middle = (low + high) / 2;
      (two_volumes(middle) ? low : high) = middle;
    }
    return low;
  }

 private:
  // dP/d(density)/(R T).
  double slope_at(double T_K, double density) {
    HelmholtzWanted wanted;
    wanted.V = true;
    equation_.evaluate(T_K, 1 / density, x_, wanted, state_.helmholtz);
    return state_.helmholtz.VV / (density * density) + 1;
  }

  // The pressure where its slope turns positive on the way from an unstable density towards `end`.
  double pressure_at_turn(double T_K, double unstable, double end) {
    const double low = std::min(unstable, end), high = std::max(unstable, end);
    const auto turn = root_between([&](double d) { return slope_at(T_K, d); }, low, high, slope_at(T_K, low),
                                   slope_at(T_K, high), 40, 60);
    const double density = (turn.first + turn.second) / 2;
    equation_.evaluate(T_K, 1 / density, x_, {}, state_.helmholtz);
    return gas_constant * T_K * (density - state_.helmholtz.V);
  }

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
  // HUGE_VAL above the critical temperature.
  const auto rest = [&](double T_K) {
    const auto s = pure.at(T_K);
    return s ? std::log(s->P_Pa / P_Pa) : HUGE_VAL;
  };
  double low = 300, high = 300;
  while (!(rest(low) < 0)) {
    high = low;
    if ((low *= 0.8) < 1) return std::nullopt;
  }
  while (high == low || rest(high) < 0) {
    low = high;
    if ((high *= 1.25) > 5000) return std::nullopt;
  }
  while (rest(high) == HUGE_VAL) {
    if (high - low < 1e-8 * low) return std::nullopt;  // the pressure is above the critical one
    const double middle = (low + high) / 2;
    (rest(middle) < 0 ? low : high) = middle;
  }
  const auto bracket = bracketed_root(rest, low, high, rest(low), rest(high), 50);
  if (!bracket) return std::nullopt;
  return pure.at((bracket->first + bracket->second) / 2);
}

PureCritical pure_critical(EquationOfState& equation, std::size_t of) {
  Pure pure(equation, of);
  const double T = pure.critical_T();
  return {T, pure.two_volumes(T).value_or(0)};
}

}  // namespace jampot
