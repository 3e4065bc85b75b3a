#include "jampot/measured/data_set.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "jampot/basis/error.hpp"

namespace jampot {

// Here once, and not in every file that uses one: they are long.
DataSet::DataSet() = default;
DataSet::DataSet(const DataSet&) = default;
DataSet::DataSet(DataSet&&) noexcept = default;
DataSet& DataSet::operator=(const DataSet&) = default;
DataSet& DataSet::operator=(DataSet&&) noexcept = default;
DataSet::~DataSet() = default;

bool DataPoint::is_pure() const {
  return std::any_of(x.begin(), x.end(), [](double fraction) { return fraction == 1; });
}

std::vector<std::size_t> DataPoint::present() const {
  std::vector<std::size_t> list;
  for (std::size_t i = 0; i < x.size(); ++i) {
    if (x[i] > 0 || (!y.empty() && y[i] > 0)) list.push_back(i);
  }
  return list;
}

void demand_points(const DataSet& set, bool with_uncertainties) {
  const std::size_t n = set.substances.size();
  for (std::size_t k = 0; k < set.points.size(); ++k) {
    const DataPoint& point = set.points[k];
    const auto fail = [&](const std::string& what) {
      throw RequestError(fmt::format("{}, point {}{}: {}", set.name, k + 1,
                                     point.line > 0 ? fmt::format(" (line {})", point.line) : "", what));
    };
    const auto positive = [&](double value, const char* what) {
      if (!(std::isfinite(value) && value > 0))
        fail(fmt::format("{} is {}; expected a positive number", what, value));
    };
    const auto fractions = [&](const std::vector<double>& x, const char* what) {
      if (x.size() != n) fail(fmt::format("{} {} for {} substances", x.size(), what, n));
      for (const double value : x) {
        // As measured and rounded, or with made-up noise: only what cannot be a fraction is refused.
        if (!(value >= -0.05 && value <= 1.05)) fail(fmt::format("a fraction of {} is {}", what, value));
      }
    };
    positive(point.T_K, "T_K");
    if (with_uncertainties) positive(point.u_T_K, "u_T_K");
    if (vapour_liquid(set.kind)) {
      positive(point.P_Pa, "P_Pa");
      if (with_uncertainties) positive(point.u_P_Pa, "u_P_Pa");
    }
    fractions(point.x, "x");
    const bool two_phases = !point.y.empty() || family_of(set.kind) == DataFamily::two_liquids;
    if (two_phases) fractions(point.y, "y");
    switch (family_of(set.kind)) {
      case DataFamily::liquid_value: {
        const LiquidValue& kind = *describe(set.kind).value;
        if (kind.logarithmic)
          positive(point.value, kind.thing.data());
        else if (!std::isfinite(point.value))
          fail(fmt::format("{} is {}", kind.thing, point.value));
        if (with_uncertainties) positive(point.u_value, "u_value");
        if (kind.of_component && point.solute >= n) fail("the component is none of the substances");
        if (kind.dilute && point.solvent >= n) fail("the solvent is none of the substances");
        break;
      }
      case DataFamily::boiling:
      case DataFamily::two_liquids:
        if (!with_uncertainties) break;
        positive(point.u_x, "u_x");
        if (two_phases) positive(point.u_y, "u_y");
    }
  }
}

double u_of_fraction(double fraction, double u, double relative) {
  return relative > 0 && fraction > 0 ? std::min(u, relative * fraction) : u;
}

double ln_gamma_of(const DataPoint& point, const std::vector<Substance>& substances, std::size_t i) {
  return std::log(point.y[i] * point.P_Pa / point.x[i]) - substances[i].vapour_pressure->ln_P(point.T_K);
}

DataKind boiling_kind(const std::vector<DataPoint>& points) {
  double P_low = HUGE_VAL, P_high = 0, T_low = HUGE_VAL, T_high = 0;
  for (const DataPoint& point : points) {
    P_low = std::min(P_low, point.P_Pa);
    P_high = std::max(P_high, point.P_Pa);
    T_low = std::min(T_low, point.T_K);
    T_high = std::max(T_high, point.T_K);
  }
  const bool vapour = !points.empty() && !points.front().y.empty();
  if (P_high / P_low - 1 < 0.02 || T_high - T_low > 1) return vapour ? DataKind::txy : DataKind::tx;
  return vapour ? DataKind::pxy : DataKind::px;
}

std::vector<DataSet> with_common_substances(const std::vector<DataSet>& sets) {
  std::vector<Substance> all;
  for (const DataSet& set : sets) {
    for (const Substance& substance : set.substances) {
      const bool known = std::any_of(all.begin(), all.end(),
                                     [&](const Substance& other) { return other.name == substance.name; });
      if (!known) all.push_back(substance);
    }
  }
  std::vector<DataSet> common = sets;
  for (DataSet& set : common) {
    std::vector<std::size_t> place;  // of each substance of the set among all
    for (const Substance& substance : set.substances) {
      const auto found = std::find_if(all.begin(), all.end(),
                                      [&](const Substance& other) { return other.name == substance.name; });
      place.push_back(static_cast<std::size_t>(found - all.begin()));
    }
    const auto spread = [&](std::vector<double>& fractions) {
      if (fractions.empty()) return;
      std::vector<double> wide(all.size());
      for (std::size_t i = 0; i < place.size(); ++i) wide[place[i]] = fractions[i];
      fractions = std::move(wide);
    };
    for (DataPoint& point : set.points) {
      spread(point.x);
      spread(point.y);
      if (const LiquidValue* value = describe(set.kind).value) {
        if (value->of_component) point.solute = place[point.solute];
        if (value->dilute) point.solvent = place[point.solvent];
      }
    }
    set.substances = all;
  }
  return common;
}

}  // namespace jampot
