#include "pair_expansion.hpp"

#include <array>
#include <cmath>
#include <numeric>

namespace jampot {

double total(std::span<const double> n) {
  return std::accumulate(n.begin(), n.end(), 0.0);
}
namespace {

double power(double base, int exponent) {
  if (exponent < 0) return 0;  // stands beside a factor of zero
  double value = 1;
  for (int k = 0; k < exponent; ++k) value *= base;
  return value;
}

// A polynomial in s up to its third power.
using Series = std::array<double, 4>;

Series times(const Series& a, const Series& b) {
  Series product{};
  for (std::size_t i = 0; i < 4; ++i) {
    for (std::size_t j = 0; i + j < 4; ++j) product[i + j] += a[i] * b[j];
  }
  return product;
}

}  // namespace

double expansion_value(int order, double ni, double nj, double N) {
  return ni * nj / N * power((ni - nj) / N, order);
}

ExpansionPart expansion_part(int order, double ni, double nj, double N, bool second) {
  const double k = order, q = -(k + 1);
  const double p = ni * nj, d = ni - nj;
  const double d0 = power(d, order), d1 = k * power(d, order - 1), d2 = k * (k - 1) * power(d, order - 2);
  const double y0 = 1 / power(N, order + 1), y1 = q * y0 / N, y2 = (q - 1) * y1 / N;
  // f = p d^k N^q as a function of ni, nj and N: its derivatives with each, then N taken as the sum of all.
  const double f_i = (nj * d0 + p * d1) * y0, f_j = (ni * d0 - p * d1) * y0, f_N = p * d0 * y1;
  ExpansionPart part;
  part.first[0] = f_i + f_N;
  part.first[1] = f_j + f_N;
  part.first[2] = f_N;
  if (!second) return part;
  const double f_ii = (2 * nj * d1 + p * d2) * y0, f_jj = (-2 * ni * d1 + p * d2) * y0,
               f_ij = ((1 + k) * d0 - p * d2) * y0;
  const double f_iN = (nj * d0 + p * d1) * y1, f_jN = (ni * d0 - p * d1) * y1, f_NN = p * d0 * y2;
  const double own[3] = {f_iN, f_jN, 0};
  const double plain[3][3] = {{f_ii, f_ij, 0}, {f_ij, f_jj, 0}, {0, 0, 0}};
  for (int a = 0; a < 3; ++a) {
    for (int b = 0; b < 3; ++b) part.second[a][b] = plain[a][b] + own[a] + own[b] + f_NN;
  }
  return part;
}

double expansion_third(int order, double ni, double nj, double N, double ui, double uj, double U) {
  const double r = U / N;
  const Series by_N{1 / N, -r / N, r * r / N, -r * r * r / N};
  const Series ratio = times({ni - nj, ui - uj, 0, 0}, by_N);
  Series product = times(times({ni, ui, 0, 0}, {nj, uj, 0, 0}), by_N);
  for (int k = 0; k < order; ++k) product = times(product, ratio);
  return 6 * product[3];
}

}  // namespace jampot
