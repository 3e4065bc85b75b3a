#include "jampot/equilibrium/liquid_surface.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "../basis/dense.hpp"
#include "composition_samples.hpp"
#include "spinodal_pocket.hpp"

namespace jampot {
namespace {

constexpr double unknown = HUGE_VAL;  // a curvature that nobody has asked for yet

// Of two or three components: trace and determinant of the matrix less its known eigenvalue 1 leave a
// quadratic equation. `root` holds sqrt(x_i).
double curvature_of_few(std::span<const double> root, std::span<const double> dn) {
  const std::size_t n = root.size();
  if (n == 2) return root[0] * root[0] * dn[0] + root[1] * root[1] * dn[3] + 1;
  const double a = 1 + root[0] * root[0] * dn[0], d = 1 + root[1] * root[1] * dn[4],
               f = 1 + root[2] * root[2] * dn[8];
  const double b = root[0] * root[1] * dn[1], c = root[0] * root[2] * dn[2], e = root[1] * root[2] * dn[5];
  const double determinant = a * (d * f - e * e) - b * (b * f - e * c) + c * (b * e - d * c);
  const double sum = a + d + f - 1,
               greater = (sum + std::sqrt(std::max(0.0, sum * sum - 4 * determinant))) / 2;
  // The product over the greater root keeps digits where the smaller is near zero.
  return greater > 0 ? determinant / greater : sum - greater;
}

}  // namespace

double smallest_curvature(std::span<const double> x, std::span<const double> dn) {
  std::array<double, 3> root{};
  for (std::size_t i = 0; i < x.size(); ++i) root[i] = std::sqrt(x[i]);
  return curvature_of_few(std::span(root).first(x.size()), dn);
}

Curvature smallest_curvature(ActivityModel& model, std::span<const double> x, bool with_direction) {
  const std::size_t n = x.size();
  constexpr std::size_t few = 3;
  std::array<double, few> small_gamma;
  std::array<double, few * few> small_dn;
  std::vector<double> large;
  if (n > few) large.resize(n + n * n);
  const std::span<double> ln_gamma = n > few ? std::span(large).first(n) : std::span(small_gamma).first(n);
  const std::span<double> dn = n > few ? std::span(large).subspan(n) : std::span(small_dn).first(n * n);
  model.evaluate(x, ln_gamma, {}, dn);
  if (n <= few && !with_direction) return {smallest_curvature(x, dn), {}};
  const auto N = static_cast<Eigen::Index>(n);
  Eigen::MatrixXd matrix(N, N);
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < n; ++k) {
      // The eigenvalue of sqrt(x) is lifted out of the way.
      constexpr double lift = 1e3;
      matrix(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(k)) =
          (i == k ? 1 : 0) + std::sqrt(x[i] * x[k]) * (dn[i * n + k] + lift);
    }
  }
  const SymmetricEigen eigen = symmetric_eigen(matrix);
  Curvature curvature{eigen.values[0], {}};
  if (!with_direction) return curvature;
  curvature.direction.resize(n);
  for (std::size_t i = 0; i < n; ++i)
    curvature.direction[i] = std::sqrt(x[i]) * eigen.vectors(static_cast<Eigen::Index>(i), 0);
  return curvature;
}

LiquidSurface::LiquidSurface(ActivityModel& model, double T_K)
    : model_(&model), T_K_(T_K), samples_(&CompositionSamples::of(model.size())) {
  model.set_temperature(T_K);
  const std::size_t n = model.size(), count = samples_->size();
  const std::vector<double>& fractions = samples_->by_component();
  std::vector<double> ln_gamma(fractions.size());
  model.evaluate_states(fractions, ln_gamma);
  g_ = samples_->ideal();
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < count; ++k) g_[k] += fractions[i * count + k] * ln_gamma[i * count + k];
  }
}

std::span<const double> LiquidSurface::x(std::size_t sample) const {
  return samples_->x(sample);
}

double LiquidSurface::spacing() const {
  return samples_->spacing();
}

double LiquidSurface::distance(std::size_t sample, std::span<const double> ln_a) const {
  const auto fractions = x(sample);
  double d = g_[sample];
  for (std::size_t i = 0; i < fractions.size(); ++i) {
    if (fractions[i] > 0) d -= fractions[i] * ln_a[i];
  }
  return d;
}

std::vector<std::size_t> LiquidSurface::lowest(std::span<const double> ln_a, std::size_t most) const {
  std::vector<double> d(size());
  for (std::size_t k = 0; k < size(); ++k) d[k] = distance(k, ln_a);
  constexpr double hopeless = 0.1;  // no surface bends so much between neighbours
  std::vector<std::size_t> found;
  const bool on_lattice = model_->size() <= 3;
  for (std::size_t k = 0; k < size(); ++k) {
    if (!(d[k] < hopeless)) continue;
    bool lowest = true;
    if (on_lattice) {
      for (const std::size_t other : samples_->around(k)) lowest = lowest && d[k] <= d[other];
    }
    if (lowest) found.push_back(k);
  }
  std::sort(found.begin(), found.end(), [&](std::size_t a, std::size_t b) { return d[a] < d[b]; });
  if (found.size() > most) found.resize(most);
  return found;
}

double LiquidSurface::curvature(std::size_t sample) {
  if (curvature_.empty()) curvature_.assign(size(), unknown);
  double& value = curvature_[sample];
  if (value != unknown) return value;
  const std::size_t n = model_->size();
  model_->set_temperature(T_K_);
  if (n > 3) return value = smallest_curvature(*model_, x(sample)).value;
  std::array<double, 3> ln_gamma{};
  std::array<double, 9> dn{};
  model_->evaluate(x(sample), std::span(ln_gamma).first(n), {}, std::span(dn).first(n * n));
  return value = curvature_of_few(samples_->root(sample), dn);
}

std::vector<std::vector<double>> LiquidSurface::pockets() {
  std::vector<std::vector<double>> found;
  for (std::size_t k = 0; k < size(); ++k) {
    if (auto pocket = pocket_at(k)) found.push_back(std::move(*pocket));
  }
  return found;
}

std::vector<std::vector<double>> LiquidSurface::pockets_near(std::span<const double> ln_a, double height) {
  std::vector<std::vector<double>> found;
  for (std::size_t k = 0; k < size(); ++k) {
    if (!(distance(k, ln_a) < height)) continue;
    if (auto pocket = pocket_at(k)) found.push_back(std::move(*pocket));
  }
  return found;
}

std::vector<std::size_t> LiquidSurface::unstable() {
  std::vector<std::size_t> found;
  for (std::size_t k = 0; k < size(); ++k) {
    if (curvature(k) < 0) found.push_back(k);
  }
  return found;
}

std::optional<std::vector<double>> LiquidSurface::pocket_at(std::size_t sample) {
  return spinodal_pocket(
      *samples_, sample, [&](std::size_t k) { return curvature(k); },
      [&](std::span<const double> at) { return smallest_curvature(*model_, at).value; });
}

}  // namespace jampot
