#pragma once
// The boiling point of one liquid over the whole triangle as polynomials: thousands of neighbouring
// compositions are asked for while residue curves are followed, and T and y are smooth there.
#include <array>
#include <deque>
#include <functional>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "triangle_plane.hpp"

namespace jampot {

/// Polynomials of degree ten on triangular pieces of the composition triangle, in products of Chebyshev
/// polynomials through exact boiling points. A piece is made when something in it is asked for; one that
/// misses exact points between those it was made from is divided into four.
class BoilingPolynomials {
 public:
  struct Boiling {
    Composition y{};  ///< mole fractions of the vapour
    double T_K = 0;   ///< boiling temperature, K
  };
  /// The exact boiling points of compositions. T_K comes in as a start, 0 where there is none, and goes out
  /// as 0 where no boiling point was found.
  using Exact = std::function<void(std::span<const Composition> x, std::span<Boiling> found)>;

  /// Largest deviation of y and of T from exact points, those that a piece is tested at: half of what
  /// BoilingLiquid::at_on_surface promises.
  static constexpr double y_tolerance = 5e-7, T_tolerance_K = 5e-5;

  explicit BoilingPolynomials(Exact exact) : exact_(std::move(exact)) {}

  /// Nothing where the polynomials are not good enough even on the smallest pieces: there the exact point
  /// must be asked for.
  std::optional<Boiling> at(const Composition& x);

 private:
  static constexpr int degree = 10;
  static constexpr std::size_t terms = (degree + 1) * (degree + 2) / 2;

  // x1 = s0 + scale s, x2 = t0 + scale t: s and t are 0, 0 in one corner, 1, 0 and 0, 1 in the others.
  struct Place {
    double s0 = 0, t0 = 0, scale = 1;
    Composition at(double s, double t) const {
      const double x1 = s0 + scale * s, x2 = t0 + scale * t;
      return {1 - x1 - x2, x1, x2};
    }
  };
  enum class Kind { unknown, smooth, divided, rough };
  struct Piece {
    Place place;
    int depth = 0;
    Kind kind = Kind::unknown;
    const Piece* whole = nullptr;  ///< the piece that it is a part of
    std::array<Piece*, 4> parts{};
    std::array<std::array<double, 4>, terms> factors{};  ///< of each term: y and T
  };
  struct Reference;  // what all pieces share

  static const Reference& reference();
  static Boiling value(const Piece& piece, double s, double t);
  double start_for(const Piece& piece, double s, double t) const;
  bool fit(Piece& piece);
  void make(Piece& piece);
  Piece* added(double s0, double t0, double scale, const Piece* whole);

  Exact exact_;
  std::deque<Piece> pieces_;
  std::vector<Composition> x_;    ///< what a piece is made from and tested at
  std::vector<Boiling> boiling_;  ///< there
  int points_ = 0;                ///< exact boiling points so far
};

}  // namespace jampot
