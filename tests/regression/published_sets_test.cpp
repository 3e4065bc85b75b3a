// Measured sets of print, and what was printed of them.
#include <gtest/gtest.h>

#include <cmath>

#include "jampot/regression/consistency.hpp"
#include "jampot/regression/fit.hpp"
#include "support.hpp"

namespace jampot {
namespace {

struct Printed {
  double P_kPa, x1, y1;
  double ln_gamma_1, ln_gamma_2, gE;  ///< over RT
};

// As printed in J. M. Smith, H. C. Van Ness, M. M. Abbott, Introduction to Chemical Engineering
// Thermodynamics, chapter on solution thermodynamics: 2-butanone and toluene at 50 degC (M. Diaz Pena, A.
// Crespo Colin, A. Compostizo, J. Chem. Thermodyn. 10 (1978) 337-341), Psat 36.09 and 12.30 kPa.
const std::vector<Printed> butanone_toluene{
    {15.51, 0.0895, 0.2716, 0.266, 0.009, 0.032}, {18.61, 0.1981, 0.4565, 0.172, 0.025, 0.054},
    {21.63, 0.3193, 0.5934, 0.108, 0.049, 0.068}, {24.01, 0.4232, 0.6815, 0.069, 0.075, 0.072},
    {25.92, 0.5119, 0.7440, 0.043, 0.100, 0.071}, {27.96, 0.6096, 0.8050, 0.023, 0.127, 0.063},
    {30.12, 0.7135, 0.8639, 0.010, 0.151, 0.051}, {31.75, 0.7934, 0.9048, 0.003, 0.173, 0.038},
    {34.15, 0.9102, 0.9590, -0.003, 0.237, 0.019}};

// The same book: chloroform and 1,4-dioxane at 50 degC (M. L. McGlashan, R. P. Rastogi, Trans. Faraday Soc.
// 54 (1958) 496-501), Psat 69.36 and 15.79 kPa.
const std::vector<Printed> chloroform_dioxane{
    {17.51, 0.0932, 0.1794, -0.722, 0.004, -0.064},  {18.15, 0.1248, 0.2383, -0.694, 0.000, -0.086},
    {19.30, 0.1757, 0.3302, -0.648, -0.007, -0.120}, {19.89, 0.2000, 0.3691, -0.636, -0.007, -0.133},
    {21.37, 0.2626, 0.4628, -0.611, -0.014, -0.171}, {24.95, 0.3615, 0.6184, -0.486, -0.057, -0.212},
    {29.82, 0.4750, 0.7552, -0.380, -0.127, -0.248}, {34.80, 0.5555, 0.8378, -0.279, -0.218, -0.252},
    {42.10, 0.6718, 0.9137, -0.192, -0.355, -0.245}, {60.38, 0.8780, 0.9860, -0.023, -0.824, -0.120},
    {65.39, 0.9398, 0.9945, -0.002, -0.972, -0.061}};

struct Set {
  const char* name;
  std::vector<std::string> substances;
  std::vector<double> Psat_kPa;
  const std::vector<Printed>* rows;
};

class PublishedSet : public ::testing::TestWithParam<Set> {
 protected:
  static constexpr double T_K = 323.15;

  // With the vapour pressures of the book.
  DataSet data() const {
    DataSet set;
    set.name = GetParam().name;
    set.kind = DataKind::pxy;
    set.substances = substances_named(GetParam().substances);
    for (std::size_t i = 0; i < 2; ++i) {
      auto& curve = set.substances[i].vapour_pressure;
      curve = curve->scaled(1000 * GetParam().Psat_kPa[i] / curve->P_Pa(T_K));
    }
    for (const Printed& row : *GetParam().rows)
      set.points.push_back({T_K,
                            1000 * row.P_kPa,
                            {row.x1, 1 - row.x1},
                            {row.y1, 1 - row.y1},
                            0.02,
                            30,
                            0.0005,
                            0.002,
                            static_cast<int>(set.points.size()) + 1});
    return set;
  }
};

TEST_P(PublishedSet, GivesTheActivityCoefficientsOfPrint) {
  const Consistency result = check_consistency(data());
  ASSERT_EQ(result.points.size(), GetParam().rows->size());
  constexpr double half_a_digit = 0.0006;
  for (std::size_t k = 0; k < result.points.size(); ++k) {
    const Printed& row = (*GetParam().rows)[k];
    EXPECT_NEAR(result.points[k].ln_gamma_1, row.ln_gamma_1, half_a_digit);
    EXPECT_NEAR(result.points[k].ln_gamma_2, row.ln_gamma_2, half_a_digit);
    EXPECT_NEAR(result.points[k].gE, row.gE, 0.0011);  // printed of the rounded ones
  }
}

// Margules' equation with two constants goes through the measured gE to what the points scatter.
TEST_P(PublishedSet, IsDescribedByMargules) {
  FitOptions options;
  options.model = "margules";
  options.form = {Coefficient::constant};
  options.objective = Objective::bubble_pressure;
  const Fit result = fit({data()}, options);
  Mixture mixture = result.mixture();
  mixture.activity().set_temperature(T_K);
  for (const Printed& row : *GetParam().rows) {
    std::vector<double> ln_gamma(2);
    mixture.activity().evaluate(std::vector{row.x1, 1 - row.x1}, ln_gamma);
    EXPECT_NEAR(row.x1 * ln_gamma[0] + (1 - row.x1) * ln_gamma[1], row.gE, 0.02);
  }
}

INSTANTIATE_TEST_SUITE_P(
    Print, PublishedSet,
    ::testing::Values(
        Set{"ButanoneToluene", {"2-butanone", "toluene"}, {36.09, 12.30}, &butanone_toluene},
        Set{"ChloroformDioxane", {"chloroform", "1,4-dioxane"}, {69.36, 15.79}, &chloroform_dioxane}),
    [](const auto& instance) { return std::string(instance.param.name); });

// Barker's method: the constants that make the sum of squared deviations of the pressure least, at the
// measured T and x. J. A. Barker, Austral. J. Chem. 6 (1953) 207-210. The sets are those of problems 12.1 and
// 12.3 in the same book, 7th ed. 2005, and the constants those of its printed solutions.
struct Pressure {
  double P_kPa, x1;
};

const std::vector<Pressure> methanol_water{
    {39.223, 0.1686}, {42.984, 0.2167}, {48.852, 0.3039}, {52.784, 0.3681}, {56.652, 0.4461},
    {60.614, 0.5282}, {63.998, 0.6044}, {67.924, 0.6804}, {70.229, 0.7255}, {72.832, 0.7776}};

const std::vector<Pressure> acetone_methanol{
    {72.278, 0.0287},  {75.279, 0.0570},  {77.524, 0.0858},  {78.951, 0.1046}, {82.528, 0.1452},
    {86.762, 0.2173},  {90.088, 0.2787},  {93.206, 0.3579},  {95.017, 0.4050}, {96.365, 0.4480},
    {97.646, 0.5052},  {98.462, 0.5432},  {99.811, 0.6332},  {99.950, 0.6605}, {100.278, 0.6945},
    {100.467, 0.7327}, {100.999, 0.7752}, {101.059, 0.7922}, {99.877, 0.9080}, {99.799, 0.9448}};

struct Barker {
  const char* name;
  std::vector<std::string> substances;
  double T_K;
  std::vector<double> Psat_kPa;
  const std::vector<Pressure>* rows;
  double A12, A21, Lambda12, Lambda21;  ///< printed
};

class BarkersMethod : public ::testing::TestWithParam<Barker> {
 protected:
  // Without y, and with T and x sure: all that is adjusted is the pressure.
  static Mixture fitted(const std::string& model) {
    const Barker& printed = GetParam();
    DataSet set;
    set.name = printed.name;
    set.kind = DataKind::px;
    set.substances = substances_named(printed.substances);
    for (std::size_t i = 0; i < 2; ++i) {
      auto& curve = set.substances[i].vapour_pressure;
      curve = curve->scaled(1000 * printed.Psat_kPa[i] / curve->P_Pa(printed.T_K));
    }
    for (const Pressure& row : *printed.rows) {
      DataPoint point;
      point.T_K = printed.T_K;
      point.P_Pa = 1000 * row.P_kPa;
      point.x = {row.x1, 1 - row.x1};
      point.u_T_K = 1e-7;
      point.u_P_Pa = 10;
      point.u_x = 1e-9;
      set.points.push_back(point);
    }
    FitOptions options;
    options.model = model;
    options.form = {Coefficient::constant};
    return fit({set}, options).mixture();
  }

  // Of component i, infinitely dilute.
  static double ln_limit(Mixture& mixture, std::size_t i) {
    std::vector<double> ln_gamma(2);
    mixture.activity().set_temperature(GetParam().T_K);
    mixture.activity().evaluate(i == 0 ? std::vector{0.0, 1.0} : std::vector{1.0, 0.0}, ln_gamma);
    return ln_gamma[i];
  }

  static constexpr double half_a_digit = 0.0006;  // three are printed
};

TEST_P(BarkersMethod, GivesTheMargulesConstantsOfPrint) {
  Mixture mixture = fitted("margules");
  EXPECT_NEAR(ln_limit(mixture, 0), GetParam().A12, half_a_digit);
  EXPECT_NEAR(ln_limit(mixture, 1), GetParam().A21, half_a_digit);
}

TEST_P(BarkersMethod, GivesTheWilsonConstantsOfPrint) {
  Mixture mixture = fitted("wilson");
  // ln gamma1 = 1 - ln Lambda12 - Lambda21 infinitely dilute, and the same of the other: solved for both.
  const double limit1 = ln_limit(mixture, 0), limit2 = ln_limit(mixture, 1);
  double Lambda12 = GetParam().Lambda12, Lambda21 = GetParam().Lambda21;
  for (int step = 0; step < 200; ++step) {
    const double off1 = 1 - std::log(Lambda12) - Lambda21 - limit1;
    const double off2 = 1 - std::log(Lambda21) - Lambda12 - limit2;
    // Newton's step of the two equations.
    const double det = 1 / (Lambda12 * Lambda21) - 1;
    Lambda12 += (off1 / Lambda21 - off2) / det;
    Lambda21 += (off2 / Lambda12 - off1) / det;
  }
  EXPECT_NEAR(1 - std::log(Lambda12) - Lambda21, limit1, 1e-10);
  EXPECT_NEAR(1 - std::log(Lambda21) - Lambda12, limit2, 1e-10);
  EXPECT_NEAR(Lambda12, GetParam().Lambda12, half_a_digit);
  EXPECT_NEAR(Lambda21, GetParam().Lambda21, half_a_digit);
}

INSTANTIATE_TEST_SUITE_P(Print, BarkersMethod,
                         ::testing::Values(Barker{"MethanolWater",
                                                  {"methanol", "water"},
                                                  333.15,
                                                  {84.562, 19.953},
                                                  &methanol_water,
                                                  0.758,
                                                  0.435,
                                                  0.348,
                                                  1.198},
                                           Barker{"AcetoneMethanol",
                                                  {"acetone", "methanol"},
                                                  328.15,
                                                  {96.885, 68.728},
                                                  &acetone_methanol,
                                                  0.644,
                                                  0.672,
                                                  0.732,
                                                  0.663}),
                         [](const auto& instance) { return std::string(instance.param.name); });

}  // namespace
}  // namespace jampot
