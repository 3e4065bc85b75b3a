#include "measured_gamma.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot::consistency {
namespace {

const std::vector<Substance>& with_vapour_pressures(const std::vector<Substance>& substances) {
  for (const Substance& substance : substances) {
    if (!substance.vapour_pressure)
      throw CalculationError(fmt::format("{} has no vapour pressure", substance.name));
  }
  return substances;
}

}  // namespace

MeasuredGamma::MeasuredGamma(const std::vector<Substance>& substances, const VapourChoice& vapour)
    : substances_(substances),
      mixture_(with_vapour_pressures(substances), "ideal", {}, vapour),
      liquid_(substances.size()),
      vapour_(substances.size()) {}

std::vector<double> MeasuredGamma::ln_gamma(const DataPoint& point) {
  mixture_.liquid().evaluate(point.T_K, point.P_Pa, point.x, {}, liquid_);
  mixture_.vapour().evaluate(point.T_K, point.P_Pa, point.y, {}, vapour_);
  std::vector<double> result(point.x.size());
  for (std::size_t i = 0; i < result.size(); ++i) {
    if (point.x[i] > 0 && point.y[i] > 0)
      result[i] = std::log(point.y[i] / point.x[i]) + vapour_.ln_phi[i] - liquid_.ln_phi[i];
  }
  return result;
}

MeasuredGamma::Bubble MeasuredGamma::bubble(double T_K, const std::vector<double>& x,
                                            const std::vector<double>& ln_gamma, double near_Pa) {
  Bubble bubble{near_Pa, x};
  // ln K falls by one where ln P rises by one, but for the vapour's own change: a few substitutions.
  constexpr int most_steps = 60;
  for (int step = 0; step < most_steps; ++step) {
    mixture_.liquid().evaluate(T_K, bubble.P_Pa, x, {}, liquid_);
    mixture_.vapour().evaluate(T_K, bubble.P_Pa, bubble.y, {}, vapour_);
    double sum = 0;
    for (std::size_t i = 0; i < x.size(); ++i)
      sum += bubble.y[i] = x[i] * std::exp(ln_gamma[i] + liquid_.ln_phi[i] - vapour_.ln_phi[i]);
    for (double& fraction : bubble.y) fraction /= sum;
    bubble.P_Pa *= sum;
    if (std::abs(sum - 1) < 1e-11) break;
  }
  return bubble;
}

}  // namespace jampot::consistency
