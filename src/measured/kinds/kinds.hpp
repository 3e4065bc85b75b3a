#pragma once
// Every kind of measured data, each in a source file of its own beside this one; data_kind.cpp lists them.
#include "jampot/measured/data_kind.hpp"

namespace jampot::kinds {

KindDescription boiling(DataKind kind);
KindDescription two_liquids();
KindDescription limiting_gamma();
KindDescription activity_coefficient();
KindDescription excess_enthalpy();

}  // namespace jampot::kinds
