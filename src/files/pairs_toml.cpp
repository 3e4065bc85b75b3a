#include "jampot/files/pairs_toml.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/files/text_file.hpp"
#include "jampot/liquid/models.hpp"
#include "toml_reader.hpp"

namespace jampot {
namespace {

class Reader : TomlReader {
 public:
  Reader(std::string file, const Bank& bank) : TomlReader(std::move(file)), bank_(bank) {}

  std::vector<PairParameters> read(std::string_view text) {
    const toml::table root = parse(text);
    allow(root, {"model", "source", "pair", "fit"});
    const std::string model = line_of(require(root, "model"), "model");
    at(require(root, "model"), [&] { needs_pairs(model); });
    const std::string source = root.contains("source") ? line_of(*root.get("source"), "source") : file();
    const toml::node& list = require(root, "pair");
    if (!list.is_array_of_tables()) fail(list, "expected [[pair]] tables");
    std::vector<PairParameters> pairs;
    for (const toml::node& node : *list.as_array()) {
      pairs.push_back(read_pair(*node.as_table(), model, source));
    }
    if (const toml::node* fit = root.get("fit"); fit != nullptr && fit->is_table()) {
      read_covariance(*fit->as_table(), pairs);
    }
    return pairs;
  }

 private:
  PairParameters read_pair(const toml::table& table, const std::string& model,
                           const std::string& source) const {
    std::vector<std::string> terms, optional;
    for (const TermForFit& term : terms_for_fit(model)) {
      terms.push_back(term.name);
      if (term.optional && !table.contains(term.name)) optional.push_back(term.name);
    }
    std::vector<std::string> keys{"between", "range_K",   "range_Pa",  "std_error",
                                  "source",  "estimated", "fitted_to", "vapour"};
    const ModelDescription& description = description_of(model);
    keys.insert(keys.end(), description.stated.begin(), description.stated.end());
    keys.insert(keys.end(), terms.begin(), terms.end());
    allow(table, keys);

    PairParameters pair;
    pair.model = model;
    pair.source = table.contains("source") ? line_of(*table.get("source"), "source") : source;
    read_between(require(table, "between"), pair);
    if (const toml::node* range = table.get("range_K")) pair.T_range_K = read_range(*range);
    for (const std::string& term : terms) {
      if (std::find(optional.begin(), optional.end(), term) != optional.end()) {
        pair.terms[term] = {};  // left out: zero
        continue;
      }
      const toml::node& node = require(table, term);
      if (node.is_number()) {
        pair.terms[term].constant = number_of(node, term);
      } else {
        read_term(node, term, pair.terms[term]);
      }
    }
    check_alpha(table, pair);
    if (const toml::node* node = table.get("estimated")) {
      const auto value = node->value<bool>();
      if (!value) fail(*node, "'estimated' must be true or false");
      pair.estimated = *value;
    }
    if (const toml::node* node = table.get("fitted_to")) pair.fitted_to = line_of(*node, "fitted_to");
    if (const toml::node* node = table.get("vapour")) pair.vapour = line_of(*node, "vapour");
    if (const toml::node* node = table.get("molar_volumes_cm3_mol")) {
      pair.molar_volumes_m3_mol = read_two(*node, "molar_volumes_cm3_mol");
      for (double& volume : *pair.molar_volumes_m3_mol) volume *= 1e-6;
    }
    read_sizes(table, pair);
    return pair;
  }

  // Two positive numbers, one for each substance of the pair.
  std::array<double, 2> read_two(const toml::node& node, const std::string& key) const {
    const toml::array* values = node.as_array();
    const std::string expected =
        fmt::format("'{}' must be two positive numbers, in the order of 'between'", key);
    if (values == nullptr || values->size() != 2) fail(node, expected);
    const std::array<double, 2> two{number_of(*values->get(0), key), number_of(*values->get(1), key)};
    if (!(two[0] > 0 && two[1] > 0)) fail(node, expected);
    return two;
  }

  void read_sizes(const toml::table& table, PairParameters& pair) const {
    const toml::node *r = table.get("r"), *q = table.get("q"), *q_residual = table.get("q_residual");
    if (r == nullptr && q == nullptr && q_residual == nullptr) return;
    if (r == nullptr || q == nullptr) {
      fail(table, "r and q are stated together, as two numbers each; q_residual (q') may be added");
    }
    PairParameters::Sizes sizes{read_two(*r, "r"), read_two(*q, "q"), {}};
    sizes.q_residual = q_residual != nullptr ? read_two(*q_residual, "q_residual") : sizes.q;
    pair.sizes = sizes;
  }

  // The section that a fit writes: names of the fitted numbers, pair after pair, and their covariance.
  void read_covariance(const toml::table& fit, std::vector<PairParameters>& pairs) const {
    const toml::node *names = fit.get("parameters"), *rows = fit.get("covariance");
    if (names == nullptr || rows == nullptr || !names->is_array() || !rows->is_array()) return;
    const std::size_t n = names->as_array()->size();
    std::size_t number = 0;
    for (const toml::node& node : *names->as_array()) {
      const std::string name = line_of(node, "parameters");
      const std::size_t colon = name.find(": ");  // "ethanol - water: alpha" where there are several pairs
      PairParameters& pair =
          colon == std::string::npos ? pairs.front() : pair_of(node, name.substr(0, colon), pairs);
      const std::string own = colon == std::string::npos ? name : name.substr(colon + 2);
      const std::size_t dot = own.find('.');
      FittedCoefficient coefficient{own.substr(0, dot), Coefficient::constant};
      for (const Coefficient candidate : all_coefficients) {
        if (dot != std::string::npos && own.substr(dot + 1) == name_of(candidate))
          coefficient.coefficient = candidate;
      }
      if (!pair.terms.contains(coefficient.term))
        fail(node, fmt::format("'{}' is not a term of {}", name, pair.model));
      if (pair.fitted.empty()) pair.joint_row = number;
      if (pair.joint_row + pair.fitted.size() != number)
        fail(node, fmt::format("'{}' is separated from the other numbers of its pair", name));
      pair.fitted.push_back(std::move(coefficient));
      ++number;
    }
    std::vector<double> values;
    for (const toml::node& row : *rows->as_array()) {
      if (!row.is_array() || row.as_array()->size() != n || rows->as_array()->size() != n) {
        fail(row, fmt::format("'covariance' must have {} rows of {} numbers", n, n));
      }
      for (const toml::node& value : *row.as_array()) values.push_back(number_of(value, "covariance"));
    }
    const auto joint = std::make_shared<const std::vector<double>>(std::move(values));
    for (PairParameters& pair : pairs) {
      for (std::size_t a = 0; a < pair.fitted.size(); ++a) {
        for (std::size_t b = 0; b < pair.fitted.size(); ++b)
          pair.covariance.push_back((*joint)[(pair.joint_row + a) * n + pair.joint_row + b]);
      }
      if (pairs.size() > 1) pair.joint_covariance = joint;
    }
  }

  PairParameters& pair_of(const toml::node& node, const std::string& names,
                          std::vector<PairParameters>& pairs) const {
    const std::size_t dash = names.find(" - ");
    if (dash != std::string::npos) {
      const Substance *a = bank_.find(names.substr(0, dash)), *b = bank_.find(names.substr(dash + 3));
      for (PairParameters& pair : pairs) {
        if (a != nullptr && b != nullptr && pair.between == std::array{a->name, b->name}) return pair;
      }
    }
    fail(node, fmt::format("'{}' is not a [[pair]] of this file", names));
  }

  void read_between(const toml::node& node, PairParameters& pair) const {
    const toml::array* names = node.as_array();
    if (names == nullptr || names->size() != 2)
      fail(node, "'between' must list two substances: [\"NAME\", \"NAME\"]");
    for (std::size_t k = 0; k < 2; ++k) {
      at(node, [&] { pair.between[k] = bank_.require(line_of(*names->get(k), "between")).name; });
    }
    if (pair.between[0] == pair.between[1])
      fail(node, fmt::format("{} is paired with itself", pair.between[0]));
  }

  std::array<double, 2> read_range(const toml::node& node) const {
    const toml::array* range = node.as_array();
    if (range == nullptr || range->size() != 2)
      fail(node, "'range_K' must be two temperatures: [300.0, 350.0]");
    const std::array<double, 2> limits{number_of(*range->get(0), "range_K"),
                                       number_of(*range->get(1), "range_K")};
    if (!(limits[0] > 0 && limits[1] >= limits[0]))
      fail(node, "'range_K' must be two temperatures, the lower one first");
    return limits;
  }

  void read_term(const toml::node& node, const std::string& term, TemperatureFunction& function) const {
    const toml::table* coefficients = node.as_table();
    if (coefficients == nullptr) {
      fail(node,
           fmt::format("'{}' must be a number or a table of coefficients, as in {{ inverse_T = 230.0 }}",
                       term));
    }
    std::vector<std::string> names;
    for (const Coefficient coefficient : all_coefficients) names.emplace_back(name_of(coefficient));
    allow(*coefficients, names);
    for (const Coefficient coefficient : all_coefficients) {
      const std::string name(name_of(coefficient));
      if (const toml::node* value = coefficients->get(name))
        function[coefficient] = number_of(*value, fmt::format("{}.{}", term, name));
    }
  }

  void check_alpha(const toml::table& table, const PairParameters& pair) const {
    const auto alpha = pair.terms.find("alpha");
    if (alpha == pair.terms.end()) return;
    if (!(alpha->second.value(room_T_K) > 0)) {
      fail(*table.get("alpha"),
           fmt::format("alpha is {} at 25 degC; it must be positive", alpha->second.value(room_T_K)));
    }
  }

  const Bank& bank_;
};

std::string term_line(const std::string& name, const TemperatureFunction& function) {
  std::vector<std::string> parts;
  for (const Coefficient coefficient : all_coefficients) {
    if (function[coefficient] != 0)
      parts.push_back(fmt::format("{} = {}", name_of(coefficient), toml_number(function[coefficient])));
  }
  if (parts.empty()) parts.emplace_back("constant = 0.0");
  return fmt::format("{} = {{ {} }}\n", name, joined(parts, ", "));
}

std::string fit_section(const Fit& fit) {
  std::vector<std::string> data, names;
  for (const std::string& name : fit.data)
    data.push_back(toml_text(std::filesystem::path(name).filename().string()));
  for (const FittedParameter* parameter : fit.fitted()) names.push_back(toml_text(parameter->name));
  const Matrix covariance = fit.fitted_covariance();
  std::string text = "\n[fit]\n";
  text += fmt::format("data = [{}]\npoints = {}\n", joined(data, ", "), fit.points);
  text += fmt::format("objective = {}\n", toml_text(std::string(name_of(fit.options.objective))));
  text += fmt::format("sum_of_squares = {}\ndegrees_of_freedom = {}\n", toml_number(fit.objective),
                      toml_number(fit.degrees_of_freedom));
  if (fit.options.objective == Objective::maximum_likelihood) {
    text += fmt::format("chi_square_probability = {}\n", toml_number(fit.chi_square_probability));
  }
  for (const auto& [name, value] :
       {std::pair("rms_deviation_T_K", fit.deviation.T_K),
        std::pair("rms_deviation_P_Pa", fit.deviation.P_Pa), std::pair("rms_deviation_y", fit.deviation.y)}) {
    if (value) text += fmt::format("{} = {}\n", name, toml_number(*value));
  }
  text += fmt::format("parameters = [{}]\n", joined(names, ", "));
  text += "covariance = [\n";
  for (std::size_t row = 0; row < covariance.rows(); ++row) {
    std::vector<std::string> values;
    for (std::size_t k = 0; k < covariance.columns(); ++k) values.push_back(toml_number(covariance(row, k)));
    text += fmt::format("  [{}],\n", joined(values, ", "));
  }
  text += "]\n";
  std::vector<std::string> codes;
  for (const Notice& notice : fit.notices) codes.push_back(toml_text(notice.text));
  if (!codes.empty()) text += fmt::format("notices = [\n  {},\n]\n", joined(codes, ",\n  "));
  return text;
}

}  // namespace

void parse_pairs(std::string_view text, const std::string& file, ParameterCollection& collection,
                 const Bank& bank) {
  if (trimmed(text).empty()) {
    throw RequestError({file, 0, {}},
                       "the file is empty; expected pair parameters (model = \"nrtl\", [[pair]] ...)");
  }
  for (PairParameters& pair : Reader(file, bank).read(text)) collection.add(std::move(pair));
}

void read_pairs(const std::filesystem::path& path, ParameterCollection& collection, const Bank& bank) {
  parse_pairs(read_file(path), path.string(), collection, bank);
}

namespace {

// What one pair says of itself, without its standard errors.
std::string pair_lines(const PairParameters& pair) {
  std::string text =
      fmt::format("\n[[pair]]\nbetween = [{}, {}]\n", toml_text(pair.between[0]), toml_text(pair.between[1]));
  const auto two = [](const std::array<double, 2>& values) {
    return fmt::format("[{}, {}]", toml_number(values[0]), toml_number(values[1]));
  };
  if (pair.T_range_K) text += fmt::format("range_K = {}\n", two(*pair.T_range_K));
  if (pair.estimated) text += "estimated = true\n";
  if (!pair.fitted_to.empty()) text += fmt::format("fitted_to = {}\n", toml_text(pair.fitted_to));
  if (!pair.vapour.empty()) text += fmt::format("vapour = {}\n", toml_text(pair.vapour));
  if (pair.molar_volumes_m3_mol) {
    text += fmt::format("molar_volumes_cm3_mol = {}\n",
                        two({1e6 * (*pair.molar_volumes_m3_mol)[0], 1e6 * (*pair.molar_volumes_m3_mol)[1]}));
  }
  if (pair.sizes) {
    text += fmt::format("r = {}\nq = {}\n", two(pair.sizes->r), two(pair.sizes->q));
    if (pair.sizes->q_residual != pair.sizes->q)
      text += fmt::format("q_residual = {}\n", two(pair.sizes->q_residual));
  }
  for (const TermForFit& term : terms_for_fit(pair.model))
    text += term_line(term.name, pair.terms.at(term.name));
  return text;
}

constexpr const char* file_head =
    "# Pair parameters of Jam Pot. Terms are sums of: constant, inverse_T / T, log_T * ln T,\n"
    "# linear_T * T, with T in K.\n";

}  // namespace

std::string pairs_text(const std::vector<PairParameters>& pairs) {
  std::string text = file_head;
  text += fmt::format("model = {}\n", toml_text(pairs.front().model));
  for (const PairParameters& pair : pairs) {
    std::string lines = pair_lines(pair);
    const std::string between =
        fmt::format("between = [{}, {}]\n", toml_text(pair.between[0]), toml_text(pair.between[1]));
    lines.insert(lines.find(between) + between.size(), fmt::format("source = {}\n", toml_text(pair.source)));
    text += lines;
  }
  return text;
}

std::string pairs_text(const Fit& fit) {
  std::string text = file_head;
  text += fmt::format("model = {}\n", toml_text(fit.options.model));
  text += fmt::format("source = {}\n", toml_text(fit.source()));
  const std::size_t terms = terms_for_fit(fit.options.model).size();
  std::size_t number = 0;
  for (const PairParameters& pair : fit.pairs()) {
    text += pair_lines(pair);
    if (fit.P_range_Pa[1] > 0) {
      text += fmt::format("range_Pa = [{}, {}]\n", toml_number(fit.P_range_Pa[0]),
                          toml_number(fit.P_range_Pa[1]));
    }
    std::map<std::string, TemperatureFunction> errors;
    for (const FittedParameter* parameter : fit.fitted()) {
      if (parameter->term_index / terms == number)
        errors[parameter->term][parameter->coefficient] = parameter->std_error;
    }
    ++number;
    text += "[pair.std_error]\n";
    for (const auto& [term, error] : errors) text += term_line(term, error);
  }
  return text + fit_section(fit);
}

}  // namespace jampot
