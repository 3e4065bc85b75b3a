// Pair parameters from a prediction. As `jampot estimate`.
#include "jampot/report/estimate.hpp"

#include <iostream>

#include "jampot/phase/mixture.hpp"

int main() {
  using namespace jampot;
  EstimateRequest request{substances_named({"ethanol", "toluene"})};
  request.options.model = "wilson";
  request.options.T_range_K = {333.15, 383.15};
  std::cout << answer(study(request)).json_text();
}
