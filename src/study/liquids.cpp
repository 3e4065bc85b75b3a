#include "liquids.hpp"

#include <fmt/format.h>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/known/disagreement.hpp"
#include "jampot/liquid/models.hpp"

namespace jampot {

std::vector<Contender> liquid_contenders(const MixtureSpec& spec, const std::vector<MixtureSpec>& compare,
                                         Notices& notices) {
  std::vector<Contender> contenders = prepare_all(spec, compare, notices, Purpose::liquid_liquid);
  for (Contender& contender : contenders) {
    const std::string model = contender.mixture.liquid_model();
    if (can_split(model)) continue;
    throw CalculationError(fmt::format(
        "{} cannot describe two liquids, whatever its parameters; nrtl, uniquac or unifac-lle can (`liquid`)",
        model));
  }
  return contenders;
}

void add_liquid_notices(const std::vector<Contender>& contenders, double Tmin_K, double Tmax_K,
                        Notices& notices) {
  for (const Contender& contender : contenders) {
    notices.add(suitability(contender.mixture, Purpose::liquid_liquid, Tmin_K, Tmax_K));
    notices.add(against_handbooks(contender.mixture, {0, 0, Tmin_K, Tmax_K}));
    notices.add(models_disagree(contender.mixture, {0, 0, Tmin_K, Tmax_K}));
    for (const Notice& notice : contender.mixture.range_notices(Tmin_K, Tmax_K)) {
      if (notice.code == "parameter-range") notices.add(notice.code, notice.text);
    }
    for (const Substance& substance : contender.mixture.substances()) {
      // A liquid is drawn even where it would be frozen.
      if (substance.Tm_K && Tmin_K < *substance.Tm_K && !notices.has("may-freeze"))
        notices.add("may-freeze",
                    fmt::format("{} melts at {:.1f} degC: below that a solid may form, which is not "
                                "looked for",
                                substance.name, *substance.Tm_K - celsius_zero));
    }
  }
}

}  // namespace jampot
