#include "jampot/files/thermoml.hpp"

#include <gtest/gtest.h>
#include <sys/resource.h>

#include <fstream>
#include <numeric>

#include "files/xml_pieces.hpp"
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
       {"data set 1: one substance alone", "data set 4: 'Mass density, kg/m3' is not a phase equilibrium",
        "data set 7: one of two liquids, without the other",
        "data set 12: samphire oil is not in the databank"})
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
        Fault{"OtherRoot", "<DataReport", "<Report", {"line 3", "'DataReport'", "'Report'"}},
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

struct Trait {
  std::string file;  ///< in tests/files/thermoml, without ending
  DataKind kind;
  std::size_t points;
  std::string first;         ///< substance
  double T_K, P_Pa, x1, y1;  ///< of the first point; 0 where it has none
  std::string notice{};      ///< a code that the reader must give
  std::size_t sets = 1;
};

class Traits : public ::testing::TestWithParam<Trait> {};

// Files written after the published description, each with a trait that files of archives have.
TEST_P(Traits, AreRead) {
  const Trait& wanted = GetParam();
  const ThermoML file = read_thermoml(JAMPOT_SOURCE_DIR "/tests/files/thermoml/" + wanted.file + ".xml");
  ASSERT_EQ(file.sets.size(), wanted.sets);
  const DataSet& set = file.sets.front();
  EXPECT_EQ(set.kind, wanted.kind);
  EXPECT_EQ(set.substances[0].name, wanted.first);
  EXPECT_EQ(set.source, "Brine, A., Made-up equilibria, 1900");
  ASSERT_EQ(set.points.size(), wanted.points);
  const DataPoint& point = set.points.front();
  EXPECT_NEAR(point.T_K, wanted.T_K, 1e-9);
  EXPECT_NEAR(point.P_Pa, wanted.P_Pa, 1e-6);
  EXPECT_NEAR(point.x[0], wanted.x1, 2e-4);
  if (wanted.y1 > 0) {
    EXPECT_NEAR(point.y[0], wanted.y1, 1e-3);
  }
  for (const DataPoint& each : set.points) {
    for (const auto* phase : {&each.x, &each.y}) {
      if (phase->empty()) continue;
      EXPECT_NEAR(std::accumulate(phase->begin(), phase->end(), 0.0), 1, 1e-12);
    }
  }
  Notices all = file.notices;
  all.add(set.notices);
  EXPECT_TRUE(wanted.notice.empty() || all.has(wanted.notice));
}

INSTANTIATE_TEST_SUITE_P(
    All, Traits,
    ::testing::Values(
        Trait{"prefixed-namespace", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44},
        Trait{"no-namespace", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44},
        Trait{"names-only", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44},
        Trait{"registry-only", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44},
        Trait{"phase-missing", DataKind::px, 2, "ethanol", 343.15, 51500, 0.1, 0},
        Trait{"phases-otherwise", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44},
        Trait{"temperature-varies", DataKind::px, 2, "ethanol", 343.15, 51500, 0.1, 0},
        Trait{"all-variables", DataKind::txy, 2, "ethanol", 355, 101300, 0.3, 0.57},
        Trait{"both-phases-properties", DataKind::txy, 2, "ethanol", 355, 101300, 0.3, 0.57},
        Trait{"mass-and-mole", DataKind::txy, 2, "ethanol", 355, 101300, 0.3, 0.5697},
        Trait{"asymmetric", DataKind::px, 2, "ethanol", 343.15, 51500, 0.1, 0},
        Trait{"coverage-factor", DataKind::px, 2, "ethanol", 343.15, 51500, 0.1, 0},
        Trait{"two-assessments", DataKind::px, 2, "ethanol", 343.15, 51500, 0.1, 0},
        Trait{"constraint-uncertainty", DataKind::px, 2, "ethanol", 343.15, 51500, 0.1, 0,
              "uncertainty-assumed"},
        Trait{"ternary", DataKind::txy, 1, "ethanol", 337, 101300, 0.2, 0.13},
        Trait{"molality", DataKind::px, 2, "1-butanol", 323.15, 13000, 0.00893, 0},
        Trait{"mole-ratio", DataKind::px, 2, "1-butanol", 323.15, 13000, 0.01, 0},
        Trait{"split-in-air", DataKind::lle, 2, "1-butanol", 298.15, 0, 0.0188, 0.488},
        Trait{"tie-lines", DataKind::lle, 2, "ethanol", 298.15, 0, 0.03, 0.06},
        Trait{"decorated", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44},
        Trait{"rows-with-gaps", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44, "rows-passed-over"},
        Trait{"among-others", DataKind::pxy, 2, "ethanol", 343.15, 51500, 0.1, 0.44, "data-passed-over"},
        Trait{"limiting", DataKind::gamma_inf, 2, "ethanol", 313.15, 0, 0, 0},
        Trait{"enthalpy", DataKind::excess_enthalpy, 2, "ethanol", 298.15, 0, 0.3, 0}),
    [](const auto& trait) {
      std::string name = trait.param.file;
      std::erase(name, '-');
      return name;
    });

// The forms of uncertainty in them, as standard uncertainties.
TEST(TraitsOfUncertainty, AreReadAsStandardOnes) {
  const auto point = [](const std::string& file) {
    return read_thermoml(JAMPOT_SOURCE_DIR "/tests/files/thermoml/" + file + ".xml").sets[0].points[0];
  };
  EXPECT_NEAR(point("asymmetric").u_P_Pa, 300, 1e-9);
  EXPECT_NEAR(point("coverage-factor").u_P_Pa, 200, 1e-9);
  EXPECT_NEAR(point("two-assessments").u_P_Pa, 250, 1e-9);
  EXPECT_NEAR(point("constraint-uncertainty").u_T_K, 0.02, 1e-6);
}

TEST(TraitsOfUncertainty, WhatIsPassedOverAmongOthersIsSaid) {
  const ThermoML file = read_thermoml(JAMPOT_SOURCE_DIR "/tests/files/thermoml/among-others.xml");
  std::string said;
  for (const Notice& notice : file.notices) said += notice.text + "\n";
  for (const char* text : {"data set 1: ", "Solid-liquid", "data set 2: ", "Mass density",
                           "data set 3: ", "data set 4: it depends on 'Solvent: Mole fraction'"})
    EXPECT_NE(said.find(text), std::string::npos) << text << "\n" << said;
}

// Wherever a text is cut in two, the same elements come out, with their lines.
TEST(XmlPieces, AnyCutGivesTheSameElements) {
  const std::string text =
      "<?xml version=\"1.0\"?>\n<!-- a > b <c> -->\n<x:root xmlns:x=\"u\">\n<x:a k=\"1>2\" m='>'/>\n"
      "<b>t &gt; <![CDATA[<n>]]>\n<a/></b><!-- > --><c\n d=\">\">\xC3\xA9</c >\n</x:root>\n";
  const auto elements = [&](std::size_t cut) {
    std::vector<std::string> found;
    XmlPieces pieces("f.xml", "root", [&](const XmlPieces::Element& element) {
      found.push_back(std::to_string(element.line) + " " + std::string(element.name) + " " +
                      std::string(element.text));
    });
    pieces.feed(std::string_view(text).substr(0, cut));
    pieces.feed(std::string_view(text).substr(cut));
    pieces.finish();
    return found;
  };
  const std::vector<std::string> whole = elements(text.size());
  ASSERT_EQ(whole.size(), 3u);
  EXPECT_EQ(whole[0], "4 a <x:a k=\"1>2\" m='>'/>");
  EXPECT_EQ(whole[1], "5 b <b>t &gt; <![CDATA[<n>]]>\n<a/></b>");
  EXPECT_EQ(whole[2], "6 c <c\n d=\">\">\xC3\xA9</c >");
  for (std::size_t cut = 0; cut < text.size(); ++cut) EXPECT_EQ(elements(cut), whole) << cut;
}

// A file of an archive in pieces: only one data set is held, wherever the pieces are cut.
TEST(ThermoMLStream, AnyCutGivesTheSame) {
  const std::string text = read_file(sample_file);
  const ThermoML whole = parse_thermoml(text, sample_file);
  const ThermoML streamed = read_thermoml(sample_file);
  ASSERT_EQ(streamed.sets.size(), whole.sets.size());
  EXPECT_EQ(thermoml_text(streamed.sets), thermoml_text(whole.sets));
}

// 50 MB, most of it data sets that are passed over, in less memory than the file has.
TEST(SlowThermoMLStream, FiftyMegabytesAreReadInAStream) {
  const std::string sample = read_file(sample_file);
  const std::size_t first = sample.find("<PureOrMixtureData>"), end = sample.find("</DataReport>");
  const auto path = std::filesystem::temp_directory_path() / "jampot-fifty-megabytes.xml";
  {
    std::ofstream file(path);
    file << sample.substr(0, end);
    const std::string more =
        sample.substr(first, sample.find("</PureOrMixtureData>", first) + 20 - first) + "\n";
    for (std::size_t bytes = end; bytes < (std::size_t{50} << 20); bytes += more.size()) file << more;
    file << "</DataReport>\n";
  }
  const auto memory_kB = [] {
    rusage usage{};
    getrusage(RUSAGE_SELF, &usage);
    return usage.ru_maxrss;
  };
  const long before = memory_kB();
  const ThermoML file = read_thermoml(path);
  const long after = memory_kB();
  std::filesystem::remove(path);
  EXPECT_EQ(file.sets.size(), 7u);
  EXPECT_LT(after - before, 30 * 1024);
}

}  // namespace
}  // namespace jampot
