#include "jampot/liquid/margules.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "jampot/liquid/working.hpp"
#include "pair_expansion.hpp"

namespace jampot {

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
    const ExpansionPart even = expansion_part(0, x[pair.i], x[pair.j], N, !dn.empty()),
                        odd = expansion_part(1, x[pair.i], x[pair.j], N, !dn.empty());
    const auto number = [&](std::size_t k) { return k == pair.i ? 0 : k == pair.j ? 1 : 2; };
    for (std::size_t k = 0; k < n_; ++k) {
      const int a = number(k);
      ln_gamma[k] += pair.mean * even.first[a] + pair.half * odd.first[a];
      if (!dT.empty()) dT[k] += pair.mean_dT * even.first[a] + pair.half_dT * odd.first[a];
      for (std::size_t l = 0; !dn.empty() && l < n_; ++l) {
        const int b = number(l);
        dn[k * n_ + l] += pair.mean * even.second[a][b] + pair.half * odd.second[a][b];
      }
    }
  }
}

double Margules::third_derivative(std::span<const double> x, std::span<const double> u) const {
  const double N = total(x), U = total(u);
  double sum = 0;
  for (const Pair& pair : pairs_) {
    const double ni = x[pair.i], nj = x[pair.j], ui = u[pair.i], uj = u[pair.j];
    sum += pair.mean * expansion_third(0, ni, nj, N, ui, uj, U) +
           pair.half * expansion_third(1, ni, nj, N, ui, uj, U);
  }
  return sum;
}

void Margules::term_derivatives(std::span<const double> x, std::span<double> out) {
  const double N = total(x);
  const std::size_t stride = terms_.size();
  for (std::size_t p = 0; p < pairs_.size(); ++p) {
    const double ni = x[pairs_[p].i], nj = x[pairs_[p].j];
    const ExpansionPart even = expansion_part(0, ni, nj, N, false), odd = expansion_part(1, ni, nj, N, false);
    for (std::size_t k = 0; k < n_; ++k) {
      const int a = k == pairs_[p].i ? 0 : k == pairs_[p].j ? 1 : 2;
      out[k * stride + 2 * p] = (even.first[a] - odd.first[a]) / 2;
      out[k * stride + 2 * p + 1] = (even.first[a] + odd.first[a]) / 2;
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

void Margules::write_out(Working& page) const {
  const std::vector<double>& x = page.x();
  const std::size_t n = page.x().size();
  page.say(
      "Margules: gE/(RT) = sum over pairs of x_i x_j [m_ij + h_ij (x_i - x_j)],  m = (A_ij + A_ji)/2,  h = "
      "(A_ji "
      "- A_ij)/2");
  page.say(
      "          a pair gives ln gamma_i m x_j (1 - x_i) + h (2 x_i x_j - x_j^2 - 2 Q), ln gamma_j m x_i "
      "(1 - x_j) "
      "+ h (x_i^2 - 2 x_i x_j - 2 Q),");
  page.say("          each other component -m x_i x_j - 2 h Q,  Q = x_i x_j (x_i - x_j)");
  std::vector<std::vector<double>> terms(n);
  for (std::size_t t = 0; t < terms_.size(); t += 2) {
    const ModelTerm &a12 = terms_[t], &a21 = terms_[t + 1];
    const std::size_t i = a12.i, j = a12.j;
    const double A = a12.function.value(page.T_K()), B = a21.function.value(page.T_K()), m = (A + B) / 2,
                 h = (B - A) / 2;
    page.say(fmt::format("A_{0}{1} = {2} = {3};  A_{1}{0} = {4} = {5};  m = {6};  h = {7}", i + 1, j + 1,
                         page.text_of(a12.function), Working::number(A), page.text_of(a21.function),
                         Working::number(B), Working::number(m), Working::number(h)));
    const double P = x[i] * x[j], Q = P * (x[i] - x[j]);
    for (std::size_t k = 0; k < n; ++k) {
      terms[k].push_back(k == i   ? m * x[j] * (1 - x[i]) + h * (2 * P - x[j] * x[j] - 2 * Q)
                         : k == j ? m * x[i] * (1 - x[j]) + h * (x[i] * x[i] - 2 * P - 2 * Q)
                                  : -m * P - 2 * h * Q);
    }
  }
  for (std::size_t k = 0; k < n; ++k)
    page.result(k, terms[k], std::accumulate(terms[k].begin(), terms[k].end(), 0.0));
}

ModelDescription Margules::description() {
  ModelDescription description{std::string(model_name)};
  description.terms = {{"A_12", 0.1, false, true, -1, 3, -8, 12}, {"A_21", 0.1, false, true, -1, 3, -8, 12}};
  description.make = [](const std::vector<Substance>& substances, const std::vector<PairParameters>& pairs) {
    return std::make_unique<Margules>(substances.size(), pairs);
  };
  return description;
}

}  // namespace jampot
