// Which pair parameters would be used? As `jampot pairs`.
#include "jampot/report/pairs.hpp"

#include <iostream>

#include "jampot/phase/mixture.hpp"

int main() {
  using namespace jampot;
  std::cout << answer(study(PairsRequest{substances_named({"acetone", "methanol", "water"})})).json_text();
}
