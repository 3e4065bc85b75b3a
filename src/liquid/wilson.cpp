#include "jampot/liquid/wilson.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/liquid/working.hpp"

namespace jampot {

Wilson::Wilson(std::vector<double> volumes, const std::vector<PairParameters>& pairs)
    : PairModel(pair_terms(model_name, volumes.size(), pairs, {"lambda_12", "lambda_21"})),
      contacts_(volumes.size()),
      gradient_(volumes.size()) {
  for (std::size_t t = 0; t < terms_.size(); t += 2) {
    const auto& own = pairs[t / 2].molar_volumes_m3_mol;
    const double ratio = own ? (*own)[1] / (*own)[0] : volumes[terms_[t].j] / volumes[terms_[t].i];
    ratio_.push_back(ratio);
    ratio_.push_back(1 / ratio);
  }
}

void Wilson::set_temperature(double T_K) {
  if (!moves_to(T_K)) return;
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const double Lambda = ratio_[t] * std::exp(-terms_[t].function.value(T_K));
    contacts_.psi(j, i) = Lambda;
    contacts_.dpsi(j, i) = -Lambda * terms_[t].function.dT(T_K);
  }
}

void Wilson::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                      std::span<double> dn) {
  contacts_.gradient(x, ln_gamma);
  if (!dT.empty()) contacts_.gradient_dT(x, dT);
  if (!dn.empty()) contacts_.hessian(x, dn);
}

double Wilson::third_derivative(std::span<const double> x, std::span<const double> u) const {
  return contacts_.third_derivative(x, u);
}

void Wilson::term_derivatives(std::span<const double> x, std::span<double> out) {
  contacts_.gradient(x, gradient_);
  std::fill(out.begin(), out.end(), 0.0);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    contacts_.add_entry_change(x, j, i, -contacts_.psi(j, i), &out[t], terms_.size());
  }
}

void Wilson::gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                                    std::span<double> slope_dT) {
  contacts_.gradient(x, gradient_);
  for (std::size_t t = 0; t < terms_.size(); ++t) {
    const auto [i, j] = direction(t);
    const auto entry = contacts_.entry_slope(x, j, i);
    const double psi = contacts_.psi(j, i), dpsi = contacts_.dpsi(j, i);
    slope[t] = -psi * entry.value;
    slope_dT[t] = -dpsi * entry.value - psi * entry.dT;
  }
}

void Wilson::write_out(Working& page) const {
  const std::vector<double>& x = page.x();
  const std::size_t n = page.x().size();
  page.say("Wilson: ln gamma_i = 1 - ln S_i - sum_k x_k Lambda_ki/S_k,  S_i = sum_j Lambda_ij x_j");
  page.say("        Lambda_ij = (V_j/V_i) exp(-lambda_ij)");
  for (const ModelTerm& term : terms_) {
    const bool forward = term.name == "lambda_12";
    const std::size_t i = forward ? term.i : term.j, j = forward ? term.j : term.i;
    const double lambda = term.function.value(page.T_K());
    page.say(fmt::format("lambda_{0}{1} = {2} = {3};  V_{1}/V_{0} = {4};  Lambda_{0}{1} = {5}", i + 1, j + 1,
                         page.text_of(term.function), Working::number(lambda),
                         Working::number(Lambda(i, j) * std::exp(lambda)), Working::number(Lambda(i, j))));
  }
  std::vector<double> S(n);
  for (std::size_t i = 0; i < n; ++i) {
    std::vector<double> terms;
    for (std::size_t j = 0; j < n; ++j) {
      terms.push_back(Lambda(i, j) * x[j]);
      S[i] += terms.back();
    }
    page.say(fmt::format("S_{} = {}", i + 1, Working::added(terms, S[i])));
  }
  for (std::size_t i = 0; i < n; ++i) {
    std::vector<double> terms{1, -std::log(S[i])};
    double sum = terms[0] + terms[1];
    for (std::size_t k = 0; k < n; ++k) {
      terms.push_back(-x[k] * Lambda(k, i) / S[k]);
      sum += terms.back();
    }
    page.result(i, terms, sum);
  }
}

namespace {

double molar_volume(const Substance& substance) {
  if (substance.molar_volume_25C_m3_mol) return *substance.molar_volume_25C_m3_mol;
  throw CalculationError(
      fmt::format("the Wilson equation needs the liquid molar volume of {}, which is not known; a file of "
                  "parameters may state it (molar_volumes_cm3_mol)",
                  substance.name));
}

std::unique_ptr<ActivityModel> make_wilson(const std::vector<Substance>& substances,
                                           const std::vector<PairParameters>& pairs) {
  // Volumes are looked up only where a pair does not state its own.
  const bool stated = std::all_of(pairs.begin(), pairs.end(), [](const PairParameters& pair) {
    return pair.molar_volumes_m3_mol.has_value();
  });
  std::vector<double> volumes;
  for (const Substance& substance : substances) volumes.push_back(stated ? 1 : molar_volume(substance));
  return std::make_unique<Wilson>(std::move(volumes), pairs);
}

}  // namespace

ModelDescription Wilson::description() {
  ModelDescription description{std::string(model_name)};
  description.splits = false;
  description.terms = {{"lambda_12", 0.1, false, true, -1.5, 3, -12, 15},
                       {"lambda_21", 0.1, false, true, -1.5, 3, -12, 15}};
  description.make = make_wilson;
  description.state = [](const Substance& first, const Substance& second, PairParameters& pair) {
    pair.molar_volumes_m3_mol = {molar_volume(first), molar_volume(second)};
  };
  description.stated = {"molar_volumes_cm3_mol"};
  return description;
}

}  // namespace jampot
