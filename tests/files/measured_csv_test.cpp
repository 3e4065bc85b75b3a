#include "jampot/files/measured_csv.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"

namespace jampot {
namespace {

const std::string head =
    "# substances: MTBE, methanol\n# u(T): 0.05 K\n# u(P): 0.1 kPa\n# u(x): 0.002\n# u(y): 0.004\n";

TEST(MeasuredCsv, ReadsUnitsAndUncertainties) {
  const DataSet data = parse_measured(
      "\xEF\xBB\xBF# substances: MTBE, methanol\r\n# u(T): 0.1 degF\r\n# u(x): 0.2%\r\n# u(y): 0.004\r\n"
      "T [degF], P [bar], x1 [%], y1, u(P) [mbar]\r\n140, 1.01325, 30, 0.5, 2\r\n150, 1.01325, 10, 0.2, "
      "3\r\n",
      "d.csv");
  EXPECT_EQ(data.kind, DataKind::txy);
  EXPECT_TRUE(data.notices.empty());
  const DataPoint& point = data.points.at(0);
  EXPECT_NEAR(point.T_K, 333.15, 1e-9);
  EXPECT_DOUBLE_EQ(point.P_Pa, 101325);
  EXPECT_NEAR(point.x[0], 0.3, 1e-12);
  EXPECT_NEAR(point.x[1], 0.7, 1e-12);
  EXPECT_NEAR(point.u_T_K, 0.1 / 1.8, 1e-9);
  EXPECT_NEAR(point.u_x, 0.002 * 0.3, 1e-12);  // a percentage is of what was measured
  EXPECT_NEAR(data.points[1].u_P_Pa, 300, 1e-9);
  EXPECT_EQ(data.points[1].line, 7);
}

// Fractions headed as the tables of the tool head them, whatever name the substance goes by.
TEST(MeasuredCsv, FractionsMayBeHeadedByNames) {
  const std::string rows = "\n60, 101.3, 0.1, 0.3\n58, 101.4, 0.3, 0.5\n";
  const DataSet numbered = parse_measured(head + "T [degC], P [kPa], x2, y2" + rows, "d");
  for (const char* title : {"x(methanol), y(methanol)", "x(MeOH), y2", "x2, y(methyl alcohol)"}) {
    const DataSet named = parse_measured(head + "T [degC], P [kPa], " + title + rows, "d");
    ASSERT_EQ(named.points.size(), 2u) << title;
    for (std::size_t k = 0; k < 2; ++k) {
      EXPECT_EQ(named.points[k].x, numbered.points[k].x) << title;
      EXPECT_EQ(named.points[k].y, numbered.points[k].y) << title;
    }
  }
  EXPECT_THROW(parse_measured(head + "T [degC], P [kPa], x(water), y1" + rows, "d"), RequestError);
  EXPECT_THROW(parse_measured(head + "T [degC], P [kPa], x(, y1" + rows, "d"), RequestError);
}

TEST(MeasuredCsv, WorksOutTheKind) {
  EXPECT_EQ(parse_measured(head + "T [degC], P [kPa], x1\n60, 101.3, 0.1\n58, 101.4, 0.3\n", "d").kind,
            DataKind::tx);
  EXPECT_EQ(
      parse_measured(head + "T [degC], P [kPa], x1, y1\n50, 80, 0.1, 0.3\n50, 95, 0.3, 0.5\n", "d").kind,
      DataKind::pxy);
  const DataSet held = parse_measured(head + "# P: 1 atm\nT [degC], x2\n60, 0.9\n", "d");
  EXPECT_DOUBLE_EQ(held.points[0].P_Pa, 101325);
  EXPECT_NEAR(held.points[0].x[0], 0.1, 1e-12);
}

TEST(MeasuredCsv, AssumedUncertaintiesAreSaid) {
  const DataSet data =
      parse_measured("# substances: MTBE, methanol\nT [degC], P [kPa], x1\n60, 101, 0.1\n", "d");
  EXPECT_TRUE(data.notices.has("uncertainty-assumed"));
}

struct Fault {
  const char* name;
  std::string text;
  std::vector<std::string> said;
};

class BadData : public ::testing::TestWithParam<Fault> {};

TEST_P(BadData, GetsOneMessageWithItsPlace) {
  try {
    parse_measured(GetParam().text, "d.csv");
    FAIL() << "no error";
  } catch (const RequestError& error) {
    for (const std::string& said : GetParam().said) {
      EXPECT_NE(std::string(error.what()).find(said), std::string::npos) << said << " in: " << error.what();
    }
  }
}

const std::string header = head + "T [degC], P [kPa], x1, y1\n";

INSTANTIATE_TEST_SUITE_P(
    Faults, BadData,
    ::testing::Values(
        Fault{"Empty", "", {"d.csv", "holds no table"}}, Fault{"NoRows", header, {"line 6", "no rows"}},
        Fault{"NoSubstances", "T [degC], P [kPa], x1\n60, 101, 0.1\n", {"# substances: NAME, NAME"}},
        Fault{"OneSubstance",
              "# substances: water\nT [degC], P [kPa], x1\n60, 101, 0.1\n",
              {"line 1", "at least two"}},
        Fault{"SameTwice",
              "# substances: water, H2O\nT [degC], P [kPa], x1\n1, 1, 1\n",
              {"line 1", "named twice"}},
        Fault{"UnknownSubstance",
              "# substances: MTBE, metanol\nT [degC], P [kPa], x1\n60, 101, 0.1\n",
              {"d.csv, line 1", "metanol", "methanol"}},
        Fault{"MissingX", head + "T [degC], P [kPa], y1\n60, 101, 0.1\n", {"line 6", "no column 'x1'"}},
        Fault{"MissingP", head + "T [degC], x1\n60, 0.1\n", {"line 6", "no column 'P [kPa]'", "# P:"}},
        Fault{"MissingUnit",
              head + "T, P [kPa], x1\n60, 101, 0.1\n",
              {"line 6", "column T", "unit in brackets"}},
        Fault{"UnknownUnit", head + "T [degX], P [kPa], x1\n60, 101, 0.1\n", {"line 6", "Did you mean degC"}},
        Fault{
            "WrongUnit", head + "T [degC], P [kg], x1\n60, 101, 0.1\n", {"line 6", "not a unit of pressure"}},
        Fault{"OpenBracket", head + "T [degC, P [kPa], x1\n60, 101, 0.1\n", {"line 6", "bracket"}},
        Fault{"UnknownColumn",
              head + "T [degC], P [kPa], x1, z1\n60, 101, 0.1, 1\n",
              {"line 6", "'z1' is not a column"}},
        Fault{"TwoColumns", head + "T [degC], P [kPa], x1, x1\n60, 101, 0.1, 1\n", {"two columns 'x1'"}},
        Fault{"XAboveOne", header + "60, 101, 1.2, 0.4\n", {"line 7", "column x1", "0..1", "x1 [%]"}},
        Fault{"XNegative", header + "60, 101, -0.1, 0.4\n", {"line 7", "column x1", "0..1"}},
        Fault{"TextInNumber",
              header + "60, 101, 0.1, 0.4\n60, abc, 0.1, 0.4\n",
              {"line 8", "column P [kPa]", "expected a number, found 'abc'"}},
        Fault{"NotANumber", header + "nan, 101, 0.1, 0.4\n", {"line 7", "column T [degC]", "found 'nan'"}},
        Fault{"EmptyCell", header + "60, , 0.1, 0.4\n", {"line 7", "the cell is empty"}},
        Fault{"ShortRow", header + "60, 101, 0.1\n", {"line 7", "3 fields", "4 columns"}},
        Fault{"NegativeP", header + "60, -5, 0.1, 0.4\n", {"line 7", "not a possible pressure"}},
        Fault{"Cold", header + "-300, 101, 0.1, 0.4\n", {"line 7", "not a possible temperature"}},
        Fault{"ZeroUncertainty",
              "# substances: MTBE, methanol\n# u(T): 0 K\nT [degC], P [kPa], x1\n60, 101, 0.1\n",
              {"line 2", "u(T)", "positive"}},
        Fault{"MisspeltKey",
              "# substances: MTBE, methanol\n# u(t): 0.1 K\nT [degC], P [kPa], x1\n60, 101, 0.1\n",
              {"line 2", "Did you mean 'u(T)'"}},
        Fault{"KindContradicts",
              "# kind: txy\n# substances: MTBE, methanol\nT [degC], P [kPa], x1\n60, 101, 0.1\n",
              {"line 1", "contradicts", "no column y1"}},
        Fault{"KindUnknown",
              "# kind: tyx\n# substances: MTBE, methanol\nT [degC], P [kPa], x1\n60, 101, 0.1\n",
              {"line 1", "'tyx' is not a kind", "txy"}}),
    [](const auto& fault) { return std::string(fault.param.name); });

}  // namespace
}  // namespace jampot
