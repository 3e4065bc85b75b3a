#include "jampot/liquid/uniquac.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/working.hpp"

namespace jampot {
namespace {

std::vector<double> each(const std::vector<UniquacSize>& sizes, double UniquacSize::*member) {
  std::vector<double> values;
  for (const UniquacSize& size : sizes) values.push_back(size.*member);
  return values;
}

}  // namespace

Uniquac::Uniquac(const std::vector<UniquacSize>& sizes, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, sizes.size(), pairs, {"u_12", "u_21"})),
      size_part_(each(sizes, &UniquacSize::r), each(sizes, &UniquacSize::q)),
      surface_(each(sizes, &UniquacSize::q_residual)),
      contacts_(sizes.size()),
      s_(sizes.size()),
      gradient_(sizes.size()) {}

void Uniquac::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const double tau = std::exp(-terms_[t].function.value(T_K));
    contacts_.psi(i, j) = tau;
    contacts_.dpsi(i, j) = -tau * terms_[t].function.dT(T_K);
  }
}

void Uniquac::set_surfaces(std::span<const double> x) {
  for (std::size_t i = 0; i < s_.size(); ++i) s_[i] = surface_[i] * x[i];
}

void Uniquac::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                       std::span<double> dn) {
  const std::size_t n = size();
  set_surfaces(x);
  size_part_.ln_gamma(x, ln_gamma);
  contacts_.gradient(s_, gradient_);
  for (std::size_t i = 0; i < n; ++i) ln_gamma[i] += surface_[i] * gradient_[i];
  if (!dT.empty()) {
    contacts_.gradient_dT(s_, dT);
    for (std::size_t i = 0; i < n; ++i) dT[i] *= surface_[i];
  }
  if (!dn.empty()) {
    contacts_.hessian(s_, dn);
    for (std::size_t i = 0; i < n; ++i) {
      for (std::size_t k = 0; k < n; ++k) dn[i * n + k] *= surface_[i] * surface_[k];
    }
    size_part_.add_dn(dn);
  }
}

double Uniquac::third_derivative(std::span<const double> x, std::span<const double> u) const {
  std::vector<double> s(size()), ds(size());
  for (std::size_t i = 0; i < size(); ++i) {
    s[i] = surface_[i] * x[i];
    ds[i] = surface_[i] * u[i];
  }
  return size_part_.third_derivative(x, u) + contacts_.third_derivative(s, ds);
}

void Uniquac::term_derivatives(std::span<const double> x, std::span<double> out) {
  set_surfaces(x);
  contacts_.gradient(s_, gradient_);
  std::fill(out.begin(), out.end(), 0.0);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    contacts_.add_entry_change(s_, i, j, -contacts_.psi(i, j), &out[t], terms_.size());
  }
  for (std::size_t i = 0; i < size(); ++i) {
    for (std::size_t t = 0; t < terms_.size(); ++t) out[i * terms_.size() + t] *= surface_[i];
  }
}

void Uniquac::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                     std::span<double> slope_dT) {
  set_surfaces(x);
  contacts_.gradient(s_, gradient_);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const auto entry = contacts_.entry_slope(s_, i, j);
    const double psi = contacts_.psi(i, j), dpsi = contacts_.dpsi(i, j);
    slope[t] = -psi * entry.value;
    slope_dT[t] = -dpsi * entry.value - psi * entry.dT;
  }
}

void Uniquac::write_out(Working& page) const {
  const std::vector<double>& x = page.x();
  const std::size_t n = page.x().size();
  const std::vector<double> size = page.size_part(size_part_, false);
  page.say(
      "residual part: ln gamma_i(R) = q'_i (1 - ln T_i - sum_j theta'_j tau_ij/T_j),  T_j = sum_k theta'_k "
      "tau_kj");
  const std::vector<double>& surface = residual_surfaces();
  double total = 0;
  for (std::size_t i = 0; i < n; ++i) total += surface[i] * x[i];
  std::vector<double> theta(n), T(n);
  for (std::size_t i = 0; i < n; ++i) {
    theta[i] = surface[i] * x[i] / total;
    page.say(fmt::format("q'_{0} = {1};  theta'_{0} = {2}", i + 1, Working::number(surface[i]),
                         Working::number(theta[i])));
  }
  for (const ModelTerm& term : terms_) {
    const bool forward = term.name == "u_12";
    const std::size_t i = forward ? term.i : term.j, j = forward ? term.j : term.i;
    page.say(fmt::format("tau_{0}{1} = exp(-u_{0}{1}),  u_{0}{1} = {2} = {3};  tau_{0}{1} = {4}", i + 1,
                         j + 1, page.text_of(term.function), Working::number(term.function.value(page.T_K())),
                         Working::number(tau(i, j))));
  }
  for (std::size_t j = 0; j < n; ++j) {
    std::vector<double> terms;
    for (std::size_t k = 0; k < n; ++k) {
      terms.push_back(theta[k] * tau(k, j));
      T[j] += terms.back();
    }
    page.say(fmt::format("T_{} = {}", j + 1, Working::added(terms, T[j])));
  }
  for (std::size_t i = 0; i < n; ++i) {
    double inner = 1 - std::log(T[i]);
    for (std::size_t j = 0; j < n; ++j) inner -= theta[j] * tau(i, j) / T[j];
    page.result(i, {size[i], surface[i] * inner}, size[i] + surface[i] * inner);
  }
}

namespace {

UniquacSize bank_size(const Substance& substance) {
  if (substance.uniquac_r && substance.uniquac_q) {
    return {*substance.uniquac_r, *substance.uniquac_q, *substance.uniquac_q};
  }
  throw CalculationError(
      fmt::format("UNIQUAC needs r and q of {}, which are not known; 'jampot define' or a file "
                  "of parameters may state them",
                  substance.name));
}

std::unique_ptr<ActivityModel> make_uniquac(const std::vector<Substance>& substances,
                                            const std::vector<PairParameters>& pairs) {
  std::vector<UniquacSize> sizes(substances.size());
  std::vector<const PairParameters*> from(substances.size());  // which pair stated the size
  std::size_t p = 0;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j, ++p) {
      if (!pairs[p].sizes) continue;
      for (const auto& [component, side] : {std::pair(i, 0), std::pair(j, 1)}) {
        const auto at = static_cast<std::size_t>(side);
        const UniquacSize stated{pairs[p].sizes->r[at], pairs[p].sizes->q[at],
                                 pairs[p].sizes->q_residual[at]};
        const UniquacSize& known = sizes[component];
        const auto differs = [](double a, double b) { return std::abs(a - b) > 0.02 * b; };
        if (from[component] != nullptr && (differs(stated.r, known.r) || differs(stated.q, known.q) ||
                                           differs(stated.q_residual, known.q_residual))) {
          throw RequestError(
              fmt::format("the UNIQUAC parameters '{}' and '{}' were fitted with different r, q or q' "
                          "of {}; they cannot be used together",
                          from[component]->source, pairs[p].source, substances[component].name));
        }
        sizes[component] = stated;
        from[component] = &pairs[p];
      }
    }
  }
  for (std::size_t i = 0; i < substances.size(); ++i) {
    if (from[i] == nullptr) sizes[i] = bank_size(substances[i]);
  }
  return std::make_unique<Uniquac>(sizes, pairs);
}

}  // namespace

ModelDescription Uniquac::description() {
  ModelDescription description{std::string(model_name)};
  description.terms = {{"u_12", 0.05, false, true, -1, 1.5, -6, 8},
                       {"u_21", 0.05, false, true, -1, 1.5, -6, 8}};
  description.make = make_uniquac;
  description.state = [](const Substance& first, const Substance& second, PairParameters& pair) {
    const UniquacSize a = bank_size(first), b = bank_size(second);
    pair.sizes = PairParameters::Sizes{{a.r, b.r}, {a.q, b.q}, {a.q_residual, b.q_residual}};
  };
  description.stated = {"r", "q", "q_residual"};
  return description;
}

}  // namespace jampot
