#include "jampot/liquid/working.hpp"

#include <fmt/format.h>

#include <cmath>
#include <numeric>

#include "jampot/liquid/margules.hpp"
#include "jampot/liquid/nrtl.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/liquid/uniquac.hpp"
#include "jampot/liquid/wilson.hpp"

namespace jampot {
namespace {

using Lines = std::vector<std::string>;

std::string number(double value) {
  return fmt::format("{:.6g}", value);
}

// "a + b + c = sum" with the numbers of the terms.
std::string added(const std::vector<double>& terms, double total) {
  std::string text;
  for (const double term : terms) {
    if (text.empty()) {
      text = number(term);
    } else {
      text += term < 0 ? " - " + number(-term) : " + " + number(term);
    }
  }
  return text + " = " + number(total);
}

class Writer {
 public:
  Writer(const std::vector<Substance>& substances, double T_K, const std::vector<double>& x)
      : T_K_(T_K), x_(x), n_(x.size()) {
    say("T = {} K", number(T_K));
    for (std::size_t i = 0; i < n_; ++i)
      say("x_{0} = {1}  ({0}: {2})", i + 1, number(x[i]), substances[i].name);
  }

  Lines take() { return std::move(lines_); }

  void ideal() {
    say("ideal solution: gamma_i = 1");
    for (std::size_t i = 0; i < n_; ++i) say("ln gamma_{} = 0", i + 1);
  }

  void nrtl(const Nrtl& model) {
    say("NRTL: ln gamma_i = C_i/S_i + sum_j x_j G_ij/S_j (tau_ij - C_j/S_j)");
    say("      S_j = sum_k G_kj x_k,  C_j = sum_k tau_kj G_kj x_k,  G_ij = exp(-alpha_ij tau_ij)");
    Matrix tau = square(0), G = square(1);
    for (std::size_t t = 0; t < model.terms().size(); t += 3) {
      const std::size_t i = model.terms()[t].i, j = model.terms()[t].j;
      const double alpha = model.terms()[t + 2].function.value(T_K_);
      say("alpha_{}{} = {}", i + 1, j + 1, number(alpha));
      for (const auto& [a, b, term] : {std::tuple(i, j, t), std::tuple(j, i, t + 1)}) {
        tau[a][b] = model.terms()[term].function.value(T_K_);
        G[a][b] = std::exp(-alpha * tau[a][b]);
        say("tau_{0}{1} = {2} = {3}", a + 1, b + 1, function_text(model.terms()[term].function),
            number(tau[a][b]));
        say("G_{0}{1} = exp(-{2} x {3}) = {4}", a + 1, b + 1, number(alpha), number(tau[a][b]),
            number(G[a][b]));
      }
    }
    std::vector<double> S(n_), C(n_);
    for (std::size_t j = 0; j < n_; ++j) {
      std::vector<double> s, c;
      for (std::size_t k = 0; k < n_; ++k) {
        s.push_back(G[k][j] * x_[k]);
        c.push_back(tau[k][j] * G[k][j] * x_[k]);
        S[j] += s.back();
        C[j] += c.back();
      }
      say("S_{0} = {1};  C_{0} = {2}", j + 1, added(s, S[j]), added(c, C[j]));
    }
    for (std::size_t i = 0; i < n_; ++i) {
      std::vector<double> terms{C[i] / S[i]};
      double sum = terms[0];
      for (std::size_t j = 0; j < n_; ++j) {
        terms.push_back(x_[j] * G[i][j] / S[j] * (tau[i][j] - C[j] / S[j]));
        sum += terms.back();
      }
      result(i, terms, sum);
    }
  }

  void margules(const Margules& model) {
    say("Margules: gE/(RT) = sum over pairs of x_i x_j [m_ij + h_ij (x_i - x_j)],  m = (A_ij + A_ji)/2,  h = "
        "(A_ji "
        "- A_ij)/2");
    say("          a pair gives ln gamma_i m x_j (1 - x_i) + h (2 x_i x_j - x_j^2 - 2 Q), ln gamma_j m x_i "
        "(1 - x_j) "
        "+ h (x_i^2 - 2 x_i x_j - 2 Q),");
    say("          each other component -m x_i x_j - 2 h Q,  Q = x_i x_j (x_i - x_j)");
    std::vector<std::vector<double>> terms(n_);
    for (std::size_t t = 0; t < model.terms().size(); t += 2) {
      const ModelTerm &a12 = model.terms()[t], &a21 = model.terms()[t + 1];
      const std::size_t i = a12.i, j = a12.j;
      const double A = a12.function.value(T_K_), B = a21.function.value(T_K_), m = (A + B) / 2,
                   h = (B - A) / 2;
      say("A_{0}{1} = {2} = {3};  A_{1}{0} = {4} = {5};  m = {6};  h = {7}", i + 1, j + 1,
          function_text(a12.function), number(A), function_text(a21.function), number(B), number(m),
          number(h));
      const double P = x_[i] * x_[j], Q = P * (x_[i] - x_[j]);
      for (std::size_t k = 0; k < n_; ++k) {
        terms[k].push_back(k == i   ? m * x_[j] * (1 - x_[i]) + h * (2 * P - x_[j] * x_[j] - 2 * Q)
                           : k == j ? m * x_[i] * (1 - x_[j]) + h * (x_[i] * x_[i] - 2 * P - 2 * Q)
                                    : -m * P - 2 * h * Q);
      }
    }
    for (std::size_t k = 0; k < n_; ++k)
      result(k, terms[k], std::accumulate(terms[k].begin(), terms[k].end(), 0.0));
  }

  void wilson(const Wilson& model) {
    say("Wilson: ln gamma_i = 1 - ln S_i - sum_k x_k Lambda_ki/S_k,  S_i = sum_j Lambda_ij x_j");
    say("        Lambda_ij = (V_j/V_i) exp(-lambda_ij)");
    for (const ModelTerm& term : model.terms()) {
      const bool forward = term.name == "lambda_12";
      const std::size_t i = forward ? term.i : term.j, j = forward ? term.j : term.i;
      const double lambda = term.function.value(T_K_);
      say("lambda_{0}{1} = {2} = {3};  V_{1}/V_{0} = {4};  Lambda_{0}{1} = {5}", i + 1, j + 1,
          function_text(term.function), number(lambda), number(model.Lambda(i, j) * std::exp(lambda)),
          number(model.Lambda(i, j)));
    }
    std::vector<double> S(n_);
    for (std::size_t i = 0; i < n_; ++i) {
      std::vector<double> terms;
      for (std::size_t j = 0; j < n_; ++j) {
        terms.push_back(model.Lambda(i, j) * x_[j]);
        S[i] += terms.back();
      }
      say("S_{} = {}", i + 1, added(terms, S[i]));
    }
    for (std::size_t i = 0; i < n_; ++i) {
      std::vector<double> terms{1, -std::log(S[i])};
      double sum = terms[0] + terms[1];
      for (std::size_t k = 0; k < n_; ++k) {
        terms.push_back(-x_[k] * model.Lambda(k, i) / S[k]);
        sum += terms.back();
      }
      result(i, terms, sum);
    }
  }

  void uniquac(const Uniquac& model) {
    const std::vector<double> size = size_part(model.size_part(), false);
    say("residual part: ln gamma_i(R) = q'_i (1 - ln T_i - sum_j theta'_j tau_ij/T_j),  T_j = sum_k theta'_k "
        "tau_kj");
    const std::vector<double>& surface = model.residual_surfaces();
    double total = 0;
    for (std::size_t i = 0; i < n_; ++i) total += surface[i] * x_[i];
    std::vector<double> theta(n_), T(n_);
    for (std::size_t i = 0; i < n_; ++i) {
      theta[i] = surface[i] * x_[i] / total;
      say("q'_{0} = {1};  theta'_{0} = {2}", i + 1, number(surface[i]), number(theta[i]));
    }
    for (const ModelTerm& term : model.terms()) {
      const bool forward = term.name == "u_12";
      const std::size_t i = forward ? term.i : term.j, j = forward ? term.j : term.i;
      say("tau_{0}{1} = exp(-u_{0}{1}),  u_{0}{1} = {2} = {3};  tau_{0}{1} = {4}", i + 1, j + 1,
          function_text(term.function), number(term.function.value(T_K_)), number(model.tau(i, j)));
    }
    for (std::size_t j = 0; j < n_; ++j) {
      std::vector<double> terms;
      for (std::size_t k = 0; k < n_; ++k) {
        terms.push_back(theta[k] * model.tau(k, j));
        T[j] += terms.back();
      }
      say("T_{} = {}", j + 1, added(terms, T[j]));
    }
    for (std::size_t i = 0; i < n_; ++i) {
      double inner = 1 - std::log(T[i]);
      for (std::size_t j = 0; j < n_; ++j) inner -= theta[j] * model.tau(i, j) / T[j];
      result(i, {size[i], surface[i] * inner}, size[i] + surface[i] * inner);
    }
  }

  void unifac(Unifac& model) {
    const std::vector<double> size = size_part(model.size_part(), model.table() == UnifacTable::dortmund);
    const std::vector<UnifacGroup>& groups = model.groups();
    say("groups: ln gamma_i(R) = sum_k nu_ki (ln Gamma_k - ln Gamma_k(pure i))");
    say("        ln Gamma_k = Q_k (1 - ln T_k - sum_m theta_m psi_km/T_m),  T_k = sum_m theta_m psi_mk");
    for (std::size_t k = 0; k < groups.size(); ++k) {
      std::string counts;
      for (std::size_t i = 0; i < n_; ++i)
        counts += fmt::format(" {} in {}{}", model.count(i, k), i + 1, i + 1 < n_ ? "," : "");
      say("{} (main group {}): R = {}, Q = {};{}", groups[k].name, groups[k].main_group, groups[k].R,
          groups[k].Q, counts);
    }
    for (std::size_t m = 0; m < groups.size(); ++m) {
      for (std::size_t k = 0; k < groups.size(); ++k) {
        if (groups[m].main_number == groups[k].main_number) continue;
        say("psi({}, {}) = {}", groups[m].name, groups[k].name, number(model.psi(m, k)));
      }
    }
    const std::vector<double> mixture = ln_Gamma(model, x_, "mixture");
    std::vector<double> sum(n_);
    for (std::size_t i = 0; i < n_; ++i) {
      std::vector<double> pure_x(n_);
      pure_x[i] = 1;
      const std::vector<double> pure = ln_Gamma(model, pure_x, fmt::format("pure {}", i + 1));
      std::vector<double> terms{size[i]};
      sum[i] = size[i];
      for (std::size_t k = 0; k < groups.size(); ++k) {
        if (model.count(i, k) == 0) continue;
        terms.push_back(model.count(i, k) * (mixture[k] - pure[k]));
        sum[i] += terms.back();
      }
      result(i, terms, sum[i]);
    }
  }

 private:
  using Matrix = std::vector<std::vector<double>>;

  template <class... Args>
  void say(fmt::format_string<Args...> format, Args&&... args) {
    lines_.push_back(fmt::format(format, std::forward<Args>(args)...));
  }

  Matrix square(double diagonal) const {
    Matrix matrix(n_, std::vector<double>(n_));
    for (std::size_t i = 0; i < n_; ++i) matrix[i][i] = diagonal;
    return matrix;
  }

  std::string function_text(const TemperatureFunction& function) const {
    std::string text;
    const auto add = [&](double value, const std::string& with) {
      if (value == 0) return;
      text += text.empty() ? (value < 0 ? "-" : "") : (value < 0 ? " - " : " + ");
      text += number(std::abs(value)) + with;
    };
    add(function.constant, "");
    add(function.inverse_T, "/" + number(T_K_));
    add(function.log_T, " ln " + number(T_K_));
    add(function.linear_T, " x " + number(T_K_));
    return text.empty() ? "0" : text;
  }

  void result(std::size_t i, const std::vector<double>& terms, double sum) {
    say("ln gamma_{0} = {1};  gamma_{0} = {2}", i + 1, added(terms, sum), number(std::exp(sum)));
  }

  // Size part of UNIQUAC and UNIFAC.
  std::vector<double> size_part(const SizePart& part, bool modified) {
    const char* const power = modified ? "^(3/4)" : "";
    say("size part: ln gamma_i(C) = 1 - V'_i + ln V'_i - 5 q_i (1 - V_i/F_i + ln(V_i/F_i))");
    say("           V'_i = r_i{0}/sum_j r_j{0} x_j,  V_i = r_i/sum_j r_j x_j,  F_i = q_i/sum_j q_j x_j",
        power);
    double r = 0, q = 0, p = 0;
    const auto raised = [&](double value) { return modified ? std::pow(value, 0.75) : value; };
    for (std::size_t j = 0; j < n_; ++j) {
      r += part.r()[j] * x_[j];
      q += part.q()[j] * x_[j];
      p += raised(part.r()[j]) * x_[j];
    }
    std::vector<double> ln_gamma;
    for (std::size_t i = 0; i < n_; ++i) {
      const double V = part.r()[i] / r, F = part.q()[i] / q, Vp = raised(part.r()[i]) / p;
      ln_gamma.push_back(1 - Vp + std::log(Vp) - 5 * part.q()[i] * (1 - V / F + std::log(V / F)));
      say("r_{0} = {1}, q_{0} = {2}: V'_{0} = {3}, V_{0} = {4}, F_{0} = {5};  ln gamma_{0}(C) = {6}", i + 1,
          number(part.r()[i]), number(part.q()[i]), number(Vp), number(V), number(F),
          number(ln_gamma.back()));
    }
    return ln_gamma;
  }

  std::vector<double> ln_Gamma(const Unifac& model, const std::vector<double>& x, const std::string& where) {
    const std::vector<UnifacGroup>& groups = model.groups();
    const std::size_t K = groups.size();
    std::vector<double> theta(K), T(K), values(K);
    double total = 0;
    for (std::size_t k = 0; k < K; ++k) {
      for (std::size_t i = 0; i < n_; ++i) theta[k] += x[i] * model.count(i, k) * groups[k].Q;
      total += theta[k];
    }
    for (double& value : theta) value /= total;
    for (std::size_t k = 0; k < K; ++k) {
      for (std::size_t m = 0; m < K; ++m) T[k] += theta[m] * model.psi(m, k);
    }
    for (std::size_t k = 0; k < K; ++k) {
      double inner = 1 - std::log(T[k]);
      for (std::size_t m = 0; m < K; ++m) inner -= theta[m] * model.psi(k, m) / T[m];
      values[k] = groups[k].Q * inner;
      if (theta[k] == 0) continue;
      say("{}: theta({}) = {}, T = {}, ln Gamma = {}", where, groups[k].name, number(theta[k]), number(T[k]),
          number(values[k]));
    }
    return values;
  }

  double T_K_;
  const std::vector<double>& x_;
  std::size_t n_;
  Lines lines_;
};

}  // namespace

std::vector<std::string> working(ActivityModel& model, const std::vector<Substance>& substances, double T_K,
                                 const std::vector<double>& x) {
  model.set_temperature(T_K);
  Writer writer(substances, T_K, x);
  if (const auto* nrtl = dynamic_cast<const Nrtl*>(&model)) {
    writer.nrtl(*nrtl);
  } else if (const auto* margules = dynamic_cast<const Margules*>(&model)) {
    writer.margules(*margules);
  } else if (const auto* wilson = dynamic_cast<const Wilson*>(&model)) {
    writer.wilson(*wilson);
  } else if (const auto* uniquac = dynamic_cast<const Uniquac*>(&model)) {
    writer.uniquac(*uniquac);
  } else if (auto* unifac = dynamic_cast<Unifac*>(&model)) {
    writer.unifac(*unifac);
  } else {
    writer.ideal();
  }
  return writer.take();
}

}  // namespace jampot
