#include "jampot/equilibrium/suitability.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/unifac.hpp"
#include "jampot/substance/properties.hpp"

namespace jampot {
namespace {

double celsius(double T_K) {
  return T_K - celsius_zero;
}

class Judge {
 public:
  Judge(const Mixture& mixture, Purpose purpose, double Tmin_K, double Tmax_K)
      : mixture_(mixture), purpose_(purpose), Tmin_K_(Tmin_K), Tmax_K_(Tmax_K) {}

  Notices judge(std::optional<double> P_Pa) {
    for (std::size_t i = 0; i < mixture_.size(); ++i) {
      for (std::size_t j = i + 1; j < mixture_.size(); ++j) against_prediction(i, j);
    }
    purposes();
    group_interactions();
    if (P_Pa && mixture_.vapour_model() == "ideal") vapour(*P_Pa);
    return std::move(notices_);
  }

 private:
  const Substance& substance(std::size_t i) const { return mixture_.substances()[i]; }

  // The chosen model for two of the substances alone.
  std::unique_ptr<ActivityModel> chosen(std::size_t i, std::size_t j) const {
    ParameterCollection parameters;
    for (const PairParameters& pair : mixture_.parameters()) parameters.add(pair);
    return make_activity_model(mixture_.liquid_model(), {substance(i), substance(j)}, parameters);
  }

  void against_prediction(std::size_t i, std::size_t j) {
    const std::string model = mixture_.liquid_model();
    if (model.starts_with("unifac")) return;
    std::unique_ptr<ActivityModel> prediction, own;
    try {
      prediction = make_activity_model("unifac", {substance(i), substance(j)}, {});
      own = chosen(i, j);
    } catch (const std::runtime_error&) {
      return;  // without groups nothing is predicted; a model of the caller's own is not judged
    }
    if (model == "ideal") ideal(*prediction, i, j);
    const auto predicted = binary_splits(*prediction, Tmin_K_);
    if (predicted.empty()) return;
    const std::string says = fmt::format(
        "UNIFAC predicts that {} and {} form two liquids at {:.1f} degC (between x({}) = "
        "{:.3f} and {:.3f})",
        substance(i).name, substance(j).name, celsius(Tmin_K_), substance(i).name, predicted.front().x1_alpha,
        predicted.front().x1_beta);
    if (!can_split(model)) {
      notices_.add("model-cannot-split",
                   fmt::format("{}; the {} model cannot describe two liquids, whatever its "
                               "parameters. NRTL or UNIQUAC can",
                               says, model));
    } else if (binary_splits(*own, Tmin_K_).empty()) {
      notices_.add("predicted-split", fmt::format("{}; the {} model with the parameters in use predicts one "
                                                  "liquid. Measured solubilities would decide",
                                                  says, model));
    }
  }

  // How far boiling points and vapours of an ideal liquid will be off, at the middle temperature.
  void ideal(ActivityModel& prediction, std::size_t i, std::size_t j) {
    const auto &first = substance(i).vapour_pressure, &second = substance(j).vapour_pressure;
    if (!first || !second) return;
    const double T = (Tmin_K_ + Tmax_K_) / 2, P1 = first->P_Pa(T), P2 = second->P_Pa(T);
    prediction.set_temperature(T);
    double most_T = 0, most_y = 0;
    std::array<double, 2> limits{};
    constexpr int steps = 20;
    for (int k = 0; k <= steps; ++k) {
      const double x = static_cast<double>(k) / steps;
      std::array<double, 2> ln_gamma{};
      prediction.evaluate(std::array{x, 1 - x}, ln_gamma);
      if (k == 0) limits[0] = ln_gamma[0];
      if (k == steps) limits[1] = ln_gamma[1];
      const double real = x * std::exp(ln_gamma[0]) * P1, rest = (1 - x) * std::exp(ln_gamma[1]) * P2;
      const double ideal = x * P1 + (1 - x) * P2, y = x * P1 / ideal;
      const double slope = y * first->dln_P_dT(T) + (1 - y) * second->dln_P_dT(T);
      most_T = std::max(most_T, std::abs(std::log((real + rest) / ideal)) / slope);
      most_y = std::max(most_y, std::abs(real / (real + rest) - y));
    }
    constexpr double small_T = 0.5, small_y = 0.01, useless_T = 5, useless_y = 0.1;
    if (most_T < small_T && most_y < small_y) return;
    notices_.add(
        "not-ideal",
        fmt::format("the liquid is taken as ideal, but UNIFAC predicts infinite-dilution activity "
                    "coefficients of {:.2f} "
                    "({} in {}) and {:.2f} ({} in {}): boiling points are off by up to {:.1f} K and vapour "
                    "compositions by up to {:.3f}{}",
                    std::exp(limits[0]), substance(i).name, substance(j).name, std::exp(limits[1]),
                    substance(j).name, substance(i).name, most_T, most_y,
                    most_T > useless_T || most_y > useless_y ? "; the diagram will be wrong" : ""));
  }

  void purposes() {
    for (const PairParameters& pair : mixture_.parameters()) {
      if (pair.fitted_to.empty()) continue;
      const bool for_vle = pair.fitted_to == "vle", wants_vle = purpose_ == Purpose::vapour_liquid;
      if (for_vle == wants_vle || pair.fitted_to.find('+') != std::string::npos) continue;
      notices_.add(
          "fitted-for-other-purpose",
          fmt::format("the {} parameters of {} and {} were fitted to {} equilibria and are used for {} ones: "
                      "such parameters rarely carry over",
                      pair.model, pair.between[0], pair.between[1],
                      for_vle ? "vapour-liquid" : "liquid-liquid",
                      wants_vle ? "vapour-liquid" : "liquid-liquid"));
    }
  }

  void group_interactions() {
    const Unifac* unifac = mixture_.unifac();
    if (unifac == nullptr) return;
    if (const auto single = unifac->group_pairs_of('C'); !single.empty()) {
      notices_.add("doubtful-interactions",
                   fmt::format("the group interactions {} of {} rest on a single transcription or fail a "
                               "check against measured data (grade C); check what depends on them",
                               joined(single, ", "), unifac->name()));
    }
    if (const auto wrong = unifac->group_pairs_of('D'); !wrong.empty()) {
      notices_.add("contradicted-interactions",
                   fmt::format("the group interactions {} of {} contradict handbooks, or another table by a "
                               "factor of more than 50 (grade D)",
                               joined(wrong, ", "), unifac->name()));
    }
    for (std::size_t i = 0; i < mixture_.size(); ++i) {
      for (std::size_t j = i + 1; j < mixture_.size(); ++j) against_other_tables(unifac->name(), i, j);
    }
    const auto range = unifac_T_range_K(unifac->table());
    constexpr double step_K = 2;
    if (range && (Tmin_K_ < (*range)[0] - step_K || Tmax_K_ > (*range)[1] + step_K)) {
      notices_.add("unifac-range",
                   fmt::format("the table of {} is meant for {:.0f} to {:.0f} degC; this result uses it {}",
                               unifac->name(), celsius((*range)[0]), celsius((*range)[1]),
                               temperatures_text(Tmin_K_, Tmax_K_)));
    }
  }

  // Limits that differ from those of another table by more than e^4: one of the two is wrong.
  void against_other_tables(std::string_view table, std::size_t i, std::size_t j) {
    const std::vector<Substance> pair{substance(i), substance(j)};
    const double T_K = (Tmin_K_ + Tmax_K_) / 2;
    const auto limits_of = [&](std::string_view name) -> std::optional<std::array<double, 2>> {
      try {
        const auto model = make_activity_model(std::string(name), pair, {});
        model->set_temperature(T_K);
        std::array<double, 2> first{}, second{};
        model->evaluate(std::array{0.0, 1.0}, first);
        model->evaluate(std::array{1.0, 0.0}, second);
        return std::array{first[0], second[1]};
      } catch (const std::runtime_error&) {
        return std::nullopt;  // it lacks a group or an interaction
      }
    };
    const auto own = limits_of(table);
    if (!own) return;
    for (const std::string_view other : {"unifac", "unifac-lle", "unifac-dortmund"}) {
      if (other == table) continue;
      const auto theirs = limits_of(other);
      for (const std::size_t solute : {0u, 1u}) {
        constexpr double far = 4;  // in ln gamma
        if (!theirs || std::abs((*own)[solute] - (*theirs)[solute]) < far) continue;
        notices_.add("tables-disagree",
                     fmt::format("{} gives infinitely dilute {} in {} an activity coefficient of {:.3g} at "
                                 "{:.1f} degC, {} gives {:.3g}: one of them is wrong",
                                 table, pair[solute].name, pair[1 - solute].name, std::exp((*own)[solute]),
                                 celsius(T_K), other, std::exp((*theirs)[solute])));
        return;
      }
    }
  }

  void vapour(double P_Pa) {
    double largest = 0;
    const Substance* worst = nullptr;
    for (const Substance& candidate : mixture_.substances()) {
      const auto virial = second_virial(candidate, Tmin_K_);
      if (!virial) continue;
      const double ln_phi = virial->B_m3_mol * P_Pa / (gas_constant * Tmin_K_);
      if (std::abs(ln_phi) > std::abs(largest)) {
        largest = ln_phi;
        worst = &candidate;
      }
    }
    constexpr double far = 0.07;  // about what common solvents reach at twice atmospheric pressure
    if (worst == nullptr || std::abs(largest) < far) return;
    notices_.add(
        "non-ideal-vapour",
        fmt::format(
            "at {:.4g} kPa the vapour is not an ideal gas: by its second virial coefficient the fugacity "
            "coefficient of {} is {:.2f}. `vapour` virial (or, well above atmospheric pressure, pr) takes it "
            "into account",
            P_Pa / 1000, worst->name, std::exp(largest)));
  }

  const Mixture& mixture_;
  Purpose purpose_;
  double Tmin_K_, Tmax_K_;
  Notices notices_;
};

}  // namespace

Notices suitability(const Mixture& mixture, Purpose purpose, double Tmin_K, double Tmax_K,
                    std::optional<double> P_Pa) {
  if (mixture.one_equation()) return {};  // what it lacks is said by the equation itself
  return Judge(mixture, purpose, Tmin_K, Tmax_K).judge(P_Pa);
}

}  // namespace jampot
