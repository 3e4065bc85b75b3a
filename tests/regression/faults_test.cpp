// Mistakes that people make, in random data: each is named for what it is in nine of ten, and sound data,
// noisy data and a model that cannot are not taken for one.
#include <gtest/gtest.h>

#include <cmath>
#include <functional>

#include "jampot/basis/error.hpp"
#include "jampot/phase/composition.hpp"
#include "jampot/regression/fit.hpp"
#include "synthetic.hpp"

namespace jampot {
namespace {

constexpr int systems = 24;

Mixture random_pair(unsigned number, std::mt19937_64& generator) {
  const std::pair<const char*, const char*> pairs[] = {
      {"MTBE", "methanol"},           {"acetone", "water"},      {"ethanol", "toluene"},
      {"2-propanol", "water"},        {"acetone", "methanol"},   {"ethyl acetate", "ethanol"},
      {"methanol", "water"},          {"1-propanol", "toluene"}, {"acetonitrile", "water"},
      {"tetrahydrofuran", "ethanol"}, {"chloroform", "acetone"}, {"n-hexane", "ethyl acetate"}};
  const auto& [first, second] = pairs[number % std::size(pairs)];
  std::uniform_real_distribution<double> energy(-50, 450);
  const double b12 = energy(generator), b21 = energy(generator);
  const auto substances = substances_named({first, second});
  ParameterCollection collection;
  collection.add(test::nrtl_pair(substances[0].name, substances[1].name, b12, b21, 0.3));
  return {substances, "nrtl", collection};
}

// Isobaric at three atmospheres, where gauge and absolute pressures are told apart.
DataSet compressed(Mixture mixture, unsigned seed) {
  DataSet data;
  data.name = "compressed";
  data.kind = DataKind::txy;
  data.substances = mixture.substances();
  std::mt19937_64 generator(seed);
  std::normal_distribution<double> normal;
  for (int k = 0; k < 20; ++k) {
    const double x1 = 0.03 + 0.94 * k / 19;
    const VlePoint exact = bubble_temperature(mixture, 3e5, std::vector{x1, 1 - x1});
    DataPoint point{exact.T_K, 3e5, exact.x, exact.y, 0.05, 50, 0.002, 0.004, k + 1};
    point.T_K += 0.05 * normal(generator);
    point.x[0] += 0.002 * normal(generator);
    point.y[0] += 0.004 * normal(generator);
    point.x[1] = 1 - point.x[0];
    point.y[1] = 1 - point.y[0];
    data.points.push_back(point);
  }
  return data;
}

// What a fit says of the data: the notices that name a mistake, or why there is no fit.
std::string said_of(const DataSet& data, const FitOptions& options = {}) {
  try {
    std::string said;
    for (const Notice& notice : fit({data}, options).notices) {
      if (notice.code == "data-misread" || notice.code == "data-implausible") said += notice.text + "\n";
    }
    return said;
  } catch (const CalculationError& error) {
    return error.what();
  }
}

struct Fault {
  const char* name;
  const char* said;
  std::function<void(DataPoint&, const std::vector<Substance>&)> make;
  bool compressed = false;
};

class Faults : public ::testing::TestWithParam<Fault> {};

TEST_P(Faults, AreNamed) {
  std::mt19937_64 generator(5);
  int named = 0;
  for (unsigned k = 0; k < systems; ++k) {
    const Mixture mixture = random_pair(k, generator);
    DataSet data = GetParam().compressed
                       ? compressed(mixture, 50 + k)
                       : test::synthetic(mixture, k % 2 == 0 ? DataKind::pxy : DataKind::txy, 20, 50 + k);
    for (DataPoint& point : data.points) GetParam().make(point, data.substances);
    named += said_of(data).find(GetParam().said) != std::string::npos;
  }
  EXPECT_GE(named, std::ceil(0.9 * systems)) << named << " of " << systems;
}

INSTANTIATE_TEST_SUITE_P(
    Each, Faults,
    ::testing::Values(
        Fault{"ComponentsExchanged", "two components are exchanged",
              [](DataPoint& point, const auto&) {
                std::swap(point.x[0], point.x[1]);
                std::swap(point.y[0], point.y[1]);
              }},
        Fault{"LiquidForVapour", "liquid and vapour are exchanged",
              [](DataPoint& point, const auto&) { std::swap(point.x, point.y); }},
        Fault{"MassForMole", "mass fractions stated as mole fractions",
              [](DataPoint& point, const auto& substances) {
                point.x = mass_fractions(point.x, substances);
                point.y = mass_fractions(point.y, substances);
              }},
        Fault{"Gauge", "gauge pressures stated as absolute",
              [](DataPoint& point, const auto&) { point.P_Pa -= 101325; }, true},
        Fault{"UnitOfPressure", "mmHg stated as kPa",
              [](DataPoint& point, const auto&) { point.P_Pa *= 7.500617; }},
        Fault{"UnitOfTemperature", "degrees Fahrenheit stated as degrees Celsius",
              [](DataPoint& point, const auto&) { point.T_K = 1.8 * (point.T_K - 273.15) + 32 + 273.15; }},
        Fault{"Thermometer", "K too high", [](DataPoint& point, const auto&) { point.T_K += 1; }},
        Fault{"GaugeThatIsOff", "% too low", [](DataPoint& point, const auto&) { point.P_Pa *= 0.96; }}),
    [](const auto& instance) { return std::string(instance.param.name); });

TEST(NoFault, IsNamedWhereDataAreSoundNoisyOrBeyondTheModel) {
  std::mt19937_64 generator(7);
  int sound = 0, noisy = 0, beyond = 0;
  for (unsigned k = 0; k < systems; ++k) {
    const Mixture mixture = random_pair(k, generator);
    const DataSet data = test::synthetic(mixture, k % 2 == 0 ? DataKind::pxy : DataKind::txy, 20, 50 + k);
    sound += !said_of(data).empty();
    DataSet sharp = data;  // uncertainties stated far too small
    for (DataPoint& point : sharp.points) {
      for (double* u : {&point.u_T_K, &point.u_P_Pa, &point.u_x, &point.u_y}) *u /= 2.5;
    }
    noisy += !said_of(sharp).empty();
    FitOptions stiff;
    stiff.hold = {{"tau_12", 0.0}};  // cannot describe most of them
    beyond += !said_of(data, stiff).empty();
  }
  EXPECT_EQ(sound, 0);
  EXPECT_EQ(noisy, 0);
  EXPECT_LE(beyond, 3);
}

}  // namespace
}  // namespace jampot
