#include "jampot/known/facts.hpp"

#include <algorithm>
#include <array>

#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot_known.hpp"

namespace jampot {
namespace {

constexpr std::string_view azeotrope_source = "handbooks of azeotropes",
                           solubility_source = "handbooks of solubility",
                           limit_source = "compilations of infinite-dilution activity coefficients",
                           distribution_source = "compilations of distribution coefficients",
                           enthalpy_source = "compilations of excess enthalpies";

// The rows of a table whose substances the bank has.
class Rows {
 public:
  Rows(std::string_view text, const char* name, const Bank& bank) : table_(text, name), bank_(bank) {}

  template <class Take>
  void each(std::initializer_list<const char*> names, const Take& take) {
    std::vector<std::size_t> columns;
    for (const char* name : names) columns.push_back(table_.column(name));
    const std::size_t grade = table_.column("grade"), T_C = table_.column("T_C");
    std::vector<const SubstanceIdentity*> substances;
    for (row_ = 0; row_ < table_.rows(); ++row_) {
      substances.clear();
      for (const std::size_t column : columns) {
        if (const auto name = table_.text(row_, column); !name.empty())
          substances.push_back(bank_.identity(name));
      }
      if (std::find(substances.begin(), substances.end(), nullptr) != substances.end()) continue;
      Fact fact;
      fact.substances.reserve(substances.size());
      for (const SubstanceIdentity* substance : substances) fact.substances.push_back(substance->name);
      fact.grade = table_.text(row_, grade).front();
      if (const auto T = table_.number_if_any(row_, T_C)) fact.T_K = *T + celsius_zero;
      take(fact, substances);
    }
  }
  std::string_view text(std::string_view column) const { return table_.text(row_, table_.column(column)); }
  std::optional<double> number(std::string_view column) const {
    return table_.number_if_any(row_, table_.column(column));
  }

 private:
  CsvTable table_;
  const Bank& bank_;
  std::size_t row_ = 0;
};

void read_azeotropes(std::vector<Fact>& facts, const Bank& bank) {
  Rows rows(jampot_known::known_azeotropes_csv(), "known_azeotropes.csv", bank);
  rows.each({"first", "second", "third"}, [&](Fact& fact, const auto&) {
    constexpr double kPa = 1000;
    const std::string_view kind = rows.text("kind");
    fact.kind = kind == "none" ? FactKind::no_azeotrope : FactKind::azeotrope;
    fact.P_Pa = kPa * rows.number("P_kPa").value();
    fact.heterogeneous = kind == "heterogeneous";
    fact.either = kind == "either";
    fact.maximum = rows.text("extremum") == "maximum";
    fact.source = azeotrope_source;
    double rest = 1;
    for (const char* column : {"x1", "x2"}) {
      if (const auto x = rows.number(column)) {
        fact.x.push_back(*x);
        rest -= *x;
      }
    }
    if (!fact.x.empty()) fact.x.push_back(rest);
    facts.push_back(std::move(fact));
  });
}

void read_liquids(std::vector<Fact>& facts, const Bank& bank) {
  Rows rows(jampot_known::known_liquids_csv(), "known_liquids.csv", bank);
  rows.each({"first", "second"}, [&](Fact& fact, const auto& substances) {
    fact.source = solubility_source;
    const auto fraction = [&](const char* column, std::size_t dilute) -> std::optional<double> {
      const auto per_cent = rows.number(column);
      if (!per_cent) return std::nullopt;
      const double w = *per_cent / 100, moles = w / substances[dilute]->molar_mass_kg_mol,
                   others = (1 - w) / substances[1 - dilute]->molar_mass_kg_mol;
      return moles / (moles + others);
    };
    fact.kind = rows.text("what") == "miscible" ? FactKind::miscible : FactKind::solubility;
    fact.x1_dilute = fraction("w1_in_second_pct", 0);
    fact.x2_dilute = fraction("w2_in_first_pct", 1);
    for (const char* column : {"upper_C", "lower_C"}) {
      const auto critical_C = rows.number(column);
      if (!critical_C) continue;
      Fact critical = fact;
      critical.kind = FactKind::critical_solution;
      critical.x1_dilute.reset();
      critical.x2_dilute.reset();
      critical.T_K = *critical_C + celsius_zero;
      critical.upper = std::string_view(column) == "upper_C";
      facts.push_back(std::move(critical));
    }
    facts.push_back(std::move(fact));
  });
}

void read_values(std::vector<Fact>& facts, const Bank& bank) {
  Rows limits(jampot_known::known_limits_csv(), "known_limits.csv", bank);
  limits.each({"solute", "solvent"}, [&](Fact& fact, const auto&) {
    fact.kind = FactKind::limiting_gamma;
    fact.value = limits.number("gamma").value();
    fact.source = limit_source;
    facts.push_back(std::move(fact));
  });
  Rows ratios(jampot_known::known_distribution_csv(), "known_distribution.csv", bank);
  ratios.each({"solute", "raffinate", "extract"}, [&](Fact& fact, const auto&) {
    fact.kind = FactKind::distribution;
    fact.value = ratios.number("ratio_of_mass_fractions").value();
    fact.source = distribution_source;
    facts.push_back(std::move(fact));
  });
  Rows heats(jampot_known::known_enthalpies_csv(), "known_enthalpies.csv", bank);
  heats.each({"first", "second"}, [&](Fact& fact, const auto&) {
    fact.kind = FactKind::excess_enthalpy;
    fact.value = heats.number("hE_J_mol").value();
    const double x1 = heats.number("x1").value();
    fact.x = {x1, 1 - x1};
    fact.source = enthalpy_source;
    facts.push_back(std::move(fact));
  });
}

constexpr std::array<std::string_view, 8> kind_names{"azeotrope",         "no azeotrope",
                                                     "miscible",          "solubility",
                                                     "critical solution", "limiting activity coefficient",
                                                     "distribution",      "excess enthalpy"};

}  // namespace

std::string_view name_of(FactKind kind) {
  return kind_names[static_cast<std::size_t>(kind)];
}

bool Fact::about(std::string_view first, std::string_view second) const {
  return substances.size() == 2 && ((substances[0] == first && substances[1] == second) ||
                                    (substances[0] == second && substances[1] == first));
}

KnownFacts::KnownFacts(const Bank& bank) {
  read_azeotropes(facts_, bank);
  read_liquids(facts_, bank);
  read_values(facts_, bank);
}

const KnownFacts& KnownFacts::built_in() {
  static const KnownFacts facts(Bank::built_in());
  return facts;
}

std::vector<const Fact*> KnownFacts::about(const std::string& first, const std::string& second) const {
  std::vector<const Fact*> found;
  for (const Fact& fact : facts_)
    if (fact.about(first, second)) found.push_back(&fact);
  return found;
}

std::vector<const Fact*> KnownFacts::among(const std::vector<std::string>& substances) const {
  std::vector<const Fact*> found;
  for (const Fact& fact : facts_) {
    const bool all =
        std::all_of(fact.substances.begin(), fact.substances.end(), [&](const std::string& name) {
          return std::find(substances.begin(), substances.end(), name) != substances.end();
        });
    if (all) found.push_back(&fact);
  }
  std::stable_sort(found.begin(), found.end(),
                   [](const Fact* a, const Fact* b) { return a->substances.size() < b->substances.size(); });
  return found;
}

}  // namespace jampot
