#include <fmt/format.h>

#include <algorithm>
#include <functional>

#include "jampot/basis/text.hpp"
#include "jampot/files/measured_csv.hpp"

namespace jampot {
namespace {

struct CsvField {
  std::string heading;
  std::function<std::string(const DataPoint&)> text;
};

std::string number(double value) {
  return fmt::format("{:.10g}", value);
}

// A uncertainty that is the same for all points goes into a comment, else into a column.
struct Uncertainty {
  std::string name;
  std::string_view unit;
  double scale;
  double DataPoint::*member;
};

std::string quoted(const std::string& text) {
  std::string result = "\"";
  for (const char c : text) result += c == '"' ? std::string(2, c) : std::string(1, c);
  return result + "\"";
}

std::vector<CsvField> fields_of(const DataSet& data) {
  std::vector<CsvField> fields;
  const std::size_t n = data.substances.size();
  const auto fractions = [&](char letter, const char* which, std::vector<double> DataPoint::*member) {
    for (std::size_t i = 0; i + 1 < n; ++i)
      fields.push_back({fmt::format("{}{}{}", letter, i + 1, which),
                        [member, i](const DataPoint& p) { return number((p.*member)[i]); }});
  };
  fields.push_back({"T [K]", [](const DataPoint& p) { return number(p.T_K); }});
  const auto substance = [&](const char* heading, std::size_t DataPoint::*member) {
    fields.push_back({heading, [&data, member](const DataPoint& p) {
                        const Substance& s = data.substances[p.*member];
                        return s.name.find(',') == std::string::npos ? s.name : s.cas;
                      }});
  };
  switch (family_of(data.kind)) {
    case DataFamily::two_liquids:
      fractions('x', "_alpha", &DataPoint::x);
      fractions('x', "_beta", &DataPoint::y);
      break;
    case DataFamily::liquid_value: {
      const LiquidValue& value = *describe(data.kind).value;
      if (value.of_component) substance(value.dilute ? "solute" : "component", &DataPoint::solute);
      if (value.dilute)
        substance("solvent", &DataPoint::solvent);
      else
        fractions('x', "", &DataPoint::x);
      fields.push_back(
          {value.unit.empty() ? std::string(value.column) : fmt::format("{} [{}]", value.column, value.unit),
           [](const DataPoint& p) { return number(p.value); }});
      break;
    }
    case DataFamily::boiling:
      fields.push_back({"P [kPa]", [](const DataPoint& p) { return number(p.P_Pa / 1e3); }});
      fractions('x', "", &DataPoint::x);
      if (has_vapour(data.kind)) fractions('y', "", &DataPoint::y);
  }
  return fields;
}

std::vector<Uncertainty> uncertainties_of(const DataSet& data) {
  std::vector<Uncertainty> list{{"u(T)", "K", 1, &DataPoint::u_T_K}};
  if (vapour_liquid(data.kind)) list.push_back({"u(P)", "kPa", 1e3, &DataPoint::u_P_Pa});
  const LiquidValue* value = describe(data.kind).value;
  if (!value || !value->dilute) list.push_back({"u(x)", "", 1, &DataPoint::u_x});
  if (has_vapour(data.kind)) list.push_back({"u(y)", "", 1, &DataPoint::u_y});
  if (value) list.push_back({fmt::format("u({})", value->column), value->unit, 1, &DataPoint::u_value});
  return list;
}

}  // namespace

std::string measured_csv_text(const DataSet& data) {
  std::vector<std::string> names;
  // A comma parts names here, so a name with one gives way to the CAS number.
  for (const Substance& substance : data.substances)
    names.push_back(substance.name.find(',') == std::string::npos ? substance.name : substance.cas);
  std::string text = fmt::format("# substances: {}\n# kind: {}\n", joined(names, ", "), name_of(data.kind));
  if (!data.source.empty()) text += fmt::format("# source: {}\n", one_line(data.source));
  std::vector<CsvField> fields = fields_of(data);
  for (const Uncertainty& u : uncertainties_of(data)) {
    const bool same = std::all_of(data.points.begin(), data.points.end(), [&](const DataPoint& point) {
      return point.*u.member == data.points.front().*u.member;
    });
    if (same) {
      text += fmt::format("# {}: {} {}", u.name, number(data.points.front().*u.member / u.scale), u.unit);
      if (text.back() == ' ') text.pop_back();
      text += '\n';
    } else {
      fields.push_back({u.unit.empty() ? u.name : fmt::format("{} [{}]", u.name, u.unit),
                        [u](const DataPoint& point) { return number(point.*u.member / u.scale); }});
    }
  }
  if (std::any_of(data.points.begin(), data.points.end(),
                  [](const DataPoint& p) { return !p.excluded.empty(); }))
    fields.push_back({"exclude", [](const DataPoint& p) {
                        return p.excluded.empty() ? std::string() : quoted(one_line(p.excluded));
                      }});
  std::vector<std::string> cells;
  for (const CsvField& field : fields) cells.push_back(field.heading);
  text += joined(cells, ", ") + "\n";
  for (const DataPoint& point : data.points) {
    cells.clear();
    for (const CsvField& field : fields) cells.push_back(field.text(point));
    text += joined(cells, ", ") + "\n";
  }
  return text;
}

}  // namespace jampot
