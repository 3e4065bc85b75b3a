#pragma once
// Integrals and derivatives of functions that have none written down, and the polynomials behind them.
#include "curve_view.hpp"

namespace jampot {

/// From `a` to `b` by Gauss and Legendre with 15 nodes: for smooth functions over short ways.
double integral(const CurveView& f, double a, double b);

/// The same to a relative error of 1e-10, by Gauss and Kronrod with 31 nodes, where the function bends
/// sharply.
double careful_integral(const CurveView& f, double a, double b);

/// By central differences of sixth order.
double derivative(const CurveView& f, double x);

/// Legendre's polynomial of order `n`, and its slope; -1 <= x <= 1.
double legendre(int n, double x);
double legendre_slope(int n, double x);

}  // namespace jampot
