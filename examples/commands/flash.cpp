// What does a feed become when it is let down? As `jampot flash`.
#include "jampot/report/flash.hpp"

#include <iostream>

int main() {
  using namespace jampot;
  FlashRequest request{mixture_of({"methane", "propane", "n-hexane"}, "pr")};
  request.feeds = {{{1, 2, 3}, true, true}};      // mol/s
  request.specifications = {{{}, 1e6, {}, 0.0}};  // at 10 bar, with no heat added
  request.incoming = FeedCondition{333.15, 4e6};
  std::cout << answer(study(request)).json_text();
}
