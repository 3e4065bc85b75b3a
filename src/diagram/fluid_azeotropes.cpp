#include "jampot/diagram/fluid_azeotropes.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"

namespace jampot {
namespace {

SingularPoint at(double x1, double T_K, double eigenvalue) {
  SingularPoint point;
  point.x = {x1, 1 - x1};
  point.T_K = T_K;
  point.eigenvalues = {eigenvalue};
  point.stability = eigenvalue < 0 ? Stability::stable_node : Stability::unstable_node;
  return point;
}

// d(x - y)/dx between the neighbours of x1 on the curve.
double slope(const BinaryCurve& curve, double x1) {
  const auto after = std::find_if(curve.points.begin(), curve.points.end(),
                                  [&](const BinaryPoint& point) { return point.x[0] > x1; });
  const BinaryPoint &high = *after, &low = *(after - 1);
  return 1 - (high.y[0] - low.y[0]) / (high.x[0] - low.x[0]);
}

}  // namespace

SingularPoints fluid_singular_points(Mixture& mixture, double P_Pa) {
  if (mixture.size() != 2)
    throw RequestError(
        "with one equation of state for both phases azeotropes are searched for in mixtures of two "
        "components; "
        "an activity model takes more");
  const BinaryCurve curve = txy(mixture, P_Pa);
  const BinaryPoint &second = curve.points.front(), &first = curve.points.back();
  if (second.x[0] > 0 || first.x[1] > 0)
    throw CalculationError(
        fmt::format("at {:.6g} kPa a pure substance of this mixture is above its critical "
                    "point; txy shows the curve that is left",
                    P_Pa / 1000));
  SingularPoints result;
  result.P_Pa = P_Pa;
  // About a pure substance the other one goes its own way: 1 - K.
  result.points = {at(1, first.T_K, 1 - first.K[1]), at(0, second.T_K, 1 - second.K[0])};
  result.points[0].members = {0};
  result.points[1].members = {1};
  for (const Azeotrope& azeotrope : curve.azeotropes) {
    SingularPoint point =
        at(azeotrope.x1, azeotrope.T_K, azeotrope.heterogeneous ? 1 : slope(curve, azeotrope.x1));
    point.members = {0, 1};
    point.heterogeneous = azeotrope.heterogeneous;
    point.residual = azeotrope.residual;
    for (const ThreePhase& line : curve.three_phases) {
      if (azeotrope.heterogeneous && line.T_K == azeotrope.T_K)
        point.liquids = {{line.x1_alpha, 1 - line.x1_alpha}, {line.x1_beta, 1 - line.x1_beta}};
    }
    result.points.push_back(std::move(point));
  }
  for (const SingularPoint& point : result.points)
    result.index_sum += (1 << point.members.size()) * (point.eigenvalues.front() < 0 ? -1 : 1);
  result.notices.add(curve.notices);
  if (!result.balanced())
    result.notices.add(
        "index-balance",
        fmt::format("the singular points found do not satisfy the index balance ({} instead of {}): "
                    "at least one azeotrope is missing, or one of them is nearly tangent",
                    result.index_sum, result.index_expected));
  return result;
}

}  // namespace jampot
