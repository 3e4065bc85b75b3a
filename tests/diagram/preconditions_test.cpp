// Every public entry refuses what has no meaning with one kind of error, before it computes anything.
#include <gtest/gtest.h>

#include <functional>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/diagram/binary_vle.hpp"
#include "jampot/diagram/boiling_region.hpp"
#include "jampot/diagram/comparison.hpp"
#include "jampot/diagram/gamma.hpp"
#include "jampot/diagram/liquid_comparison.hpp"
#include "jampot/diagram/residue_map.hpp"
#include "jampot/diagram/solubility.hpp"
#include "jampot/diagram/ternary.hpp"
#include "jampot/equilibrium/bubble_dew.hpp"
#include "jampot/equilibrium/critical_solution.hpp"
#include "jampot/equilibrium/decanter.hpp"
#include "jampot/equilibrium/flash_states.hpp"
#include "jampot/equilibrium/fluid_boundary.hpp"
#include "jampot/equilibrium/liquid_split.hpp"
#include "jampot/equilibrium/rachford_rice.hpp"
#include "jampot/equilibrium/singular_points.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/phase/energies.hpp"
#include "jampot/regression/consistency.hpp"
#include "jampot/regression/fit.hpp"
#include "jampot/substance/properties.hpp"
#include "jampot/substance/saturation.hpp"
#include "support.hpp"

namespace jampot {
namespace {

const std::vector<double> no_numbers{NAN, HUGE_VAL, -HUGE_VAL, 0.0, -1.0};
const std::vector<std::vector<double>> no_fractions{{},
                                                    {1},
                                                    {0.5, 0.5},
                                                    {0.2, 0.3, 0.4, 0.1},
                                                    {0.2, 0.3, NAN},
                                                    {10, 20, 30},
                                                    {-0.1, 0.6, 0.5},
                                                    {0.2, 0.2, 0.2},
                                                    {HUGE_VAL, 0, 0}};

struct Three {
  Mixture mixture{substances_named({"acetone", "methanol", "water"}), "unifac", {}};
  Energies energies{mixture};
  std::vector<double> x{0.2, 0.3, 0.5};
};

void expect_refused(const std::string& what, const std::function<void()>& call) {
  try {
    call();
    ADD_FAILURE() << what << " was taken";
  } catch (const RequestError& error) {
    EXPECT_GT(std::string(error.what()).size(), 10u) << what;
  } catch (const std::exception& error) {
    ADD_FAILURE() << what << ": " << error.what();
  }
}

TEST(Preconditions, TemperaturesAndPressures) {
  Three m;
  Mixture two(substances_named({"acetone", "water"}), "unifac", {});
  Mixture fluid(substances_named({"propane", "n-hexane"}), "eos", {}, VapourChoice{"pr", {}, {}, {}, {}});
  const Substance& water = Bank::built_in().require("water");
  const std::vector<std::pair<const char*, std::function<void(double)>>> calls{
      {"bubble_temperature", [&](double v) { bubble_temperature(m.mixture, v, m.x); }},
      {"bubble_pressure", [&](double v) { bubble_pressure(m.mixture, v, m.x); }},
      {"dew_temperature", [&](double v) { dew_temperature(m.mixture, v, m.x); }},
      {"dew_pressure", [&](double v) { dew_pressure(m.mixture, v, m.x); }},
      {"flash_at T",
       [&](double v) {
         flash_at(m.mixture, {Kelvin(v), Pascal(1e5)}, m.x);
       }},
      {"flash_at P",
       [&](double v) {
         flash_at(m.mixture, {Kelvin(340), Pascal(v)}, m.x);
       }},
      {"flash_at_P_and_vapour_fraction",
       [&](double v) { flash_at_P_and_vapour_fraction(m.mixture, v, 0.5, m.x); }},
      {"flash_at_T_and_vapour_fraction",
       [&](double v) { flash_at_T_and_vapour_fraction(m.mixture, v, 0.5, m.x); }},
      {"flash_at_P_and_enthalpy",
       [&](double v) { flash_at_P_and_enthalpy(m.mixture, m.energies, v, -3e4, m.x, 330); }},
      {"FlashSolver",
       [&](double v) {
         FlashSolver(m.mixture.kinds()).flash({Kelvin(v), Pascal(1e5)}, m.x);
       }},
      {"txy", [&](double v) { txy(two, v); }},
      {"pxy", [&](double v) { pxy(two, v); }},
      {"txy of a fluid", [&](double v) { txy(fluid, v); }},
      {"fluid_boundary",
       [&](double v) {
         fluid_boundary(fluid, Sought::temperature, v, std::vector{0.5, 0.5}, true);
       }},
      {"singular_points", [&](double v) { singular_points(m.mixture, v); }},
      {"boiling_regions", [&](double v) { boiling_regions(m.mixture, v); }},
      {"residue_map", [&](double v) { residue_map(m.mixture, v); }},
      {"ternary_diagram", [&](double v) { ternary_diagram(m.mixture.activity(), v); }},
      {"tie_line_through",
       [&](double v) {
         tie_line_through(m.mixture.activity(), v, {0.2, 0.3, 0.5});
       }},
      {"LiquidSplitter", [&](double v) { LiquidSplitter(m.mixture.activity(), v); }},
      {"binary_splits", [&](double v) { binary_splits(two.activity(), v); }},
      {"critical_solutions", [&](double v) { critical_solutions(two.activity(), v, 400); }},
      {"solubility", [&](double v) { solubility(two.activity(), {v}); }},
      {"gamma_at",
       [&](double v) {
         gamma_at(two.activity(), v, {0.5, 0.5});
       }},
      {"limiting_ln_gamma", [&](double v) { limiting_ln_gamma(two.activity(), v, 0, 1); }},
      {"properties_at T", [&](double v) { properties_at(water, v, 1e5, {}); }},
      {"properties_at P", [&](double v) { properties_at(water, 300, v, {}); }},
      {"properties_at_saturation", [&](double v) { properties_at_saturation(water, v, {}); }},
      {"saturation_at_temperature", [&](double v) { saturation_at_temperature(water, v); }},
      {"saturation_at_pressure", [&](double v) { saturation_at_pressure(water, v); }}};
  for (const auto& [name, call] : calls) {
    for (const double value : no_numbers)
      expect_refused(std::string(name) + " at " + std::to_string(value), [&, c = &call] { (*c)(value); });
  }
}

TEST(Preconditions, FractionsAndTheirNumber) {
  Three m;
  LiquidSplitter splitter(m.mixture.activity(), 300);
  const std::vector<std::pair<const char*, std::function<void(const std::vector<double>&)>>> calls{
      {"bubble_temperature", [&](const auto& x) { bubble_temperature(m.mixture, 1e5, x); }},
      {"dew_pressure", [&](const auto& x) { dew_pressure(m.mixture, 330, x); }},
      {"flash_at",
       [&](const auto& x) {
         flash_at(m.mixture, {Kelvin(340), Pascal(1e5)}, x);
       }},
      {"flash_at_P_and_vapour_fraction",
       [&](const auto& x) { flash_at_P_and_vapour_fraction(m.mixture, 1e5, 0.5, x); }},
      {"flash_at_T_and_vapour_fraction",
       [&](const auto& x) { flash_at_T_and_vapour_fraction(m.mixture, 330, 0.5, x); }},
      {"flash_at_P_and_enthalpy",
       [&](const auto& x) { flash_at_P_and_enthalpy(m.mixture, m.energies, 1e5, -3e4, x, 330); }},
      {"FlashSolver",
       [&](const auto& x) {
         FlashSolver(m.mixture.kinds()).flash({Kelvin(340), Pascal(1e5)}, x);
       }},
      {"LiquidSplitter::split", [&](const auto& x) { splitter.split(x); }},
      {"gamma_at", [&](const auto& x) { gamma_at(m.mixture.activity(), 300, x); }}};
  for (const auto& [name, call] : calls) {
    for (const auto& x : no_fractions) expect_refused(name, [&, c = &call] { (*c)(x); });
  }
  for (const std::size_t size : {0u, 1u, 2u, 4u}) {
    const std::vector<double> wrong(size, 0.25);
    double distance = 0;
    expect_refused("more_stable", [&] { splitter.more_stable(wrong, distance); });
    expect_refused("ln_activities", [&] { splitter.ln_activities(wrong); });
    expect_refused("two_near", [&] { splitter.two_near(m.x, wrong, m.x); });
    expect_refused("Energies::enthalpy", [&] { m.energies.enthalpy(1, 300, 1e5, wrong); });
    expect_refused("mass_fractions", [&] { mass_fractions(wrong, m.mixture.substances()); });
    expect_refused("rachford_rice", [&] { rachford_rice(m.x, wrong); });
  }
  expect_refused("Energies of no such phase", [&] { m.energies.enthalpy(7, 300, 1e5, m.x); });
}

TEST(Preconditions, ModelsSubstancesAndFeedsGoTogether) {
  const auto three = substances_named({"acetone", "methanol", "water"}),
             two = substances_named({"acetone", "water"});
  const auto of_two = make_activity_model("unifac", two, {}),
             of_three = make_activity_model("unifac", three, {});
  expect_refused("a model of two for three", [&] { Mixture(three, of_two->clone(), {}); });
  expect_refused("no model", [&] { Mixture(three, std::unique_ptr<ActivityModel>(), {}); });
  expect_refused("binary_splits of three", [&] { binary_splits(*of_three, 300); });
  expect_refused("stability_function of three", [&] { stability_function(*of_three, 0.5); });
  expect_refused("critical_solutions of three", [&] { critical_solutions(*of_three, 300, 350); });
  expect_refused("critical_solutions backwards", [&] { critical_solutions(*of_two, 350, 300); });
  expect_refused("gamma_line of three", [&] { gamma_line(*of_three, 300, 5); });
  expect_refused("gamma_line of one point", [&] { gamma_line(*of_two, 300, 1); });
  expect_refused("limits of no substance", [&] { limiting_ln_gamma(*of_two, 300, 0, 2); });
  expect_refused("ternary of two", [&] { ternary_diagram(*of_two, 300); });
  Mixture mixture(two, "unifac", {});
  expect_refused("regions of two", [&] { boiling_regions(mixture, 1e5); });
  expect_refused("map of two", [&] { residue_map(mixture, 1e5); });
  expect_refused("no kinds of phases", [&] { FlashSolver(std::vector<Phase*>{}); });
  Feed feed;
  feed.n = {1, 2, 3};
  DecanterConditions conditions;
  expect_refused("a feed of three for two", [&] { decant(two, *of_two, feed, conditions); });
  expect_refused("substances of three for a model of two", [&] { decant(three, *of_two, feed, conditions); });
  for (const double wrong : {double{NAN}, -1.0, HUGE_VAL}) {
    feed.n = {1, wrong};
    expect_refused("a feed of no amount", [&] { decant(two, *of_two, feed, conditions); });
  }
  feed.n = {0, 0};
  expect_refused("an empty feed", [&] { decant(two, *of_two, feed, conditions); });
  feed.n = {1, 1};
  conditions.T_K = NAN;
  expect_refused("a decanter without temperature", [&] { decant(two, *of_two, feed, conditions); });
}

TEST(Preconditions, MeasuredPoints) {
  Mixture mixture = test::mtbe_methanol();
  DataSet right;
  right.name = "made up";
  right.kind = DataKind::txy;
  right.substances = mixture.substances();
  for (const double x : {0.1, 0.3, 0.5, 0.7, 0.9}) {
    const VlePoint point = bubble_temperature(mixture, 101325, std::vector<double>{x, 1 - x});
    right.points.push_back({point.T_K, point.P_Pa, point.x, point.y, 0.1, 100, 0.002, 0.005, 1});
  }
  EXPECT_NO_THROW(fit({right}));
  const std::vector<std::pair<const char*, std::function<void(DataPoint&)>>> faults{
      {"T_K", [](DataPoint& p) { p.T_K = NAN; }},     {"P_Pa", [](DataPoint& p) { p.P_Pa = -1; }},
      {"u_P_Pa", [](DataPoint& p) { p.u_P_Pa = 0; }}, {"u_T_K", [](DataPoint& p) { p.u_T_K = 0; }},
      {"u_x", [](DataPoint& p) { p.u_x = NAN; }},     {"u_y", [](DataPoint& p) { p.u_y = -0.1; }},
      {"x", [](DataPoint& p) { p.x = {0.5}; }},       {"y", [](DataPoint& p) { p.y = {0.5, 0.2, 0.3}; }},
      {"fraction", [](DataPoint& p) { p.x[0] = 30; }}};
  for (const auto& [name, spoil] : faults) {
    DataSet wrong = right;
    spoil(wrong.points[2]);
    try {
      fit({wrong});
      ADD_FAILURE() << name;
    } catch (const RequestError& error) {
      EXPECT_NE(std::string(error.what()).find("point 3"), std::string::npos) << error.what();
      EXPECT_NE(std::string(error.what()).find(name), std::string::npos) << error.what();
    }
    if (std::string(name).starts_with("u_")) continue;
    expect_refused("consistency", [&] { check_consistency(wrong); });
    expect_refused("compare", [&] { compare(mixture, wrong); });
  }
  DataSet of_one = right;
  of_one.substances.pop_back();
  expect_refused("compare with one substance", [&] { compare(mixture, of_one); });
}

}  // namespace
}  // namespace jampot
