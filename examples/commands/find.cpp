// What may a half-remembered name mean? As `jampot find`.
#include <iostream>

#include "jampot/report/substance.hpp"

int main() {
  using namespace jampot;
  std::cout << answer(study(FindRequest{"etyl"})).json_text();
}
