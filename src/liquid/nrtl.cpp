#include "jampot/liquid/nrtl.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/liquid/along_line.hpp"
#include "jampot/liquid/working.hpp"

namespace jampot {
namespace {

constexpr std::size_t terms_a_pair = 3;

}  // namespace

Nrtl::Nrtl(std::size_t size, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, size, pairs, {"tau_12", "tau_21", "alpha"})),
      n_(size),
      tau_(n_ * n_),
      alpha_(n_ * n_),
      G_(n_ * n_, 1.0),
      tauG_(n_ * n_),
      S_(n_),
      R_(n_),
      E_(n_ * n_),
      dS_(n_),
      dR_(n_) {}

void Nrtl::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  const double inverse = 1 / T_K, ln_T = with_log() ? std::log(T_K) : 0;
  for (std::size_t t = 0; t < terms_.size(); t += terms_a_pair) {
    const std::size_t ij = at(terms_[t].i, terms_[t].j), ji = at(terms_[t].j, terms_[t].i);
    tau_[ij] = terms_[t].function.value(T_K, inverse, ln_T);
    tau_[ji] = terms_[t + 1].function.value(T_K, inverse, ln_T);
    alpha_[ij] = alpha_[ji] = terms_[t + 2].function.value(T_K, inverse, ln_T);
    for (const std::size_t k : {ij, ji}) {
      G_[k] = std::exp(-alpha_[k] * tau_[k]);
      tauG_[k] = tau_[k] * G_[k];
    }
  }
}

void Nrtl::sums(std::span<const double> x) {
  switch (n_) {
    case 2:
      return sums_of<2>(x.data());
    case 3:
      return sums_of<3>(x.data());
    case 4:
      return sums_of<4>(x.data());
    default:
      return sums_of<0>(x.data());
  }
}

template <std::size_t N>
void Nrtl::sums_of(const double* x) {
  const std::size_t n = N > 0 ? N : n_;
  const double *G = G_.data(), *tauG = tauG_.data();
  double *S = S_.data(), *R = R_.data(), *E = E_.data();
  for (std::size_t j = 0; j < n; ++j) {
    double sum = 0, C = 0;
    for (std::size_t k = 0; k < n; ++k) {
      sum += G[k * n + j] * x[k];
      C += tauG[k * n + j] * x[k];
    }
    S[j] = 1 / sum;  // kept inverted: it only ever divides
    R[j] = C * S[j];
  }
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t j = 0; j < n; ++j) E[i * n + j] = (tauG[i * n + j] - G[i * n + j] * R[j]) * S[j];
  }
}

template <std::size_t N>
void Nrtl::ln_gamma_only(const double* x, double* ln_gamma) {
  const std::size_t n = N > 0 ? N : n_;
  const double *G = G_.data(), *tauG = tauG_.data();
  double *R = R_.data(), *share = S_.data();
  double R_fixed[N > 0 ? N : 1], share_fixed[N > 0 ? N : 1];
  if constexpr (N > 0) {
    R = R_fixed;
    share = share_fixed;
  }
  for (std::size_t j = 0; j < n; ++j) {
    double S = 0, C = 0;
    for (std::size_t k = 0; k < n; ++k) {
      S += G[k * n + j] * x[k];
      C += tauG[k * n + j] * x[k];
    }
    const double inverse = 1 / S;
    R[j] = C * inverse;
    share[j] = x[j] * inverse;
  }
  for (std::size_t i = 0; i < n; ++i) {
    double sum = R[i];
    for (std::size_t j = 0; j < n; ++j) sum += share[j] * (tauG[i * n + j] - G[i * n + j] * R[j]);
    ln_gamma[i] = sum;
  }
}

void Nrtl::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                    std::span<double> dn) {
  if (dT.empty() && dn.empty()) {
    switch (n_) {
      case 2:
        return ln_gamma_only<2>(x.data(), ln_gamma.data());
      case 3:
        return ln_gamma_only<3>(x.data(), ln_gamma.data());
      case 4:
        return ln_gamma_only<4>(x.data(), ln_gamma.data());
      default:
        return ln_gamma_only<0>(x.data(), ln_gamma.data());
    }
  }
  sums(x);
  for (std::size_t i = 0; i < n_; ++i) {
    double sum = R_[i];
    for (std::size_t j = 0; j < n_; ++j) sum += x[j] * E_[at(i, j)];
    ln_gamma[i] = sum;
  }
  if (!dT.empty()) {
    std::fill(dT.begin(), dT.end(), 0.0);
    for (std::size_t t = 0; t < terms_.size(); t += terms_a_pair) {
      const std::size_t i = terms_[t].i, j = terms_[t].j;
      const double dalpha = terms_[t + 2].function.dT(T_K());
      for (const auto& [a, b, dtau] : {std::tuple(i, j, terms_[t].function.dT(T_K())),
                                       std::tuple(j, i, terms_[t + 1].function.dT(T_K()))}) {
        const std::size_t ab = at(a, b);
        const double dG = -G_[ab] * (alpha_[ab] * dtau + tau_[ab] * dalpha);
        add_entry_change(x, a, b, dG, dtau * G_[ab] + tau_[ab] * dG, dT.data(), 1);
      }
    }
  }
  if (!dn.empty()) {
    switch (n_) {
      case 2:
        return amounts_derivatives<2>(x.data(), dn.data());
      case 3:
        return amounts_derivatives<3>(x.data(), dn.data());
      case 4:
        return amounts_derivatives<4>(x.data(), dn.data());
      default:
        return amounts_derivatives<0>(x.data(), dn.data());
    }
  }
}

template <std::size_t N>
void Nrtl::amounts_derivatives(const double* x, double* dn) const {
  const std::size_t n = N > 0 ? N : n_;
  const double *G = G_.data(), *E = E_.data();
  // n g/(RT) = sum_j n_j R_j gives ln gamma_i = R_i + sum_j n_j E_ij, and once more differentiated:
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = i; k < n; ++k) {
      double sum = E[k * n + i] + E[i * n + k];
      for (std::size_t j = 0; j < n; ++j) {
        sum -= x[j] * S_[j] * (G[k * n + j] * E[i * n + j] + G[i * n + j] * E[k * n + j]);
      }
      dn[i * n + k] = dn[k * n + i] = sum;
    }
  }
}

void Nrtl::add_entry_change(std::span<const double> x, std::size_t a, std::size_t b, double dG, double dtauG,
                            double* out, std::size_t stride) const {
  const double dS = x[a] * dG * S_[b];  // relative change of the sum
  const double dR = x[a] * dtauG * S_[b] - R_[b] * dS;
  out[b * stride] += dR;
  out[a * stride] += x[b] * (dtauG - dG * R_[b]) * S_[b];
  for (std::size_t i = 0; i < n_; ++i) {
    out[i * stride] -= x[b] * (G_[at(i, b)] * dR * S_[b] + E_[at(i, b)] * dS);
  }
}

// n g/(RT) = sum_j n_j C_j / S_j
double Nrtl::third_derivative(std::span<const double> x, std::span<const double> u) const {
  double sum = 0;
  for (std::size_t j = 0; j < n_; ++j) {
    AlongLine S, C;
    for (std::size_t k = 0; k < n_; ++k) {
      S.add(G_[at(k, j)], x[k], u[k]);
      C.add(tauG_[at(k, j)], x[k], u[k]);
    }
    sum += third_of_product_over({x[j], u[j]}, C, S);
  }
  return sum;
}

void Nrtl::term_derivatives(std::span<const double> x, std::span<double> out) {
  sums(x);
  std::fill(out.begin(), out.end(), 0.0);
  const std::size_t stride = terms_.size();
  for (std::size_t t = 0; t < terms_.size(); t += terms_a_pair) {
    const std::size_t i = terms_[t].i, j = terms_[t].j;
    for (const auto& [a, b, tau_term] : {std::tuple(i, j, t), std::tuple(j, i, t + 1)}) {
      const std::size_t ab = at(a, b);
      const double dG_dtau = -alpha_[ab] * G_[ab], dG_dalpha = -tau_[ab] * G_[ab];
      add_entry_change(x, a, b, dG_dtau, G_[ab] + tau_[ab] * dG_dtau, &out[tau_term], stride);
      add_entry_change(x, a, b, dG_dalpha, tau_[ab] * dG_dalpha, &out[t + 2], stride);
    }
  }
}

void Nrtl::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                  std::span<double> slope_dT) {
  sums(x);
  // dS_b/dT and dR_b/dT of every sum over a column, relative to S (kept inverted).
  std::vector<double>& dS = dS_;
  std::vector<double>& dR = dR_;
  std::fill(dS.begin(), dS.end(), 0.0);
  std::fill(dR.begin(), dR.end(), 0.0);
  for (std::size_t t = 0; t < terms_.size(); t += terms_a_pair) {
    const std::size_t i = terms_[t].i, j = terms_[t].j;
    const double dalpha = terms_[t + 2].function.dT(T_K());
    for (const auto& [a, b, term] : {std::tuple(i, j, t), std::tuple(j, i, t + 1)}) {
      const std::size_t ab = at(a, b);
      const double dtau = terms_[term].function.dT(T_K());
      const double dG = -G_[ab] * (alpha_[ab] * dtau + tau_[ab] * dalpha);
      dS[b] += x[a] * dG * S_[b];
      dR[b] += x[a] * (dtau * G_[ab] + tau_[ab] * dG) * S_[b];
    }
  }
  for (std::size_t b = 0; b < n_; ++b) dR[b] -= R_[b] * dS[b];
  std::fill(slope.begin(), slope.end(), 0.0);
  std::fill(slope_dT.begin(), slope_dT.end(), 0.0);
  for (std::size_t t = 0; t < terms_.size(); t += terms_a_pair) {
    const std::size_t i = terms_[t].i, j = terms_[t].j;
    const double dalpha = terms_[t + 2].function.dT(T_K());
    for (const auto& [a, b, term] : {std::tuple(i, j, t), std::tuple(j, i, t + 1)}) {
      const std::size_t ab = at(a, b);
      const double tau = tau_[ab], alpha = alpha_[ab], G = G_[ab], dtau = terms_[term].function.dT(T_K());
      const double dG = -G * (alpha * dtau + tau * dalpha), share = x[a] * x[b] * S_[b];
      // G and tau G as functions of the term: their slopes, and the change of those with T.
      struct Slope {
        std::size_t term;
        double G, W, G_dT, W_dT;
      };
      const Slope slopes[] = {
          {term, -alpha * G, G * (1 - alpha * tau), -dalpha * G - alpha * dG,
           dG * (1 - alpha * tau) - G * (dalpha * tau + alpha * dtau)},
          {t + 2, -tau * G, -tau * tau * G, -dtau * G - tau * dG, -2 * tau * dtau * G - tau * tau * dG}};
      for (const Slope& s : slopes) {
        const double value = share * (s.W - R_[b] * s.G);
        slope[s.term] += value;
        slope_dT[s.term] += share * (s.W_dT - dR[b] * s.G - R_[b] * s.G_dT) - value * dS[b];
      }
    }
  }
}

void Nrtl::write_out(Working& page) const {
  const std::vector<double>& x = page.x();
  const std::size_t n = page.x().size();
  page.say("NRTL: ln gamma_i = C_i/S_i + sum_j x_j G_ij/S_j (tau_ij - C_j/S_j)");
  page.say("      S_j = sum_k G_kj x_k,  C_j = sum_k tau_kj G_kj x_k,  G_ij = exp(-alpha_ij tau_ij)");
  std::vector<std::vector<double>> tau(n, std::vector<double>(n)), G = tau;
  for (std::size_t i = 0; i < n; ++i) G[i][i] = 1;
  for (std::size_t t = 0; t < terms_.size(); t += 3) {
    const std::size_t i = terms_[t].i, j = terms_[t].j;
    const double alpha = terms_[t + 2].function.value(page.T_K());
    page.say(fmt::format("alpha_{}{} = {}", i + 1, j + 1, Working::number(alpha)));
    for (const auto& [a, b, term] : {std::tuple(i, j, t), std::tuple(j, i, t + 1)}) {
      tau[a][b] = terms_[term].function.value(page.T_K());
      G[a][b] = std::exp(-alpha * tau[a][b]);
      page.say(fmt::format("tau_{0}{1} = {2} = {3}", a + 1, b + 1, page.text_of(terms_[term].function),
                           Working::number(tau[a][b])));
      page.say(fmt::format("G_{0}{1} = exp(-{2} x {3}) = {4}", a + 1, b + 1, Working::number(alpha),
                           Working::number(tau[a][b]), Working::number(G[a][b])));
    }
  }
  std::vector<double> S(n), C(n);
  for (std::size_t j = 0; j < n; ++j) {
    std::vector<double> s, c;
    for (std::size_t k = 0; k < n; ++k) {
      s.push_back(G[k][j] * x[k]);
      c.push_back(tau[k][j] * G[k][j] * x[k]);
      S[j] += s.back();
      C[j] += c.back();
    }
    page.say(
        fmt::format("S_{0} = {1};  C_{0} = {2}", j + 1, Working::added(s, S[j]), Working::added(c, C[j])));
  }
  for (std::size_t i = 0; i < n; ++i) {
    std::vector<double> terms{C[i] / S[i]};
    double sum = terms[0];
    for (std::size_t j = 0; j < n; ++j) {
      terms.push_back(x[j] * G[i][j] / S[j] * (tau[i][j] - C[j] / S[j]));
      sum += terms.back();
    }
    page.result(i, terms, sum);
  }
}

ModelDescription Nrtl::description() {
  ModelDescription description{std::string(model_name)};
  description.terms = {{"tau_12", 0.1, false, true, -1, 4, -15, 25},
                       {"tau_21", 0.1, false, true, -1, 4, -15, 25},
                       {"alpha", 0.3, true, false, 0.1, 0.6, 0.01, 1.2}};
  description.make = [](const std::vector<Substance>& substances, const std::vector<PairParameters>& pairs) {
    return std::make_unique<Nrtl>(substances.size(), pairs);
  };
  return description;
}

}  // namespace jampot
