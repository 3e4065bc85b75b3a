#pragma once
// Tables of binary diagrams, for the commands that print them.
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/files/json_results.hpp"
#include "jampot/files/table.hpp"
#include "jampot/phase/composition.hpp"

namespace jampot {

/// "101.325 kPa" or "60 degC": what is held along the curve.
std::string held_text(const BinaryCurve& curve, const DisplayUnits& units);

/// A mole fraction of the first substance in the basis that is shown.
double shown_fraction(double x1, const Mixture& mixture, Basis basis);

Table curve_table(const BinaryCurve& curve, const Mixture& mixture, Basis basis, const DisplayUnits& units);
Table azeotrope_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis);
Table critical_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis);
Table three_phase_table(const std::vector<BinaryCurve>& curves, const Mixture& mixture, Basis basis);
Json to_json(const BinaryCurve& curve, const std::vector<Substance>& substances);
Table deviation_table(const Comparison& comparison, const std::string& name);

}  // namespace jampot
