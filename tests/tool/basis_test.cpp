// Mole and mass: what goes in by the one and comes out by the other is the same liquid.
#include <cmath>

#include "jampot/phase/composition.hpp"
#include "jampot/phase/mixture.hpp"
#include "requests.hpp"

namespace jampot {
namespace {

using nlohmann::json;
using test::demo_place;
using test::json_answer;

std::string composition(const std::vector<std::string>& names, const std::vector<double>& x) {
  std::string text;
  for (std::size_t i = 0; i < names.size(); ++i)
    text += (i > 0 ? ", " : "") + names[i] + "=" + std::to_string(x[i]);
  return "'" + text + "'";
}

// Six decimals, as they are written on the command line.
std::vector<double> rounded(std::vector<double> x) {
  double sum = 0;
  for (std::size_t i = 0; i + 1 < x.size(); ++i) sum += x[i] = std::round(x[i] * 1e6) / 1e6;
  x.back() = 1 - sum;
  return x;
}

const std::vector<std::string>& names() {
  static const std::vector<std::string> list{"acetone", "methanol", "water"};
  return list;
}

TEST(Basis, BubblePointsByMassAreThoseByMole) {
  const auto substances = substances_named(names());
  for (const auto& x : {std::vector<double>{0.2, 0.3, 0.5}, {0.05, 0.9, 0.05}, {0.6, 0.1, 0.3}}) {
    const std::vector<double> w = rounded(mass_fractions(x, substances));
    const std::string common = " acetone methanol water --pressure '1 atm' --composition ";
    for (const char* command : {"bubble", "dew"}) {
      const json mole = json_answer(demo_place(), command + common + composition(names(), x));
      const json mass =
          json_answer(demo_place(), command + common + composition(names(), w) + " --basis mass");
      EXPECT_NEAR(mole["points"][0]["T_K"].get<double>(), mass["points"][0]["T_K"].get<double>(), 1e-3);
      for (std::size_t i = 0; i < 3; ++i) {
        for (const char* key : {"x", "y", "w_liquid", "w_vapour"})
          EXPECT_NEAR(mole["points"][0][key][i].get<double>(), mass["points"][0][key][i].get<double>(), 1e-5)
              << command << " " << key;
      }
      const auto fed =
          mass["points"][0][*command == 'b' ? "w_liquid" : "w_vapour"].get<std::vector<double>>();
      for (std::size_t i = 0; i < 3; ++i) EXPECT_NEAR(fed[i], w[i], 1e-9);
    }
  }
}

TEST(Basis, ActivityCoefficientsByMassAreThoseByMole) {
  const auto substances = substances_named(names());
  const std::vector<double> x{0.25, 0.35, 0.4};
  const std::string common = "gamma acetone methanol water --temperature '60 degC' --composition ";
  const json mole = json_answer(demo_place(), common + composition(names(), x));
  const json mass = json_answer(
      demo_place(), common + composition(names(), rounded(mass_fractions(x, substances))) + " --basis mass");
  for (std::size_t i = 0; i < 3; ++i)
    EXPECT_NEAR(mole["points"][0]["ln_gamma"][i].get<double>(),
                mass["points"][0]["ln_gamma"][i].get<double>(), 1e-5);
}

TEST(Basis, AFeedByMassPartsAsByMole) {
  const std::vector<std::string> three{"ethyl acetate", "ethanol", "water"};
  const auto substances = substances_named(three);
  const std::vector<double> x{0.15, 0.05, 0.8};
  const std::string common = "split 'ethyl acetate' ethanol water --temperature '25 degC' --feed ";
  const json mole = json_answer(demo_place(), common + composition(three, x));
  const json mass = json_answer(
      demo_place(), common + composition(three, rounded(mass_fractions(x, substances))) + " --basis mass");
  ASSERT_EQ(mole["phases"].size(), 2u);
  ASSERT_EQ(mass["phases"].size(), 2u);
  for (std::size_t p = 0; p < 2; ++p) {
    for (const char* key : {"mole_share", "mass_share", "density_kg_m3"})
      EXPECT_NEAR(mole["phases"][p][key].get<double>() / mass["phases"][p][key].get<double>(), 1, 1e-4)
          << key;
    double sum_w = 0, sum_x = 0;
    for (std::size_t i = 0; i < 3; ++i) {
      sum_w += mole["phases"][p]["w"][i].get<double>();
      sum_x += mole["phases"][p]["x"][i].get<double>();
      EXPECT_NEAR(mole["phases"][p]["x"][i].get<double>(), mass["phases"][p]["x"][i].get<double>(), 1e-5);
    }
    EXPECT_NEAR(sum_w, 1, 1e-12);
    EXPECT_NEAR(sum_x, 1, 1e-12);
  }
}

// The same amounts, in kilograms and in moles.
TEST(Basis, FlowsOfMolesAndOfMassFlashAlike) {
  const auto substances = substances_named({"methyl tert-butyl ether", "methanol"});
  const double n1 = 20, n2 = 15;  // kmol/h
  const std::string pair =
      "flash MTBE methanol " + test::demo_parameters() + " --temperature '53.5 degC' --pressure '1.05 atm' ";
  const json mole = json_answer(demo_place(), pair + "--feed 'MTBE=20 kmol/h, methanol=15 kmol/h'");
  const json mass = json_answer(
      demo_place(), pair + "--feed 'MTBE=" + std::to_string(n1 * 1e3 * substances[0].molar_mass_kg_mol) +
                        " kg/h, methanol=" + std::to_string(n2 * 1e3 * substances[1].molar_mass_kg_mol) +
                        " kg/h'");
  EXPECT_NEAR(mole["vapour_fraction"].get<double>(), mass["vapour_fraction"].get<double>(), 1e-6);
  double total = 0;
  for (const json& phase : mole["amounts"]) {
    for (const json& n : phase[phase.contains("n") ? "n" : "n_mol_s"]) total += n.get<double>();
  }
  EXPECT_NEAR(total, (n1 + n2) * 1e3 / 3600, 1e-9);
}

// The table says what it shows; with mass no heading of a mole fraction is left.
TEST(Basis, NoHeadingOfAMoleFractionIsLeftByMass) {
  const std::string pair = "MTBE methanol " + test::demo_parameters();
  for (const std::string& request :
       {"bubble " + pair + " --composition MTBE=0.3 --pressure '1 atm' --compare unifac",
        "dew " + pair + " --composition MTBE=0.3 --pressure '1 atm' --compare unifac",
        "txy " + pair + " --pressure '1 atm' --compare unifac --points 5",
        "pxy " + pair + " --temperature '55 degC' --points 5 --uncertainty",
        "azeotropes " + pair + " --pressure '1 atm'",
        std::string("ternary water ethanol 'ethyl acetate' --temperature '25 degC'"),
        std::string("residue acetone chloroform methanol --liquid unifac --pressure '1 atm' --compare ideal"),
        "gamma " + pair + " --temperature '50 degC' --points 5"}) {
    const test::Ran ran = demo_place().run(request + " --basis mass");
    EXPECT_EQ(ran.status, 0) << ran.err;
    EXPECT_EQ(ran.out.find("x("), std::string::npos) << request << "\n" << ran.out;
    EXPECT_EQ(ran.out.find(" y("), std::string::npos) << request << "\n" << ran.out;
    EXPECT_NE(ran.out.find("w("), std::string::npos) << request << "\n" << ran.out;
  }
}

TEST(Basis, SideBySideByMassIsTheConversionOfThatByMole) {
  const auto substances = substances_named({"methyl tert-butyl ether", "methanol"});
  const std::string request = "txy MTBE methanol " + test::demo_parameters() +
                              " --pressure '1 atm' --compare unifac --points 5 --csv ";
  const auto side_by_side = [&](const std::string& file, const std::string& more) {
    EXPECT_EQ(demo_place().run(request + file + more).status, 0);
    std::istringstream lines(demo_place().read(file));
    std::vector<std::vector<double>> rows;
    bool there = false;
    for (std::string line; std::getline(lines, line);) {
      if (line.starts_with("# Models side by side")) {
        there = true;
        std::getline(lines, line);  // the header
        continue;
      }
      if (line.empty()) there = false;
      if (!there) continue;
      rows.emplace_back();
      std::istringstream cells(line);
      for (std::string cell; std::getline(cells, cell, ',');) rows.back().push_back(std::stod(cell));
    }
    return rows;
  };
  const auto mole = side_by_side("mole.csv", ""), mass = side_by_side("mass.csv", " --basis mass");
  ASSERT_EQ(mole.size(), 5u);
  ASSERT_EQ(mass.size(), 5u);
  for (std::size_t r = 0; r < mole.size(); ++r) {
    for (const std::size_t fraction : {std::size_t{0}, std::size_t{2}, std::size_t{4}}) {
      const std::vector<double> x{mole[r][fraction], 1 - mole[r][fraction]};
      EXPECT_NEAR(mass[r][fraction], mass_fractions(x, substances)[0], 1e-9);
    }
    for (const std::size_t T : {std::size_t{1}, std::size_t{3}}) EXPECT_NEAR(mass[r][T], mole[r][T], 1e-9);
  }
}

TEST(Basis, AThirdIsRefused) {
  test::expect_refused(
      demo_place(),
      {{"bubble acetone water --composition acetone=0.3 --pressure '1 atm' --basis volume", "mole"},
       {"split acetone water --feed 'acetone=0.3' --temperature '25 degC' --basis weight", "mass"},
       {"bubble acetone water --composition 'acetone=0.3, water=0.6' --pressure '1 atm'", "1"},
       {"bubble acetone water --composition 'acetone=30 kg, water=60 kg' --pressure '1 atm'", "kg"}});
}

}  // namespace
}  // namespace jampot
