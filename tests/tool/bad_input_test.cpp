// Everything a person can get wrong: exit status 2, one message that can be acted on, nothing written.
#include "run_tool.hpp"

namespace jampot {
namespace {

const std::string head =
    "# substances: MTBE, methanol\n# u(T): 0.05 K\n# u(P): 0.1 kPa\n# u(x): 0.002\n# u(y): 0.004\n";
const std::string good_rows =
    "63.06, 101.35, 0.0183, 0.0782\n60.99, 101.39, 0.0534, 0.1776\n54, 101.3, 0.25, 0.47\n52, 101.3, 0.45, "
    "0.58\n"
    "51.4, 101.3, 0.6, 0.65\n52, 101.3, 0.86, 0.8\n";
const std::string header = "T [degC], P [kPa], x1, y1\n";

struct Fault {
  const char* name;
  std::string data;
  std::vector<std::string> said;
};

class BadDataFile : public ::testing::TestWithParam<Fault> {};

TEST_P(BadDataFile, IsRefusedWithAReason) {
  const test::Workplace workplace;
  workplace.write("d.csv", GetParam().data);
  const test::Ran ran = workplace.run("regress d.csv --out p.pairs.toml --figure r.svg --csv r.csv --json");
  EXPECT_EQ(ran.status, 2);
  EXPECT_EQ(ran.out, "");
  EXPECT_TRUE(ran.err.starts_with("jampot: ")) << ran.err;
  EXPECT_EQ(std::count(ran.err.begin(), ran.err.end(), '\n'), 1) << ran.err;
  for (const std::string& said : GetParam().said) EXPECT_NE(ran.err.find(said), std::string::npos) << ran.err;
  for (const char* name : {"p.pairs.toml", "r.svg", "r.csv"}) EXPECT_FALSE(workplace.has(name)) << name;
}

INSTANTIATE_TEST_SUITE_P(Faults, BadDataFile,
                         ::testing::Values(Fault{"MissingColumn",
                                                 head + "T [degC], P [kPa], y1\n60, 101, 0.3\n",
                                                 {"d.csv, line 6", "no column 'x1'"}},
                                           Fault{"UnknownUnit",
                                                 head + "T [degC], P [kpaa], x1, y1\n" + good_rows,
                                                 {"line 6", "'kpaa' is not a unit", "kPa"}},
                                           Fault{"FractionOutside",
                                                 head + header + good_rows + "52, 101.3, 1.05, 0.9\n",
                                                 {"line 13", "column x1", "0..1"}},
                                           Fault{"TextInNumber",
                                                 head + header + good_rows + "52, 101.3, half, 0.9\n",
                                                 {"line 13", "column x1", "'half'"}},
                                           Fault{"NotANumber",
                                                 head + header + good_rows + "52, NaN, 0.5, 0.6\n",
                                                 {"line 13", "column P [kPa]", "'NaN'"}},
                                           Fault{"Empty", "", {"d.csv", "holds no table"}},
                                           Fault{"OnePoint",
                                                 head + header + "60.99, 101.39, 0.0534, 0.1776\n",
                                                 {"1 mixed point", "cannot determine 2"}},
                                           Fault{"UnknownSubstance",
                                                 "# substances: MTBE, metanol\n" + header + good_rows,
                                                 {"line 1", "metanol", "methanol"}},
                                           Fault{
                                               "Binary", std::string("\x00\x01\x02\xff\xfe", 5), {"d.csv"}}),
                         [](const auto& fault) { return std::string(fault.param.name); });

TEST(GoodDataFile, WindowsLineEndsAndByteOrderMarkAreTakenInStride) {
  const test::Workplace workplace;
  std::string windows = "\xEF\xBB\xBF";
  for (const char c : head + header + good_rows)
    windows += c == '\n' ? std::string("\r\n") : std::string(1, c);
  workplace.write("unix.csv", head + header + good_rows);
  workplace.write("windows.csv", windows);
  const test::Ran a = workplace.run("regress unix.csv"), b = workplace.run("regress windows.csv");
  EXPECT_EQ(a.status, 0) << a.err;
  EXPECT_EQ(b.status, 0) << b.err;
  EXPECT_EQ(a.out, b.out);
}

struct Request {
  const char* name;
  std::string arguments;
  int status;
  std::vector<std::string> said;
};

class BadRequest : public ::testing::TestWithParam<Request> {};

TEST_P(BadRequest, IsRefusedWithAReason) {
  const test::Workplace workplace;
  workplace.put_data();
  workplace.write(
      "a.pairs.toml",
      "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE', 'methanol']\ntau_12 = 0.7\ntau_21 = 0.6\nalpha = 0.3\n");
  workplace.write(
      "b.pairs.toml",
      "model = 'nrtl'\n[[pair]]\nbetween = ['MTBE', 'methanol']\ntau_12 = 0.8\ntau_21 = 0.6\nalpha = 0.3\n");
  workplace.write("empty.pairs.toml", "");
  const test::Ran ran = workplace.run(GetParam().arguments);
  EXPECT_EQ(ran.status, GetParam().status) << ran.out << ran.err;
  EXPECT_EQ(ran.out, "");
  for (const std::string& said : GetParam().said) EXPECT_NE(ran.err.find(said), std::string::npos) << ran.err;
  EXPECT_FALSE(workplace.has("f.svg"));
}

INSTANTIATE_TEST_SUITE_P(
    Requests, BadRequest,
    ::testing::Values(
        Request{"Nothing", "", 2, {"give a command"}},
        Request{"Command", "txxy", 2, {"'txxy' is not a command", "txy"}},
        Request{"Option",
                "txy MTBE methanol --presure '1 atm'",
                2,
                {"'--presure' is not an option", "--pressure"}},
        Request{"ShortOption",
                "txy MTBE methanol -P '1 atm'",
                2,
                {"'-P' is not an option of txy", "whole words behind two dashes"}},
        Request{"OneDash", "txy MTBE methanol -pressure '1 atm'", 2, {"'-pressure' is not", "--pressure"}},
        Request{"TooManyWords", "find water ethanol", 2, {"find has more arguments than it takes"}},
        Request{"WordWithoutPlace", "demo again", 2, {"demo has more arguments than it takes"}},
        Request{"NoFile", "regress nowhere.csv", 2, {"nowhere.csv", "cannot be read"}},
        Request{"Substance",
                "txy MTBE metanol --liquid ideal --pressure '1 atm'",
                2,
                {"metanol", "Nearest: methanol"}},
        Request{"SameTwice", "txy MTBE mtbe --liquid ideal --pressure '1 atm'", 2, {"named twice"}},
        Request{"Model",
                "txy MTBE methanol --liquid nrlt --pressure '1 atm'",
                2,
                {"'nrlt'", "Did you mean nrtl"}},
        Request{"MissingPair",
                "txy acetone n-decane --liquid nrtl --pressure '1 atm' --figure f.svg",
                1,
                {"no nrtl parameters for acetone and n-decane", "not taken as zero", "--parameters"}},
        Request{"Conflict",
                "txy MTBE methanol --pressure '1 atm' --parameters a.pairs.toml --parameters b.pairs.toml",
                2,
                {"conflicting nrtl parameters", "a.pairs.toml", "b.pairs.toml"}},
        Request{
            "EmptyPairs", "txy MTBE methanol --pressure '1 atm' --parameters empty.pairs.toml", 2, {"empty"}},
        Request{"Unit",
                "txy MTBE methanol --liquid ideal --pressure '1 baar'",
                2,
                {"'baar' is not a unit", "bar"}},
        Request{"NoUnit", "txy MTBE methanol --liquid ideal --pressure 1", 2, {"a number and a unit"}},
        Request{"NoPressure", "txy MTBE methanol --liquid ideal", 2, {"--pressure"}},
        Request{"BothHeld",
                "xy MTBE methanol --liquid ideal --pressure '1 atm' --temperature '50 degC'",
                2,
                {"cannot both"}},
        Request{"TxyAtT", "txy MTBE methanol --liquid ideal --temperature '50 degC'", 2, {"pxy"}},
        Request{"Ending",
                "txy MTBE methanol --liquid ideal --pressure '1 atm' --figure f.gif",
                2,
                {".svg, .png, .pdf or .html"}},
        Request{"Folder",
                "txy MTBE methanol --liquid ideal --pressure '1 atm' --csv no/such/f.csv",
                2,
                {"folder exist"}},
        Request{
            "First", "txy MTBE methanol --liquid ideal --pressure '1 atm' --first water", 2, {"not one of"}},
        Request{"Basis",
                "txy MTBE methanol --liquid ideal --pressure '1 atm' --basis weight",
                2,
                {"mole or mass"}},
        Request{"Composition",
                "bubble MTBE methanol --liquid ideal --pressure '1 atm' --composition 'MTBE=1.3'",
                2,
                {"0..1"}},
        Request{"NoComposition", "dew MTBE methanol --liquid ideal --pressure '1 atm'", 2, {"--composition"}},
        Request{"OtherData",
                "txy ethanol toluene --liquid ideal --pressure '1 atm' --measured data.csv",
                2,
                {"data.csv", "not about"}},
        Request{"UnknownGroup",
                "define own --groups 'CH3=1, OHH=1'",
                2,
                {"'OHH' is not a group", "Did you mean OH"}},
        Request{"GroupCount", "define own --groups 'CH3=half'", 2, {"GROUP=COUNT"}},
        Request{"GroupTwice", "define own --groups 'CH3=1, CH3=1'", 2, {"given twice"}},
        Request{"Smiles", "define own --smiles 'CC('", 2, {"position 4", "branch is not closed"}},
        Request{"SmilesAndGroups", "define own --smiles C --groups CH3=2", 2, {"give one of them"}},
        Request{"NoDivision", "define own --smiles 'OC=O'", 1, {"no group for C at position 2"}},
        Request{"NothingKnown", "define own", 1, {"neither groups nor a molar mass"}},
        Request{"MassContradicts", "define own --groups 'CH3=2' --molar-mass 50", 2, {"50.000", "C2H6"}},
        Request{"NameTaken", "define Water --molar-mass 18", 2, {"already the name"}},
        Request{"BoilsTooLate",
                "define own --groups 'CH3=2' --boiling-point '400 K' --critical-temperature '300 K'",
                2,
                {"not below the critical"}},
        Request{"NoSubstanceFile", "saturation own --substance no.toml --pressure '1 bar'", 2, {"no.toml"}},
        Request{"SaturationOfNothing", "saturation unobtainium --pressure '1 bar'", 2, {"unobtainium"}},
        Request{"SaturationAxes", "saturation water --pressure '1 bar' --axes cubic", 2, {"log", "linear"}},
        Request{"NonVolatile",
                "txy MTBE methanol --liquid ideal --pressure '1 atm' --non-volatile methanol",
                1,
                {"methanol is non-volatile"}},
        Request{"Reference",
                "substance water --at '25 degC' --reference-enthalpy zero",
                2,
                {"ideal-gas", "liquid"}},
        Request{"Objective",
                "regress data.csv --objective likelihood",
                2,
                {"not an objective", "maximum-likelihood"}},
        Request{"Form", "regress data.csv --form inverse", 2, {"--form", "inverse_T"}},
        Request{"Hold", "regress data.csv --hold alpha", 2, {"NAME=VALUE"}},
        Request{"HoldNonsense", "regress data.csv --hold alpha=-1", 2, {"cannot be held at -1"}},
        Request{"HoldAndRelease",
                "regress data.csv --hold alpha=0.3 --release alpha",
                2,
                {"held and fitted at once"}},
        Request{"Nothing2Find", "find unobtainium", 1, {"nothing in the databank"}},
        Request{"HugePressure",
                "bubble MTBE methanol --liquid ideal --pressure '1e9 bar' --composition MTBE=0.5",
                1,
                {"no bubble temperature"}}),
    [](const auto& fault) { return std::string(fault.param.name); });

TEST(BadMachine, WithoutGnuplotNothingIsWritten) {
  const test::Workplace workplace;
  const test::Ran ran = workplace.run(
      "txy ethanol toluene --liquid ideal --pressure '1 atm' --figure f.svg --csv f.csv", "PATH=/nowhere");
  EXPECT_EQ(ran.status, 1);
  EXPECT_NE(ran.err.find("gnuplot is not installed"), std::string::npos) << ran.err;
  EXPECT_FALSE(workplace.has("f.svg"));
  EXPECT_FALSE(workplace.has("f.csv"));
}

}  // namespace
}  // namespace jampot

namespace jampot {
namespace {

TEST(BadWords, AboutWhatIsKnownAreRefusedWithTheirForms) {
  const test::Workplace workplace;
  workplace.write("d.csv", head + header + good_rows);
  const std::pair<const char*, const char*> faults[] = {
      {"--known 'azeotrop x1=0.7'", "Did you mean azeotrope"},
      {"--known 'azeotrope x1=0.7+-0.01, P=101 kPa'", "temperature is missing"},
      {"--known 'azeotrope x1=0.7+-0.01, T=51+-0.1 degC'", "pressure is missing"},
      {"--known 'azeotrope x1=0.7, T=51 degC, P=1 atm'", "need an uncertainty"},
      {"--known 'azeotrope x3=0.7+-0.1, T=51 degC, P=1 atm'", "'x3'"},
      {"--known 'plait x1=0.3+-0.1, T=320 K'", "three substances"},
      {"--known 'critical T=300'", "not a temperature"},
      {"--offset T=0.2", "not a temperature"},
      {"--offset x=3", "T=0.2 K or P=0.5 %"},
      {"--bound alpha=0.2", "NAME=LOW..HIGH"},
      {"--bound beta=0.2..0.4", "no fitted parameter"},
      {"--errors none", "stated, scatter, sets"}};
  for (const auto& [words, said] : faults) {
    const test::Ran ran = workplace.run(std::string("regress d.csv ") + words);
    EXPECT_EQ(ran.status, 2) << words;
    EXPECT_NE(ran.err.find(said), std::string::npos) << ran.err;
  }
}

TEST(KnownWords, AreReadWithTheirUnits) {
  const test::Workplace workplace;
  workplace.write("d.csv", head + header + good_rows);
  const test::Ran ran = workplace.run(
      "regress d.csv --known 'azeotrope x1=0.66+-0.01, T=124.5+-0.9 degF, P=1 atm' --offset 'T=0.5 K' "
      "--json");
  ASSERT_EQ(ran.status, 0) << ran.err;
  const auto json = nlohmann::json::parse(ran.out);
  const auto& known = json["fits"][0]["known"][0];
  EXPECT_NEAR(known["stated"]["T_K"].get<double>(), 273.15 + (124.5 - 32) / 1.8, 1e-9);
  EXPECT_NEAR(known["stated"]["P_Pa"].get<double>(), 101325, 1e-6);
  EXPECT_TRUE(known["there"].get<bool>());
  const double dT = (known["model"]["T_K"].get<double>() - known["stated"]["T_K"].get<double>()) / 0.5,
               dx = (known["model"]["x"][0].get<double>() - 0.66) / 0.01,
               dP = (known["model"]["P_Pa"].get<double>() / 101325 - 1) / 1e-4;
  EXPECT_NEAR(known["distance"].get<double>(), std::hypot(dT, dx, dP), 1e-3);
  EXPECT_EQ(json["fits"][0]["offsets"][0]["quantity"], "T");
}

}  // namespace
}  // namespace jampot
