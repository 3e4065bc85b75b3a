// Boiling points and vapour pressures of liquids, with or without the composition of the vapour.
#include "kinds.hpp"

namespace jampot::kinds {

KindDescription boiling(DataKind kind) {
  KindDescription description{.kind = kind, .family = DataFamily::boiling};
  description.isobaric = kind == DataKind::txy || kind == DataKind::tx;
  description.has_vapour = kind == DataKind::txy || kind == DataKind::pxy;
  description.name = description.isobaric ? (description.has_vapour ? "txy" : "tx")
                                          : (description.has_vapour ? "pxy" : "px");
  description.uncertainties = {"u(T)", "u(P)", "u(x)", "u(w)"};
  if (description.has_vapour) description.uncertainties.push_back("u(y)");
  return description;
}

}  // namespace jampot::kinds
