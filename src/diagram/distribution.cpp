#include "jampot/diagram/distribution.hpp"

#include <algorithm>

#include "jampot/basis/error.hpp"

namespace jampot {

Extraction roles_in(const TernaryDiagram& diagram, std::optional<std::size_t> solute,
                    std::optional<std::size_t> solvent) {
  if (solute && solvent && *solute == *solvent)
    throw RequestError("the solute and the solvent of an extraction are two substances");
  Extraction roles{1, 0, 2};  // in the order in which most people name them: carrier, solute, solvent
  const auto widest = std::max_element(diagram.regions.begin(), diagram.regions.end(),
                                       [](const TwoLiquidRegion& a, const TwoLiquidRegion& b) {
                                         return a.tie_lines.front().length() < b.tie_lines.front().length();
                                       });
  if (widest != diagram.regions.end() && widest->alpha_rich != widest->beta_rich)
    roles.solute = 3 - widest->alpha_rich - widest->beta_rich;
  if (solute) roles.solute = *solute;
  if (solvent && roles.solute == *solvent) roles.solute = *solvent == 1 ? 2 : 1;
  const std::size_t first = roles.solute == 0 ? 1 : 0, last = roles.solute == 2 ? 1 : 2;
  roles.solvent = solvent.value_or(last);
  roles.carrier = roles.solvent == last ? first : last;
  return roles;
}

Distribution distribution(const TernaryDiagram& diagram, const Extraction& roles,
                          const std::vector<Substance>& substances, Basis basis) {
  Distribution result{roles, {}};
  // Tie lines between the liquids of carrier and solvent; where no region is of that kind, all there are.
  const auto of_pair = [&](const TwoLiquidRegion& region) {
    return (region.alpha_rich == roles.carrier && region.beta_rich == roles.solvent) ||
           (region.alpha_rich == roles.solvent && region.beta_rich == roles.carrier);
  };
  const bool some = std::any_of(diagram.regions.begin(), diagram.regions.end(), of_pair);
  for (const ShownTieLine& shown : diagram.tie_lines) {
    if (some && !of_pair(diagram.regions[shown.region])) continue;
    const auto fractions = [&](const std::array<double, 3>& x) {
      return basis == Basis::mole ? std::vector<double>(x.begin(), x.end()) : mass_fractions(x, substances);
    };
    auto carrier = fractions(shown.line.alpha), solvent = fractions(shown.line.beta);
    // The liquid of the solvent is the one that holds more of it against the carrier.
    if (carrier[roles.solvent] * solvent[roles.carrier] > solvent[roles.solvent] * carrier[roles.carrier])
      std::swap(carrier, solvent);
    DistributionPoint point;
    point.in_carrier = carrier[roles.solute];
    point.in_solvent = solvent[roles.solute];
    if (!(point.in_carrier > 0) || !(solvent[roles.carrier] > 0)) continue;  // at the edge there is no solute
    point.coefficient = point.in_solvent / point.in_carrier;
    point.selectivity = point.coefficient * carrier[roles.carrier] / solvent[roles.carrier];
    result.points.push_back(point);
  }
  std::sort(
      result.points.begin(), result.points.end(),
      [](const DistributionPoint& a, const DistributionPoint& b) { return a.in_carrier < b.in_carrier; });
  return result;
}

}  // namespace jampot
