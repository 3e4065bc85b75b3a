#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <pugixml.hpp>
#include <sstream>

#include "jampot/files/thermoml.hpp"

namespace jampot {
namespace {

using Node = pugi::xml_node;

Node add(Node parent, const char* name, const std::string& text) {
  Node node = parent.append_child(name);
  node.text().set(text.c_str());
  return node;
}

std::string number_text(double value) {
  return fmt::format("{:.10g}", value);
}

// Digits that count, as the standard asks for.
int significant_digits(const std::string& text) {
  const std::string mantissa = text.substr(0, text.find('e'));
  int digits = 0;
  bool leading = true;
  for (const char c : mantissa) {
    if (c == '-' || c == '.') continue;
    if (leading && c == '0') continue;
    leading = false;
    ++digits;
  }
  return std::max(1, digits);
}

// What a column holds and how it is read off a point.
struct ThermomlField {
  const char* name;   ///< of the quantity in the standard, with its unit
  const char* group;  ///< of a property
  const char* phase;
  std::optional<std::size_t> component;
  double scale;  ///< SI for one of the unit
  double (*value)(const DataPoint&, std::size_t);
  double (*uncertainty)(const DataPoint&, std::size_t);

  double of(const DataPoint& point) const { return value(point, component.value_or(0)) / scale; }
  double u(const DataPoint& point) const { return uncertainty(point, component.value_or(0)) / scale; }
};

ThermomlField temperature(const char* name, const char* phase) {
  return {name,
          "VaporPBoilingTAzeotropTandP",
          phase,
          {},
          1,
          [](const DataPoint& p, std::size_t) { return p.T_K; },
          [](const DataPoint& p, std::size_t) { return p.u_T_K; }};
}

ThermomlField pressure(const char* name) {
  return {name,
          "VaporPBoilingTAzeotropTandP",
          "Liquid",
          {},
          1e3,
          [](const DataPoint& p, std::size_t) { return p.P_Pa; },
          [](const DataPoint& p, std::size_t) { return p.u_P_Pa; }};
}

ThermomlField fraction_x(const char* phase, std::size_t i) {
  return {"Mole fraction",
          "CompositionAtPhaseEquilibrium",
          phase,
          i,
          1,
          [](const DataPoint& p, std::size_t k) { return p.x[k]; },
          [](const DataPoint& p, std::size_t) { return p.u_x; }};
}

ThermomlField fraction_y(const char* phase, std::size_t i) {
  return {"Mole fraction",
          "CompositionAtPhaseEquilibrium",
          phase,
          i,
          1,
          [](const DataPoint& p, std::size_t k) { return p.y[k]; },
          [](const DataPoint& p, std::size_t) { return p.u_y; }};
}

ThermomlField measured_value(const LiquidValue& kind, std::size_t component) {
  return {kind.thermoml_name.data(),
          kind.thermoml_group.data(),
          "Liquid",
          kind.of_component ? std::optional(component) : std::nullopt,
          kind.thermoml_scale,
          [](const DataPoint& p, std::size_t) { return p.value; },
          [](const DataPoint& p, std::size_t) { return p.u_value; }};
}

// A data set as the standard has it: what was set and what was observed.
struct Layout {
  std::vector<const char*> phases;
  std::vector<ThermomlField> set, observed;
};

Layout layout_of(const DataSet& data, const DataPoint& first) {
  constexpr const char* T = "Temperature, K";
  constexpr const char* P = "Pressure, kPa";
  const std::size_t n = data.substances.size();
  Layout layout;
  const auto compose = [&](std::vector<ThermomlField>& to,
                           ThermomlField (*fraction)(const char*, std::size_t), const char* phase,
                           std::size_t begin, std::size_t end) {
    for (std::size_t i = begin; i < end; ++i) to.push_back(fraction(phase, i));
  };
  switch (family_of(data.kind)) {
    case DataFamily::two_liquids:
      layout.phases = {"Liquid mixture 1", "Liquid mixture 2"};
      layout.set = {temperature(T, layout.phases[0])};
      // At given T and P, n - 2 fractions are free (phase rule).
      compose(layout.set, fraction_x, layout.phases[0], 0, n - 2);
      compose(layout.observed, fraction_x, layout.phases[0], n - 2, n - 1);
      compose(layout.observed, fraction_y, layout.phases[1], 0, n - 1);
      break;
    case DataFamily::liquid_value: {
      const LiquidValue& value = *describe(data.kind).value;
      layout.phases = {"Liquid"};
      layout.set = {temperature(T, "Liquid")};
      for (std::size_t i = 0; i < n; ++i) {
        if (i != (value.dilute ? first.solvent : n - 1)) layout.set.push_back(fraction_x("Liquid", i));
      }
      layout.observed = {measured_value(value, first.solute)};
      break;
    }
    case DataFamily::boiling:
      layout.phases = {"Liquid", "Gas"};
      compose(layout.set, fraction_x, "Liquid", 0, n - 1);
      if (isobaric(data.kind)) {
        layout.set.push_back(pressure(P));
        layout.observed = {temperature("Boiling temperature at pressure P, K", "Liquid")};
      } else {
        layout.set.push_back(temperature(T, "Liquid"));
        layout.observed = {pressure("Vapor or sublimation pressure, kPa")};
      }
      if (has_vapour(data.kind)) compose(layout.observed, fraction_y, "Gas", 0, n - 1);
  }
  return layout;
}

class Writer {
 public:
  explicit Writer(const std::vector<DataSet>& sets) : sets_(sets) {}

  std::string text() {
    Node root = xml_.append_child("DataReport");
    root.append_attribute("xmlns") = "http://www.iupac.org/namespaces/ThermoML";
    Node version = root.append_child("Version");
    add(version, "nVersionMajor", "4");
    add(version, "nVersionMinor", "0");
    Node citation = root.append_child("Citation");
    add(citation, "eType", "unspecified");
    add(citation, "sTitle", sources());
    add_compounds(root);
    for (const DataSet& set : sets_) {
      for (const std::vector<DataPoint>& points : parts(set)) add_block(root, set, points);
    }
    std::ostringstream out;
    xml_.save(out, " ");
    return out.str();
  }

 private:
  std::string sources() const {
    std::string text;
    for (const DataSet& set : sets_) {
      const std::string& source = set.source.empty() ? set.name : set.source;
      if (text.find(source) == std::string::npos) text += (text.empty() ? "" : "; ") + source;
    }
    return text;
  }

  void add_compounds(Node root) {
    for (const DataSet& set : sets_) {
      for (const Substance& substance : set.substances) {
        if (std::find(names_.begin(), names_.end(), substance.name) != names_.end()) continue;
        names_.push_back(substance.name);
        Node compound = root.append_child("Compound");
        Node registry = compound.append_child("RegNum");
        std::string cas = substance.cas;
        cas.erase(std::remove(cas.begin(), cas.end(), '-'), cas.end());
        if (!cas.empty()) add(registry, "nCASRNum", cas);
        add(registry, "nOrgNum", fmt::format("{}", names_.size()));
        add(compound, "sCommonName", substance.name);
        if (!substance.formula.empty()) add(compound, "sFormulaMolec", substance.formula);
      }
    }
  }

  // One solute in one solvent is a data set of its own.
  static std::vector<std::vector<DataPoint>> parts(const DataSet& set) {
    std::vector<std::vector<DataPoint>> result;
    for (const DataPoint& point : set.points) {
      if (!point.excluded.empty()) continue;
      const auto alike = std::find_if(result.begin(), result.end(), [&](const auto& part) {
        return part.front().solute == point.solute && part.front().solvent == point.solvent;
      });
      (alike == result.end() ? result.emplace_back() : *alike).push_back(point);
    }
    return result;
  }

  void add_registry(Node parent, const DataSet& set, std::size_t component) const {
    const auto name = std::find(names_.begin(), names_.end(), set.substances[component].name);
    add(parent.append_child("RegNum"), "nOrgNum", fmt::format("{}", name - names_.begin() + 1));
  }

  void add_type(Node parent, const ThermomlField& field) const {
    const bool composed = field.component.has_value();
    const bool thermal = std::string_view(field.name).starts_with("Temperature");
    add(parent, composed ? "eComponentComposition" : thermal ? "eTemperature" : "ePressure", field.name);
  }

  void add_value(Node parent, const char* prefix, double value) const {
    const std::string text = number_text(value);
    add(parent, fmt::format("n{}Value", prefix).c_str(), text);
    const std::string digits = prefix == std::string_view("Constraint") ? "Constr" : prefix;
    add(parent, fmt::format("n{}Digits", digits).c_str(), fmt::format("{}", significant_digits(text)));
  }

  // The number of the assessment and, where there is one, the value: "Std" of a variable, "CombStd" of a
  // property.
  void add_uncertainty(Node parent, const char* element, const char* name, double u) const {
    Node node = parent.append_child(element);
    const bool combined = std::string_view(name) == "Comb";
    add(node, combined ? "nCombUncertAssessNum" : "nUncertAssessNum", "1");
    add(node, fmt::format("n{}StdUncertValue", name).c_str(), number_text(u));
  }

  void add_block(Node root, const DataSet& set, const std::vector<DataPoint>& points) {
    Node block = root.append_child("PureOrMixtureData");
    add(block, "nPureOrMixtureDataNumber", fmt::format("{}", ++blocks_));
    for (std::size_t i = 0; i < set.substances.size(); ++i)
      add_registry(block.append_child("Component"), set, i);
    const Layout layout = layout_of(set, points.front());
    int number = 0;
    for (const ThermomlField& field : layout.observed) add_property(block, set, field, ++number);
    for (const char* phase : layout.phases) add(block.append_child("PhaseID"), "ePhase", phase);

    // What is the same in every point is a constraint, with one uncertainty for all.
    std::vector<const ThermomlField*> variables;
    number = 0;
    for (const ThermomlField& field : layout.set) {
      const bool held = std::all_of(points.begin(), points.end(), [&](const DataPoint& point) {
        return field.of(point) == field.of(points.front()) && field.u(point) == field.u(points.front());
      });
      if (!held) {
        variables.push_back(&field);
        continue;
      }
      Node constraint = block.append_child("Constraint");
      add(constraint, "nConstraintNumber", fmt::format("{}", ++number));
      Node identity = constraint.append_child("ConstraintID");
      add_type(identity.append_child("ConstraintType"), field);
      if (field.component) add_registry(identity, set, *field.component);
      add(constraint.append_child("ConstraintPhaseID"), "eConstraintPhase", field.phase);
      add_value(constraint, "Constraint", field.of(points.front()));
      if (field.u(points.front()) > 0)
        add_uncertainty(constraint, "ConstrUncertainty", "", field.u(points.front()));
    }
    number = 0;
    for (const ThermomlField* field : variables) {
      Node variable = block.append_child("Variable");
      add(variable, "nVarNumber", fmt::format("{}", ++number));
      Node identity = variable.append_child("VariableID");
      add_type(identity.append_child("VariableType"), *field);
      if (field->component) add_registry(identity, set, *field->component);
      add(variable.append_child("VarPhaseID"), "eVarPhase", field->phase);
      add_assessment(variable, "VarUncertainty", "");
    }
    for (const DataPoint& point : points) add_values(block, point, variables, layout.observed);
  }

  void add_property(Node block, const DataSet& set, const ThermomlField& field, int number) const {
    Node property = block.append_child("Property");
    add(property, "nPropNumber", fmt::format("{}", number));
    Node method = property.append_child("Property-MethodID");
    Node group = method.append_child("PropertyGroup").append_child(field.group);
    add(group, "ePropName", field.name);
    add(group, "sMethodName", "not stated");
    if (field.component) add_registry(method, set, *field.component);
    add(property.append_child("PropPhaseID"), "ePropPhase", field.phase);
    add(property, "ePresentation", "Direct value, X");
    add_assessment(property, "CombinedUncertainty", "Comb");
  }

  // How uncertainties are meant; their values stand with the points.
  void add_assessment(Node parent, const char* element, const char* name) const {
    Node node = parent.append_child(element);
    add(node, fmt::format("n{}UncertAssessNum", name).c_str(), "1");
    add(node, fmt::format("s{}UncertEvaluator", name).c_str(), "as stated with the data");
  }

  void add_values(Node block, const DataPoint& point, const std::vector<const ThermomlField*>& variables,
                  const std::vector<ThermomlField>& observed) const {
    Node values = block.append_child("NumValues");
    int number = 0;
    for (const ThermomlField* field : variables) {
      Node value = values.append_child("VariableValue");
      add(value, "nVarNumber", fmt::format("{}", ++number));
      add_value(value, "Var", field->of(point));
      add_uncertainty(value, "VarUncertainty", "", field->u(point));
    }
    number = 0;
    for (const ThermomlField& field : observed) {
      Node value = values.append_child("PropertyValue");
      add(value, "nPropNumber", fmt::format("{}", ++number));
      add_value(value, "Prop", field.of(point));
      add_uncertainty(value, "CombinedUncertainty", "Comb", field.u(point));
    }
  }

  const std::vector<DataSet>& sets_;
  pugi::xml_document xml_;
  std::vector<std::string> names_;  ///< of the substances, in the order of their numbers
  int blocks_ = 0;
};

}  // namespace

std::string thermoml_text(const std::vector<DataSet>& sets) {
  return Writer(sets).text();
}

}  // namespace jampot
