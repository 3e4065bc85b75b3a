#include "jampot/study/screen.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../basis/side_by_side.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/equilibrium/suitability.hpp"
#include "jampot/known/families.hpp"
#include "jampot/known/held.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot/substance/properties.hpp"
#include "screen_handbook.hpp"
#include "screen_score.hpp"

namespace jampot {
namespace {

// A candidate that is left out, with its reason.
struct LeftOut {
  std::string reason;
};

double celsius(double T_K) {
  return T_K - celsius_zero;
}

std::optional<double> density_of(const Substance& substance, double T_K) {
  const Property volume = liquid_molar_volume(substance, T_K);
  if (!volume.value) return std::nullopt;
  return substance.molar_mass_kg_mol / *volume.value;
}

class Screening {
 public:
  explicit Screening(const ScreenRequest& request) : request_(request), pair_(request.mixture.substances) {
    if (pair_.size() != 2)
      throw RequestError(fmt::format(
          "a screening is about two substances that are to be separated; {} are named", pair_.size()));
    demand_temperature(request.T_K);
    demand_pressure(request.P_Pa);
    if (request.boiling_K && !((*request.boiling_K)[0] <= (*request.boiling_K)[1]))
      throw RequestError("the range of boiling points is two temperatures, the lower first");
    study_.pair = pair_;
    study_.role = request.role;
    study_.T_K = request.T_K;
    study_.P_Pa = request.P_Pa;
    study_.weights = weights_of(request);
    if (request.role == SolventRole::entrainer) study_.T_K = middle_of_column();
  }

  ScreenStudy found() {
    const std::vector<Substance> candidates = chosen();
    if (candidates.empty()) throw RequestError("no substance of the databank meets these conditions");
    if (request_.progress != nullptr) request_.progress->expected = static_cast<long>(candidates.size());
    std::vector<std::optional<ScreenedSolvent>> screened(candidates.size());
    std::vector<std::string> reasons(candidates.size());
    for_each_number(candidates.size(), [&](std::size_t k) {
      try {
        screened[k] = screen(candidates[k]);
      } catch (const LeftOut& left_out) {
        reasons[k] = left_out.reason;
      } catch (const std::runtime_error& error) {
        reasons[k] = error.what();
      }
      if (request_.progress != nullptr) ++request_.progress->done;
    });
    for (std::size_t k = 0; k < candidates.size(); ++k) {
      if (screened[k]) {
        study_.solvents.push_back(std::move(*screened[k]));
      } else {
        study_.left_out.push_back({candidates[k].name, reasons[k]});
      }
    }
    std::stable_sort(study_.solvents.begin(), study_.solvents.end(),
                     [](const ScreenedSolvent& a, const ScreenedSolvent& b) { return a.score > b.score; });
    std::stable_sort(
        study_.left_out.begin(), study_.left_out.end(),
        [](const UnscreenedSolvent& a, const UnscreenedSolvent& b) { return a.reason < b.reason; });
    find_front();
    tell();
    return std::move(study_);
  }

 private:
  double middle_of_column() const {
    double sum = 0;
    for (const Substance& substance : pair_) {
      if (!substance.vapour_pressure) throw CalculationError(substance.name + " has no vapour pressure");
      sum += substance.vapour_pressure->T_K(request_.P_Pa) / 2;
    }
    return sum;
  }

  std::vector<Substance> chosen() const {
    std::vector<Substance> list;
    const std::span<const Substance> all = request_.candidates.empty()
                                               ? Bank::built_in().all()
                                               : std::span<const Substance>(request_.candidates);
    for (const Substance& candidate : all) {
      if (candidate.name == pair_[0].name || candidate.name == pair_[1].name) continue;
      if (request_.boiling_K) {
        const std::optional<double> Tb_K =
            candidate.vapour_pressure ? std::optional(candidate.vapour_pressure->T_K(standard_atmosphere))
                                      : std::nullopt;
        if (!Tb_K || *Tb_K < (*request_.boiling_K)[0] || *Tb_K > (*request_.boiling_K)[1]) continue;
      }
      if (!request_.families.empty()) {
        const std::string family = family_of(candidate);
        if (std::none_of(request_.families.begin(), request_.families.end(),
                         [&](const std::string& one) { return family.find(one) != std::string::npos; }))
          continue;
      }
      list.push_back(candidate);
    }
    return list;
  }

  // A mixture with a candidate, and how its model does on what handbooks say of the candidate.
  struct Chosen {
    MixtureSpec spec;
    Mixture mixture;
    std::vector<HeldFact> held;
    OnFacts record;
  };

  Chosen made(MixtureSpec spec, Purpose purpose, const std::vector<const Fact*>& facts) const {
    Notices unheard;  // of pairs that are the same for all
    Chosen chosen{spec, prepare(spec, unheard, purpose).mixture, {}, {}};
    FactJudge judge(chosen.mixture);
    for (const Fact* fact : facts) {
      const bool boiling = fact->kind == FactKind::azeotrope || fact->kind == FactKind::no_azeotrope;
      if (boiling && chosen.mixture.liquid_model() == "unifac-lle") continue;
      HeldFact held = judge.held(*fact);
      if (!held.judged()) continue;
      chosen.record.add(held);
      chosen.held.push_back(std::move(held));
    }
    return chosen;
  }

  // By the model that was named, or the table of groups that does best on the facts about the candidate.
  Chosen with(const Substance& candidate, Purpose purpose) const {
    MixtureSpec spec = request_.mixture;
    spec.substances = {pair_[0], pair_[1], candidate};
    const std::vector<const Fact*> facts = facts_about(candidate);
    if (!spec.liquid.empty() || !spec.parameters.all().empty()) return made(spec, purpose, facts);
    std::optional<Chosen> best;
    std::string why;
    for (const char* table : {"unifac", "unifac-dortmund", "unifac-lle"}) {
      if (purpose == Purpose::vapour_liquid && std::string_view(table) == "unifac-lle") continue;
      spec.liquid = table;
      try {
        Chosen next = made(spec, purpose, facts);
        const auto share = [](const OnFacts& record) {
          return record.judged > 0 ? record.misses / record.judged : HUGE_VAL;
        };
        if (!best || share(next.record) < share(best->record)) best.emplace(std::move(next));
        // No other can do better.
        if (facts.empty() || (best->record.judged > 0 && best->record.misses == 0)) break;
      } catch (const std::runtime_error& error) {
        if (why.empty()) why = error.what();
      }
    }
    if (!best) throw LeftOut{why};
    return std::move(*best);
  }

  std::vector<const Fact*> facts_about(const Substance& candidate) const {
    std::vector<const Fact*> list =
        KnownFacts::built_in().among({pair_[0].name, pair_[1].name, candidate.name});
    std::erase_if(list, [&](const Fact* fact) {
      return std::find(fact->substances.begin(), fact->substances.end(), candidate.name) ==
             fact->substances.end();
    });
    return list;
  }

  ScreenedSolvent screen(const Substance& candidate) const {
    refuse_by_state(candidate);
    if (request_.role == SolventRole::extraction) refuse_miscible(candidate);
    const bool liquids = request_.role == SolventRole::extraction;
    ScreenedSolvent solvent;
    solvent.substance = candidate;
    const Purpose purpose = liquids ? Purpose::liquid_liquid : Purpose::vapour_liquid;
    const Chosen chosen = with(candidate, purpose);
    const Mixture& mixture = chosen.mixture;
    solvent.model = chosen.spec.label().empty() ? mixture.liquid_model() : chosen.spec.label();
    solvent.dilute = dilute_in_solvent(mixture, study_.T_K);
    switch (request_.role) {
      case SolventRole::extraction:
        solvent.extraction = extraction_figures(mixture, study_.T_K);
        if (!solvent.extraction) throw LeftOut{fmt::format("it makes one liquid with {}", pair_[1].name)};
        take_from_handbooks(solvent, pair_, study_.T_K, chosen.held);
        // Unless handbooks speak of the two liquids themselves.
        if (pair_[1].name == "water" && KnownFacts::built_in().about("water", candidate.name).empty())
          solvent.miscible_kin = kin_that_mixes_with_water(candidate, study_.T_K);
        if (!solvent.miscible_kin.empty())
          solvent.notices.add(
              "kin-miscible",
              fmt::format(
                  "{}, of the same groups but with more hydrocarbon for each or in a smaller molecule, mixes "
                  "with water in all proportions: the two liquids predicted with {} may be one",
                  solvent.miscible_kin, candidate.name));
        break;
      case SolventRole::entrainer:
        solvent.volatility = volatility_figures(mixture, study_.T_K);
        break;
      case SolventRole::absorbent:
        solvent.absorption = absorption_figures(mixture, study_.T_K, study_.P_Pa);
        break;
    }
    find_reactions(candidate, solvent);
    const auto own = density_of(candidate, study_.T_K), carrier = density_of(pair_[1], study_.T_K);
    if (own && carrier) solvent.density_difference_kg_m3 = *own - *carrier;
    boiling(candidate, solvent);
    azeotropes(candidate, chosen, solvent);
    solvent.facts = chosen.record.judged;
    solvent.facts_agreeing = chosen.record.agreeing;
    solvent.notices.add(failures(chosen.held, mixture.liquid_model()));
    for (const Notice& notice : suitability(mixture, purpose, study_.T_K, study_.T_K))
      solvent.notices.add(notice.code, notice.text);
    score(solvent, request_.role, pair_, study_.weights);
    const bool speaks_against = std::any_of(solvent.parts.begin(), solvent.parts.end(),
                                            [](const ScorePart& part) { return !part.shortfall.empty(); });
    if (2 * (solvent.facts_agreeing + solvent.facts_taken) < solvent.facts)
      solvent.verdict =
          fmt::format("{}{} agrees with {} of {} facts about it",
                      speaks_against ? solvent.verdict + "; doubtful: " : "doubtful: ", solvent.model,
                      solvent.facts_agreeing, solvent.facts);
    return solvent;
  }

  void refuse_by_state(const Substance& candidate) const {
    if (candidate.non_volatile || !candidate.vapour_pressure)
      throw LeftOut{"its vapour pressure is not known"};
    const double Tb_K = candidate.vapour_pressure->T_K(study_.P_Pa);
    // A light entrainer goes over the top; what cannot be condensed with cooling water is none.
    constexpr double cooling_water_K = 303.15;
    const double least_K = request_.role == SolventRole::entrainer ? cooling_water_K : study_.T_K;
    if (Tb_K < least_K) throw LeftOut{fmt::format("a gas at {:.1f} degC", celsius(least_K))};
    if (candidate.Tm_K && *candidate.Tm_K > study_.T_K)
      throw LeftOut{fmt::format("a solid at {:.1f} degC", celsius(study_.T_K))};
  }

  // Whatever the model says: what handbooks have as one liquid makes no second one.
  void refuse_miscible(const Substance& candidate) const {
    for (const Fact* fact : KnownFacts::built_in().about(pair_[1].name, candidate.name)) {
      constexpr double near_K = 30;
      if (fact->kind == FactKind::miscible && std::abs(fact->T_K - study_.T_K) < near_K)
        throw LeftOut{fmt::format("handbooks have it miscible with {} in all proportions", pair_[1].name)};
    }
  }

  void find_reactions(const Substance& candidate, ScreenedSolvent& solvent) const {
    for (const Substance& other : {pair_[0], pair_[1], candidate}) {
      if (auto reaction = reaction_between(candidate, other))
        solvent.reactions.push_back(std::move(*reaction));
    }
    std::stable_sort(solvent.reactions.begin(), solvent.reactions.end(),
                     [](const Reaction& a, const Reaction& b) { return a.readiness > b.readiness; });
    for (const Reaction& reaction : solvent.reactions) solvent.notices.add("reaction", reaction.sentence());
  }

  // Of an extraction and an absorption it is parted from the first, of an entrainer from both.
  void boiling(const Substance& candidate, ScreenedSolvent& solvent) const {
    const double own = candidate.vapour_pressure->T_K(study_.P_Pa);
    const auto gap = [&](const Substance& other) {
      return other.vapour_pressure ? own - other.vapour_pressure->T_K(study_.P_Pa) : HUGE_VAL;
    };
    solvent.boiling_gap_K = gap(pair_[0]);
    if (request_.role != SolventRole::entrainer) return;
    const double other = gap(pair_[1]);
    if (std::abs(other) < std::abs(solvent.boiling_gap_K)) solvent.boiling_gap_K = other;
  }

  // From handbooks where they know the pair, else from the model.
  void azeotropes(const Substance& candidate, const Chosen& chosen, ScreenedSolvent& solvent) const {
    std::array<bool, 2> told{};
    for (std::size_t k = 0; k < 2; ++k) {
      for (const Fact* fact : KnownFacts::built_in().about(pair_[k].name, candidate.name)) {
        constexpr double factor = 1.5;
        if (fact->grade > 'B' || fact->P_Pa > factor * study_.P_Pa || fact->P_Pa * factor < study_.P_Pa)
          continue;
        if (fact->kind == FactKind::no_azeotrope) told[k] = true;
        if (fact->kind != FactKind::azeotrope || told[k]) continue;
        told[k] = true;
        solvent.azeotropes.push_back({{pair_[k].name, candidate.name}, fact->T_K, fact->heterogeneous, true});
      }
    }
    try {
      const Chosen boiling =
          chosen.mixture.liquid_model() == "unifac-lle" ? with(candidate, Purpose::vapour_liquid) : chosen;
      read_map(singular_points(boiling.mixture, study_.P_Pa), told, boiling.spec, solvent);
    } catch (const LeftOut&) {
      solvent.azeotropes_known = told[0] && told[1];
    } catch (const std::runtime_error&) {
      solvent.azeotropes_known = told[0] && told[1];
    }
    if (!solvent.azeotropes_known && solvent.map_class.empty()) solvent.map_class = "not known";
  }

  // An azeotrope with what pairs up in the vapour, predicted with an ideal one, by a vapour that knows of it.
  // One that this vapour does not have is none; where its constants are missing the prediction stays.
  std::optional<double> with_pairs_in_vapour(const SingularPoint& azeotrope, MixtureSpec spec) const {
    const auto& all = spec.substances;
    const bool pairs = std::any_of(azeotrope.members.begin(), azeotrope.members.end(),
                                   [&](std::size_t i) { return pairs_up(all[i]); });
    if (!pairs || spec.vapour.model != "ideal" || azeotrope.heterogeneous) return azeotrope.T_K;
    spec.substances = {all[azeotrope.members[0]], all[azeotrope.members[1]]};
    spec.vapour.model = "virial";
    try {
      Notices unheard;
      const SingularPoints found =
          singular_points(prepare(spec, unheard, Purpose::vapour_liquid).mixture, study_.P_Pa);
      for (const SingularPoint& point : found.points) {
        if (point.members.size() == 2) return point.T_K;
      }
      return std::nullopt;
    } catch (const std::runtime_error&) {
      return azeotrope.T_K;
    }
  }

  void read_map(const SingularPoints& found, const std::array<bool, 2>& told, const MixtureSpec& spec,
                ScreenedSolvent& solvent) const {
    Stability own = Stability::saddle;
    for (const SingularPoint& point : found.points) {
      const bool with_solvent =
          std::find(point.members.begin(), point.members.end(), 2) != point.members.end();
      if (!with_solvent) continue;
      if (point.members.size() == 1) {
        own = point.stability;
        continue;
      }
      if (point.members.size() == 2 && told[point.members[0]]) continue;  // a handbook has said it
      std::optional<double> T_K = point.T_K;
      if (point.members.size() == 2) T_K = with_pairs_in_vapour(point, spec);
      if (!T_K) continue;
      NewAzeotrope azeotrope;
      for (const std::size_t i : point.members)
        azeotrope.members.push_back(i == 2 ? solvent.substance.name : pair_[i].name);
      azeotrope.T_K = *T_K;
      azeotrope.heterogeneous = point.heterogeneous;
      solvent.azeotropes.push_back(std::move(azeotrope));
    }
    bool homogeneous = false, heterogeneous = false;
    for (const NewAzeotrope& azeotrope : solvent.azeotropes)
      (azeotrope.heterogeneous ? heterogeneous : homogeneous) = true;
    if (!found.balanced()) {
      solvent.map_class = "incomplete: an azeotrope is missing";
    } else if (heterogeneous) {
      solvent.map_class = "two liquids boil: a decanter can cross the boundary";
    } else if (homogeneous) {
      solvent.map_class = "homogeneous azeotropes with it: boundaries that a column does not cross";
    } else if (own == Stability::stable_node) {
      solvent.map_class = "no new azeotrope, and it boils last: extractive distillation";
    } else if (own == Stability::unstable_node) {
      solvent.map_class = "no new azeotrope, and it boils first";
    } else {
      solvent.map_class = "no new azeotrope, and it boils between the others";
    }
  }

  // Capacity and selectivity as the figure draws them.
  void find_front() {
    const auto better = [](const ScreenedSolvent& a, const ScreenedSolvent& b) {
      const double capacity = capacity_of(a) - capacity_of(b),
                   selectivity = selectivity_of(a) - selectivity_of(b);
      return capacity >= 0 && selectivity >= 0 && (capacity > 0 || selectivity > 0);
    };
    for (ScreenedSolvent& solvent : study_.solvents) {
      // Two liquids that may be one have no place on it, and push nothing off it.
      solvent.on_front =
          solvent.miscible_kin.empty() &&
          std::none_of(study_.solvents.begin(), study_.solvents.end(), [&](const ScreenedSolvent& other) {
            return other.miscible_kin.empty() && better(other, solvent);
          });
    }
  }

  void tell() {
    Notices& notices = study_.notices;
    notices.add(
        "screening",
        "these are predictions for infinite dilution, good for a ranking; toxicity, price, corrosion, "
        "viscosity, foaming and reactions other than those between functional groups are not looked at. "
        "Measure the ones you choose");
    std::size_t contradicted = 0;
    for (const ScreenedSolvent& solvent : study_.solvents)
      contradicted += solvent.notices.has("against-handbook");
    if (contradicted > 0)
      notices.add("screening-against-handbook",
                  fmt::format("of {} the model contradicts a fact in handbooks about {}; each says which",
                              counted(study_.solvents.size(), "candidate"), contradicted));
    if (!study_.left_out.empty())
      notices.add("screening-left-out", fmt::format("left out, each with its reason: {}",
                                                    counted(study_.left_out.size(), "substance")));
    if (request_.role == SolventRole::absorbent)
      notices.add(
          "absorbent-pure-gas",
          "the gas is described by vapour pressures and infinite-dilution activity coefficients; above its "
          "critical temperature the vapour pressure is extrapolated and the result is rough");
  }

  const ScreenRequest& request_;
  std::vector<Substance> pair_;
  ScreenStudy study_;
};

}  // namespace

double selectivity_of(const ScreenedSolvent& solvent) {
  if (solvent.extraction) return solvent.extraction->selectivity;
  if (solvent.absorption) return solvent.absorption->selectivity;
  const double alpha = solvent.volatility->with_solvent;
  return std::max(alpha, 1 / alpha);
}

double capacity_of(const ScreenedSolvent& solvent) {
  if (solvent.extraction) return solvent.extraction->distribution;
  if (solvent.absorption) return 1000 * solvent.absorption->solubility_per_Pa;
  return solvent.dilute.capacity;
}

ScreenStudy study(const ScreenRequest& request) {
  return Screening(request).found();
}

}  // namespace jampot
