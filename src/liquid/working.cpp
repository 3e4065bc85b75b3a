#include "jampot/liquid/working.hpp"

#include <fmt/format.h>

#include <cmath>

#include "jampot/liquid/size_part.hpp"

namespace jampot {

void Working::say(std::string_view line) {
  lines_.emplace_back(line);
}

std::string Working::number(double value) {
  return fmt::format("{:.6g}", value);
}

std::string Working::added(const std::vector<double>& terms, double sum) {
  std::string text;
  for (const double term : terms) {
    if (text.empty()) {
      text = number(term);
    } else {
      text += term < 0 ? " - " + number(-term) : " + " + number(term);
    }
  }
  return text + " = " + number(sum);
}

std::string Working::text_of(const TemperatureFunction& function) const {
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

void Working::result(std::size_t i, const std::vector<double>& terms, double sum) {
  say(fmt::format("ln gamma_{0} = {1};  gamma_{0} = {2}", i + 1, added(terms, sum), number(std::exp(sum))));
}

std::vector<double> Working::size_part(const SizePart& part, bool modified) {
  const char* const power = modified ? "^(3/4)" : "";
  say("size part: ln gamma_i(C) = 1 - V'_i + ln V'_i - 5 q_i (1 - V_i/F_i + ln(V_i/F_i))");
  say(fmt::format(
      "           V'_i = r_i{0}/sum_j r_j{0} x_j,  V_i = r_i/sum_j r_j x_j,  F_i = q_i/sum_j q_j x_j",
      power));
  double r = 0, q = 0, p = 0;
  const auto raised = [&](double value) { return modified ? std::pow(value, 0.75) : value; };
  for (std::size_t j = 0; j < x_.size(); ++j) {
    r += part.r()[j] * x_[j];
    q += part.q()[j] * x_[j];
    p += raised(part.r()[j]) * x_[j];
  }
  std::vector<double> ln_gamma;
  for (std::size_t i = 0; i < x_.size(); ++i) {
    const double V = part.r()[i] / r, F = part.q()[i] / q, Vp = raised(part.r()[i]) / p;
    ln_gamma.push_back(1 - Vp + std::log(Vp) - 5 * part.q()[i] * (1 - V / F + std::log(V / F)));
    say(fmt::format(
        "r_{0} = {1}, q_{0} = {2}: V'_{0} = {3}, V_{0} = {4}, F_{0} = {5};  ln gamma_{0}(C) = {6}", i + 1,
        number(part.r()[i]), number(part.q()[i]), number(Vp), number(V), number(F), number(ln_gamma.back())));
  }
  return ln_gamma;
}

std::vector<std::string> working(ActivityModel& model, const std::vector<Substance>& substances, double T_K,
                                 const std::vector<double>& x) {
  model.set_temperature(T_K);
  Working page(T_K, x);
  page.say(fmt::format("T = {} K", Working::number(T_K)));
  for (std::size_t i = 0; i < x.size(); ++i)
    page.say(fmt::format("x_{0} = {1}  ({0}: {2})", i + 1, Working::number(x[i]), substances[i].name));
  model.write_out(page);
  return page.take();
}

}  // namespace jampot
