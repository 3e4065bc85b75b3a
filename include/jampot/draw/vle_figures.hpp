#pragma once
// Figures of vapour-liquid results.
#include <optional>
#include <vector>

#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/regression/fit.hpp"

namespace jampot {

struct FigureOptions {
  DisplayUnits units;
  Basis basis = Basis::mole;
  std::vector<DataSet> measured;  ///< laid over, substances in the order of the mixture
};

/// Txy or Pxy at one or several pressures or temperatures: liquid curves solid, vapour curves dashed, one
/// colour for each curve, azeotropes and three-phase lines marked.
Figure boiling_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                      const FigureOptions& options);

/// Vapour against liquid composition with the diagonal.
Figure xy_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                 const FigureOptions& options);

/// Standardised residuals of a fit against the liquid composition: boiling point above, vapour below.
Figure residual_figure(const Fit& fit);

}  // namespace jampot
