#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../equilibrium/spinodal_pocket.hpp"
#include "boiling_line.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "region_tracer.hpp"

namespace jampot {
namespace {

constexpr double vanishing = 0.03;  // a tie line so short that its end is extrapolated
constexpr StepLimits limits{.longest = 0.02,
                            .least_cosine = 0.98,
                            .least_length = 0.7,
                            .near_plait = vanishing,
                            .desperate = 5 * vanishing,
                            .first_from_edge = 1e-3,
                            .first = 1e-3,
                            .liquids = "boiling liquids"};

// What boils as one liquid over all compositions, though it might part.
class BoilingSurface {
 public:
  BoilingSurface(Mixture& mixture, double P_Pa)
      : mixture_(mixture), boiler_(mixture.liquid(), mixture.vapour()), state_(3), values_(3) {
    state_.P_Pa = P_Pa;
    constexpr double enough = 1e-6;  // of ln P: a start for tie lines
    boiler_.tolerance = enough;
  }

  /// Boils a composition as one liquid, from the last one if that succeeds; false where nothing does.
  bool boil(std::span<const double> z) {
    if (boils_ && boiler_.solve(Sought::temperature, z, state_)) return true;
    state_.T_K = 0;
    for (std::size_t k = 0; k < 3; ++k)
      state_.T_K += z[k] * mixture_.substances()[k].vapour_pressure->T_K(state_.P_Pa);
    state_.w.assign(z.begin(), z.end());
    return boils_ = boiler_.solve(Sought::temperature, z, state_);
  }
  const IncipientState& state() const { return state_; }

  /// The smallest curvature of its Gibbs energy; NaN where no bubble point was found.
  double curvature(std::span<const double> z) {
    if (!boil(z)) return NAN;
    Wanted wanted;
    wanted.composition = true;
    mixture_.liquid().evaluate(state_.T_K, state_.P_Pa, z, wanted, values_);
    return smallest_curvature(z, values_.dn);
  }

 private:
  Mixture& mixture_;
  IncipientSolver boiler_;
  IncipientState state_;
  PhaseValues values_;
  bool boils_ = false;
};

class BoilingTracer final : private RegionTracer<BoilingRegion> {
 public:
  BoilingTracer(Mixture& mixture, double P_Pa, BoilingRegions& result)
      : RegionTracer(result.regions, limits),
        mixture_(mixture),
        P_Pa_(P_Pa),
        solver_(mixture.liquid(), mixture.vapour(), P_Pa),
        surface_(mixture, P_Pa),
        result_(result) {
    run();
  }

 private:
  std::vector<BoilingTieLine> lines_of_pair(std::size_t i, std::size_t j) override {
    std::vector<BoilingTieLine> lines;
    for (const ThreePhase& known : three_phases_of_pair(mixture_, i, j, P_Pa_)) {
      BoilingTieLine line;
      for (const auto& [into, fraction] :
           {std::pair(&line.alpha, known.x1_alpha), std::pair(&line.beta, known.x1_beta),
            std::pair(&line.y, known.y1)}) {
        (*into)[i] = fraction;
        (*into)[j] = 1 - fraction;
      }
      line.T_K = known.T_K;
      lines.push_back(line);
    }
    return lines;
  }

  std::optional<BoilingTieLine> through(const Composition& z, const BoilingTieLine& guess) override {
    for (const double value : z) {
      if (!(value > 0)) return std::nullopt;
    }
    fill(state_, guess, 0.5, z);
    if (!solver_.through(z, state_) || !(state_.share > 0 && state_.share < 1)) return std::nullopt;
    return aligned(line_of(state_), guess);
  }

  BoilingTieLine between(const BoilingTieLine& a, const BoilingTieLine& b, double share) const override {
    return jampot::between(a, b, share);
  }

  bool keeps(const BoilingTieLine& guess, const BoilingTieLine& last) const override {
    return keeps_all(guess.alpha, last.alpha) && keeps_all(guess.beta, last.beta) &&
           keeps_all(guess.y, last.y);
  }

  void let_in(BoilingTieLine& guess, const BoilingTieLine& last, const Composition& z) override {
    for (std::size_t k = 0; k < 3; ++k) {
      if (guess.alpha[k] > 0 && guess.beta[k] > 0) continue;
      PhaseValues alpha(3), beta(3), vapour(3);
      mixture_.liquid().evaluate(last.T_K, P_Pa_, last.alpha, {}, alpha);
      mixture_.liquid().evaluate(last.T_K, P_Pa_, last.beta, {}, beta);
      mixture_.vapour().evaluate(last.T_K, P_Pa_, last.y, {}, vapour);
      const double share = 1 / (1 + std::exp(beta.ln_phi[k] - alpha.ln_phi[k]));
      guess.alpha[k] = 2 * z[k] * std::max(1 - share, 1e-10);
      guess.beta[k] = 2 * z[k] * std::max(share, 1e-10);
      guess.y[k] = std::min(0.2, guess.alpha[k] * std::exp(alpha.ln_phi[k] - vapour.ln_phi[k]));
    }
  }

  bool third_liquid(const BoilingTieLine& line) override {
    return liquid_splits(mixture_.liquid(), line.T_K, line.alpha);
  }

  std::optional<std::size_t> triangle_near(const BoilingTieLine& line) override {
    PhaseValues values(3);
    mixture_.liquid().evaluate(line.T_K, P_Pa_, line.alpha, {}, values);
    std::vector<double> ln_f(3);
    for (std::size_t i = 0; i < 3; ++i) ln_f[i] = std::log(line.alpha[i]) + values.ln_phi[i];
    const auto third = find_more_stable(mixture_.liquid(), line.T_K, P_Pa_, ln_f);
    if (!third) return std::nullopt;
    const auto found =
        three_boiling_near(mixture_, P_Pa_, line.T_K, {line.alpha, line.beta, array_of(third->composition)});
    if (!found || liquid_splits(mixture_.liquid(), found->T_K, found->liquids[0])) return std::nullopt;
    return add_three(*found);
  }

  std::size_t add_three(const ThreeBoilingLiquids& found) {
    auto& known = result_.three_liquids;
    for (std::size_t k = 0; k < known.size(); ++k) {
      if (std::abs(known[k].T_K - found.T_K) < 1e-6 && distance(known[k].y, found.y) < 1e-6) return k;
    }
    known.push_back(found);
    queue_sides(known.size() - 1);
    return known.size() - 1;
  }

  BoilingTieLine side(std::size_t triangle, std::size_t opposite) const override {
    const ThreeBoilingLiquids& three = result_.three_liquids[triangle];
    BoilingTieLine line;
    line.alpha = three.liquids[(opposite + 1) % 3];
    line.beta = three.liquids[(opposite + 2) % 3];
    line.y = three.y;
    line.T_K = three.T_K;
    return line;
  }

  Composition corner(std::size_t triangle, std::size_t number) const override {
    return result_.three_liquids[triangle].liquids[number];
  }

  // The square of the length of a tie line goes to zero linearly, and with it everything else.
  bool end_at_plait(BoilingRegion& region, const Composition&) override {
    const auto& lines = region.tie_lines;
    if (lines.size() < 3) return false;
    const BoilingTieLine &last = lines.back(), &before = lines[lines.size() - 2];
    const double now = norm(difference(last.beta, last.alpha)),
                 then = norm(difference(before.beta, before.alpha));
    if (!(now < then)) return false;
    const double ahead = now * now / (then * then - now * now);
    BoilingTieLine end = jampot::between(before, last, 1 + ahead);
    end.alpha = end.beta = end.middle();
    region.tie_lines.push_back(end);
    region.end = {RegionEnd::Kind::plait, 0};
    return true;
  }

  // The pockets of the spinodal, which may hide between the samples, and the samples inside it.
  std::vector<Composition> unstable_liquids() override {
    const CompositionSamples& samples = CompositionSamples::of(3);
    std::vector<double> curvature;
    std::vector<Composition> found;
    std::size_t lost = 0;
    for (std::size_t k = 0; k < samples.size(); ++k) {
      curvature.push_back(surface_.curvature(samples.x(k)));
      lost += std::isnan(curvature.back());
    }
    for (std::size_t k = 0; k < samples.size(); ++k) {
      const auto pocket = spinodal_pocket(
          samples, k, [&](std::size_t other) { return curvature[other]; },
          [&](std::span<const double> at) { return surface_.curvature(at); });
      if (pocket) found.push_back(inside_triangle(array_of(*pocket)));
    }
    for (std::size_t k = 0; k < samples.size(); ++k) {
      const auto x = samples.x(k);
      if (curvature[k] < 0) found.push_back(inside_triangle({x[0], x[1], x[2]}));
    }
    if (lost > 0) {
      result_.notices.add(
          "search-coarse",
          fmt::format(
              "no boiling point was found for {} of {} compositions; regions of two liquids there were not "
              "searched for",
              lost, samples.size()));
    }
    return found;
  }

  std::optional<BoilingTieLine> line_at(const Composition& z) override {
    ActivityModel* model = mixture_.liquid().activity();
    if (model == nullptr || !surface_.boil(z)) return std::nullopt;
    const IncipientState& boiling = surface_.state();
    const LiquidSplit split = LiquidSplitter(*model, boiling.T_K).split(z);
    if (split.phases() == 3) {
      const auto found = three_boiling_near(
          mixture_, P_Pa_, boiling.T_K, {array_of(split.x[0]), array_of(split.x[1]), array_of(split.x[2])});
      if (found) add_three(*found);
    }
    if (split.phases() != 2) return std::nullopt;
    BoilingTieLine guess;
    guess.alpha = array_of(split.x[0]);
    guess.beta = array_of(split.x[1]);
    guess.y = array_of(boiling.w);
    guess.T_K = boiling.T_K;
    return through(z, guess);
  }

  bool covered(const Composition& z) const override {
    return std::any_of(result_.three_liquids.begin(), result_.three_liquids.end(),
                       [&](const ThreeBoilingLiquids& three) { return three.contain(z); }) ||
           std::any_of(result_.regions.begin(), result_.regions.end(),
                       [&](const BoilingRegion& region) { return place_in(region, z).has_value(); });
  }

  Mixture& mixture_;
  double P_Pa_;
  BoilingLiquidsSolver solver_;
  BoilingLiquids state_;
  BoilingSurface surface_;
  BoilingRegions& result_;
};

}  // namespace

BoilingRegions boiling_regions(Mixture& mixture, double P_Pa) {
  demand_size(mixture.size(), 3, "substances");
  demand_pressure(P_Pa);
  mixture.demand_volatilities();
  for (const Substance& substance : mixture.substances()) {
    if (!substance.vapour_pressure && !mixture.one_equation())
      throw CalculationError(substance.name +
                             " is non-volatile; regions of boiling liquids are for three that boil");
  }
  BoilingRegions result;
  BoilingTracer(mixture, P_Pa, result);
  return result;
}

}  // namespace jampot
