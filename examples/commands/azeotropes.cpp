// All azeotropes of three substances. As `jampot azeotropes`.
#include "jampot/report/azeotropes.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  AzeotropesRequest request{mixture_of({"acetone", "chloroform", "methanol"}, "unifac")};
  request.P_Pa = {101325};
  std::cout << answer(study(request)).json_text();
}
