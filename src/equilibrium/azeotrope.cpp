#include "jampot/equilibrium/azeotrope.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numeric>

#include "../basis/bracket.hpp"
#include "../basis/eigen.hpp"

namespace jampot {
namespace {

// ln alpha at one composition of the bubble curve, each solve starting from the last.
class Volatility {
 public:
  Volatility(Mixture& mixture, Sought sought)
      : solver_(mixture.liquid(), mixture.vapour()), sought_(sought), state_(2) {}

  void start_from(const VolatilitySample& sample) {
    state_.T_K = sample.T_K;
    state_.P_Pa = sample.P_Pa;
    state_.w = {sample.y1, 1 - sample.y1};
  }

  double operator()(double x1) {
    const std::array<double, 2> z{x1, 1 - x1};
    solved_ = solver_.solve(sought_, z, state_);
    return state_.ln_K[0] - state_.ln_K[1];
  }

  bool solved() const { return solved_; }
  const IncipientState& state() const { return state_; }

 private:
  IncipientSolver solver_;
  Sought sought_;
  IncipientState state_;
  bool solved_ = false;
};

std::optional<Azeotrope> solve_between(Volatility& ln_alpha, const VolatilitySample& low, double low_value,
                                       double x_high, double high_value) {
  double x1 = low.x1;
  ln_alpha.start_from(low);
  if (low_value != 0) {
    const auto bracket =
        bracketed_root([&](double x) { return ln_alpha(x); }, low.x1, x_high, low_value, high_value, 52, 60);
    if (!bracket) return std::nullopt;
    x1 = std::midpoint(bracket->first, bracket->second);
  }
  const double residual = std::abs(ln_alpha(x1));
  if (!ln_alpha.solved()) return std::nullopt;
  // Component 1 more volatile below the azeotrope and less above it: both ends boil higher than the
  // azeotrope.
  const Extremum extremum =
      low_value - high_value > 0 ? Extremum::minimum_boiling : Extremum::maximum_boiling;
  return Azeotrope{ln_alpha.state().T_K, ln_alpha.state().P_Pa, x1, false, extremum, residual};
}

// The extremum of the parabola through three samples, if it lies strictly between the outer two.
std::optional<double> parabola_extremum(const VolatilitySample& a, const VolatilitySample& b,
                                        const VolatilitySample& c) {
  const double ab = (b.ln_alpha - a.ln_alpha) / (b.x1 - a.x1), bc = (c.ln_alpha - b.ln_alpha) / (c.x1 - b.x1);
  if (ab * bc >= 0) return std::nullopt;
  const double curvature = (bc - ab) / (c.x1 - a.x1);
  const double x = (a.x1 + b.x1) / 2 - ab / (2 * curvature);
  if (x <= a.x1 || x >= c.x1 || x == b.x1) return std::nullopt;
  return x;
}

}  // namespace

std::string_view name_of(Extremum extremum) {
  return extremum == Extremum::minimum_boiling ? "minimum-boiling (pressure maximum)"
                                               : "maximum-boiling (pressure minimum)";
}

std::vector<Azeotrope> homogeneous_azeotropes(Mixture& mixture, Sought sought,
                                              std::span<const VolatilitySample> samples) {
  std::vector<VolatilitySample> refined(samples.begin(), samples.end());
  Volatility ln_alpha(mixture, sought);
  const auto sign = [](double value) { return (value > 0) - (value < 0); };
  for (std::size_t k = 1; k + 1 < samples.size(); ++k) {
    const VolatilitySample &a = samples[k - 1], &b = samples[k], &c = samples[k + 1];
    if (sign(a.ln_alpha) != sign(b.ln_alpha) || sign(b.ln_alpha) != sign(c.ln_alpha)) continue;
    if (const auto x = parabola_extremum(a, b, c)) {
      ln_alpha.start_from(b);
      const double value = ln_alpha(*x);
      if (ln_alpha.solved() && sign(value) != sign(b.ln_alpha)) {
        refined.push_back({*x, ln_alpha.state().T_K, ln_alpha.state().P_Pa, value});
      }
    }
  }
  std::sort(refined.begin(), refined.end(),
            [](const VolatilitySample& a, const VolatilitySample& b) { return a.x1 < b.x1; });

  std::vector<Azeotrope> azeotropes;
  for (std::size_t k = 0; k + 1 < refined.size(); ++k) {
    const VolatilitySample &low = refined[k], &high = refined[k + 1];
    // A sample that is itself an azeotrope counts once, and needs a change of sign across it.
    const bool exact =
        high.ln_alpha == 0 && k + 2 < refined.size() && low.ln_alpha * refined[k + 2].ln_alpha < 0;
    if (low.ln_alpha * high.ln_alpha >= 0 && !exact) continue;
    const auto found =
        exact ? solve_between(ln_alpha, {high.x1, high.T_K, high.P_Pa, 0}, 0, high.x1, -low.ln_alpha)
              : solve_between(ln_alpha, low, low.ln_alpha, high.x1, high.ln_alpha);
    if (found) azeotropes.push_back(*found);
  }
  return azeotropes;
}

AzeotropeSensitivity azeotrope_sensitivity(Mixture& mixture, Sought sought, const Azeotrope& azeotrope) {
  const std::array<double, 2> z{azeotrope.x1, 1 - azeotrope.x1};
  IncipientSolver solver(mixture.liquid(), mixture.vapour());
  IncipientState state(2);
  state.T_K = azeotrope.T_K;
  state.P_Pa = azeotrope.P_Pa;
  state.w.assign(z.begin(), z.end());
  solver.solve(sought, z, state);
  const auto s = to_eigen(solver.sensitivity(sought, z, state));
  // ln alpha = ln K_1 - ln K_2 stays zero: dx1 = -(d ln alpha / d term) / (d ln alpha / d x1)
  const double slope = (s(0, 0) - s(0, 1)) - (s(1, 0) - s(1, 1));
  AzeotropeSensitivity result;
  for (Eigen::Index column = 3; column < s.cols(); ++column) {
    const double dx1 = -(s(0, column) - s(1, column)) / slope;
    result.dx1.push_back(dx1);
    result.dheld.push_back(s(2, column) + (s(2, 0) - s(2, 1)) * dx1);
  }
  return result;
}

}  // namespace jampot
