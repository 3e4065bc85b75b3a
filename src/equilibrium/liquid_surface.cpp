#include "jampot/equilibrium/liquid_surface.hpp"

#include <algorithm>
#include <array>
#include <boost/random/sobol.hpp>
#include <boost/random/uniform_01.hpp>
#include <cmath>

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
  const auto add = [&](std::vector<double> amounts) {
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

// Samples and their ideal Gibbs energy of mixing, sum x_i ln x_i.
struct Samples {
  std::vector<double> x, ideal;
  Samples() = default;
  Samples(std::size_t n, std::vector<double> fractions) : x(std::move(fractions)), ideal(x.size() / n) {
    for (std::size_t k = 0; k < x.size(); ++k) {
      if (x[k] > 0) ideal[k / n] += x[k] * std::log(x[k]);
    }
  }
};

// Made once for each number of components; the same for all temperatures and models.
const Samples& samples(std::size_t n) {
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
    // Trace and determinant of the matrix less its known eigenvalue 1 leave a quadratic equation.
    std::array<double, few * few> m{};
    double trace = 0;
    for (std::size_t i = 0; i < n; ++i) {
      for (std::size_t k = 0; k < n; ++k)
        m[i * n + k] = (i == k ? 1 : 0) + std::sqrt(x[i] * x[k]) * dn[i * n + k];
      trace += m[i * n + i];
    }
    if (n == 2) return {trace - 1, {}};
    const double determinant = m[0] * (m[4] * m[8] - m[5] * m[7]) - m[1] * (m[3] * m[8] - m[5] * m[6]) +
                               m[2] * (m[3] * m[7] - m[4] * m[6]);
    const double sum = trace - 1, root = std::sqrt(std::max(0.0, sum * sum - 4 * determinant));
    // The product over the greater root keeps digits where the smaller is near zero.
    const double greater = (sum + root) / 2;
    return {greater > 0 ? determinant / greater : (sum - root) / 2, {}};
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
    : model_(&model), T_K_(T_K), x_(&samples(model.size()).x) {
  model.set_temperature(T_K);
  const std::size_t n = model.size(), count = x_->size() / n;
  std::vector<double> ln_gamma(n);
  g_ = samples(n).ideal;
  for (std::size_t k = 0; k < count; ++k) {
    const auto fractions = x(k);
    model.evaluate(fractions, ln_gamma);
    for (std::size_t i = 0; i < n; ++i) g_[k] += fractions[i] * ln_gamma[i];
  }
}

std::span<const double> LiquidSurface::x(std::size_t sample) const {
  const std::size_t n = model_->size();
  return std::span(*x_).subspan(sample * n, n);
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

std::vector<std::size_t> LiquidSurface::neighbours(std::size_t sample) const {
  std::vector<std::size_t> list;
  if (model_->size() == 2) {
    if (sample > 0) list.push_back(sample - 1);
    if (sample < steps_of_a_line) list.push_back(sample + 1);
  } else if (model_->size() == 3) {
    constexpr double m = steps_of_a_triangle;
    const auto fractions = x(sample);
    const long first = std::lround(m * fractions[0]), second = std::lround(m * fractions[1]);
    for (const auto& [a, b] :
         std::array<std::array<long, 2>, 6>{{{1, 0}, {-1, 0}, {0, 1}, {0, -1}, {1, -1}, {-1, 1}}}) {
      const long i = first + a, j = second + b;
      if (i >= 0 && j >= 0 && i + j <= static_cast<long>(steps_of_a_triangle))
        list.push_back(lattice(static_cast<std::size_t>(i), static_cast<std::size_t>(j)));
    }
  }
  return list;
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
      for (const std::size_t other : neighbours(k)) lowest = lowest && d[k] <= d[other];
    }
    if (lowest) found.push_back(k);
  }
  std::sort(found.begin(), found.end(), [&](std::size_t a, std::size_t b) { return d[a] < d[b]; });
  if (found.size() > most) found.resize(most);
  return found;
}

const std::vector<std::vector<double>>& LiquidSurface::pockets() {
  search();
  return pockets_;
}

const std::vector<std::size_t>& LiquidSurface::unstable() {
  search();
  return unstable_;
}

void LiquidSurface::search() {
  if (searched_) return;
  searched_ = true;
  model_->set_temperature(T_K_);
  const std::size_t n = model_->size();
  std::vector<double> curvature(size());
  for (std::size_t k = 0; k < size(); ++k) {
    curvature[k] = smallest_curvature(*model_, x(k)).value;
    if (curvature[k] < 0) unstable_.push_back(k);
  }
  constexpr double suspicious = 0.35;
  for (std::size_t k = 0; k < size(); ++k) {
    if (curvature[k] > suspicious) continue;
    const auto around = neighbours(k);
    if (std::any_of(around.begin(), around.end(), [&](std::size_t m) { return curvature[m] < curvature[k]; }))
      continue;
    // The lowest point between the samples, by steps along the directions of the lattice.
    std::vector<double> at(x(k).begin(), x(k).end()), trial(n);
    double lowest = curvature[k];
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
    if (lowest < 0) pockets_.push_back(std::move(at));
  }
}

}  // namespace jampot
