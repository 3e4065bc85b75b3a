// What handbooks have about a pair, and which model does best on it. As `jampot known`.
#include "jampot/report/known.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  std::cout << answer(study(KnownRequest{mixture_of({"ethanol", "water"})})).json_text();
}
