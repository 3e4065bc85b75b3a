#include "jampot/files/thermoml.hpp"

#include <gtest/gtest.h>

#include "jampot/basis/error.hpp"
#include "jampot/files/measured.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/text_file.hpp"

namespace jampot {
namespace {

const std::string sample_file = JAMPOT_SOURCE_DIR "/tests/files/equilibria.xml";

const DataSet& numbered(const ThermoML& file, const std::string& number) {
  for (const DataSet& set : file.sets) {
    if (set.name.ends_with("#" + number)) return set;
  }
  throw std::runtime_error("no data set " + number);
}

class Sample : public ::testing::Test {
 protected:
  ThermoML file = read_thermoml(sample_file);
};

TEST_F(Sample, IsothermalDataWithExpandedUncertainties) {
  const DataSet& set = numbered(file, "2");
  EXPECT_EQ(set.kind, DataKind::pxy);
  EXPECT_EQ(set.substances[0].name, "ethanol");
  EXPECT_EQ(set.source, "Brine, A.; Samphire, B., Made-up equilibria, 1900");
  ASSERT_EQ(set.points.size(), 2u);
  const DataPoint& point = set.points[0];
  EXPECT_DOUBLE_EQ(point.T_K, 343.15);
  EXPECT_DOUBLE_EQ(point.P_Pa, 51500);
  EXPECT_DOUBLE_EQ(point.x[0], 0.1);
  EXPECT_DOUBLE_EQ(point.y[1], 1 - 0.44);
  EXPECT_DOUBLE_EQ(point.u_T_K, 0.02);
  EXPECT_DOUBLE_EQ(point.u_x, 0.001);
  // 95 % of a normal distribution lie within 1.96 standard deviations.
  EXPECT_NEAR(point.u_P_Pa, 392 / 1.959964, 1e-3);
  EXPECT_NEAR(point.u_y, 0.0098 / 1.959964, 1e-8);
  EXPECT_FALSE(set.notices.has("uncertainty-assumed"));
}

TEST_F(Sample, MassFractionsAndAssumedUncertainties) {
  const DataSet& set = numbered(file, "3");
  EXPECT_EQ(set.kind, DataKind::tx);
  EXPECT_TRUE(set.notices.has("uncertainty-assumed"));
  const double ethanol = 0.6 / 46.07, water = 0.4 / 18.015;
  EXPECT_NEAR(set.points[0].x[0], ethanol / (ethanol + water), 1e-4);
  EXPECT_DOUBLE_EQ(set.points[0].P_Pa, 101300);
  EXPECT_DOUBLE_EQ(set.points[1].T_K, 361.0);
}

TEST_F(Sample, TwoHalvesOfASplitBecomeOneSet) {
  const DataSet& set = numbered(file, "5+6");
  EXPECT_EQ(set.kind, DataKind::lle);
  ASSERT_EQ(set.points.size(), 2u);
  EXPECT_EQ(set.substances[0].name, "1-butanol");  // the file calls it by another of its names
  EXPECT_DOUBLE_EQ(set.points[0].x[0], 0.0188);
  EXPECT_DOUBLE_EQ(set.points[0].y[0], 0.488);
  EXPECT_DOUBLE_EQ(set.points[1].y[0], 0.47);
}

TEST_F(Sample, TieLinesLimitingCoefficientsAndEnthalpies) {
  const DataSet& tie_lines = numbered(file, "8");
  EXPECT_EQ(tie_lines.kind, DataKind::lle);
  EXPECT_NEAR(tie_lines.points[0].x[2], 0.025, 1e-12);
  EXPECT_NEAR(tie_lines.points[1].y[2], 0.335, 1e-12);
  const DataSet& limiting = numbered(file, "9");
  EXPECT_EQ(limiting.kind, DataKind::gamma_inf);
  EXPECT_EQ(limiting.points[0].solute, 0u);
  EXPECT_EQ(limiting.points[0].solvent, 1u);
  EXPECT_DOUBLE_EQ(limiting.points[0].value, 3.8);
  const DataSet& enthalpy = numbered(file, "11");
  EXPECT_EQ(enthalpy.kind, DataKind::excess_enthalpy);
  EXPECT_DOUBLE_EQ(enthalpy.points[0].value, -750);
  const DataSet& coefficient = numbered(file, "10");
  EXPECT_EQ(coefficient.kind, DataKind::gamma);
  EXPECT_DOUBLE_EQ(coefficient.points[0].value, 1.6);
  EXPECT_DOUBLE_EQ(coefficient.points[0].x[0], 0.3);
}

TEST_F(Sample, WhatIsPassedOverIsSaid) {
  EXPECT_EQ(file.sets.size(), 7u);
  std::string said;
  for (const Notice& notice : file.notices) {
    EXPECT_EQ(notice.code, "data-passed-over");
    said += notice.text + "\n";
  }
  for (const char* text :
       {"data set 1: one substance alone", "data set 4: 'Mass density, kg/m3' is no equilibrium",
        "data set 7: one of two liquids, without the other", "data set 12: samphire oil is not in the bank"})
    EXPECT_NE(said.find(text), std::string::npos) << text << "\n" << said;
}

TEST_F(Sample, OneSetByItsNumber) {
  const auto one = read_measured_file(sample_file + "#9");
  ASSERT_EQ(one.size(), 1u);
  EXPECT_EQ(one[0].kind, DataKind::gamma_inf);
  EXPECT_EQ(read_measured_file(sample_file).size(), 7u);
  try {
    read_measured_file(sample_file + "#4");
    FAIL() << "no error";
  } catch (const RequestError& error) {
    EXPECT_NE(std::string(error.what()).find("there are #2, #3, #8, #9, #10, #11, #5+6"), std::string::npos)
        << error.what();
  }
}

void expect_same(const DataSet& a, const DataSet& b) {
  EXPECT_EQ(a.kind, b.kind);
  ASSERT_EQ(a.points.size(), b.points.size());
  for (std::size_t i = 0; i < a.points.size(); ++i) {
    const DataPoint &p = a.points[i], &q = b.points[i];
    const auto near = [](double one, double other) { EXPECT_NEAR(one, other, 1e-9 * (1 + std::abs(one))); };
    near(p.T_K, q.T_K);
    near(p.P_Pa, q.P_Pa);
    near(p.u_T_K, q.u_T_K);
    near(p.u_P_Pa, q.u_P_Pa);
    near(p.u_x, q.u_x);
    near(p.value, q.value);
    near(p.u_value, q.u_value);
    EXPECT_EQ(p.solute, q.solute);
    EXPECT_EQ(p.solvent, q.solvent);
    ASSERT_EQ(p.x.size(), q.x.size());
    ASSERT_EQ(p.y.size(), q.y.size());
    for (std::size_t k = 0; k < p.x.size(); ++k) near(p.x[k], q.x[k]);
    for (std::size_t k = 0; k < p.y.size(); ++k) near(p.y[k], q.y[k]);
    if (!p.y.empty()) near(p.u_y, q.u_y);
  }
}

// Written and read again, every kind of data is what it was, in both forms.
TEST_F(Sample, ComesBackFromBothForms) {
  file.sets.push_back(read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv"));
  const ThermoML again = parse_thermoml(thermoml_text(file.sets), "again.xml");
  ASSERT_EQ(again.sets.size(), file.sets.size());
  for (std::size_t k = 0; k < file.sets.size(); ++k) {
    SCOPED_TRACE(file.sets[k].name);
    expect_same(file.sets[k], again.sets[k]);
    expect_same(file.sets[k], parse_measured(measured_csv_text(file.sets[k]), "again.csv"));
  }
  EXPECT_EQ(thermoml_text(again.sets), thermoml_text(parse_thermoml(thermoml_text(again.sets), "x").sets));
}

TEST(ThermoMLText, LeavesOutWhatIsExcluded) {
  DataSet set = read_measured(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv");
  set.points[3].excluded = "leak, seal \"B\"";
  EXPECT_EQ(parse_thermoml(thermoml_text({set}), "x.xml").sets[0].points.size(), set.points.size() - 1);
  const DataSet csv = parse_measured(measured_csv_text(set), "x.csv");
  EXPECT_EQ(csv.points[3].excluded, set.points[3].excluded);
}

struct Fault {
  const char* name;
  const char* replaced;
  const char* by;
  std::vector<std::string> said;
};

class BadThermoML : public ::testing::TestWithParam<Fault> {};

TEST_P(BadThermoML, GetsOneMessageWithItsLine) {
  std::string text = read_file(sample_file);
  const std::size_t at = text.find(GetParam().replaced);
  ASSERT_NE(at, std::string::npos);
  text.replace(at, std::string(GetParam().replaced).size(), GetParam().by);
  try {
    parse_thermoml(text, "d.xml");
    FAIL() << "no error";
  } catch (const RequestError& error) {
    for (const std::string& said : GetParam().said)
      EXPECT_NE(std::string(error.what()).find(said), std::string::npos) << said << "\n" << error.what();
  }
}

INSTANTIATE_TEST_SUITE_P(
    Faults, BadThermoML,
    ::testing::Values(
        Fault{"Broken", "</Citation>", "", {"d.xml", "no well-formed XML"}},
        Fault{"OtherRoot", "<DataReport", "<Report", {"well-formed"}},
        Fault{"NotANumber", "<nPropValue>51.5<", "<nPropValue>51,5<", {"line 22", "'51,5' is not a number"}},
        Fault{"Fraction", "<nVarValue>0.1<", "<nVarValue>10<", {"line 22", "0..1", "10"}},
        Fault{"NegativePressure",
              "<nPropValue>51.5<",
              "<nPropValue>-51.5<",
              {"line 22", "a pressure is positive"}},
        Fault{"UnknownCompound",
              "<Component><RegNum><nOrgNum>1<",
              "<Component><RegNum><nOrgNum>9<",
              {"no compound '9'"}},
        Fault{"NoSuchProperty",
              "<PropertyValue><nPropNumber>1<",
              "<PropertyValue><nPropNumber>7<",
              {"no property 7"}},
        Fault{"Confidence", "LevOfConfid>95<", "LevOfConfid>100<", {"level of confidence"}}),
    [](const auto& fault) { return fault.param.name; });

TEST(BadThermoMLFile, NothingThatCanBeUsed) {
  try {
    parse_thermoml("<DataReport/>", "d.xml");
    FAIL() << "no error";
  } catch (const RequestError& error) {
    EXPECT_NE(std::string(error.what()).find("no phase equilibrium"), std::string::npos);
  }
}

}  // namespace
}  // namespace jampot
