// Files damaged at random: every one is either read or refused with a message, never worse.
#include <gtest/gtest.h>

#include "damage.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/files/measured_csv.hpp"
#include "jampot/files/pairs_toml.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/files/thermoml.hpp"

namespace jampot {
namespace {

template <class Read>
void expect_read_or_refused(const std::string& good, unsigned seed, Read&& read) {
  std::mt19937_64 generator(seed);
  int refused = 0, accepted = 0;
  for (int trial = 0; trial < 3000; ++trial) {
    const std::string text = test::damaged(good, generator);
    try {
      read(text);
      ++accepted;
    } catch (const RequestError& error) {
      ++refused;
      EXPECT_NE(std::string(error.what()), "");
    }
  }
  EXPECT_GT(refused, 500);
  EXPECT_GT(accepted, 10);  // a remark or a digit may change without harm
}

TEST(DamagedFiles, MeasuredData) {
  expect_read_or_refused(read_file(JAMPOT_SOURCE_DIR "/demo/measured/mtbe-methanol.csv"), 1,
                         [](const std::string& text) {
                           const DataSet data = parse_measured(text, "d.csv");
                           for (const DataPoint& point : data.points) {
                             EXPECT_TRUE(std::isfinite(point.T_K) && point.T_K > 0 &&
                                         std::isfinite(point.P_Pa) && point.P_Pa > 0);
                             for (const double x : point.x) EXPECT_TRUE(x >= 0 && x <= 1);
                             EXPECT_TRUE(point.u_T_K > 0 && point.u_P_Pa > 0 && point.u_x > 0);
                           }
                         });
}

TEST(DamagedFiles, ThermoMLDocuments) {
  expect_read_or_refused(read_file(JAMPOT_SOURCE_DIR "/tests/files/equilibria.xml"), 3,
                         [](const std::string& text) {
                           for (const DataSet& set : parse_thermoml(text, "d.xml").sets) {
                             for (const DataPoint& point : set.points) {
                               EXPECT_TRUE(std::isfinite(point.T_K) && point.T_K > 0);
                               for (const double x : point.x) EXPECT_TRUE(x >= 0 && x <= 1);
                               for (const double y : point.y) EXPECT_TRUE(y >= 0 && y <= 1);
                               EXPECT_TRUE(point.u_T_K > 0);
                             }
                           }
                         });
}

TEST(DamagedFiles, PairParameters) {
  const std::string good =
      "model = 'nrtl'\nsource = 'made up'\n[[pair]]\nbetween = ['MTBE', 'methanol']\nrange_K = [300.0, "
      "350.0]\n"
      "tau_12 = { inverse_T = 232.4, constant = 0.1 }\ntau_21 = 0.6\nalpha = { constant = 0.3 }\n"
      "[pair.std_error]\ntau_12 = { inverse_T = 4.7 }\n";
  expect_read_or_refused(good, 2, [](const std::string& text) {
    ParameterCollection read;
    parse_pairs(text, "p.toml", read);
    for (const PairParameters& pair : read.all()) {
      for (const auto& [name, function] : pair.terms) EXPECT_TRUE(std::isfinite(function.value(300))) << name;
    }
  });
}

}  // namespace
}  // namespace jampot
