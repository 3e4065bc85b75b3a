#include "jampot/liquid/published_pairs.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/basis/text.hpp"
#include "jampot/liquid/models.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot_data.hpp"

namespace jampot {
namespace {

constexpr double calorie = 4.184;  // J, thermochemical

bool states(const ModelDescription& model, const char* key) {
  return std::find(model.stated.begin(), model.stated.end(), key) != model.stated.end();
}

PairParameters::Sizes bank_sizes(const PairParameters& pair) {
  PairParameters::Sizes sizes;
  for (std::size_t k = 0; k < 2; ++k) {
    const Substance& substance = Bank::built_in().require(pair.between[k]);
    sizes.r[k] = substance.uniquac_r.value();
    sizes.q[k] = sizes.q_residual[k] = substance.uniquac_q.value();
  }
  return sizes;
}

// A table of pairs by model and names; a row is read when somebody asks for it.
class PairTable {
 public:
  PairTable(std::string_view csv, const char* file) : table_(csv, file, TextLife::longer) {}

  std::size_t size() const { return table_.rows(); }
  std::string_view text(std::size_t row, std::string_view column) const {
    return table_.text(row, table_.column(column));
  }
  double number(std::size_t row, std::string_view column) const {
    return table_.number(row, table_.column(column));
  }
  std::optional<double> number_if_any(std::size_t row, std::string_view column) const {
    return table_.number_if_any(row, table_.column(column));
  }

  /// Rows of a model about two substances, in either order.
  std::vector<std::size_t> rows_of(std::string_view model, std::string_view first,
                                   std::string_view second) const {
    std::vector<std::size_t> rows;
    for (std::size_t row = 0; row < size(); ++row) {
      if (table_.text(row, model_) != model) continue;
      const std::string_view one = table_.text(row, first_), other = table_.text(row, second_);
      if ((one == first && other == second) || (one == second && other == first)) rows.push_back(row);
    }
    return rows;
  }

  /// With the names alone.
  PairParameters begun(std::size_t row) const {
    PairParameters pair;
    pair.model = table_.text(row, model_);
    pair.between = {std::string(table_.text(row, first_)), std::string(table_.text(row, second_))};
    return pair;
  }

 private:
  CsvTable table_;
  std::size_t model_ = table_.column("model"), first_ = table_.column("first"),
              second_ = table_.column("second");
};

const PairTable& in_print() {
  static const PairTable table(jampot_data::published_pairs_csv(), "published_pairs.csv");
  return table;
}

const PairTable& from_facts() {
  static const PairTable table(jampot_data::pairs_from_facts_csv(), "pairs_from_facts.csv");
  return table;
}

PairParameters published_pair(std::size_t row) {
  const auto text = [&](const char* column) { return in_print().text(row, column); };
  const auto number = [&](const char* column) { return in_print().number(row, column); };
  const auto maybe = [&](const char* column) { return in_print().number_if_any(row, column); };
  PairParameters pair = in_print().begun(row);
  pair.source = text("source");
  pair.grade = text("grade").front();
  pair.fitted_to = "vle";
  const EnergyUnit unit = parse_energy_unit(std::string(text("unit")));
  const ModelDescription& model = description_of(pair.model);
  pair.terms[model.terms.at(0).name] = term_from_print(number("p12"), unit);
  pair.terms[model.terms.at(1).name] = term_from_print(number("p21"), unit);
  if (const auto alpha = maybe("alpha")) pair.terms["alpha"].constant = *alpha;
  if (states(model, "molar_volumes_cm3_mol"))
    pair.molar_volumes_m3_mol = {1e-6 * number("v1"), 1e-6 * number("v2")};
  if (states(model, "r")) {
    pair.sizes = bank_sizes(pair);
    for (std::size_t k = 0; k < 2; ++k) {
      if (const auto q = maybe(k == 0 ? "q_residual1" : "q_residual2")) pair.sizes->q_residual[k] = *q;
    }
  }
  if (const auto low = maybe("low_K"), high = maybe("high_K"); low && high) pair.T_range_K = {*low, *high};
  return pair;
}

// Names of the coefficients that were fitted and their covariance, whose lower triangle is in print.
void take_covariance(std::string_view print, PairParameters& pair) {
  std::vector<double> triangle;
  for (const std::string& text : split(print, '|')) triangle.push_back(parse_number(text).value());
  const auto& terms = description_of(pair.model).terms;
  const bool constants = triangle.size() > 3;
  for (const std::size_t k : {0u, 1u}) {
    if (constants) pair.fitted.push_back({terms.at(k).name, Coefficient::constant, 1});
    pair.fitted.push_back({terms.at(k).name, Coefficient::inverse_T, 1});
  }
  const std::size_t n = pair.fitted.size();
  pair.covariance.resize(n * n);
  auto value = triangle.begin();
  for (std::size_t i = 0; i < n; ++i)
    for (std::size_t j = 0; j <= i; ++j, ++value)
      pair.covariance[i * n + j] = pair.covariance[j * n + i] = *value;
}

PairParameters fitted_pair(std::size_t row) {
  const auto number = [&](const char* column) { return from_facts().number(row, column); };
  PairParameters pair = from_facts().begun(row);
  const ModelDescription& model = description_of(pair.model);
  pair.terms[model.terms.at(0).name] = {number("A12"), number("B12_K"), 0, 0};
  pair.terms[model.terms.at(1).name] = {number("A21"), number("B21_K"), 0, 0};
  if (const auto alpha = from_facts().number_if_any(row, "alpha")) pair.terms["alpha"].constant = *alpha;
  if (states(model, "r")) pair.sizes = bank_sizes(pair);
  constexpr double beyond_K = 20;
  pair.T_range_K = {number("low_K") - beyond_K, number("high_K") + beyond_K};
  pair.source = from_facts().text(row, "source");
  take_covariance(from_facts().text(row, "covariance"), pair);
  return pair;
}

std::vector<PairParameters> all_of(const PairTable& table, PairParameters (&read)(std::size_t)) {
  std::vector<PairParameters> pairs;
  for (std::size_t row = 0; row < table.size(); ++row) pairs.push_back(read(row));
  return pairs;
}

// With this substance as its first.
PairParameters beginning_with(const std::string& first, PairParameters pair) {
  return pair.between[0] == first ? pair : pair.swapped();
}

}  // namespace

const std::vector<PairParameters>& published_pairs() {
  static const std::vector<PairParameters> pairs = all_of(in_print(), published_pair);
  return pairs;
}

std::vector<PairParameters> published_pairs(const std::string& model, const std::string& first,
                                            const std::string& second) {
  std::vector<PairParameters> found;
  for (const std::size_t row : in_print().rows_of(model, first, second))
    found.push_back(beginning_with(first, published_pair(row)));
  return found;
}

const std::vector<PairParameters>& pairs_from_facts() {
  static const std::vector<PairParameters> pairs = all_of(from_facts(), fitted_pair);
  return pairs;
}

bool comes_before_print(const std::string& model, const std::string& first, const std::string& second) {
  const auto rows = from_facts().rows_of(model, first, second);
  return !rows.empty() && from_facts().text(rows.front(), "before_print") == "yes";
}

std::optional<PairParameters> pair_from_facts(const std::string& model, const std::string& first,
                                              const std::string& second) {
  const auto rows = from_facts().rows_of(model, first, second);
  if (rows.empty()) return std::nullopt;
  return beginning_with(first, fitted_pair(rows.front()));
}

ParameterCollection with_published(const std::vector<Substance>& substances, const std::string& model) {
  ParameterCollection collection;
  for (std::size_t i = 0; i < substances.size(); ++i) {
    for (std::size_t j = i + 1; j < substances.size(); ++j) {
      const auto found = published_pairs(model, substances[i].name, substances[j].name);
      if (!found.empty()) collection.add(found.front());
    }
  }
  return collection;
}

EnergyUnit parse_energy_unit(const std::string& text) {
  if (text == "K") return EnergyUnit::kelvin;
  if (text == "J/mol") return EnergyUnit::joule_mol;
  if (text == "cal/mol") return EnergyUnit::calorie_mol;
  if (text == "1" || text.empty()) return EnergyUnit::dimensionless;
  throw RequestError(
      fmt::format("'{}' is not a unit in which pair energies are printed; there are K, J/mol, cal/mol "
                  "and 1 (the term itself)",
                  text));
}

std::string name_of(EnergyUnit unit) {
  switch (unit) {
    case EnergyUnit::kelvin:
      return "K";
    case EnergyUnit::joule_mol:
      return "J/mol";
    case EnergyUnit::calorie_mol:
      return "cal/mol";
    case EnergyUnit::dimensionless:
      break;
  }
  return "1";
}

namespace {

// One kelvin of inverse_T in the unit.
double per_kelvin(EnergyUnit unit) {
  if (unit == EnergyUnit::joule_mol) return gas_constant;
  if (unit == EnergyUnit::calorie_mol) return gas_constant / calorie;
  return 1;
}

}  // namespace

TemperatureFunction term_from_print(double value, EnergyUnit unit) {
  TemperatureFunction term;
  if (unit == EnergyUnit::dimensionless) {
    term.constant = value;
  } else {
    term.inverse_T = value / per_kelvin(unit);
  }
  return term;
}

double print_of_term(const TemperatureFunction& term, EnergyUnit unit, double T_K) {
  if (unit == EnergyUnit::dimensionless) return term.value(T_K);
  return term.value(T_K) * T_K * per_kelvin(unit);
}

}  // namespace jampot
