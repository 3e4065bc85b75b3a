// NRTL at many states: the loops run over the states, so that the processor takes several at a time.
#include <algorithm>
#include <array>

#include "clones.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "many_exp.hpp"
#include "states_size.hpp"

namespace jampot {
namespace {

constexpr std::size_t block = 64;  // states whose numbers stay in the nearest memory

// 1/S of each by one division: the processor divides more slowly than it does all else here.
template <std::size_t N>
[[gnu::always_inline]] inline void invert_all(double (&S)[N]) {
  double before[N];  // the product of those before
  before[0] = 1;
  for (std::size_t j = 1; j < N; ++j) before[j] = before[j - 1] * S[j - 1];
  double behind = 1 / (before[N - 1] * S[N - 1]);
  for (std::size_t j = N; j-- > 0;) {
    const double inverse = behind * before[j];
    behind *= S[j];
    S[j] = inverse;
  }
}

// ln gamma of `count` states, as Nrtl::ln_gamma_only of one. G and tauG of entry (i, j) at stride apart for
// each state, or the same for all where `step` is 0; G is 1 and tauG 0 where i is j.
template <std::size_t N>
[[gnu::always_inline]] inline void ln_gammas(const double* G, const double* tauG, std::size_t stride,
                                             std::size_t step, const double* x, double* out,
                                             std::size_t states, std::size_t count) {
  for (std::size_t s = 0; s < count; ++s) {
    double R[N], share[N];
    for (std::size_t j = 0; j < N; ++j) {
      double S = x[j * states + s], C = 0;
      for (std::size_t k = 0; k < N; ++k) {
        if (k == j) continue;
        const std::size_t entry = (k * N + j) * stride + s * step;
        S += G[entry] * x[k * states + s];
        C += tauG[entry] * x[k * states + s];
      }
      share[j] = S;
      R[j] = C;
    }
    invert_all(share);
    for (std::size_t j = 0; j < N; ++j) {
      R[j] *= share[j];
      share[j] *= x[j * states + s];
    }
    for (std::size_t i = 0; i < N; ++i) {
      double sum = R[i] - share[i] * R[i];
      for (std::size_t j = 0; j < N; ++j) {
        if (i == j) continue;
        const std::size_t entry = (i * N + j) * stride + s * step;
        sum += share[j] * (tauG[entry] - G[entry] * R[j]);
      }
      out[i * states + s] = sum;
    }
  }
}

// One function for each number of components: what is chosen by the processor is no template.
#define JAMPOT_NRTL_OF(N)                                                                              \
  JAMPOT_CLONES                                                                                        \
  void at_one_temperature_##N(const double* __restrict G, const double* __restrict tauG,               \
                              const double* __restrict x, double* __restrict out, std::size_t states,  \
                              std::size_t count) {                                                     \
    constexpr std::size_t entries = std::size_t{N} * (N);                                              \
    double own_G[entries], own_tauG[entries];                                                          \
    for (std::size_t e = 0; e < entries; ++e) {                                                        \
      own_G[e] = G[e];                                                                                 \
      own_tauG[e] = tauG[e];                                                                           \
    }                                                                                                  \
    ln_gammas<N>(own_G, own_tauG, 1, 0, x, out, states, count);                                        \
  }                                                                                                    \
  JAMPOT_CLONES                                                                                        \
  void at_each_temperature_##N(const double* __restrict G, const double* __restrict tauG,              \
                               const double* __restrict x, double* __restrict out, std::size_t states, \
                               std::size_t count) {                                                    \
    ln_gammas<N>(G, tauG, block, 1, x, out, states, count);                                            \
  }
JAMPOT_NRTL_OF(2)
JAMPOT_NRTL_OF(3)
JAMPOT_NRTL_OF(4)
#undef JAMPOT_NRTL_OF

using Kernel = void (*)(const double*, const double*, const double*, double*, std::size_t, std::size_t);

Kernel at_one_temperature(std::size_t n) {
  return n == 2   ? at_one_temperature_2
         : n == 3 ? at_one_temperature_3
         : n == 4 ? at_one_temperature_4
                  : nullptr;
}
Kernel at_each_temperature(std::size_t n) {
  return n == 2   ? at_each_temperature_2
         : n == 3 ? at_each_temperature_3
         : n == 4 ? at_each_temperature_4
                  : nullptr;
}

// What the functions of temperature need of `count` states.
struct Temperatures {
  std::array<double, block> T_K, inverse, ln_T{};
};

JAMPOT_CLONES
void invert(const double* __restrict T_K, double* __restrict inverse, std::size_t count) {
  for (std::size_t s = 0; s < count; ++s) inverse[s] = 1 / T_K[s];
}

// tau of every state, and the exponent -alpha tau of its G. The functions by value: nothing written changes
// them.
JAMPOT_CLONES
void exponents(TemperatureFunction tau_of, TemperatureFunction alpha_of, const Temperatures& t,
               double* __restrict tau, double* __restrict exponent, std::size_t count) {
  for (std::size_t s = 0; s < count; ++s) {
    tau[s] = tau_of.value(t.T_K[s], t.inverse[s], t.ln_T[s]);
    exponent[s] = -alpha_of.value(t.T_K[s], t.inverse[s], t.ln_T[s]) * tau[s];
  }
}

JAMPOT_CLONES
void multiply(double* __restrict values, const double* __restrict factors, std::size_t count) {
  for (std::size_t s = 0; s < count; ++s) values[s] *= factors[s];
}

}  // namespace

void Nrtl::evaluate_states(std::span<const double> x, std::span<double> ln_gamma) {
  const Kernel kernel = at_one_temperature(n_);
  if (kernel == nullptr) return ActivityModel::evaluate_states(x, ln_gamma);
  const std::size_t states = x.size() / n_;
  demand_states(x.size(), ln_gamma.size(), n_, states);
  kernel(G_.data(), tauG_.data(), x.data(), ln_gamma.data(), states, states);
}

void Nrtl::evaluate_states(std::span<const double> T_K, std::span<const double> x,
                           std::span<double> ln_gamma) {
  const Kernel kernel = at_each_temperature(n_);
  if (kernel == nullptr || T_K.empty()) return ActivityModel::evaluate_states(T_K, x, ln_gamma);
  const std::size_t states = T_K.size();
  demand_states(x.size(), ln_gamma.size(), n_, states);
  constexpr std::size_t most = 16;  // entries of four components
  std::array<double, most * block> G, tauG;
  Temperatures temperatures;
  for (std::size_t first = 0; first < states; first += block) {
    const std::size_t count = std::min(block, states - first);
    std::copy_n(&T_K[first], count, temperatures.T_K.begin());
    invert(temperatures.T_K.data(), temperatures.inverse.data(), count);
    if (with_log()) {
      for (std::size_t s = 0; s < count; ++s) temperatures.ln_T[s] = std::log(temperatures.T_K[s]);
    }
    for (std::size_t t = 0; t < terms_.size(); t += 3) {
      const std::size_t i = terms_[t].i, j = terms_[t].j;
      const TemperatureFunction& alpha = terms_[t + 2].function;
      for (const auto& [entry, term] : {std::pair(i * n_ + j, t), std::pair(j * n_ + i, t + 1)}) {
        double *const tau = &tauG[entry * block], *const of_G = &G[entry * block];
        exponents(terms_[term].function, alpha, temperatures, tau, of_G, count);
        exp_of_all(of_G, count);
        multiply(tau, of_G, count);
      }
    }
    kernel(G.data(), tauG.data(), x.data() + first, ln_gamma.data() + first, states, count);
  }
  set_temperature(T_K.back());
}

}  // namespace jampot
