#include "boiling_polynomials.hpp"

#include <Eigen/Core>
#include <algorithm>
#include <cmath>
#include <cstring>

#include "../basis/dense.hpp"
#include "../liquid/clones.hpp"

namespace jampot {
namespace {

constexpr int finest_piece = 8;      // pieces with sides of 1/256
constexpr int enough_points = 6000;  // then exact points are cheaper than further pieces

// T_0 to T_count of 2 s - 1.
template <std::size_t count>
std::array<double, count> chebyshev(double s) {
  std::array<double, count> values{};
  const double u = 2 * s - 1;
  values[0] = 1;
  values[1] = u;
  for (std::size_t k = 2; k < count; ++k) values[k] = 2 * u * values[k - 1] - values[k - 2];
  return values;
}

// Four numbers side by side, which compilers put into one register where there is one so wide.
using Four [[gnu::vector_size(4 * sizeof(double))]] = double;

// The sum over i and j of S[i] T[j] times the next four factors.
JAMPOT_CLONES void sum_of_terms(const double* factors, const double* S, const double* T, int degree,
                                double* sum) {
  Four total{};
  for (int i = 0; i <= degree; ++i) {
    Four row{};
    for (int j = 0; i + j <= degree; ++j, factors += 4) {
      Four term;
      std::memcpy(&term, factors, sizeof term);
      row += T[j] * term;
    }
    total += S[i] * row;
  }
  std::memcpy(sum, &total, sizeof total);
}

}  // namespace

// Nodes between which polynomials do not swing: on each side those of Lobatto, inside their symmetric means
// (M. G. Blyth, C. Pozrikidis, IMA J. Appl. Math. 71 (2006) 153-169). The inverse of the matrix of all terms
// at all nodes turns values into factors.
struct BoilingPolynomials::Reference {
  std::array<std::array<double, 2>, terms> nodes{};
  Eigen::MatrixXd to_factors;

  Reference() {
    std::array<double, degree + 1> v{};
    for (int k = 0; k <= degree; ++k)
      v[static_cast<std::size_t>(k)] = (1 - std::cos(std::acos(-1.0) * k / degree)) / 2;
    std::size_t node = 0;
    for (int i = 0; i <= degree; ++i) {
      for (int j = 0; i + j <= degree; ++j) {
        const double a = v[static_cast<std::size_t>(i)], b = v[static_cast<std::size_t>(j)],
                     c = v[static_cast<std::size_t>(degree - i - j)];
        nodes[node++] = {(1 + 2 * a - b - c) / 3, (1 + 2 * b - a - c) / 3};
      }
    }
    Eigen::MatrixXd values(terms, terms);
    for (std::size_t k = 0; k < terms; ++k) {
      const auto s = chebyshev<degree + 1>(nodes[k][0]), t = chebyshev<degree + 1>(nodes[k][1]);
      Eigen::Index term = 0;
      for (std::size_t i = 0; i <= degree; ++i) {
        for (std::size_t j = 0; i + j <= degree; ++j)
          values(static_cast<Eigen::Index>(k), term++) = s[i] * t[j];
      }
    }
    to_factors = inverse_of(values);
  }
};

const BoilingPolynomials::Reference& BoilingPolynomials::reference() {
  static const Reference made;
  return made;
}

BoilingPolynomials::Boiling BoilingPolynomials::value(const Piece& piece, double s, double t) {
  const auto S = chebyshev<degree + 1>(s), T = chebyshev<degree + 1>(t);
  double sum[4];
  sum_of_terms(piece.factors.data()->data(), S.data(), T.data(), degree, sum);
  return {{sum[0], sum[1], sum[2]}, sum[3]};
}

// From the polynomials of the whole that were not good enough.
double BoilingPolynomials::start_for(const Piece& piece, double s, double t) const {
  if (piece.whole == nullptr) return 0;
  const Place &own = piece.place, &outer = piece.whole->place;
  const double T_K = value(*piece.whole, (own.s0 + own.scale * s - outer.s0) / outer.scale,
                           (own.t0 + own.scale * t - outer.t0) / outer.scale)
                         .T_K;
  return std::isfinite(T_K) && T_K > 0 ? T_K : 0;
}

bool BoilingPolynomials::fit(Piece& piece) {
  // Between the nodes, near the corners and in the middle of the sides, where a polynomial swings most.
  constexpr std::array<std::array<double, 2>, 12> between{{{0.02, 0.02},
                                                           {0.96, 0.02},
                                                           {0.02, 0.96},
                                                           {0.41, 0.57},
                                                           {0.01, 0.42},
                                                           {0.27, 0.29},
                                                           {0.86, 0.01},
                                                           {0.12, 0.86},
                                                           {0.01, 0.13},
                                                           {0.57, 0.02},
                                                           {0.13, 0.60},
                                                           {0.61, 0.23}}};
  const Reference& shared = reference();
  x_.clear();
  boiling_.clear();
  const auto ask = [&](const std::array<double, 2>& at) {
    Composition x = piece.place.at(at[0], at[1]);
    for (double& fraction : x) fraction = std::max(0.0, fraction);  // on a side by a rounding error outside
    x_.push_back(x);
    boiling_.push_back({{}, start_for(piece, at[0], at[1])});
  };
  for (const auto& node : shared.nodes) ask(node);
  for (const auto& at : between) ask(at);
  exact_(x_, boiling_);
  points_ += static_cast<int>(x_.size());
  if (std::any_of(boiling_.begin(), boiling_.end(), [](const Boiling& one) { return !(one.T_K > 0); }))
    return false;

  Eigen::MatrixXd values(terms, 4);
  for (std::size_t node = 0; node < terms; ++node) {
    const auto row = static_cast<Eigen::Index>(node);
    values.row(row) << boiling_[node].y[0], boiling_[node].y[1], boiling_[node].y[2], boiling_[node].T_K;
  }
  const Eigen::MatrixXd factors = product(shared.to_factors, values);
  for (std::size_t term = 0; term < terms; ++term) {
    for (std::size_t k = 0; k < 4; ++k)
      piece.factors[term][k] = factors(static_cast<Eigen::Index>(term), static_cast<Eigen::Index>(k));
  }
  for (std::size_t test = 0; test < between.size(); ++test) {
    const Boiling &exact = boiling_[terms + test], found = value(piece, between[test][0], between[test][1]);
    for (std::size_t k = 0; k < 3; ++k) {
      if (!(std::abs(found.y[k] - exact.y[k]) < y_tolerance)) return false;
    }
    if (!(std::abs(found.T_K - exact.T_K) < T_tolerance_K)) return false;
  }
  return true;
}

BoilingPolynomials::Piece* BoilingPolynomials::added(double s0, double t0, double scale, const Piece* whole) {
  pieces_.push_back({{s0, t0, scale}, whole == nullptr ? 0 : whole->depth + 1, Kind::unknown, whole});
  return &pieces_.back();
}

void BoilingPolynomials::make(Piece& piece) {
  if (points_ > enough_points) {
    piece.kind = Kind::rough;
  } else if (fit(piece)) {
    piece.kind = Kind::smooth;
  } else if (piece.depth == finest_piece) {
    piece.kind = Kind::rough;
  } else {
    const auto [s0, t0, scale] = piece.place;
    const double half = scale / 2;
    piece.parts = {added(s0, t0, half, &piece), added(s0 + half, t0, half, &piece),
                   added(s0, t0 + half, half, &piece), added(s0 + half, t0 + half, -half, &piece)};
    piece.kind = Kind::divided;
  }
}

std::optional<BoilingPolynomials::Boiling> BoilingPolynomials::at(const Composition& x) {
  if (pieces_.empty()) added(0, 0, 1, nullptr);
  Piece* piece = &pieces_.front();
  double s = x[1], t = x[2];
  while (true) {
    if (piece->kind == Kind::unknown) make(*piece);
    if (piece->kind == Kind::smooth) return value(*piece, s, t);
    if (piece->kind == Kind::rough) return std::nullopt;
    if (s >= 0.5) {
      s = 2 * s - 1;
      t = 2 * t;
      piece = piece->parts[1];
    } else if (t >= 0.5) {
      s = 2 * s;
      t = 2 * t - 1;
      piece = piece->parts[2];
    } else if (s + t <= 0.5) {
      s = 2 * s;
      t = 2 * t;
      piece = piece->parts[0];
    } else {  // the middle one, upside down
      s = 1 - 2 * s;
      t = 1 - 2 * t;
      piece = piece->parts[3];
    }
  }
}

}  // namespace jampot
