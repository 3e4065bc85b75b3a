// A residue curve map. As `jampot residue`.
#include "jampot/report/residue.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  ResidueRequest request{mixture_of({"acetone", "chloroform", "methanol"}, "unifac")};
  request.P_Pa = 101325;
  std::cout << answer(study(request)).json_text();
}
