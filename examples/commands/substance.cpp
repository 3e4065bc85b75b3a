// What is known of a substance at two temperatures? As `jampot substance`.
#include "jampot/report/substance.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  SubstanceRequest request{Bank::built_in().require("MTBE")};
  request.T_K = {298.15, 328.15};
  std::cout << answer(study(request)).json_text();
}
