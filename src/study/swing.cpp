#include "jampot/study/swing.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/phase/energies.hpp"
#include "reach.hpp"

namespace jampot {
namespace {

class Swing {
 public:
  explicit Swing(const SwingRequest& request) : request_(request) {
    if (request.mixture.substances.size() != 2)
      throw RequestError(fmt::format("two columns around an azeotrope are for two substances; {} are named",
                                     request.mixture.substances.size()));
    for (const double P_Pa : request.P_Pa) demand_pressure(P_Pa);
    if (std::abs(std::log(request.P_Pa[0] / request.P_Pa[1])) < 0.01)
      throw RequestError("two different pressures are needed, as in \"1, 10 bar\"");
    if (!(request.reflux_factor > 1)) throw RequestError("`reflux-factor` lies above 1");
    study_.contenders.push_back(prepare(request.mixture, study_.notices));
    study_.P_Pa = request.P_Pa;
    study_.feed = request.feed;
  }

  SwingStudy found() {
    Mixture& mixture = study_.contenders.front().mixture;
    Reach reach;
    for (std::size_t k = 0; k < 2; ++k) {
      constexpr CurveOptions fine{801};
      study_.curves[k] = txy(mixture, request_.P_Pa[k], fine);
      study_.curves[k].label.clear();
      study_.notices.add(study_.curves[k].notices);
      for (const BinaryPoint& point : study_.curves[k].points) reach.include(point.T_K, point.P_Pa);
    }
    reach.add_doubts(mixture, study_.notices);
    azeotropes();
    study_.balance = swing_balance(study_.task);
    for (const SwingColumn& flows : study_.balance.columns) study_.columns.push_back(column(mixture, flows));
    judge();
    return std::move(study_);
  }

 private:
  void azeotropes() {
    SwingTask& task = study_.task;
    task.feed = request_.feed.fractions()[0];
    task.purity = request_.purity;
    task.distance = request_.distance;
    for (std::size_t k = 0; k < 2; ++k) {
      const std::vector<Azeotrope>& found = study_.curves[k].azeotropes;
      if (found.empty())
        throw CalculationError(
            fmt::format("at {:.4g} kPa there is no azeotrope: one column at that pressure separates the two "
                        "('jampot stages')",
                        request_.P_Pa[k] / 1000));
      if (found.size() > 1)
        throw CalculationError(fmt::format("at {:.4g} kPa there are {} azeotropes: two columns do not do",
                                           request_.P_Pa[k] / 1000, found.size()));
      if (found.front().heterogeneous)
        throw CalculationError(
            fmt::format("at {:.4g} kPa the azeotrope is heterogeneous: a decanter separates it without a "
                        "second pressure ('jampot split')",
                        request_.P_Pa[k] / 1000));
      task.azeotropes[k] = found.front().x1;
    }
    task.maximum = study_.curves[0].azeotropes.front().extremum == Extremum::maximum_boiling;
  }

  SwingColumnFound column(Mixture& mixture, const SwingColumn& flows) {
    const BinaryCurve& curve = study_.curves[static_cast<std::size_t>(flows.pressure)];
    SwingColumnFound result;
    result.P_Pa = request_.P_Pa[static_cast<std::size_t>(flows.pressure)];
    result.flows = flows;
    // Of an azeotrope that boils lowest the azeotrope leaves at the top, of one that boils highest the
    // product.
    const double x_top = study_.task.maximum ? flows.x_product : flows.x_passed,
                 x_bottom = study_.task.maximum ? flows.x_passed : flows.x_product;
    const std::size_t light = x_top > x_bottom ? 0 : 1;
    const auto of_light = [&](double x) { return light == 0 ? x : 1 - x; };
    ColumnEquilibrium equilibrium = ColumnEquilibrium::of(curve, light);
    const ColumnTask task{of_light(flows.z), of_light(x_top), of_light(x_bottom), 1, 1};
    result.T_top_K = equilibrium.T_K(task.top);
    result.T_bottom_K = equilibrium.T_K(task.bottom);
    result.least_reflux = minimum_reflux(equilibrium, task).ratio;
    const double reflux = std::max(0.05, request_.reflux_factor * result.least_reflux);
    result.stages = stages_at_reflux(equilibrium, task, reflux);
    heat(mixture, flows, task, reflux, result, light);
    return result;
  }

  // By the overall balance, the feed of each column boiling.
  void heat(Mixture& mixture, const SwingColumn& flows, const ColumnTask& task, double reflux,
            SwingColumnFound& result, std::size_t light) {
    try {
      if (mixture.one_equation()) throw CalculationError("one equation of state");
      Energies energies(mixture);
      const auto of = [&](std::size_t kind, double x_light) {
        const std::array<double, 2> x{light == 0 ? x_light : 1 - x_light, light == 0 ? 1 - x_light : x_light};
        const VlePoint point = kind == 1 ? bubble_temperature(mixture, result.P_Pa, x)
                                         : dew_temperature(mixture, result.P_Pa, x);
        return energies.enthalpy(kind, point.T_K, result.P_Pa, x);
      };
      const double top = flows.in * (task.feed - task.bottom) / (task.top - task.bottom),
                   bottom = flows.in - top;
      const double h_top = of(1, task.top);
      result.condenser_J_mol = top * (reflux + 1) * (of(0, task.top) - h_top);
      result.reboiler_J_mol =
          top * h_top + bottom * of(1, task.bottom) + *result.condenser_J_mol - flows.in * of(1, task.feed);
    } catch (const CalculationError& error) {
      study_.notices.add("no-duty", fmt::format("no heat of the columns: {}", error.what()));
    }
  }

  void judge() {
    const std::size_t high = study_.columns[0].P_Pa > study_.columns[1].P_Pa ? 0 : 1;
    study_.heat_gap_K = study_.columns[high].T_top_K - study_.columns[1 - high].T_bottom_K;
    const double moved = std::abs(study_.task.azeotropes[0] - study_.task.azeotropes[1]);
    // Heat of all reboilers: five times what evaporates a mole of such liquids is a lot.
    constexpr double enough = 0.05, much_recycle = 5, much_heat_J_mol = 2e5;
    double heat = 0;
    for (const SwingColumnFound& one : study_.columns) heat += one.reboiler_J_mol.value_or(0);
    const bool works = moved >= enough && study_.balance.recycle < much_recycle && heat < much_heat_J_mol;
    study_.verdict = fmt::format(
        "the azeotrope moves by {:.3f} in mole fraction, and {:.2f} mol are sent back for each mole of feed: "
        "{}",
        moved, study_.balance.recycle,
        works
            ? "two pressures separate this mixture"
            : "two pressures separate this mixture only with much heat; a third substance ('jampot screen') "
              "may be better");
    if (moved < enough)
      study_.notices.add("azeotrope-hardly-moves",
                         fmt::format("the azeotrope moves by {:.3f} only between {:.4g} and {:.4g} kPa",
                                     moved, request_.P_Pa[0] / 1000, request_.P_Pa[1] / 1000));
  }

  const SwingRequest& request_;
  SwingStudy study_;
};

}  // namespace

SwingStudy study(const SwingRequest& request) {
  return Swing(request).found();
}

}  // namespace jampot
