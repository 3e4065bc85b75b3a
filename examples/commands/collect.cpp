// A folder of measured data made into a collection of pair parameters. As `jampot collect`.
#include "jampot/collection/collect.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  CollectRequest request{".", "mine.collection"};
  request.models = {"nrtl"};
  std::cout << answer(study(request)).json_text();
}
