#include "jampot/equilibrium/stability_states.hpp"

#include <algorithm>
#include <cmath>

#include "../liquid/many_exp.hpp"
#include "../liquid/states_size.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"

namespace jampot {
namespace {

constexpr double below_plane = -1e-9;   // as in find_more_stable
constexpr double little_moved = 1e-6;   // of a fraction: of the distance its square
constexpr double rich_part = 0.98;      // as in find_more_stable
constexpr double ln_of_absent = -1000;  // a logarithm whose exponential is 0
constexpr int most_substitutions = 40;
constexpr int before_a_leap = 4;             // substitutions, after which the rest of the way is foreseen
constexpr std::size_t block_of_states = 64;  // states whose descents stay in the nearest memory

}  // namespace

StabilityStates::StabilityStates(ActivityModel& model) : model_(model), n_(model.size()) {}

// From each component that is there, nearly pure, and from the middle of them.
void StabilityStates::start(std::span<const double> T_K, std::span<const double> x, std::size_t first,
                            std::size_t last) {
  const std::size_t states = T_K.size(), most = block_of_states * (n_ + 1);
  state_.clear();
  state_.reserve(most);
  for (auto* list : {&T_K_, &moved_, &met_, &sum_}) list->resize(most);
  for (auto* list : {&ln_a_, &w_, &ln_w_, &ln_gamma_, &W_, &ln_W_, &change_}) list->resize(n_ * most);
  for (std::size_t k = first; k < last; ++k) {
    for (std::size_t rich = 0; rich <= n_; ++rich) {
      if (rich < n_ && !(x[rich * states + k] > 0)) continue;
      T_K_[state_.size()] = T_K[k];
      state_.push_back(k);
    }
  }
  const std::size_t count = state_.size();
  std::size_t t = 0;
  for (std::size_t k = first; k < last; ++k) {
    double present = 0;
    for (std::size_t i = 0; i < n_; ++i) present += x[i * states + k] > 0;
    for (std::size_t rich = 0; rich <= n_; ++rich) {
      if (rich < n_ && !(x[rich * states + k] > 0)) continue;
      for (std::size_t i = 0; i < n_; ++i) {
        const std::size_t at = i * count + t;
        const double poor = present > 1 ? (1 - rich_part) / (present - 1) : 1;
        const double part = rich == n_ ? 1 / present : i == rich && present > 1 ? rich_part : poor;
        const bool there = x[i * states + k] > 0;
        w_[at] = there ? part : 0;
        ln_w_[at] = there ? std::log(part) : ln_of_absent;
        ln_a_[at] = ln_activity_[i * states + k];
      }
      ++t;
    }
  }
}

// One substitution of every open descent, and the distances at the compositions before it.
void StabilityStates::substitute() {
  const std::size_t count = state_.size();
  const auto all = [&](std::vector<double>& list) { return std::span(list).first(n_ * count); };
  if (one_temperature_)
    model_.evaluate_states(all(w_), all(ln_gamma_));
  else
    model_.evaluate_states(std::span(T_K_).first(count), all(w_), all(ln_gamma_));
  for (std::size_t at = 0; at < n_ * count; ++at) W_[at] = ln_W_[at] = ln_a_[at] - ln_gamma_[at];
  exp_of_all(W_.data(), n_ * count);
  std::fill_n(sum_.begin(), count, 0.0);
  std::fill_n(met_.begin(), count, 0.0);
  std::fill_n(moved_.begin(), count, 0.0);
  for (std::size_t i = 0; i < n_; ++i) {
    for (std::size_t t = 0; t < count; ++t) {
      const std::size_t at = i * count + t;
      sum_[t] += W_[at];
      met_[t] += w_[at] * (ln_w_[at] - ln_W_[at]);
    }
  }
  for (std::size_t i = 0; i < n_; ++i) {
    for (std::size_t t = 0; t < count; ++t) {
      const std::size_t at = i * count + t;
      const double next = W_[at] / sum_[t];
      moved_[t] = std::max(moved_[t], std::abs(next - w_[at]));
      w_[at] = next;
    }
  }
  log_of_all(sum_.data(), count);
  for (std::size_t i = 0; i < n_; ++i) {
    for (std::size_t t = 0; t < count; ++t) {
      const std::size_t at = i * count + t;
      const double next = ln_W_[at] - sum_[t];
      W_[at] = next - ln_w_[at];  // the change from here on
      ln_w_[at] = next;
    }
  }
}

// What is left of a way whose steps shrink by one factor is that factor over one less it (the dominant
// eigenvalue method: E. J. Orbach, C. M. Crowe, Can. J. Chem. Eng. 49 (1971) 509-513).
void StabilityStates::leap() {
  const std::size_t count = state_.size();
  for (std::size_t t = 0; t < count; ++t) {
    double both = 0, before = 0;
    for (std::size_t i = 0; i < n_; ++i) {
      const std::size_t at = i * count + t;
      both += W_[at] * change_[at];
      before += change_[at] * change_[at];
    }
    const double factor = both / before;
    if (!(factor > 0.2 && factor < 0.95)) continue;
    double sum = 0;
    for (std::size_t i = 0; i < n_; ++i) {
      const std::size_t at = i * count + t;
      ln_w_[at] += W_[at] * factor / (1 - factor);
      w_[at] = w_[at] > 0 ? std::exp(ln_w_[at]) : 0;
      sum += w_[at];
    }
    const double ln_sum = std::log(sum);
    for (std::size_t i = 0; i < n_; ++i) {
      w_[i * count + t] /= sum;
      ln_w_[i * count + t] -= ln_sum;
    }
  }
}

// Drops the descents that have settled, and all of a state that is known to split.
void StabilityStates::keep_open(std::span<double> distance) {
  const std::size_t before = state_.size();
  for (std::size_t t = 0; t < before; ++t) distance[state_[t]] = std::min(distance[state_[t]], met_[t]);
  const auto open = [&](std::size_t t) {
    return distance[state_[t]] >= below_plane && !(moved_[t] < little_moved);
  };
  std::size_t count = 0;
  for (std::size_t t = 0; t < before; ++t) count += open(t);
  if (count == before) return;
  // What is written never overtakes what is read.
  for (std::size_t i = 0; i < n_; ++i) {
    std::size_t to = 0;
    for (std::size_t t = 0; t < before; ++t) {
      if (!open(t)) continue;
      for (auto* list : {&ln_a_, &w_, &ln_w_, &W_, &change_})
        (*list)[i * count + to] = (*list)[i * before + t];
      ++to;
    }
  }
  std::size_t to = 0;
  for (std::size_t t = 0; t < before; ++t) {
    if (!open(t)) continue;
    T_K_[to] = T_K_[t];
    moved_[to] = moved_[t];
    state_[to++] = state_[t];
  }
  state_.resize(count);
}

void StabilityStates::finish(std::span<double> distance) {
  const std::size_t count = state_.size();
  if (count == 0) return;
  MixingLiquid liquid(model_);
  std::vector<double> ln_a(n_), w(n_);
  DescentLimits limits;
  limits.enough = 10 * below_plane;
  TangentMinimum minimum;
  for (std::size_t t = 0; t < count; ++t) {
    double& lowest = distance[state_[t]];
    if (lowest < below_plane) continue;
    for (std::size_t i = 0; i < n_; ++i) {
      w[i] = w_[i * count + t];
      ln_a[i] = w[i] > 0 ? ln_a_[i * count + t] : -HUGE_VAL;
    }
    plane_.descend(liquid, T_K_[t], standard_atmosphere, ln_a, w, limits, minimum);
    lowest = std::min(lowest, minimum.distance);
  }
}

std::size_t StabilityStates::distances(std::span<const double> T_K, std::span<const double> x,
                                       std::span<double> distance) {
  const std::size_t states = T_K.size();
  demand_states(x.size(), n_ * distance.size(), n_, states);
  for (const double T : T_K) demand_temperature(T);
  if (states == 0) return 0;
  ln_activity_.resize(n_ * states);
  model_.evaluate_states(T_K, x, ln_activity_);
  for (std::size_t k = 0; k < n_ * states; ++k)
    ln_activity_[k] = x[k] > 0 ? ln_activity_[k] + std::log(x[k]) : ln_of_absent;
  std::fill(distance.begin(), distance.end(), HUGE_VAL);
  one_temperature_ = std::all_of(T_K.begin(), T_K.end(), [&](double T) { return T == T_K.front(); });
  for (std::size_t first = 0; first < states; first += block_of_states) {
    start(T_K, x, first, std::min(first + block_of_states, states));
    for (int round = 1; round <= most_substitutions && !state_.empty(); ++round) {
      substitute();
      keep_open(distance);
      if (round % before_a_leap == 0) leap();
      change_.swap(W_);
    }
    finish(distance);
  }
  return static_cast<std::size_t>(
      std::count_if(distance.begin(), distance.end(), [](double one) { return one < below_plane; }));
}

}  // namespace jampot
