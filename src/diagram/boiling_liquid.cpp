#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "boiling_line.hpp"
#include "boiling_polynomials.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/boiling_region.hpp"
#include "jampot/equilibrium/bubble_states.hpp"
#include "triangle_plane.hpp"

namespace jampot {
namespace {

void boil_all(BubbleStates& many, double P_Pa, std::span<const Composition> nodes,
              std::span<BoilingPolynomials::Boiling> found) {
  const std::size_t count = nodes.size();
  std::vector<double> z(3 * count), T_K(count), vapour(3 * count);
  for (std::size_t k = 0; k < count; ++k) {
    T_K[k] = found[k].T_K;
    for (std::size_t i = 0; i < 3; ++i) z[i * count + k] = nodes[k][i];
  }
  many.temperatures(P_Pa, z, T_K, vapour);
  for (std::size_t k = 0; k < count; ++k)
    found[k] = {{vapour[k], vapour[count + k], vapour[2 * count + k]}, T_K[k]};
}

}  // namespace

// A curve through all tie lines of a region, ten numbers each, in their distance from each other as the
// parameter, as cubic pieces.
class BoilingLiquid::Spline {
 public:
  explicit Spline(const BoilingRegion& region) : region_(region) {
    const auto& lines = region.tie_lines;
    for (std::size_t k = 0; k < lines.size(); ++k)
      at_.push_back(k == 0 ? 0 : at_.back() + std::max(1e-12, distance(lines[k], lines[k - 1])));
    for (std::size_t k = 0; k < lines.size(); ++k) slopes_.push_back(slope(k));
    low_.fill(1);
    high_.fill(0);
    for (const BoilingTieLine& line : lines) {
      for (std::size_t i = 0; i < 3; ++i) {
        // Tie lines reach a little beyond their ends: see place_in.
        const double beyond = 0.05 * std::abs(line.beta[i] - line.alpha[i]) + 1e-3;
        low_[i] = std::min(low_[i], std::min(line.alpha[i], line.beta[i]) - beyond);
        high_[i] = std::max(high_[i], std::max(line.alpha[i], line.beta[i]) + beyond);
      }
    }
  }

  /// The tie line through x, and its share of beta; false where none is near.
  bool through(const Composition& x, BoilingTieLine& line, double& share) const {
    for (std::size_t i = 0; i < 3; ++i) {
      if (x[i] < low_[i] || x[i] > high_[i]) return false;  // most points of a map
    }
    const auto place = place_in(region_, x);
    if (!place) return false;
    const std::size_t k = place->k;
    double before = 0, t = place->between, value_before = side(region_.tie_lines[k], x);
    constexpr int most_steps = 12;
    for (int step = 0; step < most_steps; ++step) {
      line = piece(k, t);
      const double value = side(line, x);
      if (std::abs(value) < 1e-14 || value == value_before) break;
      const double next = t - value * (t - before) / (value - value_before);
      before = t;
      value_before = value;
      t = std::clamp(next, -0.1, 1.1);
    }
    const Composition along = difference(line.beta, line.alpha);
    share = inner(difference(x, line.alpha), along) / inner(along, along);
    return std::isfinite(share);
  }

 private:
  static double side(const TieLine& line, const Composition& x) {
    return cross(difference(line.beta, line.alpha), difference(x, line.alpha));
  }

  // Weights of four tie lines and slopes applied to each of the ten numbers.
  template <class Call>
  static void each(BoilingTieLine& into, const Call& call) {
    for (std::size_t i = 0; i < 3; ++i) {
      into.alpha[i] = call([i](const BoilingTieLine& line) { return line.alpha[i]; });
      into.beta[i] = call([i](const BoilingTieLine& line) { return line.beta[i]; });
      into.y[i] = call([i](const BoilingTieLine& line) { return line.y[i]; });
    }
    into.T_K = call([](const BoilingTieLine& line) { return line.T_K; });
  }

  // Of the polynomial through up to five neighbours, from its barycentric weights.
  BoilingTieLine slope(std::size_t at) const {
    const auto& lines = region_.tie_lines;
    const std::size_t count = std::min<std::size_t>(5, lines.size());
    const std::size_t first = std::clamp<std::size_t>(at < 2 ? 0 : at - 2, 0, lines.size() - count);
    const auto weight = [&](std::size_t j) {
      double product = 1;
      for (std::size_t k = first; k < first + count; ++k) {
        if (k != j) product /= at_[j] - at_[k];
      }
      return product;
    };
    std::array<double, 5> factors{};
    for (std::size_t j = first; j < first + count; ++j) {
      if (j == at) continue;
      factors[j - first] = weight(j) / weight(at) / (at_[at] - at_[j]);
      factors[at - first] -= factors[j - first];
    }
    BoilingTieLine result;
    each(result, [&](const auto& part) {
      double sum = 0;
      for (std::size_t j = 0; j < count; ++j) sum += factors[j] * part(lines[first + j]);
      return sum;
    });
    return result;
  }

  BoilingTieLine piece(std::size_t k, double t) const {
    const double u = 1 - t, h = at_[k + 1] - at_[k];
    const double a = u * u * (1 + 2 * t), b = t * t * (3 - 2 * t), c = t * u * u, d = t * t * u;
    const auto value = [&](double first, double second, double slope, double next_slope) {
      return a * first + b * second + h * (c * slope - d * next_slope);
    };
    const BoilingTieLine &first = region_.tie_lines[k], &second = region_.tie_lines[k + 1],
                         &slope = slopes_[k], &next_slope = slopes_[k + 1];
    BoilingTieLine line;
    for (std::size_t i = 0; i < 3; ++i) {
      line.alpha[i] = value(first.alpha[i], second.alpha[i], slope.alpha[i], next_slope.alpha[i]);
      line.beta[i] = value(first.beta[i], second.beta[i], slope.beta[i], next_slope.beta[i]);
      line.y[i] = value(first.y[i], second.y[i], slope.y[i], next_slope.y[i]);
    }
    line.T_K = value(first.T_K, second.T_K, slope.T_K, next_slope.T_K);
    return line;
  }

  const BoilingRegion& region_;
  std::vector<double> at_;
  std::vector<BoilingTieLine> slopes_;
  Composition low_{}, high_{};  ///< what holds the whole region
};

BoilingLiquid::BoilingLiquid(Mixture& mixture, double P_Pa, const BoilingRegions& regions)
    : mixture_(mixture),
      P_Pa_(P_Pa),
      three_(regions.three_liquids),
      solver_(mixture.liquid(), mixture.vapour()),
      state_(3),
      liquids_(mixture.liquid(), mixture.vapour(), P_Pa) {
  state_.P_Pa = P_Pa;
  constexpr double enough = 1e-8;  // of ln P: some millionths of a kelvin
  solver_.tolerance = enough;
  for (const BoilingRegion& region : regions.regions) {
    if (region.tie_lines.size() > 2) splines_.emplace_back(region);
  }
}

BoilingLiquid::~BoilingLiquid() = default;

bool BoilingLiquid::part(const Composition& x) {
  for (const Spline& spline : splines_) {
    if (spline.through(x, line_, share_) && share_ >= 0 && share_ <= 1) return true;
  }
  return false;
}

// Two or three liquids, where x boils as such.
bool BoilingLiquid::at_several(const Composition& x) {
  for (const ThreeBoilingLiquids& three : three_) {
    if (!three.contain(x)) continue;
    liquids_there_ = 3;
    T_K_ = three.T_K;
    y_ = three.y;
    return true;
  }
  liquids_there_ = part(x) ? 2 : 1;
  if (liquids_there_ == 1) return false;
  T_K_ = line_.T_K;
  y_ = line_.y;
  return true;
}

// As one liquid, stable or not.
bool BoilingLiquid::boil(const Composition& x) {
  bool boils = false;
  if (state_.T_K > 0) {
    // On from the last two along the line through them: neighbours on a curve are asked for in turn.
    const Composition step = difference(last_, before_);
    const double length = inner(step, step), ahead = inner(difference(x, last_), step);
    const double T_last = state_.T_K;
    if (std::abs(ahead) < 3 * length) state_.T_K += (T_last - T_before_) * ahead / length;
    T_before_ = T_last;
    boils = solver_.solve(Sought::temperature, x, state_);
  }
  if (!boils) {
    state_.T_K = 0;
    for (std::size_t k = 0; k < 3; ++k)
      state_.T_K += x[k] * mixture_.substances()[k].vapour_pressure->T_K(P_Pa_);
    state_.w.assign(x.begin(), x.end());
    if (!solver_.solve(Sought::temperature, x, state_)) {
      state_.T_K = 0;  // a start for nothing
      return false;
    }
  }
  before_ = last_;
  last_ = x;
  T_K_ = state_.T_K;
  y_ = array_of(state_.w);
  return true;
}

void BoilingLiquid::demand_boiling(bool found, const Composition& x) const {
  if (!found)
    throw CalculationError(
        fmt::format("no boiling point was found for x = ({:.5f}, {:.5f}, {:.5f})", x[0], x[1], x[2]));
}

void BoilingLiquid::at(const Composition& x) {
  if (!at_several(x)) demand_boiling(boil(x), x);
}

void BoilingLiquid::at_on_surface(const Composition& x) {
  if (at_several(x)) return;
  if (!surface_) {
    many_ = std::make_unique<BubbleStates>(mixture_);
    surface_ = std::make_unique<BoilingPolynomials>(
        [this](std::span<const Composition> nodes, std::span<BoilingPolynomials::Boiling> found) {
          boil_all(*many_, P_Pa_, nodes, found);
        });
  }
  if (const auto found = surface_->at(x)) {
    T_K_ = found->T_K;
    y_ = found->y;
    return;
  }
  demand_boiling(boil(x), x);
}

std::optional<BoilingLiquid::Through> BoilingLiquid::tie_line(const Composition& x) {
  for (const ThreeBoilingLiquids& three : three_) {
    if (three.contain(x)) return std::nullopt;
  }
  if (!part(x)) return std::nullopt;
  BoilingLiquids exact;
  fill(exact, line_, share_, x);
  if (!liquids_.through(x, exact)) return Through{line_, share_};  // beside a plait point
  if (!(exact.share >= 0 && exact.share <= 1)) return std::nullopt;
  return Through{line_of(exact), exact.share};
}

}  // namespace jampot
