#include "thermoml_document.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <deque>
#include <pugixml.hpp>

#include "jampot/basis/error.hpp"
#include "jampot/basis/readable.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/measured/data_kind.hpp"
#include "jampot/regression/statistics.hpp"
#include "xml_pieces.hpp"

namespace jampot::thermoml {
namespace {

using Node = pugi::xml_node;

// The name without the prefix of its namespace.
std::string_view local_name(Node node) {
  const std::string_view name = node.name();
  const std::size_t colon = name.find(':');
  return colon == std::string_view::npos ? name : name.substr(colon + 1);
}

std::vector<Node> children(Node node, std::string_view name) {
  std::vector<Node> found;
  for (const Node child : node.children()) {
    if (local_name(child) == name) found.push_back(child);
  }
  return found;
}

Node child(Node node, std::string_view name) {
  for (const Node candidate : node.children()) {
    if (local_name(candidate) == name) return candidate;
  }
  return {};
}

Node descend(Node node, std::initializer_list<std::string_view> path) {
  for (const std::string_view name : path) node = child(node, name);
  return node;
}

// A character reference such as &#7; brings in what the file itself may not hold.
std::string text_of(Node node) {
  return readable(trimmed(node.text().get()), Lines::one);
}

// The first element below whose name ends so.
Node ending_in(Node node, std::string_view end) {
  return node.find_node([&](const Node& candidate) { return local_name(candidate).ends_with(end); });
}

struct Meaning {
  Quantity quantity;
  double to_si;
};

// Names of the standard carry their unit behind a comma.
Meaning meaning_of(std::string_view name) {
  static const std::map<std::string, Meaning, std::less<>> known{
      {"temperature, k", {Quantity::temperature, 1}},
      {"boiling temperature at pressure p, k", {Quantity::temperature, 1}},
      {"pressure, kpa", {Quantity::pressure, 1e3}},
      {"vapor or sublimation pressure, kpa", {Quantity::pressure, 1e3}},
      {"mole fraction", {Quantity::mole_fraction, 1}},
      {"mass fraction", {Quantity::mass_fraction, 1}},
      {"molality, mol/kg", {Quantity::molality, 1}},
      {"amount ratio of solute to solvent", {Quantity::mole_ratio, 1}},
      {"mass ratio of solute to solvent", {Quantity::mass_ratio, 1}}};
  const std::string wanted = lower_case(name);
  for (const KindDescription* kind : liquid_value_kinds()) {
    if (wanted == lower_case(kind->value->thermoml_name))
      return {Quantity::liquid_value, kind->value->thermoml_scale};
  }
  const auto found = known.find(wanted);
  return found == known.end() ? Meaning{Quantity::other, 1} : found->second;
}

// Phases that archives write in several ways, as the description of the standard has them.
std::string phase_called(const std::string& name) {
  static const std::map<std::string, std::string, std::less<>> others{
      {"gas", "Gas"},
      {"vapor", "Gas"},
      {"vapour", "Gas"},
      {"liquid", "Liquid"},
      {"solution", "Liquid"},
      {"liquid mixture 1", "Liquid mixture 1"},
      {"solution 1", "Liquid mixture 1"},
      {"liquid mixture 2", "Liquid mixture 2"},
      {"solution 2", "Liquid mixture 2"}};
  const auto found = others.find(lower_case(name));
  return found == others.end() ? name : found->second;
}

// "64175" as "64-17-5".
std::string hyphenated(const std::string& digits) {
  if (digits.size() < 5 || digits.find('-') != std::string::npos) return digits;
  const std::size_t n = digits.size();
  return digits.substr(0, n - 3) + "-" + digits.substr(n - 3, 2) + "-" + digits.substr(n - 1);
}

std::string key_of(Node registry) {
  const std::string number = text_of(child(registry, "nOrgNum"));
  return number.empty() ? hyphenated(text_of(child(registry, "nCASRNum"))) : number;
}

std::string citation_text(Node citation) {
  std::vector<std::string> authors, parts;
  for (const Node author : children(citation, "sAuthor")) authors.push_back(text_of(author));
  if (!authors.empty()) parts.push_back(joined(authors, "; "));
  for (const char* name : {"sTitle", "sPubName", "yrPubYr", "sVol", "sPage", "sDOI"}) {
    const std::string text = text_of(child(citation, name));
    if (!text.empty()) parts.push_back(text);
  }
  return joined(parts, ", ");
}

}  // namespace

class DocumentReader::Reader {
 public:
  Reader(std::string file, std::function<void(Block&&)> take)
      : file_(std::move(file)),
        take_(std::move(take)),
        pieces_(file_, "DataReport", [this](const XmlPieces::Element& element) { read(element); }) {}

  XmlPieces& pieces() { return pieces_; }
  const std::string& source() const { return source_; }

 private:
  void read(const XmlPieces::Element& element) {
    if (element.name != "Citation" && element.name != "Compound" && element.name != "PureOrMixtureData")
      return;
    first_line_ = element.line;
    line_ends_.clear();
    for (std::size_t i = 0; i < element.text.size(); ++i) {
      if (element.text[i] == '\n') line_ends_.push_back(i);
    }
    const pugi::xml_parse_result parsed =
        xml_.load_buffer(element.text.data(), element.text.size(), pugi::parse_default, pugi::encoding_utf8);
    if (!parsed)
      throw RequestError({file_, line_at(parsed.offset), {}},
                         fmt::format("this is no well-formed XML: {}", parsed.description()));
    const Node node = xml_.document_element();
    if (element.name == "Citation") source_ = citation_text(node);
    if (element.name == "Compound") read_compound(node);
    if (element.name == "PureOrMixtureData") read_block(node);
  }

  int line_at(std::ptrdiff_t offset) const {
    if (offset < 0) return 0;
    const auto before =
        std::lower_bound(line_ends_.begin(), line_ends_.end(), static_cast<std::size_t>(offset));
    return static_cast<int>(before - line_ends_.begin()) + first_line_;
  }

  Place place(Node node) const { return {file_, line_at(node.offset_debug()), {}}; }

  void read_compound(Node node) {
    const Node registry = child(node, "RegNum");
    Compound compound{key_of(registry), hyphenated(text_of(child(registry, "nCASRNum"))), {}};
    if (compound.key.empty())
      throw RequestError(place(node), "this compound has neither 'nOrgNum' nor 'nCASRNum' to call it by");
    for (const char* name : {"sCommonName", "sIUPACName"}) {
      for (const Node title : children(node, name)) compound.names.push_back(text_of(title));
    }
    compounds_.push_back(std::move(compound));
  }

  void read_block(Node node) {
    block_ = {};
    columns_.clear();
    coverage_.clear();
    block_.line = line_at(node.offset_debug());
    block_.number = text_of(child(node, "nPureOrMixtureDataNumber"));
    if (block_.number.empty()) block_.number = fmt::format("{}", blocks_ + 1);
    for (const Node component : children(node, "Component"))
      block_.components.push_back(&compound(child(component, "RegNum")));
    Row held;
    for (const Node constraint : children(node, "Constraint")) {
      const std::size_t column = read_column(constraint, Role::constraint);
      held[column] = read_value(constraint, column, "nConstraintValue");
    }
    for (const Node variable : children(node, "Variable")) read_column(variable, Role::variable);
    for (const Node property : children(node, "Property")) read_column(property, Role::property);
    for (const Node values : children(node, "NumValues")) {
      Row row = held;
      for (const Node value : children(values, "VariableValue")) add_value(value, Role::variable, row);
      for (const Node value : children(values, "PropertyValue")) add_value(value, Role::property, row);
      block_.rows.push_back(std::move(row));
    }
    ++blocks_;
    take_(std::move(block_));
  }

  const Compound& compound(Node registry) const {
    const std::string key = key_of(registry);
    for (const Compound& compound : compounds_) {
      if (compound.key == key || (!key.empty() && compound.cas == key)) return compound;
    }
    throw RequestError(place(registry), fmt::format("there is no compound '{}' in this file", key));
  }

  std::size_t read_column(Node node, Role role) {
    Column column;
    column.role = role;
    Node identity, phase;
    std::string number;
    switch (role) {
      case Role::constraint:
        identity = child(node, "ConstraintID");
        column.name = text_of(child(identity, "ConstraintType").first_child());
        phase = descend(node, {"ConstraintPhaseID", "eConstraintPhase"});
        number = "constraint " + text_of(child(node, "nConstraintNumber"));
        break;
      case Role::variable:
        identity = child(node, "VariableID");
        column.name = text_of(child(identity, "VariableType").first_child());
        phase = descend(node, {"VarPhaseID", "eVarPhase"});
        number = "variable " + text_of(child(node, "nVarNumber"));
        break;
      case Role::property:
        identity = child(node, "Property-MethodID");
        column.name = text_of(child(child(identity, "PropertyGroup").first_child(), "ePropName"));
        phase = descend(node, {"PropPhaseID", "ePropPhase"});
        number = "property " + text_of(child(node, "nPropNumber"));
        break;
    }
    column.quantity = meaning_of(column.name).quantity;
    column.phase = phase_called(text_of(phase));
    // A composition that is set and not measured is the liquid's where no phase is named.
    if (column.phase.empty() && role != Role::property) column.phase = "Liquid";
    if (const Node registry = child(identity, "RegNum")) {
      const Compound* wanted = &compound(registry);
      const auto found = std::find(block_.components.begin(), block_.components.end(), wanted);
      if (found == block_.components.end())
        throw RequestError(place(registry), "this compound is not one of the data set");
      column.component = static_cast<std::size_t>(found - block_.components.begin());
    }
    if (!columns_.emplace(number, block_.columns.size()).second)
      throw RequestError(place(node), fmt::format("two elements have the number '{}'", number));
    block_.columns.push_back(std::move(column));
    coverage_.push_back(coverage_factor(node));
    return block_.columns.size() - 1;
  }

  // Of expanded uncertainties: as stated, else from the level of confidence, else of 95 %.
  double coverage_factor(Node node) const {
    if (const Node factor = ending_in(node, "CoverageFactor")) return std::max(1e-3, number(factor));
    const Node level = ending_in(node, "LevOfConfid");
    const double percent = level ? number(level) : 95;
    if (!(percent > 0 && percent < 100))
      throw RequestError(place(level), "a level of confidence lies between 0 and 100 %");
    return normal_quantile(0.5 + percent / 200);
  }

  void add_value(Node node, Role role, Row& row) {
    const bool variable = role == Role::variable;
    const Node name = child(node, variable ? "nVarNumber" : "nPropNumber");
    const std::string number = (variable ? "variable " : "property ") + text_of(name);
    const auto column = columns_.find(number);
    if (column == columns_.end())
      throw RequestError(place(node), fmt::format("there is no {} in this data set", number));
    // A property may be given as a limit instead of a value; that is no measured number.
    if (!variable && !child(node, "nPropValue")) return;
    row[column->second] = read_value(node, column->second, variable ? "nVarValue" : "nPropValue");
  }

  Value read_value(Node node, std::size_t column, const char* name) const {
    const Node text = child(node, name);
    if (!text) throw RequestError(place(node), fmt::format("no element '{}' with the value", name));
    const double scale = meaning_of(block_.columns[column].name).to_si;
    return {scale * number(text), uncertainty(node, scale, coverage_[column]), line_at(node.offset_debug())};
  }

  std::optional<double> uncertainty(Node node, double scale, double coverage) const {
    for (const char* kind :
         {"CombinedUncertainty", "PropUncertainty", "VarUncertainty", "ConstrUncertainty"}) {
      for (const Node stated : children(node, kind)) {
        double u = 0;
        if (const Node standard = ending_in(stated, "StdUncertValue")) {
          u = number(standard);
        } else if (const Node expanded = ending_in(stated, "ExpandUncertValue")) {
          u = number(expanded) / coverage;
        } else if (const Node above = ending_in(stated, "PositiveValue")) {
          // Two different ones above and below: the larger.
          const Node below = ending_in(stated, "NegativeValue");
          u = std::max(std::abs(number(above)), below ? std::abs(number(below)) : 0.0);
          if (local_name(above.parent()).find("Expand") != std::string_view::npos) u /= coverage;
        }
        if (u > 0) return scale * u;
      }
    }
    return std::nullopt;
  }

  double number(Node node) const {
    const auto value = parse_number(text_of(node));
    if (!value || !std::isfinite(*value))
      throw RequestError(place(node), fmt::format("'{}' is not a number", text_of(node)));
    return *value;
  }

  const std::string file_;
  std::function<void(Block&&)> take_;
  XmlPieces pieces_;
  pugi::xml_document xml_;              ///< the element that is read
  int first_line_ = 1;                  ///< of that element
  std::vector<std::size_t> line_ends_;  ///< in it
  std::string source_;
  std::deque<Compound> compounds_;  ///< the blocks point into it
  std::size_t blocks_ = 0;          ///< read so far
  Block block_;
  std::map<std::string, std::size_t> columns_;  ///< by role and number in the file
  std::vector<double> coverage_;                ///< of each column
};

DocumentReader::DocumentReader(std::string file, std::function<void(Block&&)> take)
    : reader_(std::make_unique<Reader>(std::move(file), std::move(take))) {}
DocumentReader::~DocumentReader() = default;

void DocumentReader::feed(std::string_view bytes) {
  reader_->pieces().feed(bytes);
}
void DocumentReader::finish() {
  reader_->pieces().finish();
}
const std::string& DocumentReader::source() const {
  return reader_->source();
}

}  // namespace jampot::thermoml
