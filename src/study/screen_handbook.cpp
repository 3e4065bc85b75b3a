#include "screen_handbook.hpp"

#include <algorithm>
#include <cmath>

namespace jampot {
namespace {

// Of facts of this kind that count the one measured nearest to this temperature.
const Fact* nearest(const std::vector<const Fact*>& facts, FactKind kind, double T_K) {
  constexpr double near_K = 15;
  const Fact* best = nullptr;
  for (const Fact* fact : facts) {
    if (fact->kind != kind || fact->grade > 'B') continue;
    const double off = std::abs(fact->T_K - T_K);
    if (off < near_K && (best == nullptr || off < std::abs(best->T_K - T_K))) best = fact;
  }
  return best;
}

// Mass fraction of the first in a liquid of two with this mole fraction of it.
double mass_fraction(double x, const Substance& first, const Substance& second) {
  const double own = x * first.molar_mass_kg_mol, other = (1 - x) * second.molar_mass_kg_mol;
  return own / (own + other);
}

}  // namespace

void take_from_handbooks(ScreenedSolvent& solvent, const std::vector<Substance>& pair, double T_K,
                         const std::vector<HeldFact>& held) {
  const Substance &solute = pair[0], &carrier = pair[1], &candidate = solvent.substance;
  ExtractionFigures figures = *solvent.extraction;
  const Fact* solubility =
      nearest(KnownFacts::built_in().about(carrier.name, candidate.name), FactKind::solubility, T_K);
  if (solubility != nullptr) {
    const bool first = solubility->substances[0] == candidate.name;
    const auto& of_candidate = first ? solubility->x1_dilute : solubility->x2_dilute;
    const auto& of_carrier = first ? solubility->x2_dilute : solubility->x1_dilute;
    if (of_candidate) figures.loss = mass_fraction(*of_candidate, candidate, carrier);
    if (of_carrier) figures.carrier = mass_fraction(*of_carrier, carrier, candidate);
    solvent.handbook_solubility = of_candidate || of_carrier;
  }
  std::vector<const Fact*> of_three;
  for (const Fact* fact : KnownFacts::built_in().among({solute.name, carrier.name, candidate.name})) {
    if (fact->substances == std::vector<std::string>{solute.name, carrier.name, candidate.name})
      of_three.push_back(fact);
  }
  const Fact* distribution = nearest(of_three, FactKind::distribution, T_K);
  if (distribution != nullptr && distribution->value > 0) {
    figures.distribution = distribution->value;
    solvent.handbook_distribution = true;
  }
  if (!solvent.handbook_solubility && !solvent.handbook_distribution) return;
  figures.selectivity = figures.distribution * (1 - figures.loss) / figures.carrier;
  solvent.predicted = solvent.extraction;
  solvent.extraction = figures;
  // A model that fails on the solubilities and still gives the distribution coefficient stays in doubt.
  if (!solvent.handbook_distribution) return;
  solvent.facts_taken = static_cast<int>(std::count_if(held.begin(), held.end(), [&](const HeldFact& one) {
    const bool taken = one.fact->kind == FactKind::distribution ||
                       (solvent.handbook_solubility && one.fact->kind == FactKind::solubility);
    return taken && one.fails();
  }));
}

}  // namespace jampot
