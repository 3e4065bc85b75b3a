// Columns and decanters that make pure products of three substances. As `jampot route`.
#include "jampot/report/route.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  RouteRequest request;
  request.mixture = mixture_of({"ethanol", "water", "benzene"}, "unifac");
  request.P_Pa = 101325;
  request.feed = parse_feed("ethanol=0.85, water=0.15", "", request.mixture.substances, Basis::mole);
  request.decanter_T_K = 298.15;
  std::cout << answer(study(request)).json_text();
}
