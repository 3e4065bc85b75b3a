// Two liquids in equilibrium: mutual solubilities and tie lines.
#include "kinds.hpp"

namespace jampot::kinds {

KindDescription two_liquids() {
  return {.kind = DataKind::lle,
          .name = "lle",
          .family = DataFamily::two_liquids,
          .uncertainties = {"u(T)", "u(x)", "u(w)"}};
}

}  // namespace jampot::kinds
