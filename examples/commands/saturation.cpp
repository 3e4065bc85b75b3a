// Where does a substance boil? As `jampot saturation`.
#include <iostream>

#include "jampot/report/substance.hpp"

int main() {
  using namespace jampot;
  SaturationRequest request{Bank::built_in().require("water"), at_pressures({1e5, 2e5, 5e5})};
  std::cout << answer(study(request)).json_text();
}
