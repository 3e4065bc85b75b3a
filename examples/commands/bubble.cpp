// Where does a liquid begin to boil? As `jampot bubble`.
#include <iostream>

#include "jampot/report/points.hpp"

int main() {
  using namespace jampot;
  BubbleRequest request;
  request.mixture = mixture_of({"ethanol", "acetone", "toluene"}, "ideal");
  request.held = at_pressures({1e5, 2e5});
  request.compositions = {{0.3, 0.3, 0.4}};
  std::cout << answer(study(request)).json_text();
}
