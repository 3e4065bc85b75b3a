#include "jampot/diagram/boiling_region.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <deque>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/azeotrope.hpp"
#include "triangle_plane.hpp"

namespace jampot {
namespace {

constexpr double longest_step = 0.02;   // of an end of the tie line
constexpr double shortest_step = 1e-7;  // of its middle
constexpr double vanishing = 0.03;      // a tie line so short that its end is extrapolated

BoilingTieLine between(const BoilingTieLine& a, const BoilingTieLine& b, double share) {
  BoilingTieLine line;
  line.alpha = combined(a.alpha, share, difference(b.alpha, a.alpha));
  line.beta = combined(a.beta, share, difference(b.beta, a.beta));
  line.y = combined(a.y, share, difference(b.y, a.y));
  line.T_K = a.T_K + share * (b.T_K - a.T_K);
  return line;
}

// Where a composition lies among the tie lines of a region: between k and k + 1.
struct Place {
  std::size_t k = 0;
  double between = 0, share = 0;  ///< of tie line k + 1, of beta
};

std::optional<Place> place_in(const BoilingRegion& region, const Composition& x) {
  const auto& lines = region.tie_lines;
  const auto side = [&](const TieLine& line) {
    return cross(difference(line.beta, line.alpha), difference(x, line.alpha));
  };
  constexpr double margin = 0.02, rounding = 1e-13;  // of a point of a side on the tie line there
  double before = side(lines[0]);
  for (std::size_t k = 0; k + 1 < lines.size(); ++k) {
    const double here = before, next = side(lines[k + 1]);
    before = next;
    const bool on_one = std::abs(here) < rounding || std::abs(next) < rounding;
    if ((here * next > 0 && !on_one) || here == next) continue;
    const double t = std::clamp(here / (here - next), 0.0, 1.0);
    const BoilingTieLine line = between(lines[k], lines[k + 1], t);
    const Composition along = difference(line.beta, line.alpha);
    const double length = inner(along, along);
    if (!(length > 0)) continue;
    const double share = inner(difference(x, line.alpha), along) / length;
    if (share > -margin && share < 1 + margin) return Place{k, t, share};
  }
  return std::nullopt;
}

void fill(BoilingLiquids& state, const BoilingTieLine& line, double share, const Composition& z) {
  state.alpha.assign(line.alpha.begin(), line.alpha.end());
  state.beta.assign(line.beta.begin(), line.beta.end());
  state.y.assign(line.y.begin(), line.y.end());
  for (std::size_t i = 0; i < 3; ++i) {
    if (!(z[i] > 0)) state.alpha[i] = state.beta[i] = state.y[i] = 0;
  }
  state.T_K = line.T_K;
  state.share = share;
}

BoilingTieLine line_of(const BoilingLiquids& state) {
  BoilingTieLine line;
  line.alpha = array_of(state.alpha);
  line.beta = array_of(state.beta);
  line.y = array_of(state.y);
  line.T_K = state.T_K;
  return line;
}

class Tracer {
 public:
  Tracer(Mixture& mixture, double P_Pa)
      : mixture_(mixture), P_Pa_(P_Pa), solver_(mixture.liquid(), mixture.vapour(), P_Pa) {}

  BoilingRegions run() {
    find_edges();
    follow_starts();
    follow_islands();
    follow_starts();
    return std::move(result_);
  }

 private:
  struct Start {
    BoilingTieLine line;
    RegionEnd end;          ///< what lies behind
    Composition direction;  ///< into the region
    bool used = false;
  };

  void follow_starts() {
    for (std::size_t k = 0; k < starts_.size(); ++k) {
      if (starts_[k].used) continue;
      starts_[k].used = true;
      const Start start = starts_[k];
      result_.regions.push_back(follow(start));
    }
  }

  void find_edges() {
    for (std::size_t absent = 0; absent < 3; ++absent) {
      const std::size_t i = absent == 0 ? 1 : 0, j = absent == 2 ? 1 : 2;
      for (const ThreePhase& known : three_phases_of_pair(mixture_, i, j, P_Pa_)) {
        Start start;
        for (const auto& [into, fraction] :
             {std::pair(&start.line.alpha, known.x1_alpha), std::pair(&start.line.beta, known.x1_beta),
              std::pair(&start.line.y, known.y1)}) {
          (*into)[i] = fraction;
          (*into)[j] = 1 - fraction;
        }
        start.line.T_K = known.T_K;
        start.end = {RegionEnd::Kind::edge, absent};
        start.direction[absent] = 1;
        start.direction[i] = start.direction[j] = -0.5;
        starts_.push_back(start);
      }
    }
  }

  std::optional<BoilingTieLine> through(const Composition& z, const BoilingTieLine& guess) {
    for (const double value : z) {
      if (!(value > 0)) return std::nullopt;
    }
    fill(state_, guess, 0.5, z);
    if (!solver_.through(z, state_) || !(state_.share > 0 && state_.share < 1)) return std::nullopt;
    return aligned(line_of(state_), guess);
  }

  // A component that is absent from a tie line enters in the proportion of its limits there.
  void let_in(BoilingTieLine& guess, const BoilingTieLine& last, const Composition& z) {
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

  std::optional<BoilingTieLine> step(const BoilingRegion& region, const Composition& direction, double h) {
    const auto& lines = region.tie_lines;
    const BoilingTieLine& last = lines.back();
    const Composition z = combined(last.middle(), h, direction);
    BoilingTieLine guess = last;
    if (lines.size() > 1) {
      const BoilingTieLine& before = lines[lines.size() - 2];
      const BoilingTieLine further =
          between(before, last, 1 + h / std::max(1e-12, distance(last.middle(), before.middle())));
      bool inside = true;
      for (std::size_t i = 0; i < 3; ++i)
        inside = inside && further.alpha[i] > 0.2 * last.alpha[i] && further.beta[i] > 0.2 * last.beta[i] &&
                 further.y[i] > 0.2 * last.y[i];
      if (inside) guess = further;
    }
    let_in(guess, last, z);
    return through(z, guess);
  }

  // The square of the length of a tie line goes to zero linearly, and with it everything else.
  bool end_at_plait(BoilingRegion& region) {
    const auto& lines = region.tie_lines;
    if (lines.size() < 3) return false;
    const BoilingTieLine &last = lines.back(), &before = lines[lines.size() - 2];
    const double now = norm(difference(last.beta, last.alpha)),
                 then = norm(difference(before.beta, before.alpha));
    if (!(now < then)) return false;
    const double ahead = now * now / (then * then - now * now);
    BoilingTieLine end = between(before, last, 1 + ahead);
    end.alpha = end.beta = end.middle();
    region.tie_lines.push_back(end);
    region.end = {RegionEnd::Kind::plait, 0};
    return true;
  }

  // Where a third liquid appears beside two: at the side of the triangle that all three make.
  bool end_at_three(BoilingRegion& region, const BoilingTieLine& beyond) {
    PhaseValues values(3);
    mixture_.liquid().evaluate(beyond.T_K, P_Pa_, beyond.alpha, {}, values);
    std::vector<double> ln_f(3);
    for (std::size_t i = 0; i < 3; ++i) ln_f[i] = std::log(beyond.alpha[i]) + values.ln_phi[i];
    const auto third = find_more_stable(mixture_.liquid(), beyond.T_K, P_Pa_, ln_f);
    if (!third) return false;
    const auto found = three_boiling_near(mixture_, P_Pa_, beyond.T_K,
                                          {beyond.alpha, beyond.beta, array_of(third->composition)});
    if (!found || liquid_splits(mixture_.liquid(), found->T_K, found->liquids[0])) return false;
    const std::size_t number = add_three(*found);
    const BoilingTieLine last = region.tie_lines.back();
    std::optional<std::size_t> side;
    double least = HUGE_VAL;
    for (std::size_t opposite = 0; opposite < 3; ++opposite) {
      const double apart = distance(aligned(side_of(number, opposite), last), last);
      if (apart >= least) continue;
      least = apart;
      side = opposite;
    }
    region.tie_lines.push_back(aligned(side_of(number, *side), last));
    region.end = {RegionEnd::Kind::three_liquid, number};
    for (Start& other : starts_) {  // that side is done
      if (other.end.kind == RegionEnd::Kind::three_liquid && other.end.number == number &&
          distance(aligned(other.line, region.tie_lines.back()), region.tie_lines.back()) < 1e-9)
        other.used = true;
    }
    return true;
  }

  BoilingTieLine side_of(std::size_t triangle, std::size_t opposite) const {
    const ThreeBoilingLiquids& three = result_.three_liquids[triangle];
    BoilingTieLine line;
    line.alpha = three.liquids[(opposite + 1) % 3];
    line.beta = three.liquids[(opposite + 2) % 3];
    line.y = three.y;
    line.T_K = three.T_K;
    return line;
  }

  // Every side of a triangle is the first tie line of a region outside it.
  std::size_t add_three(const ThreeBoilingLiquids& found) {
    auto& known = result_.three_liquids;
    for (std::size_t k = 0; k < known.size(); ++k) {
      if (std::abs(known[k].T_K - found.T_K) < 1e-6 && distance(known[k].y, found.y) < 1e-6) return k;
    }
    known.push_back(found);
    for (std::size_t opposite = 0; opposite < 3; ++opposite) {
      Start start;
      start.line = side_of(known.size() - 1, opposite);
      start.end = {RegionEnd::Kind::three_liquid, known.size() - 1};
      start.direction = difference(start.line.middle(), found.liquids[opposite]);
      starts_.push_back(start);
    }
    return known.size() - 1;
  }

  BoilingRegion follow(const Start& start) {
    BoilingRegion region;
    region.begin = start.end;
    region.tie_lines.push_back(start.line);
    Composition direction = across(start.line, start.direction);
    double h = 1e-3;
    constexpr int most_steps = 2000;
    for (int count = 0; count < most_steps; ++count) {
      const BoilingTieLine last = region.tie_lines.back();
      const double length = norm(difference(last.beta, last.alpha));
      if (length < vanishing && end_at_plait(region)) return region;
      if (end_region_at_edge(region, starts_, direction)) return region;
      if (h < shortest_step) {
        if (length < 5 * vanishing && end_at_plait(region)) return region;
        break;
      }
      const auto next = step(region, direction, h);
      const bool far = next && (distance(*next, last) > longest_step || cosine_between(*next, last) < 0.98 ||
                                next->length() < 0.7 * last.length());
      if (!next || (far && h > 1e-5)) {
        h /= 2;
        continue;
      }
      if (liquid_splits(mixture_.liquid(), next->T_K,
                        std::vector<double>(next->alpha.begin(), next->alpha.end()))) {
        if (end_at_three(region, *next)) return region;
        h /= 2;  // a step over a narrow triangle, into what is not stable
        continue;
      }
      direction = across(*next, direction);
      region.tie_lines.push_back(*next);
      if (distance(*next, last) < longest_step / 2) h = std::min(1.6 * h, 0.05);
    }
    throw CalculationError(
        fmt::format("the two boiling liquids near x = ({:.4f}, {:.4f}, {:.4f}) could not be followed to an "
                    "end of their region",
                    region.tie_lines.back().middle()[0], region.tie_lines.back().middle()[1],
                    region.tie_lines.back().middle()[2]));
  }

  bool covered(const Composition& x) const {
    if (std::any_of(result_.three_liquids.begin(), result_.three_liquids.end(),
                    [&](const ThreeBoilingLiquids& three) { return three.contain(x); }))
      return true;
    return std::any_of(result_.regions.begin(), result_.regions.end(),
                       [&](const BoilingRegion& region) { return place_in(region, x).has_value(); });
  }

  // Regions that touch no side: what boils as one liquid though it would part.
  void follow_islands() {
    IncipientSolver boiler(mixture_.liquid(), mixture_.vapour());
    IncipientState state(3);
    state.P_Pa = P_Pa_;
    constexpr int steps = 12;
    for (int i = 1; i < steps; ++i) {
      for (int j = 1; i + j < steps; ++j) {
        const Composition z{1.0 * i / steps, 1.0 * j / steps, 1.0 * (steps - i - j) / steps};
        if (covered(z)) continue;
        state.T_K = 0;
        for (std::size_t k = 0; k < 3; ++k)
          state.T_K += z[k] * mixture_.substances()[k].vapour_pressure->T_K(P_Pa_);
        state.w.assign(z.begin(), z.end());
        if (!boiler.solve(Sought::temperature, z, state)) continue;
        if (!liquid_splits(mixture_.liquid(), state.T_K, z)) continue;
        begin_island(z, state);
      }
    }
  }

  void begin_island(const Composition& z, const IncipientState& boiling) {
    LiquidSplitter splitter(mixture_.activity(), boiling.T_K);
    const LiquidSplit split = splitter.split(z);
    if (split.phases() == 3) {
      ThreeLiquids guess{};
      for (std::size_t p = 0; p < 3; ++p) guess[p] = array_of(split.x[p]);
      if (const auto found = three_boiling_near(mixture_, P_Pa_, boiling.T_K, guess)) {
        add_three(*found);
        follow_starts();
      }
      return;
    }
    if (split.phases() != 2) return;
    BoilingTieLine guess;
    guess.alpha = array_of(split.x[0]);
    guess.beta = array_of(split.x[1]);
    guess.y = array_of(boiling.w);
    guess.T_K = boiling.T_K;
    const auto line = through(z, guess);
    if (!line || covered(line->middle())) return;
    Start start;
    start.line = *line;
    start.direction = across(*line, {1, -0.5, -0.5});
    BoilingRegion one = follow(start);
    for (double& value : start.direction) value = -value;
    const BoilingRegion other = follow(start);
    std::reverse(one.tie_lines.begin(), one.tie_lines.end());
    one.begin = one.end;
    one.end = other.end;
    one.tie_lines.insert(one.tie_lines.end(), other.tie_lines.begin() + 1, other.tie_lines.end());
    result_.regions.push_back(std::move(one));
  }

  Mixture& mixture_;
  double P_Pa_;
  BoilingLiquidsSolver solver_;
  BoilingLiquids state_;
  std::deque<Start> starts_;
  BoilingRegions result_;
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
  return Tracer(mixture, P_Pa).run();
}

// A curve through all tie lines of a region, ten numbers each, in their distance from each other as the
// parameter, as cubic pieces.
class BoilingLiquid::Spline {
 public:
  explicit Spline(const BoilingRegion& region) : region_(region) {
    const auto& lines = region.tie_lines;
    for (std::size_t k = 0; k < lines.size(); ++k)
      at_.push_back(k == 0 ? 0 : at_.back() + std::max(1e-12, distance(lines[k], lines[k - 1])));
    for (std::size_t k = 0; k < lines.size(); ++k) slopes_.push_back(slope(k));
  }

  /// The tie line through x, and its share of beta; false where none is near.
  bool through(const Composition& x, BoilingTieLine& line, double& share) const {
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
    BoilingTieLine line;
    each(line, [&](const auto& part) {
      return u * u * (1 + 2 * t) * part(region_.tie_lines[k]) +
             t * t * (3 - 2 * t) * part(region_.tie_lines[k + 1]) +
             h * (t * u * u * part(slopes_[k]) - t * t * u * part(slopes_[k + 1]));
    });
    return line;
  }

  const BoilingRegion& region_;
  std::vector<double> at_;
  std::vector<BoilingTieLine> slopes_;
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

void BoilingLiquid::at(const Composition& x) {
  for (const ThreeBoilingLiquids& three : three_) {
    if (!three.contain(x)) continue;
    liquids_there_ = 3;
    T_K_ = three.T_K;
    y_ = three.y;
    return;
  }
  liquids_there_ = part(x) ? 2 : 1;
  if (liquids_there_ == 2) {
    T_K_ = line_.T_K;
    y_ = line_.y;
    return;
  }
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
    if (!solver_.solve(Sought::temperature, x, state_))
      throw CalculationError(
          fmt::format("x = ({:.5f}, {:.5f}, {:.5f}) was not brought to the boil", x[0], x[1], x[2]));
  }
  before_ = last_;
  last_ = x;
  T_K_ = state_.T_K;
  y_ = array_of(state_.w);
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
