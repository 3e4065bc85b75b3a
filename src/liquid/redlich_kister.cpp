#include "jampot/liquid/redlich_kister.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>

#include "jampot/liquid/working.hpp"
#include "pair_expansion.hpp"

namespace jampot {
namespace {

int order_of(std::size_t term) {
  return static_cast<int>(term % RedlichKister::orders);
}

}  // namespace

RedlichKister::RedlichKister(std::size_t size, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, size, pairs, {"B_0", "B_1", "B_2", "B_3"})),
      n_(size),
      B_(terms_.size()),
      B_dT_(terms_.size()) {}

ModelDescription RedlichKister::description() {
  ModelDescription description{std::string(model_name)};
  description.terms = {{"B_0", 0.1, false, true, -1, 3, -8, 12},
                       {"B_1", 0, false, true, -1, 1, -8, 8, false, true},
                       {"B_2", 0, true, true, -0.5, 0.5, -8, 8, true},
                       {"B_3", 0, true, true, -0.5, 0.5, -8, 8, true, true}};
  description.make = [](const std::vector<Substance>& substances, const std::vector<PairParameters>& pairs) {
    return std::make_unique<RedlichKister>(substances.size(), pairs);
  };
  return description;
}

void RedlichKister::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    B_[t] = terms_[t].function.value(T_K);
    B_dT_[t] = terms_[t].function.dT(T_K);
  }
}

void RedlichKister::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                             std::span<double> dn) {
  std::fill(ln_gamma.begin(), ln_gamma.end(), 0.0);
  std::fill(dT.begin(), dT.end(), 0.0);
  std::fill(dn.begin(), dn.end(), 0.0);
  const double N = total(x);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    if (B_[t] == 0 && B_dT_[t] == 0) continue;  // an order that is not used
    const std::size_t i = terms_[t].i, j = terms_[t].j;
    const ExpansionPart part = expansion_part(order_of(t), x[i], x[j], N, !dn.empty());
    const auto number = [&](std::size_t k) { return k == i ? 0 : k == j ? 1 : 2; };
    for (std::size_t k = 0; k < n_; ++k) {
      const int a = number(k);
      ln_gamma[k] += B_[t] * part.first[a];
      if (!dT.empty()) dT[k] += B_dT_[t] * part.first[a];
      for (std::size_t l = 0; !dn.empty() && l < n_; ++l) dn[k * n_ + l] += B_[t] * part.second[a][number(l)];
    }
  }
}

double RedlichKister::third_derivative(std::span<const double> x, std::span<const double> u) const {
  const double N = total(x), U = total(u);
  double sum = 0;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const std::size_t i = terms_[t].i, j = terms_[t].j;
    if (B_[t] != 0) sum += B_[t] * expansion_third(order_of(t), x[i], x[j], N, u[i], u[j], U);
  }
  return sum;
}

void RedlichKister::term_derivatives(std::span<const double> x, std::span<double> out) {
  const double N = total(x);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const ExpansionPart part = expansion_part(order_of(t), x[terms_[t].i], x[terms_[t].j], N, false);
    for (std::size_t k = 0; k < n_; ++k)
      out[k * terms_.size() + t] = part.first[k == terms_[t].i ? 0 : k == terms_[t].j ? 1 : 2];
  }
}

void RedlichKister::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                           std::span<double> slope_dT) {
  const double N = total(x);
  std::fill(slope_dT.begin(), slope_dT.end(), 0.0);  // the terms stand in it linearly
  for (std::size_t t = 0; t < terms_.size(); ++t)
    slope[t] = expansion_value(order_of(t), x[terms_[t].i], x[terms_[t].j], N);
}

void RedlichKister::write_out(Working& page) const {
  const std::vector<double>& x = page.x();
  page.say("Redlich-Kister: gE/(RT) = sum over pairs of x_i x_j sum_k B_k (x_i - x_j)^k");
  page.say("                with P = x_i x_j, d = x_i - x_j a pair gives each order k:");
  page.say("                ln gamma_i: B_k [x_j d^k + k P d^(k-1) - (k + 1) P d^k],");
  page.say(
      "                ln gamma_j: B_k [x_i d^k - k P d^(k-1) - (k + 1) P d^k], others: -B_k (k + 1) P d^k");
  std::vector<std::vector<double>> parts(x.size());
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const ModelTerm& term = terms_[t];
    const double B = term.function.value(page.T_K());
    if (B == 0) continue;
    page.say(fmt::format("{} of {}{} = {} = {}", term.name, term.i + 1, term.j + 1,
                         page.text_of(term.function), Working::number(B)));
    const ExpansionPart part = expansion_part(order_of(t), x[term.i], x[term.j], 1, false);
    for (std::size_t k = 0; k < x.size(); ++k)
      parts[k].push_back(B * part.first[k == term.i ? 0 : k == term.j ? 1 : 2]);
  }
  for (std::size_t k = 0; k < x.size(); ++k)
    page.result(k, parts[k], std::accumulate(parts[k].begin(), parts[k].end(), 0.0));
}

}  // namespace jampot
