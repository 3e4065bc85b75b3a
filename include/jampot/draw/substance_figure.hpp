#pragma once
// Two substances beside each other: what an estimate is worth, seen on one that is known.
#include "jampot/basis/quantity.hpp"
#include "jampot/draw/figure.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {

/// Properties at saturation of both substances against temperature, from 0.45 to 0.95 of the lower critical
/// temperature: vapour pressure, enthalpy of vaporisation, volume and heat capacity of liquid and vapour,
/// fugacity coefficient, liquid viscosity. A property that neither has gets no panel.
/// @throws CalculationError where one of them has no vapour pressure
Figure substance_comparison_figure(const Substance& own, const Substance& other, const DisplayUnits& units);

/// Properties of the states against temperature, one panel each, liquid and vapour as two curves.
Figure state_figure(const std::string& title, const std::vector<StateProperties>& states,
                    const DisplayUnits& units);

}  // namespace jampot
