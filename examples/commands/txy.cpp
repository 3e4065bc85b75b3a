// The boiling diagram of two substances at pressures. As `jampot txy`.
#include <iostream>

#include "jampot/report/binary.hpp"

int main() {
  using namespace jampot;
  BinaryRequest request{mixture_of({"ethanol", "toluene"}, "ideal")};
  request.held = at_pressures({1e5, 2e5});
  std::cout << answer(study(request)).json_text();
}
