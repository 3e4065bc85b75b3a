#include "jampot/liquid/subsystem.hpp"

namespace jampot {

Subsystem::Subsystem(ActivityModel& whole, std::vector<std::size_t> members)
    : whole_(&whole),
      members_(std::move(members)),
      x_(whole.size()),
      ln_gamma_(whole.size()),
      dT_(whole.size()),
      dn_(whole.size() * whole.size()) {}

void Subsystem::evaluate(std::span<const double> x, std::span<double> ln_gamma, std::span<double> dT,
                         std::span<double> dn) {
  const std::size_t n = whole_->size(), m = members_.size();
  for (std::size_t a = 0; a < m; ++a) x_[members_[a]] = x[a];
  whole_->evaluate(x_, ln_gamma_, dT.empty() ? std::span<double>() : std::span(dT_),
                   dn.empty() ? std::span<double>() : std::span(dn_));
  for (std::size_t a = 0; a < m; ++a) {
    ln_gamma[a] = ln_gamma_[members_[a]];
    if (!dT.empty()) dT[a] = dT_[members_[a]];
    for (std::size_t b = 0; b < m && !dn.empty(); ++b) dn[a * m + b] = dn_[members_[a] * n + members_[b]];
  }
}

double Subsystem::third_derivative(std::span<const double> x, std::span<const double> u) const {
  return whole_->third_derivative(in_whole(x), in_whole(u));
}

std::vector<double> Subsystem::in_whole(std::span<const double> x) const {
  std::vector<double> all(whole_->size());
  for (std::size_t a = 0; a < members_.size(); ++a) all[members_[a]] = x[a];
  return all;
}

}  // namespace jampot
