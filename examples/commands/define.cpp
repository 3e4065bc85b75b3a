// A user-defined component from its groups. As `jampot define`.
#include "jampot/report/define.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  DefineRequest request{"try"};
  request.known.groups = parse_groups("CH3=4, C=1, O=1");
  request.known.Tb_K = 328.35;
  request.against = Bank::built_in().require("MTBE");
  std::cout << answer(study(request)).json_text();
}
