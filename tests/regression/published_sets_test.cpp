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

}  // namespace
}  // namespace jampot
