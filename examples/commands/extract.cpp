// Acetic acid out of water with ethyl acetate. As `jampot extract`.
#include "jampot/report/extract.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  ExtractRequest request;
  request.mixture = mixture_of({"acetic acid", "water", "ethyl acetate"});
  request.basis = Basis::mass;
  request.feed = parse_feed("acetic acid=0.2, water=0.8", "", request.mixture.substances, Basis::mass);
  request.raffinate = 0.02;
  std::cout << answer(study(request)).json_text();
}
