#include "jampot/liquid/margules.hpp"

#include <algorithm>
#include <numeric>

namespace jampot {
namespace {

// The two parts of a pair in the excess Gibbs energy of amounts, n_i n_j/N and n_i n_j (n_i - n_j)/N^2, with
// their derivatives: with the amount of i (number 0), of j (1), of another component (2), and with two of
// them.
struct Parts {
  double first[3], second[3];
  double first2[3][3], second2[3][3];
};

Parts parts_of(double ni, double nj, double N, bool twice) {
  const double P = ni * nj, Q = P * (ni - nj), N2 = N * N, N3 = N2 * N;
  const double P1[3] = {nj, ni, 0}, Q1[3] = {2 * P - nj * nj, ni * ni - 2 * P, 0};
  Parts parts{};
  for (int k = 0; k < 3; ++k) {
    parts.first[k] = P1[k] / N - P / N2;
    parts.second[k] = Q1[k] / N2 - 2 * Q / N3;
  }
  if (!twice) return parts;
  const double P2[3][3] = {{0, 1, 0}, {1, 0, 0}, {0, 0, 0}};
  const double Q2[3][3] = {{2 * nj, 2 * (ni - nj), 0}, {2 * (ni - nj), -2 * ni, 0}, {0, 0, 0}};
  for (int k = 0; k < 3; ++k) {
    for (int l = 0; l < 3; ++l) {
      parts.first2[k][l] = P2[k][l] / N - (P1[k] + P1[l]) / N2 + 2 * P / N3;
      parts.second2[k][l] = Q2[k][l] / N2 - 2 * (Q1[k] + Q1[l]) / N3 + 6 * Q / (N2 * N2);
    }
  }
  return parts;
}

double total(std::span<const double> x) {
  return std::accumulate(x.begin(), x.end(), 0.0);
}

}  // namespace

Margules::Margules(std::size_t size, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, size, pairs, {"A_12", "A_21"})), n_(size) {
  for (std::size_t t = 0; t < terms_.size(); t += 2) pairs_.push_back({terms_[t].i, terms_[t].j});
}

void Margules::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  for (std::size_t p = 0; p < pairs_.size(); ++p) {
    const TemperatureFunction &a12 = terms_[2 * p].function, &a21 = terms_[2 * p + 1].function;
    pairs_[p].mean = (a12.value(T_K) + a21.value(T_K)) / 2;
    pairs_[p].half = (a21.value(T_K) - a12.value(T_K)) / 2;
    pairs_[p].mean_dT = (a12.dT(T_K) + a21.dT(T_K)) / 2;
    pairs_[p].half_dT = (a21.dT(T_K) - a12.dT(T_K)) / 2;
  }
}

void Margules::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                        std::span<double> dn) {
  std::fill(ln_gamma.begin(), ln_gamma.end(), 0.0);
  std::fill(dT.begin(), dT.end(), 0.0);
  std::fill(dn.begin(), dn.end(), 0.0);
  const double N = total(x);
  for (const Pair& pair : pairs_) {
    const Parts parts = parts_of(x[pair.i], x[pair.j], N, !dn.empty());
    const auto number = [&](std::size_t k) { return k == pair.i ? 0 : k == pair.j ? 1 : 2; };
    for (std::size_t k = 0; k < n_; ++k) {
      const int a = number(k);
      ln_gamma[k] += pair.mean * parts.first[a] + pair.half * parts.second[a];
      if (!dT.empty()) dT[k] += pair.mean_dT * parts.first[a] + pair.half_dT * parts.second[a];
      for (std::size_t l = 0; !dn.empty() && l < n_; ++l) {
        const int b = number(l);
        dn[k * n_ + l] += pair.mean * parts.first2[a][b] + pair.half * parts.second2[a][b];
      }
    }
  }
}

// Leibniz for the products of a polynomial with 1/N and 1/N^2 along the line, N = sum x + s sum u.
double Margules::third_derivative(std::span<const double> x, std::span<const double> u) const {
  const double N = total(x), U = total(u), r = U / N;
  double sum = 0;
  for (const Pair& pair : pairs_) {
    const double ni = x[pair.i], nj = x[pair.j], ui = u[pair.i], uj = u[pair.j];
    const double P = ni * nj, P1 = ui * nj + ni * uj, P2 = 2 * ui * uj;
    const double Q = P * (ni - nj), Q1 = ui * (2 * P - nj * nj) + uj * (ni * ni - 2 * P),
                 Q2 = 2 * nj * ui * ui + 4 * (ni - nj) * ui * uj - 2 * ni * uj * uj,
                 Q3 = 6 * ui * uj * (ui - uj);
    const double first = -3 * P2 * r + 6 * P1 * r * r - 6 * P * r * r * r;
    const double second = Q3 - 6 * Q2 * r + 18 * Q1 * r * r - 24 * Q * r * r * r;
    sum += pair.mean * first / N + pair.half * second / (N * N);
  }
  return sum;
}

void Margules::term_derivatives(std::span<const double> x, std::span<double> out) {
  const double N = total(x);
  const std::size_t stride = terms_.size();
  for (std::size_t p = 0; p < pairs_.size(); ++p) {
    const Parts parts = parts_of(x[pairs_[p].i], x[pairs_[p].j], N, false);
    for (std::size_t k = 0; k < n_; ++k) {
      const int a = k == pairs_[p].i ? 0 : k == pairs_[p].j ? 1 : 2;
      out[k * stride + 2 * p] = (parts.first[a] - parts.second[a]) / 2;
      out[k * stride + 2 * p + 1] = (parts.first[a] + parts.second[a]) / 2;
    }
  }
}

void Margules::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                      std::span<double> slope_dT) {
  const double N = total(x);
  std::fill(slope_dT.begin(), slope_dT.end(), 0.0);  // the terms stand in it linearly
  for (std::size_t p = 0; p < pairs_.size(); ++p) {
    const double ni = x[pairs_[p].i], nj = x[pairs_[p].j];
    const double first = ni * nj / N, second = first * (ni - nj) / N;
    slope[2 * p] = (first - second) / 2;
    slope[2 * p + 1] = (first + second) / 2;
  }
}

}  // namespace jampot
