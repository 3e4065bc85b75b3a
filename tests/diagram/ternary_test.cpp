// Ternary liquid-liquid diagrams: what every one of them must obey, and none missed beside a brute-force
// search.
#include "jampot/diagram/ternary.hpp"

#include <gtest/gtest.h>

#include <algorithm>
#include <future>

#include "jampot/basis/error.hpp"
#include "jampot/equilibrium/binary_split.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/liquid/subsystem.hpp"
#include "jampot/liquid/uniquac.hpp"
#include "support.hpp"

namespace jampot {
namespace {

using Composition = std::array<double, 3>;

std::vector<double> ln_a(ActivityModel& model, const Composition& x) {
  std::vector<double> values(3);
  model.evaluate(x, values);
  for (std::size_t i = 0; i < 3; ++i) values[i] += x[i] > 0 ? std::log(x[i]) : -HUGE_VAL;
  return values;
}

// Tie lines and plait points by their exact conditions. @returns what is wrong, or nothing
std::string faults(ActivityModel& model, const TernaryDiagram& diagram) {
  model.set_temperature(diagram.T_K);
  for (const TwoLiquidRegion& region : diagram.regions) {
    for (const TieLine& line : region.tie_lines) {
      const auto a = ln_a(model, line.alpha), b = ln_a(model, line.beta);
      for (std::size_t i = 0; i < 3; ++i) {
        if (std::isfinite(a[i]) && !(std::abs(a[i] - b[i]) < 1e-10)) return "isoactivity";
      }
    }
  }
  for (const ShownTieLine& shown : diagram.tie_lines) {
    if (!(shown.line.length() > 1e-6)) return "the two liquids are the same";
    if (!(shown.distance > -1e-9)) return "a tie line is not stable";
  }
  for (const PlaitPoint& plait : diagram.plait_points) {
    if (!(std::abs(plait.curvature) < 1e-8 && std::abs(plait.third) < 1e-8)) return "plait point";
  }
  for (const ThreeLiquids& triangle : diagram.three_liquids) {
    for (std::size_t k = 1; k < 3; ++k) {
      const auto a = ln_a(model, triangle[0]), b = ln_a(model, triangle[k]);
      for (std::size_t i = 0; i < 3; ++i) {
        if (!(std::abs(a[i] - b[i]) < 1e-10)) return "isoactivity of three";
      }
    }
  }
  return diagram.notices.has("unstable-tie-lines") ? "unstable tie lines" : "";
}

// A fine lattice searched by brute force: every tie line must be stable against all of it, and every point of
// it that lies below the tangent plane of another in no known region has been missed.
std::string brute_force(ActivityModel& model, const TernaryDiagram& diagram, int steps) {
  std::vector<Composition> points;
  std::vector<std::array<double, 4>> planes;  // ln a of a point and its Gibbs energy
  for (int i = 1; i < steps; ++i) {
    for (int j = 1; i + j < steps; ++j) {
      const Composition x{static_cast<double>(i) / steps, static_cast<double>(j) / steps,
                          static_cast<double>(steps - i - j) / steps};
      const auto a = ln_a(model, x);
      points.push_back(x);
      planes.push_back({a[0], a[1], a[2], x[0] * a[0] + x[1] * a[1] + x[2] * a[2]});
    }
  }
  const auto lowest = [&](const double* plane) {
    double least = HUGE_VAL;
    for (std::size_t k = 0; k < points.size(); ++k) {
      least = std::min(
          least, planes[k][3] - points[k][0] * plane[0] - points[k][1] * plane[1] - points[k][2] * plane[2]);
    }
    return least;
  };
  for (const ShownTieLine& shown : diagram.tie_lines) {
    const auto plane = ln_a(model, shown.line.alpha);
    if (std::isfinite(plane[0] + plane[1] + plane[2]) && lowest(plane.data()) < -1e-9) return "false split";
  }
  for (std::size_t k = 0; k < points.size(); ++k) {
    if (diagram.liquids_at(points[k]) > 1 || lowest(planes[k].data()) > -1e-9) continue;
    // At the rim of a region as it is drawn the polygon may be a little small: its tie line tells.
    LiquidSplitter splitter(model, diagram.T_K);
    const LiquidSplit split = splitter.split(points[k]);
    if (split.phases() < 2) return "a split that a search over the lattice sees";
    Composition middle{};
    for (std::size_t p = 0; p < split.phases(); ++p) {
      for (std::size_t i = 0; i < 3; ++i) middle[i] += split.x[p][i] / static_cast<double>(split.phases());
    }
    if (diagram.liquids_at(middle) < 2) return "a region was missed";
  }
  return "";
}

std::unique_ptr<ActivityModel> random_model(std::mt19937_64& generator, bool nrtl) {
  if (nrtl) return std::make_unique<Nrtl>(3, test::random_nrtl_pairs(generator, 3));
  std::uniform_real_distribution<double> r(1, 6), u(-0.6, 1.6);
  std::vector<UniquacSize> sizes;
  for (int i = 0; i < 3; ++i) {
    const double size = r(generator), surface = 0.85 * size + 0.2;
    sizes.push_back({size, surface, surface});
  }
  std::vector<PairParameters> pairs;
  for (int p = 0; p < 3; ++p) {
    PairParameters pair;
    pair.model = "uniquac";
    pair.between = {"a", "b"};
    pair.terms["u_12"].constant = u(generator);
    pair.terms["u_21"].constant = u(generator);
    pairs.push_back(pair);
  }
  return std::make_unique<Uniquac>(sizes, pairs);
}

void stress(int systems, unsigned seed, int steps) {
  const auto run = [&](int from, int to) {
    std::map<std::string, int> counted;
    for (int k = from; k < to; ++k) {
      std::mt19937_64 generator(seed + static_cast<unsigned>(k));
      const auto model = random_model(generator, k % 2 == 0);
      std::string fault;
      try {
        const TernaryDiagram diagram = ternary_diagram(*model, 330);
        fault = faults(*model, diagram);
        if (fault.empty()) fault = brute_force(*model, diagram, steps);
        if (!diagram.regions.empty()) ++counted["with two liquids"];
        if (!diagram.three_liquids.empty()) ++counted["with three liquids"];
      } catch (const std::runtime_error& error) {
        fault = error.what();
      }
      if (!fault.empty()) {
        ++counted["faulty"];
        ADD_FAILURE() << "system " << k << ": " << fault;
      }
    }
    return counted;
  };
  auto half = std::async(std::launch::async, run, 0, systems / 2);
  auto counted = run(systems / 2, systems);
  for (const auto& [what, number] : half.get()) counted[what] += number;
  for (const auto& [what, number] : counted) std::printf("%d of %d %s\n", number, systems, what.c_str());
  EXPECT_GT(counted["with two liquids"], systems / 4);
  EXPECT_GT(counted["with three liquids"], systems / 200);
}

TEST(Ternary, RandomModelsHaveNoFalseSplitAndNoneIsMissed) {
  stress(120, 1, 40);
}

TEST(SlowTernary, FiveThousandRandomModels) {
  stress(5000, 100000, 60);
}

// Three substances of one kind of interaction, A_ij x_i x_j: with only one pair apart, the plait point of the
// symmetric case lies on the middle line.
TEST(Ternary, ASymmetricSystemHasItsPlaitPointOnTheMiddleLine) {
  std::vector<PairParameters> pairs{test::nrtl_pair("a", "b", 700, 700, 0.3),
                                    test::nrtl_pair("a", "c", 60, 60, 0.3),
                                    test::nrtl_pair("b", "c", 60, 60, 0.3)};
  Nrtl model(3, pairs);
  const TernaryDiagram diagram = ternary_diagram(model, 300);
  ASSERT_EQ(diagram.plait_points.size(), 1u);
  const auto& plait = diagram.plait_points[0];
  EXPECT_NEAR(plait.x[0], plait.x[1], 1e-9);
  EXPECT_NEAR(plait.direction[2], 0, 1e-9);
  EXPECT_EQ(diagram.regions.size(), 1u);
  EXPECT_EQ(diagram.tie_lines.size(), 25u);
  // Every tie line is parallel to the base, and the solute has no preference.
  for (const ShownTieLine& shown : diagram.tie_lines) {
    EXPECT_NEAR(shown.line.alpha[2], shown.line.beta[2], 1e-9);
    EXPECT_NEAR(shown.distribution[0], 1 / shown.distribution[1], 1e-6 * shown.distribution[0]);
  }
  EXPECT_NE(diagram.description({"A", "B", "C"}).find("A and B part"), std::string::npos);
}

TEST(Ternary, TheTieLineThroughAPointHasItOnItself) {
  std::vector<PairParameters> pairs{test::nrtl_pair("a", "b", 700, 900, 0.3),
                                    test::nrtl_pair("a", "c", 10, 90, 0.3),
                                    test::nrtl_pair("b", "c", 60, 160, 0.3)};
  Nrtl model(3, pairs);
  const Composition z{0.4, 0.45, 0.15};
  const auto line = tie_line_through(model, 300, z);
  ASSERT_TRUE(line);
  const Composition &a = line->line.alpha, &b = line->line.beta;
  EXPECT_NEAR((z[0] - a[0]) * (b[1] - a[1]), (z[1] - a[1]) * (b[0] - a[0]), 1e-10);
  EXPECT_FALSE(tie_line_through(model, 300, {0.05, 0.05, 0.9}));
}

}  // namespace
}  // namespace jampot
