#include "jampot/equilibrium/liquid_surface.hpp"

#include <Eigen/Eigenvalues>
#include <algorithm>
#include <array>
#include <boost/random/sobol.hpp>
#include <boost/random/uniform_01.hpp>
#include <cmath>

namespace jampot {
namespace {

constexpr std::size_t steps_of_a_line = 100, steps_of_a_triangle = 24;
constexpr double unknown = HUGE_VAL;  // a curvature that nobody has asked for yet

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
  boost::random::sobol sequence(n);
  boost::random::uniform_01<double> uniform;
  constexpr std::size_t for_each_component = 60;
  for (std::size_t k = 0; k < for_each_component * n; ++k) {
    std::vector<double> amounts(n);
    for (double& value : amounts) value = -std::log(std::clamp(uniform(sequence), 1e-12, 1 - 1e-12));
    add(amounts);
  }
  return x;
}

}  // namespace

// Samples, their ideal Gibbs energy of mixing sum x_i ln x_i, and who stands beside whom.
struct LiquidSurface::Samples {
  std::vector<double> x, ideal, root;  ///< root: sqrt(x_i)
  std::vector<std::size_t> neighbour;  ///< of all samples, one after the other
  std::vector<std::size_t> first;      ///< where those of a sample begin; one more at the end

  Samples() = default;
  Samples(std::size_t n, std::vector<double> fractions) : x(std::move(fractions)), ideal(x.size() / n) {
    for (std::size_t k = 0; k < x.size(); ++k) {
      if (x[k] > 0) ideal[k / n] += x[k] * std::log(x[k]);
      root.push_back(std::sqrt(x[k]));
    }
    for (std::size_t k = 0; k < ideal.size(); ++k) {
      first.push_back(neighbour.size());
      if (n == 2) on_line(k);
      if (n == 3) on_triangle(k);
    }
    first.push_back(neighbour.size());
  }
  std::span<const std::size_t> around(std::size_t sample) const {
    return std::span(neighbour).subspan(first[sample], first[sample + 1] - first[sample]);
  }

 private:
  void on_line(std::size_t k) {
    if (k > 0) neighbour.push_back(k - 1);
    if (k < steps_of_a_line) neighbour.push_back(k + 1);
  }
  void on_triangle(std::size_t k) {
    constexpr double m = steps_of_a_triangle;
    const long i = std::lround(m * x[3 * k]), j = std::lround(m * x[3 * k + 1]);
    for (const auto& [a, b] :
         std::array<std::array<long, 2>, 6>{{{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, -1}, {-1, 1}}}) {
      if (i + a >= 0 && j + b >= 0 && i + a + j + b <= static_cast<long>(steps_of_a_triangle))
        neighbour.push_back(lattice(static_cast<std::size_t>(i + a), static_cast<std::size_t>(j + b)));
    }
  }
};

// Made once for each number of components; the same for all temperatures and models.
const LiquidSurface::Samples& LiquidSurface::samples(std::size_t n) {
  if (n == 2) {
    static const Samples line = [] {
      std::vector<double> x;
      for (std::size_t k = 0; k <= steps_of_a_line; ++k) {
        const double first = static_cast<double>(k) / steps_of_a_line;
        x.insert(x.end(), {first, 1 - first});
      }
      return Samples(2, std::move(x));
    }();
    return line;
  }
  if (n == 3) {
    static const Samples triangle = [] {
      std::vector<double> x;
      constexpr double m = steps_of_a_triangle;
      for (std::size_t i = 0; i <= steps_of_a_triangle; ++i) {
        for (std::size_t j = 0; i + j <= steps_of_a_triangle; ++j) {
          const auto rest = static_cast<double>(steps_of_a_triangle - i - j);
          x.insert(x.end(), {static_cast<double>(i) / m, static_cast<double>(j) / m, rest / m});
        }
      }
      return Samples(3, std::move(x));
    }();
    return triangle;
  }
  static const std::array<Samples, 21> more = [] {
    std::array<Samples, 21> all;
    for (std::size_t k = 4; k < all.size(); ++k) all[k] = Samples(k, spread(k));
    return all;
  }();
  if (n < more.size()) return more[n];
  thread_local Samples many;  // beyond twenty components: made for the occasion
  if (many.ideal.empty() || many.x.size() != n * many.ideal.size()) many = Samples(n, spread(n));
  return many;
}

namespace {

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
  if (n <= few && !with_direction) {
    std::array<double, few> root{};
    for (std::size_t i = 0; i < n; ++i) root[i] = std::sqrt(x[i]);
    return {curvature_of_few(std::span(root).first(n), dn), {}};
  }
  const auto N = static_cast<Eigen::Index>(n);
  constexpr int most_on_stack = 24;
  using Square =
      Eigen::Matrix<double, Eigen::Dynamic, Eigen::Dynamic, Eigen::ColMajor, most_on_stack, most_on_stack>;
  Square matrix(N, N);
  for (std::size_t i = 0; i < n; ++i) {
    for (std::size_t k = 0; k < n; ++k) {
      // The eigenvalue of sqrt(x) is lifted out of the way.
      constexpr double lift = 1e3;
      matrix(static_cast<Eigen::Index>(i), static_cast<Eigen::Index>(k)) =
          (i == k ? 1 : 0) + std::sqrt(x[i] * x[k]) * (dn[i * n + k] + lift);
    }
  }
  const Eigen::SelfAdjointEigenSolver<Square> eigen(matrix);
  Curvature curvature{eigen.eigenvalues()[0], {}};
  if (!with_direction) return curvature;
  curvature.direction.resize(n);
  for (std::size_t i = 0; i < n; ++i)
    curvature.direction[i] = std::sqrt(x[i]) * eigen.eigenvectors()(static_cast<Eigen::Index>(i), 0);
  return curvature;
}

LiquidSurface::LiquidSurface(ActivityModel& model, double T_K)
    : model_(&model), T_K_(T_K), samples_(&samples(model.size())) {
  model.set_temperature(T_K);
  const std::size_t n = model.size(), count = samples_->ideal.size();
  std::vector<double> ln_gamma(n);
  g_ = samples_->ideal;
  for (std::size_t k = 0; k < count; ++k) {
    const auto fractions = x(k);
    model.evaluate(fractions, ln_gamma);
    for (std::size_t i = 0; i < n; ++i) g_[k] += fractions[i] * ln_gamma[i];
  }
}

std::span<const double> LiquidSurface::x(std::size_t sample) const {
  const std::size_t n = model_->size();
  return std::span(samples_->x).subspan(sample * n, n);
}

double LiquidSurface::spacing() const {
  if (model_->size() == 2) return 1.0 / steps_of_a_line;
  return model_->size() == 3 ? 1.0 / steps_of_a_triangle : 1;
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
  return value = curvature_of_few(std::span(samples_->root).subspan(sample * n, n), dn);
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

// Where the curvature is smallest near a sample that is the lowest among its neighbours, if it is negative
// there.
std::optional<std::vector<double>> LiquidSurface::pocket_at(std::size_t sample) {
  const std::size_t n = model_->size();
  constexpr double suspicious = 0.35;
  double lowest = curvature(sample);
  if (lowest > suspicious) return std::nullopt;
  for (const std::size_t other : samples_->around(sample)) {
    if (curvature(other) < lowest) return std::nullopt;
  }
  // Between the samples by steps along the directions of the lattice.
  std::vector<double> at(x(sample).begin(), x(sample).end()), trial(n);
  for (double step = spacing() / 2; step > 1e-4 && lowest >= 0 && n <= 3;) {
    bool moved = false;
    for (std::size_t i = 0; i < n && !moved; ++i) {
      for (std::size_t j = 0; j < n && !moved; ++j) {
        if (i == j || at[j] < step) continue;
        trial = at;
        trial[i] += step;
        trial[j] -= step;
        const double value = smallest_curvature(*model_, trial).value;
        if (value >= lowest) continue;
        lowest = value;
        at = trial;
        moved = true;
      }
    }
    if (!moved) step /= 2;
  }
  if (lowest < 0) return at;
  return std::nullopt;
}

}  // namespace jampot
