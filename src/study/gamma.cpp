#include "jampot/study/gamma.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/known/held.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/mosced.hpp"
#include "jampot/liquid/working.hpp"
#include "jampot/study/held.hpp"

namespace jampot {
namespace {

// Says what is doubtful about a model; a substance without a vapour pressure is no reason not to.
void add_suitability(const MixtureSpec& spec, double Tmin_K, double Tmax_K, Notices& notices) {
  try {
    const Mixture mixture(spec.substances, spec.liquid, spec.parameters);
    notices.add(suitability(mixture, Purpose::vapour_liquid, Tmin_K, Tmax_K));
    notices.add(against_handbooks(mixture, {0, 0, Tmin_K, Tmax_K}));
    for (const Notice& notice : mixture.range_notices(Tmin_K, Tmax_K)) {
      if (notice.code == "parameter-range") notices.add(notice.code, notice.text);
    }
  } catch (const CalculationError&) {
    return;
  }
}

class Gammas {
 public:
  explicit Gammas(const GammaRequest& request) : request_(request) {
    if (request.T_K.empty()) throw RequestError("there is no temperature for activity coefficients");
    demand_count("states", static_cast<double>(request.T_K.size()) * std::max(1, request.points),
                 10 * most_states);
    if (request.points < 3 || request.points > 100001)
      throw RequestError("`points`: expected a number from 3 to 100001");
    const bool mosced = request.mosced != MoscedPlace::none;
    if (mosced && !request.limiting) needs_pairs("mosced");  // says what MOSCED is for
    if (mosced && request.working)
      throw RequestError("`working` is written out for models of the whole composition");
    if (mosced && !request.measured.empty())
      throw RequestError("`measured` cannot be compared with mosced, which has no model over composition");
    study_.T_K = request.T_K;
    study_.limiting = request.limiting;
    study_.whole_line = !request.limiting && request.compositions.empty();
    find_candidates();
    if (study_.whole_line && substances().size() > 2)
      throw RequestError("with more than two substances give the points: `composition` \"A=0.3, B=0.2\"");
  }

  GammaStudy found() {
    const auto [cold, hot] = std::minmax_element(request_.T_K.begin(), request_.T_K.end());
    for (const GammaCandidate& candidate : study_.candidates) {
      if (candidate.model) add_suitability(candidate.spec, *cold, *hot, study_.notices);
    }
    if (request_.limiting) {
      limits();
    } else {
      for (std::size_t k = 0; k < study_.candidates.size(); ++k) series(k);
    }
    overlays();
    if (request_.working) work();
    return std::move(study_);
  }

 private:
  const std::vector<Substance>& substances() const { return study_.substances(); }

  void find_candidates() {
    std::vector<GammaCandidate>& list = study_.candidates;
    MixtureSpec own = request_.mixture;
    if (request_.mosced == MoscedPlace::alone) own.liquid = "ideal";
    const auto all = settled_all(own, request_.compare, Purpose::vapour_liquid, study_.notices);
    const auto add_mosced = [&] { list.push_back({"mosced", all.front(), nullptr}); };
    const bool before = request_.mosced == MoscedPlace::alone || request_.mosced == MoscedPlace::first;
    if (before) add_mosced();
    for (const MixtureSpec& spec : all) {
      if (request_.mosced == MoscedPlace::alone) break;
      list.push_back(
          {spec.label(), spec, make_activity_model(spec.liquid, spec.substances, spec.parameters)});
    }
    if (request_.mosced == MoscedPlace::last) add_mosced();
    if (request_.mosced == MoscedPlace::none) return;
    for (const Substance& substance : substances()) {
      if (substance.name != "water") continue;
      study_.notices.add("mosced-water",
                         "for water only the MOSCED parameters of 2005 are available, not the later refit. "
                         "Infinite-dilution values in water can be wrong by a factor of two and more");
    }
  }

  void limits() {
    for (std::size_t i = 0; i < substances().size(); ++i) {
      for (std::size_t j = 0; j < substances().size(); ++j) {
        if (i == j) continue;
        for (const double T_K : request_.T_K) {
          LimitingGamma one{i, j, T_K, {}};
          for (const GammaCandidate& candidate : study_.candidates)
            one.ln_gamma.push_back(candidate.model
                                       ? limiting_ln_gamma(*candidate.model, T_K, i, j)
                                       : mosced_ln_gamma_inf(substances()[i], substances()[j], T_K));
          study_.limits.push_back(std::move(one));
        }
      }
    }
  }

  void series(std::size_t number) {
    ActivityModel& model = *study_.candidates[number].model;
    for (const double T_K : request_.T_K) {
      GammaSeries one{number, T_K, {}};
      if (study_.whole_line) {
        one.points = gamma_line(model, T_K, static_cast<std::size_t>(request_.points));
      } else {
        for (const auto& x : request_.compositions) one.points.push_back(gamma_at(model, T_K, x));
      }
      study_.series.push_back(std::move(one));
    }
  }

  void overlays() {
    for (const DataSet& measured : request_.measured) {
      const DataSet set = in_order_of(substances(), measured);
      study_.notices.add(set.notices);
      for (std::size_t k = 0; k < study_.candidates.size(); ++k) {
        GammasBeside one{set.name, k, measured_gammas(*study_.candidates[k].model, set),
                         vapour_liquid(set.kind)};
        if (one.points.empty())
          throw RequestError(fmt::format("no point of {} gives activity coefficients", set.name));
        if (k == 0 && !request_.limiting) tell_elsewhere(one);
        study_.beside.push_back(std::move(one));
      }
    }
  }

  void tell_elsewhere(const GammasBeside& set) {
    const auto [cold, hot] = std::minmax_element(set.points.begin(), set.points.end(),
                                                 [](const auto& a, const auto& b) { return a.T_K < b.T_K; });
    const auto [first, last] = std::minmax_element(request_.T_K.begin(), request_.T_K.end());
    constexpr double apart_K = 2;
    if (cold->T_K >= *first - apart_K && hot->T_K <= *last + apart_K) return;
    study_.notices.add(
        "measured-elsewhere",
        fmt::format(
            "{} was measured at {:.1f} to {:.1f} degC, not at the temperature of the curves; deviations "
            "are taken at the points' own",
            set.set, cold->T_K - celsius_zero, hot->T_K - celsius_zero));
  }

  void work() {
    const std::size_t n = substances().size();
    const std::vector<double> x = request_.compositions.empty()
                                      ? std::vector<double>(n, 1.0 / static_cast<double>(n))
                                      : request_.compositions.front();
    study_.working = working(*study_.candidates.front().model, substances(), request_.T_K.front(), x);
  }

  const GammaRequest& request_;
  GammaStudy study_;
};

}  // namespace

GammaStudy study(const GammaRequest& request) {
  return Gammas(request).found();
}

}  // namespace jampot
