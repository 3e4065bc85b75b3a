// The liquid-liquid diagram of three substances. As `jampot ternary`.
#include "jampot/report/ternary.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  TernaryRequest request{mixture_of({"water", "ethanol", "ethyl acetate"})};
  request.T_K = 298.15;
  std::cout << answer(study(request)).json_text();
}
