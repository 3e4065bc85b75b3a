#pragma once
// One state as bars: what is in each of its phases.
#include <string>
#include <vector>

#include "jampot/draw/figure.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/substance/substance.hpp"

namespace jampot {

/// A phase, or the feed, for its bar.
struct PhaseBar {
  std::string name;               ///< "feed", "vapour", "liquid rich in water"
  double amount = 1;              ///< share of the whole, in moles or mass by the basis
  std::vector<double> fractions;  ///< of its components, summing to 1, by the same basis
};

/// A bar for each phase, divided by its fractions; a colour for each component, named below.
Figure phases_figure(const std::vector<PhaseBar>& bars, const std::vector<Substance>& substances,
                     Basis basis);

}  // namespace jampot
