// Each notice is told where it belongs: one request for every code that no other test meets.
#include "requests.hpp"

namespace jampot::test {
namespace {

struct Told {
  const char *code, *request;
};

// Made-up vapour pressures of acetone and methanol at 55 degC with an odd liquid between them.
const char* const odd_data =
    "# substances: acetone, methanol\n# kind: pxy\n# u(T): 0.02 K\n# u(P): 0.02 kPa\n# u(x): 0.0005\n"
    "# u(y): 0.002\nT [degC], P [kPa], x1, y1\n";

std::string odd_points(double (*ln_gamma_1)(double), double (*ln_gamma_2)(double), int count) {
  std::string text = odd_data;
  for (int k = 1; k < count; ++k) {
    const double x = static_cast<double>(k) / count;
    const double a = x * std::exp(ln_gamma_1(x)) * 97, b = (1 - x) * std::exp(ln_gamma_2(x)) * 69;
    text +=
        "55," + std::to_string(a + b) + "," + std::to_string(x) + "," + std::to_string(a / (a + b)) + "\n";
  }
  return text;
}

// The second data set of the file, whose first row then lacks its last property.
std::string without_one_value(std::string text) {
  const std::size_t set = text.find("<nPureOrMixtureDataNumber>2<");
  const std::size_t row = text.find("<NumValues>", set), end = text.find("</NumValues>", row);
  const std::size_t value = text.rfind("<PropertyValue>", end);
  return text.erase(value, end - value);
}

class EachNotice : public testing::TestWithParam<Told> {};

TEST_P(EachNotice, IsTold) {
  const Workplace place;
  place.put_data();
  place.write("odd.csv", odd_points([](double x) { return 9.5 * std::pow(1 - x, 6); },
                                    [](double x) { return 0.1 * x * x; }, 12));
  place.write("wave.csv", odd_points([](double x) { return 0.25 * std::sin(9 * x); },
                                     [](double x) { return -0.25 * std::sin(9 * x); }, 8));
  const std::string sets = read_file(JAMPOT_SOURCE_DIR "/tests/files/equilibria.xml");
  place.write("sets.xml", sets);
  place.write("gap.xml", without_one_value(sets));
  place.write("excluded.csv", std::string(odd_data).insert(std::string(odd_data).size() - 1, ", exclude") +
                                  "55, 75, 0.1, 0.2, leak\n55, 80, 0.2, 0.33,\n55, 85, 0.4, 0.5,\n");
  place.write("alike.csv",
              "solute,solvent,T [degC],gamma\nmine,n-hexane,25,5\nmine,n-heptane,25,5.1\n"
              "mine,n-octane,25,5.2\nmine,n-pentane,25,4.9\nmine,cyclohexane,25,5\nmine,n-hexane,35,4.8\n");
  ASSERT_EQ(place
                .run("define oil --molar-mass 300 --unifac-groups 'CH3=2, CH2=18' --unifac-lle-groups "
                     "'CH3=2, CH2=18' --non-volatile --out oil.substance.toml")
                .status,
            0);
  ASSERT_EQ(place
                .run("define light --molar-mass 100 --vapour-pressure 'log10(P/mmHg) = 8.07131 - "
                     "1730.63/(T/degC + 233.426), 1 to 100 degC' --out light.substance.toml")
                .status,
            0);
  ASSERT_EQ(place.run("regress data.csv --out fit.pairs.toml").status, 0);
  const nlohmann::json answer = json_answer(place, GetParam().request);
  std::vector<std::string> codes;
  for (const nlohmann::json& notice : answer.at("notices")) codes.push_back(notice.at("code"));
  EXPECT_NE(std::find(codes.begin(), codes.end(), GetParam().code), codes.end()) << GetParam().request;
}

INSTANTIATE_TEST_SUITE_P(
    Notices, EachNotice,
    testing::Values(
        Told{"below-melting",
             "bubble water ethanol --liquid unifac --composition water=0.5 --temperature '-20 degC'"},
        Told{"non-volatile",
             "bubble water ethanol --liquid unifac --non-volatile ethanol --composition water=0.9 --pressure "
             "'1 atm'"},
        Told{"henry-one-temperature",
             "bubble water 'carbon dioxide' --liquid ideal --henry 'carbon dioxide in water = 1640 bar' "
             "--composition water=0.999 --temperature '25 degC'"},
        Told{"hydrogen-alpha",
             "flash hydrogen methane --liquid srk --feed 'hydrogen=0.5, methane=0.5' --temperature '120 K' "
             "--pressure '20 bar'"},
        Told{"ideal-vapour", "consistency data.csv"},
        Told{"may-freeze", "solubility water 1-butanol --temperature '-5 degC'"},
        Told{"mosced-water", "gamma ethanol water --liquid mosced --limiting --temperature '25 degC'"},
        Told{"no-duty",
             "split water 1-butanol --feed 'water=0.5, 1-butanol=0.5' --temperature '25 degC' "
             "--feed-temperature '60 degC'"},
        Told{"one-liquid", "ternary water ethanol methanol --temperature '25 degC'"},
        Told{"no-tie-line",
             "ternary water ethanol 'ethyl acetate' --temperature '25 degC' --tie-line 'water=0.1, "
             "ethanol=0.8, ethyl acetate=0.1'"},
        Told{"no-unifac-groups", "define mine --smiles 'C#CC#N' --boiling-point '60 degC'"},
        Told{"density-temperature",
             "define mine --molar-mass 100 --density '600 kg/m3 at 40 degC' --non-volatile"},
        Told{"similar-densities",
             "split water aniline --feed 'water=0.5, aniline=0.5' --temperature '25 degC'"},
        Told{"two-boiling-liquids",
             "bubble water n-hexane --liquid pr --composition water=0.5 --pressure '5 bar'"},
        Told{"correlated-parameters", "regress data.csv --form 'constant, inverse_T'"},
        Told{"fitted-with-other-vapour",
             "txy MTBE methanol --parameters fit.pairs.toml --vapour virial --pressure '1 atm'"},
        Told{"no-enthalpy",
             "flash water oil --substance oil.substance.toml --liquid unifac --feed 'water=0.5, oil=0.5' "
             "--temperature '120 degC' --pressure '1 atm'"},
        Told{"no-poynting",
             "bubble water light --substance light.substance.toml --liquid ideal --poynting on --composition "
             "water=0.5 --pressure '1 atm'"},
        Told{"no-density",
             "split water oil --substance oil.substance.toml --feed 'water=0.5, oil=0.5' --temperature "
             "'25 degC'"},
        Told{"doubtful-interactions",
             "bubble 2-pentanone trichloroethylene --liquid unifac-lle --composition 2-pentanone=0.5 "
             "--pressure '1 atm'"},
        Told{"data-not-drawn", "bubble ethanol water --measured sets.xml --liquid unifac"},
        Told{"other-minima", "regress odd.csv --model wilson"},
        Told{"extreme-limit", "regress odd.csv --model wilson"},
        Told{"parameter-at-bound", "regress odd.csv --model wilson"},
        Told{"invented-azeotropes", "regress odd.csv --release alpha"}, Told{"outlier", "regress odd.csv"},
        Told{"virial-polar", "txy ethanol water --vapour tsonopoulos --pressure '1 atm'"},
        Told{"virial-parameters",
             "bubble furfural ethanol --liquid unifac --vapour virial --composition ethanol=0.5 --pressure "
             "'1 atm'"},
        Told{"undetermined", "estimate mine --mosced-from alike.csv --molar-volume 92"},
        Told{"undetermined-alpha", "regress data.csv --release alpha"},
        Told{"excluded-left-out", "data excluded.csv --out excluded.xml"},
        Told{"rows-passed-over", "data gap.xml"},
        Told{"other-temperature",
             "ternary ethanol water 1-butanol --liquid unifac --temperature '60 degC' --measured sets.xml"}),
    [](const auto& one) {
      std::string name = one.param.code;
      std::replace(name.begin(), name.end(), '-', '_');
      return name;
    });

}  // namespace
}  // namespace jampot::test
