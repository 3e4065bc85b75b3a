// A feed parted into its liquids. As `jampot split`.
#include "jampot/report/split.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  SplitRequest request{mixture_of({"ethyl acetate", "ethanol", "water"})};
  request.feed = {{0.3, 0.05, 0.65}};  // mole fractions; with amounts: {{mol/s ...}, true, true}
  request.T_K = {298.15};
  std::cout << answer(study(request)).json_text();
}
