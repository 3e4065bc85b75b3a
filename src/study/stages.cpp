#include "jampot/study/stages.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/phase/energies.hpp"
#include "reach.hpp"

namespace jampot {
namespace {

class Column {
 public:
  explicit Column(const StagesRequest& request) : request_(request) {
    if (request.mixture.substances.size() != 2)
      throw RequestError(fmt::format("a column is calculated for two substances; {} are named",
                                     request.mixture.substances.size()));
    demand_pressure(request.P_Pa);
    if (!(request.reflux_factor > 1))
      throw RequestError("`reflux-factor` lies above 1: the least needs infinitely many stages");
    study_.contenders.push_back(prepare(request.mixture, study_.notices));
    study_.P_Pa = request.P_Pa;
    study_.feed = request.feed;
    study_.light = request.top[0] > request.bottom[0] ? 0 : 1;
    const std::size_t light = study_.light;
    study_.task = {request.feed.fractions()[light], request.top[light], request.bottom[light],
                   request.feed_liquid, request.efficiency};
  }

  StagesStudy found() {
    Mixture& mixture = study_.contenders.front().mixture;
    constexpr CurveOptions fine{801};
    study_.curve = txy(mixture, request_.P_Pa, fine);
    study_.notices.add(study_.curve.notices);
    ColumnEquilibrium equilibrium = ColumnEquilibrium::of(study_.curve, study_.light);
    demand_possible(equilibrium, study_.task);
    tell(mixture);
    enthalpies(mixture, equilibrium);
    study_.distillate = (study_.task.feed - study_.task.bottom) / (study_.task.top - study_.task.bottom);
    volatilities();
    study_.total = stages_at_total_reflux(equilibrium, study_.task);
    study_.least = minimum_reflux(equilibrium, study_.task);
    const double reflux =
        request_.reflux.value_or(std::max(0.05, request_.reflux_factor * study_.least.ratio));
    study_.stages = stages_at_reflux(equilibrium, study_.task, reflux);
    if (equilibrium.has_enthalpies()) {
      try {
        study_.exact = exact_stages(equilibrium, study_.task, reflux);
      } catch (const CalculationError& error) {
        study_.no_exact = fmt::format("with the enthalpies of both phases: {}", error.what());
      }
    }
    if (!study_.no_exact.empty()) study_.notices.add("no-exact-stages", study_.no_exact);
    if (study_.least.tangent)
      study_.notices.add(
          "tangent-pinch",
          fmt::format(
              "the least reflux is set at x({}) = {:.4f}, away from the feed, where the equilibrium bends "
              "towards the diagonal: there the model must be right to a few per cent of y - x",
              study_.substances()[study_.light].name, study_.least.pinch));
    compare_overflow();
    if (request_.simple)
      study_.simple = simple_distillation(equilibrium, study_.task.feed, study_.task.bottom);
    return std::move(study_);
  }

 private:
  void tell(const Mixture& mixture) {
    Reach reach;
    for (const BinaryPoint& point : study_.curve.points) reach.include(point.T_K, point.P_Pa);
    reach.add_doubts(mixture, study_.notices);
  }

  // Of the boiling liquid and its vapour at every point of the curve; a feed of its own temperature then too.
  void enthalpies(Mixture& mixture, ColumnEquilibrium& equilibrium) {
    Energies energies(mixture);
    std::vector<double> liquid, vapour;
    try {
      if (mixture.one_equation())
        throw CalculationError("both phases are described by one equation of state");
      const auto& points = study_.curve.points;
      double before = -1;
      const auto add = [&](const BinaryPoint& point) {
        if (!(point.x[study_.light] > before)) return;
        before = point.x[study_.light];
        liquid.push_back(energies.enthalpy(1, point.T_K, point.P_Pa, point.x));
        vapour.push_back(energies.enthalpy(0, point.T_K, point.P_Pa, point.y));
      };
      if (study_.light == 0) {
        for (const BinaryPoint& point : points) add(point);
      } else {
        for (auto point = points.rbegin(); point != points.rend(); ++point) add(*point);
      }
      equilibrium.set_enthalpies(std::move(liquid), std::move(vapour));
    } catch (const CalculationError& error) {
      study_.no_exact = error.what();
    }
    if (!request_.feed_T_K) return;
    if (!equilibrium.has_enthalpies())
      throw CalculationError(fmt::format(
          "the liquid fraction of the feed does not follow from its temperature: {}. `feed-liquid` states it",
          study_.no_exact));
    const double z = study_.task.feed, boiling = equilibrium.T_K(z);
    if (*request_.feed_T_K > boiling + 0.01)
      throw RequestError(
          fmt::format("a liquid feed at {:.2f} K is above its boiling point, {:.2f} K; give its liquid "
                      "fraction by `feed-liquid`",
                      *request_.feed_T_K, boiling));
    const std::vector<double> fractions = request_.feed.fractions();
    const double h = energies.enthalpy(1, *request_.feed_T_K, request_.P_Pa, fractions),
                 H = equilibrium.vapour_J_mol(z);
    study_.task.feed_liquid = (H - h) / (H - equilibrium.liquid_J_mol(z));
  }

  void volatilities() {
    study_.volatility = {HUGE_VAL, 0};
    for (const BinaryPoint& point : study_.curve.points) {
      const double x = point.x[study_.light];
      if (x < study_.task.bottom || x > study_.task.top) continue;
      const double alpha = point.K[study_.light] / point.K[1 - study_.light];
      study_.volatility = {std::min(study_.volatility[0], alpha), std::max(study_.volatility[1], alpha)};
    }
  }

  void compare_overflow() {
    if (!study_.exact) return;
    const double apart = study_.exact->count / study_.stages.count - 1;
    constexpr double much = 0.1;
    if (std::abs(apart) < much) return;
    study_.notices.add(
        "overflow-not-constant",
        fmt::format("with the enthalpies of both phases {:.1f} stages are needed, with constant molar "
                    "overflow {:.1f}: the simplification is {:.0f} % off here",
                    study_.exact->count, study_.stages.count, 100 * std::abs(apart)));
  }

  const StagesRequest& request_;
  StagesStudy study_;
};

}  // namespace

StagesStudy study(const StagesRequest& request) {
  return Column(request).found();
}

}  // namespace jampot
