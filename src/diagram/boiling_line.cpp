#include "boiling_line.hpp"

#include <algorithm>
#include <cmath>

namespace jampot {

BoilingTieLine between(const BoilingTieLine& a, const BoilingTieLine& b, double share) {
  BoilingTieLine line;
  line.alpha = combined(a.alpha, share, difference(b.alpha, a.alpha));
  line.beta = combined(a.beta, share, difference(b.beta, a.beta));
  line.y = combined(a.y, share, difference(b.y, a.y));
  line.T_K = a.T_K + share * (b.T_K - a.T_K);
  return line;
}

std::optional<PlaceInRegion> place_in(const BoilingRegion& region, const Composition& x) {
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
    if (share > -margin && share < 1 + margin) return PlaceInRegion{k, t, share};
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

}  // namespace jampot
