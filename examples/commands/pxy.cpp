// The boiling diagram of two substances at temperatures. As `jampot pxy`.
#include <iostream>

#include "jampot/report/binary.hpp"

int main() {
  using namespace jampot;
  BinaryRequest request{mixture_of({"ethanol", "toluene"}, "ideal")};
  request.held = at_temperatures({333.15, 343.15});
  std::cout << answer(study(request)).json_text();
}
