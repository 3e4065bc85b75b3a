// Which solvent takes acetic acid out of water. As `jampot screen`.
#include "jampot/report/screen.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  ScreenRequest request;
  request.mixture = mixture_of({"acetic acid", "water"});
  request.families = {"esters"};
  std::cout << answer(study(request)).json_text();
}
