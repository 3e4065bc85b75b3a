#include "jampot/study/substance.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <functional>

#include "jampot/basis/error.hpp"
#include "jampot/phase/vapour_models.hpp"

namespace jampot {

FindStudy study(const FindRequest& request) {
  const Bank& bank = request.bank != nullptr ? *request.bank : Bank::built_in();
  FindStudy study;
  for (const Substance* match : bank.search(request.text)) study.matches.push_back(*match);
  if (study.matches.empty())
    throw CalculationError(fmt::format(
        "nothing in the databank of {} substances resembles '{}'. Try a shorter part of the name, "
        "another name, the formula or the CAS number.",
        bank.size(), request.text));
  return study;
}

namespace {

// What can be had of a range: what does not exist is left out, unless nothing else is there.
template <class Result>
class Range {
 public:
  Range(const char* what, std::vector<Result>& found) : what_(what), found_(found) {}

  void take(const std::function<Result()>& one) {
    ++wanted_;
    try {
      found_.push_back(one());
    } catch (const CalculationError& error) {
      why_ = error.what();
    }
  }

  /// @throws CalculationError where nothing was found
  void tell(Notices& notices) const {
    if (found_.empty()) throw CalculationError(why_);
    if (found_.size() < wanted_)
      notices.add("points-left-out", fmt::format("{} of {} {} were left out: {}", wanted_ - found_.size(),
                                                 wanted_, what_, why_));
  }

 private:
  const char* what_;
  std::vector<Result>& found_;
  std::size_t wanted_ = 0;
  std::string why_;
};

// Every temperature with every pressure, or the two lists in step.
std::vector<std::pair<double, double>> combinations(const SubstanceRequest& request) {
  const std::vector<double>&T = request.T_K, &P = request.P_Pa;
  std::vector<std::pair<double, double>> pairs;
  if (!request.together) {
    for (const double T_K : T) {
      for (const double P_Pa : P) pairs.emplace_back(T_K, P_Pa);
    }
    return pairs;
  }
  if (T.size() != P.size())
    throw RequestError(
        fmt::format("`together` steps both ranges in pairs, but there are {} temperatures and {} pressures",
                    T.size(), P.size()));
  for (std::size_t k = 0; k < T.size(); ++k) pairs.emplace_back(T[k], P[k]);
  return pairs;
}

void find_states(const SubstanceRequest& request, SubstanceStudy& study) {
  const Substance& substance = request.substance;
  Range<StateProperties> range("states", study.states);
  const auto saturated = [&](double T_K) {
    return properties_at_saturation(substance, T_K, request.reference);
  };
  if (request.P_Pa.empty()) {
    for (const double T_K : request.T_K) range.take([&] { return saturated(T_K); });
  } else if (request.T_K.empty()) {
    for (const double P_Pa : request.P_Pa)
      range.take([&] { return saturated(saturation_at_pressure(substance, P_Pa).T_K); });
  } else {
    for (const auto& [T_K, P_Pa] : combinations(request))
      range.take(
          [&, T_K = T_K, P_Pa = P_Pa] { return properties_at(substance, T_K, P_Pa, request.reference); });
  }
  range.tell(study.notices);
}

}  // namespace

SubstanceStudy study(const SubstanceRequest& request) {
  SubstanceStudy study{request.substance, request.reference, {}, {}};
  if (request.T_K.empty() && request.P_Pa.empty()) return study;
  const auto count = [](const std::vector<double>& list) {
    return static_cast<double>(std::max<std::size_t>(1, list.size()));
  };
  demand_count("states", count(request.T_K) * (request.together ? 1 : count(request.P_Pa)), most_states);
  find_states(request, study);
  double low = HUGE_VAL, high = 0;
  for (const StateProperties& state : study.states) {
    if (request.substance.Tc_K && state.T_K > *request.substance.Tc_K) continue;
    low = std::min(low, state.T_K);
    high = std::max(high, state.T_K);
  }
  // Each doubt once for the whole range.
  if (high > 0) study.notices.add(vapour_pressure_notices(request.substance, low, high));
  for (const StateProperties& state : study.states) {
    for (const Notice& notice : state.notices) {
      if (!study.notices.has(notice.code)) study.notices.add(notice.code, notice.text);
    }
  }
  return study;
}

namespace {

SaturationByEquation by_equation(const std::string& name, const SaturationStudy& study, Notices& notices) {
  const auto equation = make_equation(name, {study.substance});
  SaturationByEquation result{name, pure_critical(*equation, 0), {}};
  for (const Notice& notice : equation->notices()) notices.add(notice.code, notice.text);
  for (const SaturationPoint& point : study.points)
    result.points.push_back(study.held.isobaric() ? pure_saturation_T(*equation, 0, point.P_Pa)
                                                  : pure_saturation_P(*equation, 0, point.T_K));
  return result;
}

}  // namespace

double SaturationStudy::coldest_K() const {
  return std::min_element(points.begin(), points.end(),
                          [](const auto& a, const auto& b) { return a.T_K < b.T_K; })
      ->T_K;
}

SaturationStudy study(const SaturationRequest& request) {
  const Substance& substance = request.substance;
  SaturationStudy study{substance, request.held, {}, {}, {}};
  if (request.held.values.empty()) throw RequestError("there is no pressure or temperature to hold");
  Range<SaturationPoint> range("points", study.points);
  for (const double value : request.held.values) {
    // The value that is given is the one that is held: at a pressure the temperature is sought.
    range.take([&] {
      return request.held.isobaric() ? saturation_at_pressure(substance, value)
                                     : saturation_at_temperature(substance, value);
    });
  }
  range.tell(study.notices);
  for (const std::string& name : request.equations)
    study.equations.push_back(by_equation(name, study, study.notices));
  double high = 0;
  for (const SaturationPoint& point : study.points) high = std::max(high, point.T_K);
  study.notices.add(vapour_pressure_notices(substance, study.coldest_K(), high));
  return study;
}

}  // namespace jampot
