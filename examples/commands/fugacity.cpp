// Fugacity coefficients by an equation of state. As `jampot fugacity`.
#include "jampot/report/fugacity.hpp"

#include <iostream>

#include "jampot/phase/mixture.hpp"

int main() {
  using namespace jampot;
  FugacityRequest request{substances_named({"propane", "n-hexane"}), {"pr", "pc-saft"}};
  request.T_K = {353.15};
  request.P_Pa = {5e5, 1e6};
  request.compositions = {{0.4, 0.6}};
  std::cout << answer(study(request)).json_text();
}
