#pragma once
// The construction of stages on x-y.
#include "jampot/basis/quantity.hpp"
#include "jampot/design/binary_column.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// Equilibrium, diagonal, operating lines, line of the feed and the steps between them, in mole fractions of
/// the substance that is enriched at the top.
Figure stages_figure(const BinaryCurve& curve, std::size_t light, const ColumnTask& task,
                     const ColumnStages& stages, const Substance& substance);

}  // namespace jampot
