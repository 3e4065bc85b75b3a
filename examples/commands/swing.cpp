// Two columns at two pressures. As `jampot swing`.
#include "jampot/report/swing.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  SwingRequest request;
  request.mixture = mixture_of({"tetrahydrofuran", "water"});
  request.feed = parse_feed("tetrahydrofuran=0.5, water=0.5", "", request.mixture.substances, Basis::mole);
  request.P_Pa = {1e5, 8e5};
  std::cout << answer(study(request)).json_text();
}
