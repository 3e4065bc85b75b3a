#include "jampot/known/disagreement.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/published_pairs.hpp"
#include "jampot/liquid/unifac.hpp"

namespace jampot {
namespace {

// What a model says of a pair.
struct Opinion {
  std::string model{};
  std::optional<double> azeotrope{};  // x1; nothing: none
  double moves = 0;                   // change of x1 with a pressure a tenth higher
  std::optional<std::pair<double, double>> liquids{};
};

const Opinion* opinion_of(const std::vector<Opinion>& opinions, const std::string& model) {
  const auto found =
      std::find_if(opinions.begin(), opinions.end(), [&](const Opinion& one) { return one.model == model; });
  return found == opinions.end() ? nullptr : &*found;
}

bool predictive(const std::string& model) {
  return model == "unifac" || model == "unifac-dortmund" || model == "unifac-lle";
}

// The models that know a pair without further choice.
std::vector<Mixture> models_of(const std::vector<Substance>& pair, bool boiling) {
  std::vector<Mixture> list;
  for (const char* model : {"unifac-dortmund", "unifac", "unifac-lle", "nrtl"}) {
    if (boiling && std::string_view(model) == "unifac-lle") continue;
    try {
      ParameterCollection pairs;
      if (std::string_view(model) == "nrtl") {
        auto known = pair_from_facts(model, pair[0].name, pair[1].name);
        if (!known) continue;
        pairs.add(std::move(*known));
      }
      list.emplace_back(pair, model, pairs);
      if (!list.back().unifac() || list.back().unifac()->group_pairs_of('D').empty()) continue;
      list.pop_back();
    } catch (const std::runtime_error&) {
      continue;  // it lacks a group or an interaction
    }
  }
  return list;
}

std::optional<double> azeotrope_of(Mixture& mixture, double P_Pa) {
  constexpr CurveOptions coarse{41};
  const auto found = txy(mixture, P_Pa, coarse).azeotropes;
  return found.empty() ? std::nullopt : std::optional(found.front().x1);
}

bool fact_decides(const std::vector<Substance>& pair, const UsedAt& used, bool boiling) {
  const auto facts = KnownFacts::built_in().about(pair[0].name, pair[1].name);
  return std::any_of(facts.begin(), facts.end(), [&](const Fact* fact) {
    const bool of_boiling = fact->kind == FactKind::azeotrope || fact->kind == FactKind::no_azeotrope;
    constexpr double near_K = 40, factor = 3;
    if (boiling) return of_boiling && fact->P_Pa > used.low_Pa / factor && fact->P_Pa < used.high_Pa * factor;
    const bool of_liquids = fact->kind == FactKind::miscible || fact->kind == FactKind::solubility;
    return of_liquids && fact->T_K > used.low_K - near_K && fact->T_K < used.high_K + near_K;
  });
}

void compare_boiling(const std::vector<Substance>& pair, double P_Pa, const std::string& used,
                     Notices& notices) {
  std::vector<Opinion> opinions;
  for (Mixture& mixture : models_of(pair, true)) {
    try {
      Opinion one{.model = mixture.liquid_model(), .azeotrope = azeotrope_of(mixture, P_Pa)};
      if (one.azeotrope) {
        const auto higher = azeotrope_of(mixture, 1.1 * P_Pa);
        one.moves = higher ? *higher - *one.azeotrope : 0;
      }
      opinions.push_back(std::move(one));
    } catch (const std::runtime_error&) {
      continue;
    }
  }
  const Opinion* own = opinion_of(opinions, used);
  if (own == nullptr) return;
  bool apart = false;
  std::vector<std::string> said;
  for (const Opinion& one : opinions) {
    constexpr double far = 0.05, still = 1e-3;
    apart = apart || one.azeotrope.has_value() != own->azeotrope.has_value() ||
            (one.azeotrope &&
             (std::abs(*one.azeotrope - *own->azeotrope) > far ||
              (one.moves * own->moves < 0 && std::abs(one.moves) > still && std::abs(own->moves) > still)));
    said.push_back(one.azeotrope
                       ? fmt::format("{} one at x({}) = {:.3f}{}", one.model, pair[0].name, *one.azeotrope,
                                     std::abs(one.moves) > still ? one.moves > 0 ? ", rising with pressure"
                                                                                 : ", falling with pressure"
                                                                 : "")
                       : one.model + " none");
  }
  if (apart)
    notices.add("models-disagree",
                fmt::format("on an azeotrope of {} and {} at {:.4g} kPa the models disagree: {}; no "
                            "fact near it decides",
                            pair[0].name, pair[1].name, P_Pa / 1000, joined(said, ", ")));
}

void compare_liquids(const std::vector<Substance>& pair, double T_K, const std::string& used,
                     Notices& notices) {
  std::vector<Opinion> opinions;
  for (Mixture& mixture : models_of(pair, false)) {
    const auto splits = binary_splits(mixture.activity(), T_K);
    Opinion one{.model = mixture.liquid_model()};
    if (!splits.empty()) one.liquids = {splits.front().x1_alpha, 1 - splits.back().x1_beta};
    opinions.push_back(std::move(one));
  }
  const Opinion* own = opinion_of(opinions, used);
  if (own == nullptr) return;
  bool apart = false;
  std::vector<std::string> said;
  for (const Opinion& one : opinions) {
    apart = apart || one.liquids.has_value() != own->liquids.has_value();
    if (one.liquids && own->liquids) {
      const double factor = std::max(std::abs(std::log(one.liquids->first / own->liquids->first)),
                                     std::abs(std::log(one.liquids->second / own->liquids->second)));
      apart = apart || factor > std::log(2.0);
    }
    said.push_back(one.liquids
                       ? fmt::format("{} two liquids, x({}) = {:.3g} and x({}) = {:.3g} dilute", one.model,
                                     pair[0].name, one.liquids->first, pair[1].name, one.liquids->second)
                       : one.model + " one liquid");
  }
  if (apart)
    notices.add(
        "models-disagree",
        fmt::format(
            "on the liquids of {} and {} at {:.1f} degC the models disagree: {}; no fact near it decides",
            pair[0].name, pair[1].name, T_K - celsius_zero, joined(said, ", ")));
}

}  // namespace

Notices models_disagree(const Mixture& mixture, const UsedAt& used) {
  Notices notices;
  constexpr std::size_t most = 3;
  if (mixture.one_equation() || mixture.size() > most || !predictive(mixture.liquid_model())) return notices;
  const auto& substances = mixture.substances();
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      const std::vector<Substance> pair{substances[i], substances[j]};
      if (used.high_Pa > 0) {
        if (!fact_decides(pair, used, true))
          compare_boiling(pair, std::sqrt(used.low_Pa * used.high_Pa), mixture.liquid_model(), notices);
      } else if (!fact_decides(pair, used, false)) {
        compare_liquids(pair, (used.low_K + used.high_K) / 2, mixture.liquid_model(), notices);
      }
    }
  }
  return notices;
}

}  // namespace jampot
