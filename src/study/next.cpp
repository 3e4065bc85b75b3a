#include "jampot/study/next.hpp"

#include <fmt/format.h>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {

void read_aim(const std::string& text, NextOptions& options) {
  for (const Aim aim : {Aim::azeotrope, Aim::limits, Aim::split, Aim::parameters, Aim::models}) {
    if (text != name_of(aim)) continue;
    options.aim = aim;
    return;
  }
  const std::size_t at = text.find(" at x"), equals = text.find('=');
  if (at != std::string::npos && equals != std::string::npos &&
      (text.starts_with("T ") || text.starts_with("P "))) {
    const auto x1 = parse_number(trimmed(std::string_view(text).substr(equals + 1)));
    if (x1 && *x1 > 0 && *x1 < 1) {
      options.aim = Aim::boiling;
      options.x1 = *x1;
      return;
    }
  }
  throw RequestError(fmt::format(
      "'{}' is not an aim; the aims are azeotrope, limits, split, parameters, models and \"T at x=0.3\" "
      "(or \"P at x=0.3\")",
      text));
}

NextStudy study(const NextRequest& request) {
  NextStudy study;
  study.fit = fit(request.sets, request.fit);
  study.notices = study.fit.notices;
  if (!request.rival.empty()) {
    FitOptions other = request.fit;
    other.model = request.rival;
    other.hold.clear();
    other.release.clear();
    other.tie.clear();
    other.priors.clear();
    study.rival = fit(request.sets, other);
  }
  study.result = next_measurement(study.fit, request.options, study.rival ? &*study.rival : nullptr);
  if (study.fit.notices.has("misfit"))
    study.notices.add("plan-of-misfit",
                      "the plan assumes that the model and the stated uncertainties are right, but the fit "
                      "shows that one of them is not: find out which before measuring more");
  return study;
}

}  // namespace jampot
