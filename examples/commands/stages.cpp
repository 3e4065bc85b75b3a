// A column for methanol and water. As `jampot stages`.
#include "jampot/report/stages.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  StagesRequest request;
  request.mixture = mixture_of({"methanol", "water"});
  request.feed = parse_feed("methanol=0.4, water=0.6", "", request.mixture.substances, Basis::mole);
  request.top = {0.98, 0.02};
  request.bottom = {0.02, 0.98};
  std::cout << answer(study(request)).json_text();
}
