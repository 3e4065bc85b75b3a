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

// ln gamma of the states from..to, as Nrtl::ln_gamma_only of one. G and tauG of entry (i, j) at stride apart
// for each state, or the same for all where `step` is 0.
template <std::size_t N>
[[gnu::always_inline]] inline void ln_gammas(const double* G, const double* tauG, std::size_t stride,
                                             std::size_t step, const double* x, double* out,
                                             std::size_t states, std::size_t count) {
  for (std::size_t s = 0; s < count; ++s) {
    double R[N], share[N];
    for (std::size_t j = 0; j < N; ++j) {
      double S = 0, C = 0;
      for (std::size_t k = 0; k < N; ++k) {
        const std::size_t entry = (k * N + j) * stride + s * step;
        S += G[entry] * x[k * states + s];
        C += tauG[entry] * x[k * states + s];
      }
      const double inverse = 1 / S;
      R[j] = C * inverse;
      share[j] = x[j * states + s] * inverse;
    }
    for (std::size_t i = 0; i < N; ++i) {
      double sum = R[i];
      for (std::size_t j = 0; j < N; ++j) {
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
    double own_G[N * N], own_tauG[N * N];                                                              \
    for (std::size_t e = 0; e < N * N; ++e) {                                                          \
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

// value[s] = a + b/T + e ln T + f T of every state.
void values_of(const TemperatureFunction& f, const double* T_K, const double* inverse, const double* ln_T,
               double* value, std::size_t count) {
  for (std::size_t s = 0; s < count; ++s)
    value[s] = f.constant + f.inverse_T * inverse[s] + f.log_T * ln_T[s] + f.linear_T * T_K[s];
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
  std::array<double, block> inverse, ln_T{}, alpha;
  for (std::size_t i = 0; i < n_; ++i) {
    std::fill_n(&G[(i * n_ + i) * block], block, 1.0);
    std::fill_n(&tauG[(i * n_ + i) * block], block, 0.0);
  }
  for (std::size_t first = 0; first < states; first += block) {
    const std::size_t count = std::min(block, states - first);
    const double* T = &T_K[first];
    for (std::size_t s = 0; s < count; ++s) inverse[s] = 1 / T[s];
    if (with_log()) {
      for (std::size_t s = 0; s < count; ++s) ln_T[s] = std::log(T[s]);
    }
    for (std::size_t t = 0; t < terms_.size(); t += 3) {
      const std::size_t i = terms_[t].i, j = terms_[t].j;
      values_of(terms_[t + 2].function, T, inverse.data(), ln_T.data(), alpha.data(), count);
      for (const auto& [entry, term] : {std::pair(i * n_ + j, t), std::pair(j * n_ + i, t + 1)}) {
        double *const tau = &tauG[entry * block], *const exponent = &G[entry * block];
        values_of(terms_[term].function, T, inverse.data(), ln_T.data(), tau, count);
        for (std::size_t s = 0; s < count; ++s) exponent[s] = -alpha[s] * tau[s];
        exp_of_all(exponent, count);
        for (std::size_t s = 0; s < count; ++s) tau[s] *= exponent[s];
      }
    }
    kernel(G.data(), tauG.data(), x.data() + first, ln_gamma.data() + first, states, count);
  }
  set_temperature(T_K.back());
}

}  // namespace jampot
