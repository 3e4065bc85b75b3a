// Vapour against liquid composition. As `jampot xy`.
#include <iostream>

#include "jampot/report/binary.hpp"

int main() {
  using namespace jampot;
  BinaryRequest request{mixture_of({"ethanol", "toluene"}, "ideal")};
  request.held = at_pressures({101325});
  std::cout << answer(study(request), {{}, BinaryDiagram::xy}).json_text();
}
