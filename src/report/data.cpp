#include "jampot/report/data.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <nlohmann/json.hpp>

#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

struct Span {
  double low = 0, high = 0;
  std::string text(Dimension dimension, const DisplayUnits& units, const char* format) const {
    const auto shown = [&](double si) {
      return fmt::format(fmt::runtime(format), from_si(si, units.of(dimension), dimension));
    };
    return shown(low) == shown(high) ? shown(low) : shown(low) + " to " + shown(high);
  }
};

template <class Value>
Span range_of(const DataSet& set, Value&& value) {
  const auto [low, high] =
      std::minmax_element(set.points.begin(), set.points.end(),
                          [&](const DataPoint& a, const DataPoint& b) { return value(a) < value(b); });
  return {value(*low), value(*high)};
}

std::string names_in(const DataSet& set) {
  std::vector<std::string> names;
  for (const Substance& substance : set.substances) names.push_back(substance.name);
  return joined(names, ", ");
}

Json set_json(const DataSet& set) {
  Json json{{"name", set.name}, {"kind", name_of(set.kind)}, {"source", set.source}};
  for (const Substance& substance : set.substances) json["substances"].push_back(substance.name);
  json["points"] = Json::array();
  for (const DataPoint& point : set.points) {
    Json one{{"T_K", point.T_K}, {"u_T_K", point.u_T_K}};
    if (vapour_liquid(set.kind)) one.update({{"P_Pa", point.P_Pa}, {"u_P_Pa", point.u_P_Pa}});
    switch (family_of(set.kind)) {
      case DataFamily::two_liquids:
        one.update(
            {{"x_alpha", point.x}, {"x_beta", point.y}, {"u_x_alpha", point.u_x}, {"u_x_beta", point.u_y}});
        break;
      case DataFamily::liquid_value: {
        const LiquidValue& value = *describe(set.kind).value;
        if (value.of_component)
          one[value.dilute ? "solute" : "component"] = set.substances[point.solute].name;
        if (value.dilute)
          one["solvent"] = set.substances[point.solvent].name;
        else
          one.update({{"x", point.x}, {"u_x", point.u_x}});
        const std::string key(value.json_key);
        one.update({{key, point.value}, {"u_" + key, point.u_value}});
        break;
      }
      case DataFamily::boiling:
        one.update({{"x", point.x}, {"u_x", point.u_x}});
        if (has_vapour(set.kind)) one.update({{"y", point.y}, {"u_y", point.u_y}});
    }
    if (!point.excluded.empty()) one["excluded"] = point.excluded;
    json["points"].push_back(std::move(one));
  }
  return json;
}

}  // namespace

Answer answer(const std::vector<DataSet>& sets, const AnswerOptions& options) {
  const DisplayUnits& units = options.units;
  Answer answer;
  *answer.json = plain_header("data");
  Table table{"Measured data",
              {{"data set"},
               {"substances"},
               {"kind"},
               {"points"},
               {"T in " + units.temperature},
               {"P in " + units.pressure},
               {"x1"},
               {"source"}},
              {}};
  for (const DataSet& set : sets) {
    const bool boiling = vapour_liquid(set.kind);
    const Span x = range_of(set, [](const DataPoint& p) { return p.x[0]; });
    table.rows.push_back({set.name, names_in(set), std::string(name_of(set.kind)),
                          fmt::format("{}", set.points.size()),
                          range_of(set, [](const DataPoint& p) { return p.T_K; })
                              .text(Dimension::temperature, units, "{:.2f}"),
                          boiling ? range_of(set, [](const DataPoint& p) { return p.P_Pa; })
                                        .text(Dimension::pressure, units, "{:.2f}")
                                  : std::string(),
                          fmt::format("{:.4g} to {:.4g}", x.low, x.high), set.source});
    (*answer.json)["data_sets"].push_back(set_json(set));
    for (const Substance& substance : set.substances) {
      const Json short_form = to_json(substance);
      Json& known = (*answer.json)["substances"];
      if (std::find(known.begin(), known.end(), short_form) == known.end()) known.push_back(short_form);
    }
    answer.notices.add(set.notices);
  }
  answer.tables.push_back(std::move(table));
  return answer;
}

}  // namespace jampot
