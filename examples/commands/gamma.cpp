// Limiting activity coefficients by UNIFAC and MOSCED. As `jampot gamma`.
#include "jampot/report/gamma.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  GammaRequest request{mixture_of({"ethanol", "water"}, "unifac")};
  request.T_K = {303.15, 333.15};
  request.limiting = true;
  request.mosced = MoscedPlace::last;
  std::cout << answer(study(request)).json_text();
}
