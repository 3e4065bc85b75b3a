#pragma once
// Mutual solubilities as a figure.
#include "jampot/basis/quantity.hpp"
#include "jampot/diagram/solubility.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/measured/data_set.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

/// A curve with the name it is labelled by.
struct LabelledSolubility {
  std::string label;      ///< of the model, where there are several
  SolubilityCurve curve;  ///< the curve
};

/// Looks of a solubility diagram.
struct SolubilityFigureOptions {
  DisplayUnits units;         ///< units in which numbers are shown
  Basis basis = Basis::mole;  ///< mole or mass fractions
  bool logarithmic =
      false;  ///< each solubility by itself on a logarithmic axis against T, instead of T over composition
  std::vector<DataSet> measured;  ///< sets laid over it
};

Figure solubility_figure(const std::vector<LabelledSolubility>& curves,
                         const std::vector<Substance>& substances, const SolubilityFigureOptions& options);

}  // namespace jampot
