#include "jampot/liquid/ideal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/liquid/working.hpp"

namespace jampot {

void IdealSolution::evaluate(std::span<const double>, std::span<double> ln_gamma, std::span<double> dT,
                             std::span<double> dn) {
  std::fill(ln_gamma.begin(), ln_gamma.end(), 0.0);
  std::fill(dT.begin(), dT.end(), 0.0);
  std::fill(dn.begin(), dn.end(), 0.0);
}

void IdealSolution::write_out(Working& page) const {
  const std::size_t n = page.x().size();
  page.say("ideal solution: gamma_i = 1");
  for (std::size_t i = 0; i < n; ++i) page.say(fmt::format("ln gamma_{} = 0", i + 1));
}

ModelDescription IdealSolution::description() {
  ModelDescription description{"ideal"};
  description.splits = false;
  description.make = [](const std::vector<Substance>& substances, const std::vector<PairParameters>&) {
    return std::make_unique<IdealSolution>(substances.size());
  };
  return description;
}

}  // namespace jampot
