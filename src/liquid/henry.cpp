#include "jampot/liquid/henry.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/working.hpp"

namespace jampot {
namespace {

[[noreturn]] void refuse(std::string_view text, const std::string& why) {
  throw RequestError(
      fmt::format("`henry` '{}': {}; expected \"carbon dioxide in water = 1640 bar\", or with a change \"... "
                  "= 1640 bar at 25 degC, "
                  "2360 bar at 40 degC\" (pressure for a mole fraction of one)",
                  text, why));
}

std::size_t member(std::string_view text, std::string_view name, const std::vector<Substance>& substances) {
  const std::string wanted = lower_case(trimmed(name));
  for (std::size_t i = 0; i < substances.size(); ++i) {
    const Substance& s = substances[i];
    bool same = lower_case(s.name) == wanted || lower_case(s.formula) == wanted || s.cas == wanted;
    for (const std::string& alias : s.aliases) same = same || lower_case(alias) == wanted;
    if (same) return i;
  }
  refuse(text, fmt::format("'{}' is not one of the substances", std::string(trimmed(name))));
}

}  // namespace

HenryConstant parse_henry(std::string_view text, const std::vector<Substance>& substances) {
  const std::size_t equals = text.find('='), in = text.find(" in ");
  if (equals == std::string_view::npos || in == std::string_view::npos || in > equals)
    refuse(text, "no 'SOLUTE in SOLVENT = PRESSURE'");
  HenryConstant henry;
  henry.solute = member(text, text.substr(0, in), substances);
  henry.solvent = member(text, text.substr(in + 4, equals - in - 4), substances);
  if (henry.solute == henry.solvent) refuse(text, "solute and solvent are the same");
  std::vector<std::pair<double, double>> points;  // 1/T and ln H
  bool with_T = false;
  for (const std::string& piece : split(std::string(text.substr(equals + 1)), ',')) {
    const std::size_t at = piece.find(" at ");
    const double H = parse_quantity(piece.substr(0, at), Dimension::pressure);
    if (!(H > 0)) refuse(text, "the constant is not positive");
    with_T = at != std::string::npos;
    points.emplace_back(with_T ? 1 / parse_quantity(piece.substr(at + 4), Dimension::temperature) : 0,
                        std::log(H));
  }
  if (points.empty() || points.size() > 2) refuse(text, "one or two constants");
  henry.constant = points[0].second;
  if (points.size() == 2) {
    if (!with_T || points[0].first == points[1].first || points[0].first == 0)
      refuse(text, "two constants need two temperatures");
    henry.slope_K = (points[1].second - points[0].second) / (points[1].first - points[0].first);
    henry.constant -= henry.slope_K * points[0].first;
  }
  return henry;
}

HenrySolution::HenrySolution(const std::vector<Substance>& substances,
                             std::unique_ptr<ActivityModel> solvents, std::vector<HenryConstant> constants)
    : solvents_(std::move(solvents)),
      constants_(std::move(constants)),
      solute_(substances.size()),
      place_(substances.size()) {
  for (const HenryConstant& constant : constants_) solute_[constant.solute] = true;
  for (std::size_t i = 0; i < solute_.size(); ++i) {
    if (solute_[i]) continue;
    place_[i] = members_.size();
    members_.push_back(i);
  }
  if (members_.empty()) throw RequestError("`henry`: every substance is a solute; a solvent is needed");
  for (std::size_t i = 0; i < solute_.size(); ++i) {
    for (const std::size_t j : members_) {
      const bool known = std::any_of(constants_.begin(), constants_.end(),
                                     [&](const HenryConstant& c) { return c.solute == i && c.solvent == j; });
      if (solute_[i] && !known)
        throw RequestError(
            fmt::format("Henry's constant of {} in {} is missing: give `henry` \"{} in {} = ...\" too",
                        substances[i].name, substances[j].name, substances[i].name, substances[j].name));
    }
  }
  const std::size_t m = members_.size();
  x_.resize(m);
  ln_gamma_.resize(m);
  dT_.resize(m);
  dn_.resize(m * m);
}

HenrySolution::HenrySolution(const HenrySolution& other)
    : solvents_(other.solvents_ ? other.solvents_->clone() : nullptr),
      constants_(other.constants_),
      solute_(other.solute_),
      place_(other.place_),
      members_(other.members_),
      x_(other.x_),
      ln_gamma_(other.ln_gamma_),
      dT_(other.dT_),
      dn_(other.dn_) {}

void HenrySolution::set_temperature(double T_K) {
  T_K_ = T_K;
  if (solvents_) solvents_->set_temperature(T_K);
}

const HenryConstant& HenrySolution::of(std::size_t solute, std::size_t solvent) const {
  return *std::find_if(constants_.begin(), constants_.end(),
                       [&](const HenryConstant& c) { return c.solute == solute && c.solvent == solvent; });
}

// From g = n_s gE(x')/RT + sum_i n_i sum_j x'_j ln H_ij, n_s the moles of solvents.
void HenrySolution::evaluate(std::span<const double> n, std::span<double> ln_gamma, std::span<double> dT,
                             std::span<double> dn) {
  const std::size_t N = size(), m = members_.size();
  double solvent = 0;
  for (const std::size_t j : members_) solvent += n[j];
  // Of a pure gas the solvents count as if they were there alike: a limit that is never stable.
  const bool none = !(solvent > 1e-12);
  if (none) solvent = 1e-12;
  for (std::size_t j = 0; j < m; ++j) x_[j] = none ? 1 / static_cast<double>(m) : n[members_[j]] / solvent;
  std::fill(ln_gamma_.begin(), ln_gamma_.end(), 0.0);
  std::fill(dT_.begin(), dT_.end(), 0.0);
  std::fill(dn_.begin(), dn_.end(), 0.0);
  if (solvents_)
    solvents_->evaluate(x_, ln_gamma_, dT_, dn.empty() ? std::span<double>() : std::span<double>(dn_));
  std::fill(dn.begin(), dn.end(), 0.0);
  for (std::size_t j = 0; j < m; ++j) {
    ln_gamma[members_[j]] = ln_gamma_[j];
    if (!dT.empty()) dT[members_[j]] = dT_[j];
    for (std::size_t l = 0; !dn.empty() && l < m; ++l)
      dn[members_[j] * N + members_[l]] = dn_[j * m + l] / solvent;
  }
  for (std::size_t i = 0; i < N; ++i) {
    if (!solute_[i]) continue;
    double mean = 0, mean_T = 0;
    for (std::size_t j = 0; j < m; ++j) {
      const HenryConstant& h = of(i, members_[j]);
      mean += x_[j] * h.ln_H(T_K_);
      mean_T -= x_[j] * h.slope_K / (T_K_ * T_K_);
    }
    ln_gamma[i] = mean;
    if (!dT.empty()) dT[i] = mean_T;
    if (none) continue;
    const double ratio = n[i] / solvent;
    for (const std::size_t k : members_) {
      const HenryConstant& h = of(i, k);
      const double excess = h.ln_H(T_K_) - mean;
      ln_gamma[k] += ratio * excess;
      if (!dT.empty()) dT[k] += ratio * (-h.slope_K / (T_K_ * T_K_) - mean_T);
      if (dn.empty()) continue;
      dn[i * N + k] += excess / solvent;
      dn[k * N + i] += excess / solvent;
      for (const std::size_t l : members_)
        dn[k * N + l] -= ratio / solvent * (excess + of(i, l).ln_H(T_K_) - mean);
    }
  }
}

void HenrySolution::write_out(Working& page) const {
  page.say("solutes: ln(f_i/x_i) = ln H_i = sum over solvents x'_j ln H_ij, x' without the solutes");
  page.say("solvents: by their own model among themselves, and what the Gibbs-Duhem equation asks of them");
  for (const HenryConstant& h : constants_)
    page.say(fmt::format("ln(H_{}{}/Pa) = {} + {}/{} = {}", h.solute + 1, h.solvent + 1,
                         Working::number(h.constant), Working::number(h.slope_K), Working::number(page.T_K()),
                         Working::number(h.ln_H(page.T_K()))));
  HenrySolution own(*this);
  std::vector<double> ln_gamma(size());
  own.set_temperature(page.T_K());
  own.evaluate(page.x(), ln_gamma, {}, {});
  for (std::size_t i = 0; i < size(); ++i) {
    if (solute_[i])
      page.say(fmt::format("ln(H_{}/Pa) = {}", i + 1, Working::number(ln_gamma[i])));
    else
      page.result(i, {ln_gamma[i]}, ln_gamma[i]);
  }
}

}  // namespace jampot
