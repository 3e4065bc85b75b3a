#pragma once
// One order of a Redlich-Kister expansion of a pair: n_i n_j (n_i - n_j)^k / N^(k+1), with its derivatives.
#include <span>

namespace jampot {

/// Sum of all amounts.
double total(std::span<const double> n);

/// The first and second derivatives of one order with the amount of i (number 0), of j (1) and of another
/// component (2).
struct ExpansionPart {
  double first[3]{};
  double second[3][3]{};
};

/// @param N the sum of all amounts, those of others included
ExpansionPart expansion_part(int order, double ni, double nj, double N, bool second);

/// The third derivative along ni + s ui, nj + s uj, N + s U at s = 0.
double expansion_third(int order, double ni, double nj, double N, double ui, double uj, double U);

/// The order itself.
double expansion_value(int order, double ni, double nj, double N);

}  // namespace jampot
