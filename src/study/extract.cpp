#include "jampot/study/extract.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "liquids.hpp"

namespace jampot {

ExtractStudy study(const ExtractRequest& request) {
  const std::size_t n = request.mixture.substances.size();
  if (n != 3)
    throw RequestError(fmt::format(
        "an extraction has solute, carrier and solvent, named in this order; {} substances are named", n));
  demand_temperature(request.T_K);
  if (!(request.solvent_factor > 1))
    throw RequestError("`solvent-factor` lies above 1: the least needs infinitely many stages");
  ExtractStudy study;
  study.contenders = liquid_contenders(request.mixture, {}, study.notices);
  study.T_K = request.T_K;
  study.basis = request.basis;
  study.feed = request.feed;
  add_liquid_notices(study.contenders, request.T_K, request.T_K, study.notices);
  Mixture& mixture = study.contenders.front().mixture;
  study.diagram = ternary_diagram(mixture.activity(), request.T_K);
  study.notices.add(study.diagram.notices);
  const ExtractionLiquids liquids = [&] {
    try {
      return ExtractionLiquids::of(study.diagram, {0, 1, 2}, study.substances(), request.basis);
    } catch (const CalculationError& error) {
      throw CalculationError(fmt::format("by {}: {}", mixture.liquid_model(), error.what()));
    }
  }();
  const std::vector<double> z = request.feed.fractions();
  const auto feed = request.basis == Basis::mole ? z : mass_fractions(z, study.substances());
  study.task = {{feed[0], feed[1], feed[2]}, {0, 0, 1}, request.raffinate};
  if (!(feed[0] > 0)) throw RequestError(fmt::format("the feed holds no {}", study.substances()[0].name));
  study.least = minimum_solvent(liquids, study.task);
  const double solvent = request.solvent.value_or(request.solvent_factor * study.least);
  study.stages = counter_current(liquids, study.task, solvent);
  try {
    study.cross = cross_flow(liquids, study.task, solvent / std::max(1.0, std::ceil(study.stages.count)));
  } catch (const CalculationError& error) {
    study.no_cross = error.what();
  }
  // The slope of the tie lines where there is hardly any solute.
  const Fractions R = liquids.raffinate(0.5), E = liquids.extract(0.5);
  study.coefficient = E[0] / R[0];
  study.selectivity = study.coefficient * R[1] / E[1];
  if (study.coefficient < 0.3)
    study.notices.add(
        "weak-solvent",
        fmt::format("{} extracts little {}: the distribution coefficient without solute is {:.2g} by {}",
                    study.substances()[2].name, study.substances()[0].name, study.coefficient,
                    request.basis == Basis::mole ? "moles" : "mass"));
  return study;
}

}  // namespace jampot
