#pragma once
// Figures of vapour-liquid results.
#include <optional>
#include <vector>

#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/draw/triangle.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/regression/uncertainty.hpp"

namespace jampot {

/// Looks of the diagrams of boiling binaries.
struct FigureOptions {
  DisplayUnits units;             ///< units in which numbers are shown
  Basis basis = Basis::mole;      ///< mole or mass fractions
  std::vector<DataSet> measured;  ///< laid over, substances in the order of the mixture
  /// Azeotropes as handbooks have them, laid over as small crosses.
  std::vector<Azeotrope> handbook{};
};

/// Txy or Pxy at one or several pressures or temperatures: liquid curves solid, vapour curves dashed, one
/// colour for each curve, azeotropes and three-phase lines marked.
Figure boiling_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                      const FigureOptions& options);

/// Adds to a boiling figure a band of twice the standard uncertainty around liquid and vapour of one curve.
void add_band(Figure& figure, const BinaryCurve& curve, const UncertaintyBand& band,
              const FigureOptions& options, const Mixture& mixture);

/// Vapour against liquid composition with the diagonal.
Figure xy_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                 const FigureOptions& options);

/// The boiling diagram, the x-y diagram and the activity coefficients in one figure.
Figure overview_figure(const std::vector<BinaryCurve>& curves, const Mixture& mixture,
                       const FigureOptions& options);

/// Liquids of three substances and the vapours they give, an arrow from each liquid to its vapour; measured
/// vapours as open symbols.
Figure bubble_triangle(const std::vector<VlePoint>& points, const std::vector<DataSet>& measured,
                       const Mixture& mixture, const Triangle::Options& triangle, Basis basis);

/// Bubble or dew points along a line of compositions against the fraction of component `axis` in both phases.
Figure slice_figure(const std::vector<VlePoint>& points, std::size_t axis, Sought sought,
                    const Mixture& mixture, const FigureOptions& options);

}  // namespace jampot
