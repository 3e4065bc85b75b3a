#include "composition_samples.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "../basis/sobol.hpp"

namespace jampot {
namespace {

constexpr std::size_t steps_of_a_line = 100, steps_of_a_triangle = 24;

// Number of the lattice point with `first` steps of component 1 and `second` of component 2.
std::size_t lattice(std::size_t first, std::size_t second) {
  const std::size_t m = steps_of_a_triangle;
  return first * (m + 1) - first * (first - 1) / 2 + second;
}

std::vector<double> spread(std::size_t n) {
  std::vector<double> x;
  const auto add = [&](const std::vector<double>& amounts) {
    double sum = 0;
    for (const double value : amounts) sum += value;
    for (const double value : amounts) x.push_back(value / sum);
  };
  for (std::size_t i = 0; i < n; ++i) {
    std::vector<double> pure(n);
    pure[i] = 1;
    add(pure);
    for (std::size_t j = i + 1; j < n; ++j) {
      for (const double share : {0.25, 0.5, 0.75}) {
        std::vector<double> pair(n);
        pair[i] = share;
        pair[j] = 1 - share;
        add(pair);
      }
    }
  }
  SobolSequence sequence(n);
  constexpr std::size_t for_each_component = 60;
  for (std::size_t k = 0; k < for_each_component * n; ++k) {
    std::vector<double> amounts(n);
    for (double& value : amounts) value = -std::log(std::clamp(sequence.next(), 1e-12, 1 - 1e-12));
    add(amounts);
  }
  return x;
}

}  // namespace

CompositionSamples::CompositionSamples(std::size_t components, std::vector<double> fractions)
    : components_(components), x_(std::move(fractions)), ideal_(x_.size() / components) {
  by_component_.resize(x_.size());
  for (std::size_t k = 0; k < x_.size(); ++k) {
    by_component_[k % components * ideal_.size() + k / components] = x_[k];
    if (x_[k] > 0) ideal_[k / components] += x_[k] * std::log(x_[k]);
    root_.push_back(std::sqrt(x_[k]));
  }
  for (std::size_t k = 0; k < ideal_.size(); ++k) {
    first_.push_back(neighbour_.size());
    if (components == 2) on_line(k);
    if (components == 3) on_triangle(k);
  }
  first_.push_back(neighbour_.size());
}

void CompositionSamples::on_line(std::size_t k) {
  if (k > 0) neighbour_.push_back(k - 1);
  if (k < steps_of_a_line) neighbour_.push_back(k + 1);
}

void CompositionSamples::on_triangle(std::size_t k) {
  constexpr double m = steps_of_a_triangle;
  const long i = std::lround(m * x_[3 * k]), j = std::lround(m * x_[3 * k + 1]);
  for (const auto& [a, b] :
       std::array<std::array<long, 2>, 6>{{{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, -1}, {-1, 1}}}) {
    if (i + a >= 0 && j + b >= 0 && i + a + j + b <= static_cast<long>(steps_of_a_triangle))
      neighbour_.push_back(lattice(static_cast<std::size_t>(i + a), static_cast<std::size_t>(j + b)));
  }
}

double CompositionSamples::spacing() const {
  if (components_ == 2) return 1.0 / steps_of_a_line;
  return components_ == 3 ? 1.0 / steps_of_a_triangle : 1;
}

const CompositionSamples& CompositionSamples::of(std::size_t n) {
  if (n == 2) {
    static const CompositionSamples line = [] {
      std::vector<double> x;
      for (std::size_t k = 0; k <= steps_of_a_line; ++k) {
        const double first = static_cast<double>(k) / steps_of_a_line;
        x.insert(x.end(), {first, 1 - first});
      }
      return CompositionSamples(2, std::move(x));
    }();
    return line;
  }
  if (n == 3) {
    static const CompositionSamples triangle = [] {
      std::vector<double> x;
      constexpr double m = steps_of_a_triangle;
      for (std::size_t i = 0; i <= steps_of_a_triangle; ++i) {
        for (std::size_t j = 0; i + j <= steps_of_a_triangle; ++j) {
          const auto rest = static_cast<double>(steps_of_a_triangle - i - j);
          x.insert(x.end(), {static_cast<double>(i) / m, static_cast<double>(j) / m, rest / m});
        }
      }
      return CompositionSamples(3, std::move(x));
    }();
    return triangle;
  }
  static const std::array<CompositionSamples, 21> more = [] {
    std::array<CompositionSamples, 21> all;
    for (std::size_t k = 4; k < all.size(); ++k) all[k] = CompositionSamples(k, spread(k));
    return all;
  }();
  if (n < more.size()) return more[n];
  thread_local CompositionSamples many;  // beyond twenty components: made for the occasion
  if (many.components_ != n) many = CompositionSamples(n, spread(n));
  return many;
}

}  // namespace jampot
