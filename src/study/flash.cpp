#include "jampot/study/flash.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/study/held.hpp"
#include "reach.hpp"
#include "vle_working.hpp"

namespace jampot {

std::optional<double> FlashCase::duty() const {
  if (!h_feed_J_mol || !h_J_mol) return std::nullopt;
  return (*h_J_mol - *h_feed_J_mol) * feed.total();
}

std::vector<std::string> phase_names(const Flashed& flashed, const std::vector<Substance>& substances) {
  std::vector<std::string> list;
  const auto liquids = std::count_if(flashed.phases.begin(), flashed.phases.end(),
                                     [](const FlashedPhase& phase) { return !phase.vapour; });
  for (const FlashedPhase& phase : flashed.phases) {
    if (phase.vapour) {
      list.emplace_back("vapour");
      continue;
    }
    std::vector<std::vector<double>> others;
    for (const FlashedPhase& other : flashed.phases) {
      if (&other != &phase && !other.vapour) others.push_back(other.x);
    }
    list.push_back(liquids == 1 ? "liquid"
                                : "liquid rich in " + substances[rich_in(phase.x, others)].short_name());
  }
  return list;
}

namespace {

std::string described(const Flashed& flashed, const std::vector<Substance>& substances) {
  const auto names = phase_names(flashed, substances);
  if (names.size() == 1) return names.front();
  return fmt::format("{}, vapour fraction {:.4f}", joined(names, " + "), flashed.vapour_fraction());
}

class Flashes {
 public:
  explicit Flashes(const FlashRequest& request) : request_(request) {
    study_.contenders = prepare_all(request.mixture, request.compare, study_.notices);
    study_.specifications = request.specifications;
    study_.together = request.together;
    study_.feeds = request.feeds.size();
    study_.reference = request.reference;
    if (request.feeds.empty() || request.specifications.empty())
      throw RequestError("there is no feed to flash, or nothing is held");
    demand_count(
        "flashes",
        static_cast<double>(request.specifications.size() * request.feeds.size() * study_.contenders.size()),
        most_states);
  }

  FlashStudy found() {
    for (std::size_t k = 0; k < study_.contenders.size(); ++k) solve_all(k);
    if (request_.working) work();
    return std::move(study_);
  }

 private:
  const std::vector<Substance>& substances() const { return study_.substances(); }

  void solve_all(std::size_t number) {
    Mixture& mixture = study_.contenders[number].mixture;
    Energies energies(mixture, request_.reference);
    Reach reach;
    for (std::size_t f = 0; f < request_.feeds.size(); ++f) {
      for (const FlashSpecification& wanted : request_.specifications) {
        FlashCase flash = solve(mixture, energies, request_.feeds[f], wanted);
        flash.contender = number;
        flash.feed_number = f;
        if (study_.contenders.size() > 1) flash.label = study_.contenders[number].label;
        reach.include(flash.state.T_K, flash.state.P_Pa);
        study_.cases.push_back(std::move(flash));
      }
    }
    reach.add_notices(mixture, study_.notices);
    if (study_.cases.back().h_J_mol) study_.notices.add(energies.notices());
    light_gases(mixture, reach.hottest_K);
  }

  // The state in which the feed comes in; its pressure is that of the flash where none is given.
  std::optional<FeedState> incoming(Mixture& mixture, const std::vector<double>& z, double P_flash) {
    if (!request_.incoming) return std::nullopt;
    const FeedCondition& given = *request_.incoming;
    const double P = given.P_Pa.value_or(P_flash);
    FeedState feed;
    if (given.vapour_fraction) {
      feed.state = given.T_K ? flash_at_T_and_vapour_fraction(mixture, *given.T_K, *given.vapour_fraction, z)
                             : flash_at_P_and_vapour_fraction(mixture, P, *given.vapour_fraction, z);
    } else if (given.T_K) {
      feed.state = flash_at(mixture, {Kelvin(*given.T_K), Pascal(P)}, z);
    } else {
      throw RequestError("the state of the feed needs its temperature or its vapour fraction");
    }
    feed.description = described(feed.state.flashed, mixture.substances());
    return feed;
  }

  static double heat_per_mole(const Feed& feed, const FlashSpecification& wanted) {
    if (wanted.heat_J_mol) return *wanted.heat_J_mol;
    if (!feed.sized) throw RequestError("heat for the whole feed needs a feed with amounts or flows");
    return *wanted.heat / feed.total();
  }

  FlashCase solve(Mixture& mixture, Energies& energies, const Feed& feed, const FlashSpecification& wanted) {
    const std::vector<double> z = feed.fractions();
    FlashCase flash;
    flash.feed = feed;
    if (wanted.heat || wanted.heat_J_mol) {
      to_heat(mixture, energies, wanted, z, flash);
    } else {
      flash.state = at(mixture, wanted, z);
      flash.incoming = incoming(mixture, z, flash.state.P_Pa);
      try {
        flash.h_J_mol = enthalpy(energies, flash.state);
        if (flash.incoming) flash.h_feed_J_mol = enthalpy(energies, flash.incoming->state);
      } catch (const CalculationError& error) {
        study_.notices.add("no-enthalpy", error.what());
      }
    }
    flash.names = phase_names(flash.state.flashed, mixture.substances());
    for (const FlashedPhase& phase : flash.state.flashed.phases)
      flash.energies.push_back(energies.of(phase.kind, flash.state.T_K, flash.state.P_Pa, phase.x));
    for (std::size_t i = 0; i < z.size(); ++i) {
      double sum = 0;
      for (const FlashedPhase& phase : flash.state.flashed.phases) sum += phase.amount * phase.x[i];
      flash.balance = std::max(flash.balance, std::abs(sum - z[i]));
    }
    return flash;
  }

  void to_heat(Mixture& mixture, Energies& energies, const FlashSpecification& wanted,
               const std::vector<double>& z, FlashCase& flash) {
    if (!wanted.P_Pa || !request_.incoming)
      throw RequestError("a flash with heat needs its pressure and the state of the feed");
    flash.incoming = incoming(mixture, z, *wanted.P_Pa);
    flash.h_feed_J_mol = enthalpy(energies, flash.incoming->state);
    const double target = *flash.h_feed_J_mol + heat_per_mole(flash.feed, wanted);
    flash.state =
        flash_at_P_and_enthalpy(mixture, energies, *wanted.P_Pa, target, z, flash.incoming->state.T_K);
    flash.h_J_mol = enthalpy(energies, flash.state);
    double size = std::abs(*flash.h_feed_J_mol);
    for (const FlashedPhase& phase : flash.state.flashed.phases)
      size +=
          std::abs(phase.amount * energies.enthalpy(phase.kind, flash.state.T_K, flash.state.P_Pa, phase.x));
    flash.energy_balance = std::abs(*flash.h_J_mol - target) / size;
  }

  static FlashState at(Mixture& mixture, const FlashSpecification& wanted, const std::vector<double>& z) {
    if (wanted.T_K && wanted.P_Pa) return flash_at(mixture, {Kelvin(*wanted.T_K), Pascal(*wanted.P_Pa)}, z);
    if (!wanted.vapour_fraction || (!wanted.P_Pa && !wanted.T_K))
      throw RequestError("a flash holds two of temperature, pressure and vapour fraction");
    if (wanted.P_Pa) return flash_at_P_and_vapour_fraction(mixture, *wanted.P_Pa, *wanted.vapour_fraction, z);
    return flash_at_T_and_vapour_fraction(mixture, *wanted.T_K, *wanted.vapour_fraction, z);
  }

  // A gas above its critical point has no vapour pressure: in an activity model its share in the liquid is a
  // guess.
  void light_gases(const Mixture& mixture, double hottest) {
    if (mixture.one_equation()) return;
    for (std::size_t i = 0; i < mixture.size(); ++i) {
      const Substance& substance = mixture.substances()[i];
      if (mixture.is_solute(i) || !substance.vapour_pressure || !substance.Tc_K || hottest <= *substance.Tc_K)
        continue;
      study_.notices.add(
          "supercritical-component",
          fmt::format("{} is above its critical temperature ({:.1f} degC): how much of it the liquid holds "
                      "comes from an extrapolated vapour pressure. An equation of state describes it: "
                      "`liquid` eos `vapour` pr (or pc-saft); so does Henry's constant, `henry`",
                      substance.name, *substance.Tc_K - celsius_zero));
    }
  }

  void work() {
    const FlashCase& first = study_.cases.front();
    const std::vector<double>*liquid = nullptr, *vapour = nullptr;
    for (const FlashedPhase& phase : first.state.flashed.phases) (phase.vapour ? vapour : liquid) = &phase.x;
    const std::vector<double> z = first.feed.fractions();
    study_.working = vle_working(study_.contenders.front().mixture, first.state.T_K, first.state.P_Pa,
                                 liquid != nullptr ? *liquid : z, vapour != nullptr ? *vapour : z);
  }

  const FlashRequest& request_;
  FlashStudy study_;
};

}  // namespace

std::vector<FlashSpecification> flash_specifications(const std::vector<double>& T_K,
                                                     const std::vector<double>& P_Pa,
                                                     const std::vector<double>& vapour_fraction,
                                                     bool together) {
  const std::vector<double>& first = T_K.empty() ? P_Pa : T_K;
  const std::vector<double>& second = T_K.empty() || P_Pa.empty() ? vapour_fraction : P_Pa;
  if (together && !second.empty() && first.size() != second.size())
    throw RequestError(fmt::format("`together` steps both ranges in pairs, but they have {} and {} values",
                                   first.size(), second.size()));
  const std::size_t columns = std::max<std::size_t>(1, second.size());
  demand_count("flashes", static_cast<double>(first.size()) * static_cast<double>(together ? 1 : columns),
               most_states);
  const auto maybe = [](const std::vector<double>& list, std::size_t k) {
    return list.empty() ? std::nullopt : std::optional(list[k]);
  };
  std::vector<FlashSpecification> all;
  for (std::size_t a = 0; a < first.size(); ++a) {
    for (std::size_t b = 0; b < columns; ++b) {
      if (together && a != b && !second.empty()) continue;
      FlashSpecification one;
      one.T_K = maybe(T_K, a);
      one.P_Pa = maybe(P_Pa, T_K.empty() ? a : b);
      one.vapour_fraction = maybe(vapour_fraction, b);
      all.push_back(one);
    }
  }
  return all;
}

FlashStudy study(const FlashRequest& request) {
  return Flashes(request).found();
}

}  // namespace jampot
