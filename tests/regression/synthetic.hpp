#pragma once
// Made-up data from a known truth, for fits whose answer is known.
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/measured/data_set.hpp"
#include "support.hpp"

namespace jampot::test {

struct Noise {
  double T_K = 0.05, P_Pa = 50, x = 0.002, y = 0.004;
};

/// Points at equal distances in x from a mixture, with normal noise of the stated size (times `scale`).
inline DataSet synthetic(Mixture mixture, DataKind kind, int points, unsigned seed, double scale = 1,
                         const Noise& noise = {}) {
  std::mt19937_64 generator(seed);
  std::normal_distribution<double> normal;
  DataSet data;
  data.name = "synthetic";
  data.kind = kind;
  data.substances = mixture.substances();
  for (int k = 0; k < points; ++k) {
    const double x1 = 0.03 + 0.94 * k / (points - 1);
    const std::vector<double> x{x1, 1 - x1};
    const VlePoint exact =
        isobaric(kind) ? bubble_temperature(mixture, 101325, x) : bubble_pressure(mixture, 330, x);
    DataPoint point{exact.T_K, exact.P_Pa, exact.x, exact.y, noise.T_K, noise.P_Pa, noise.x, noise.y, k + 1};
    point.T_K += scale * noise.T_K * normal(generator);
    point.P_Pa += scale * noise.P_Pa * normal(generator);
    point.x[0] += scale * noise.x * normal(generator);
    point.x[1] = 1 - point.x[0];
    point.y[0] += scale * noise.y * normal(generator);
    point.y[1] = 1 - point.y[0];
    if (!has_vapour(kind)) point.y.clear();
    data.points.push_back(point);
  }
  return data;
}

}  // namespace jampot::test
