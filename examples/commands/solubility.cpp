// Mutual solubilities against temperature. As `jampot solubility`.
#include "jampot/report/solubility.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  SolubilityRequest request{mixture_of({"1-butanol", "water"})};
  request.T_K = {283.15, 303.15, 323.15};
  std::cout << answer(study(request)).json_text();
}
