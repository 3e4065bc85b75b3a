// Where does a vapour begin to condense? As `jampot dew`.
#include <iostream>

#include "jampot/report/points.hpp"

int main() {
  using namespace jampot;
  DewRequest request;
  request.mixture = mixture_of({"ethanol", "acetone", "toluene"}, "ideal");
  request.held = at_pressures({1e5, 2e5});
  request.compositions = {{0.3, 0.3, 0.4}};
  std::cout << answer(study(request)).json_text();
}
