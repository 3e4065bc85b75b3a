#include "jampot/regression/known_point.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <string>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

constexpr std::array<std::string_view, 3> names{"azeotrope", "critical", "plait"};

}  // namespace

std::string_view name_of(SpecialPoint what) {
  return names[static_cast<std::size_t>(what)];
}

SpecialPoint parse_special_point(std::string_view text) {
  for (std::size_t k = 0; k < names.size(); ++k) {
    if (names[k] == text) return static_cast<SpecialPoint>(k);
  }
  const std::vector<std::string> all(names.begin(), names.end());
  throw RequestError(fmt::format("'{}' is not a point that can be known; there are {}.{}", text,
                                 joined(all, ", "), did_you_mean(text, all)));
}

void demand_known_point(const KnownPoint& point, std::size_t n) {
  const auto fail = [&](const std::string& what) {
    throw RequestError(fmt::format("the known {} point: {}", name_of(point.what), what));
  };
  const auto positive = [&](double value, const char* what) {
    if (!(std::isfinite(value) && value > 0))
      fail(fmt::format("{} is {}; expected a positive number", what, value));
  };
  if (point.what == SpecialPoint::critical_solution && n != 2)
    fail("a critical solution temperature belongs to two substances; of three there is a plait point");
  if (point.what == SpecialPoint::plait_point && n != 3) fail("a plait point belongs to three substances");
  positive(point.T_K, "T_K");
  positive(point.u_T_K, "u_T_K");
  if (point.what == SpecialPoint::azeotrope) {
    positive(point.P_Pa, "P_Pa");
    positive(point.u_P_Pa, "u_P_Pa");
  }
  if (point.x.empty() && point.what == SpecialPoint::critical_solution) return;
  if (point.x.size() != n) fail(fmt::format("{} fractions for {} substances", point.x.size(), n));
  positive(point.u_x, "u_x");
  double sum = 0;
  int present = 0;
  for (const double fraction : point.x) {
    if (!(fraction >= 0 && fraction < 1)) fail(fmt::format("a fraction is {}", fraction));
    sum += fraction;
    present += fraction > 0;
  }
  if (std::abs(sum - 1) > 1e-6) fail(fmt::format("the fractions sum to {}", sum));
  if (present < 2 || (point.what != SpecialPoint::azeotrope && present < static_cast<int>(n)))
    fail("it needs fractions above zero of the substances that make it");
}

}  // namespace jampot
