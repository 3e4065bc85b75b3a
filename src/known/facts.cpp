#include "jampot/known/facts.hpp"

#include <algorithm>
#include <array>
#include <utility>

#include "../basis/made_on_demand.hpp"
#include "jampot/basis/constants.hpp"
#include "jampot/basis/csv_table.hpp"
#include "jampot/substance/bank.hpp"
#include "jampot_known.hpp"

namespace jampot {

// A table of facts, the columns that name their substances, and those of which each makes a fact of its own
// where it is filled, before that of the whole row.
struct FactTable {
  // Fills in what is the table's own; `number` is that of the column, or of the columns for the whole row.
  using Make = Fact (*)(const FactTable&, std::size_t row, std::size_t number, Fact);

  FactTable(std::string_view text, const char* file, std::initializer_list<const char*> naming, Make maker,
            std::vector<const char*> of_their_own = {})
      : csv(text, file, TextLife::longer), make(maker), own(std::move(of_their_own)) {
    for (const char* column : naming) names.push_back(csv.column(column));
  }
  std::string_view text(std::size_t row, std::string_view column) const {
    return csv.text(row, csv.column(column));
  }
  std::optional<double> number(std::size_t row, std::string_view column) const {
    return csv.number_if_any(row, csv.column(column));
  }

  CsvTable csv;
  Make make;
  std::vector<std::size_t> names;
  std::vector<const char*> own;
};

namespace {

constexpr std::string_view azeotrope_source = "handbooks of azeotropes",
                           solubility_source = "handbooks of solubility",
                           limit_source = "compilations of infinite-dilution activity coefficients",
                           distribution_source = "compilations of distribution coefficients",
                           enthalpy_source = "compilations of excess enthalpies";

Fact azeotrope(const FactTable& table, std::size_t row, std::size_t /*number*/, Fact fact) {
  constexpr double kPa = 1000;
  const std::string_view kind = table.text(row, "kind");
  fact.kind = kind == "none" ? FactKind::no_azeotrope : FactKind::azeotrope;
  fact.P_Pa = kPa * table.number(row, "P_kPa").value();
  fact.heterogeneous = kind == "heterogeneous";
  fact.either = kind == "either";
  fact.maximum = table.text(row, "extremum") == "maximum";
  fact.source = azeotrope_source;
  double rest = 1;
  for (const char* column : {"x1", "x2"}) {
    if (const auto x = table.number(row, column)) {
      fact.x.push_back(*x);
      rest -= *x;
    }
  }
  if (!fact.x.empty()) fact.x.push_back(rest);
  return fact;
}

Fact of_liquids(const FactTable& table, std::size_t row, std::size_t number, Fact fact) {
  fact.source = solubility_source;
  if (number < table.own.size()) {
    fact.kind = FactKind::critical_solution;
    fact.upper = std::string_view(table.own[number]) == "upper_C";
    fact.T_K = table.number(row, table.own[number]).value() + celsius_zero;
    return fact;
  }
  const Bank& bank = Bank::built_in();
  const auto fraction = [&](const char* column, std::size_t dilute) -> std::optional<double> {
    const auto per_cent = table.number(row, column);
    if (!per_cent) return std::nullopt;
    const double w = *per_cent / 100, moles = w / bank.identity(fact.substances[dilute])->molar_mass_kg_mol,
                 others = (1 - w) / bank.identity(fact.substances[1 - dilute])->molar_mass_kg_mol;
    return moles / (moles + others);
  };
  fact.kind = table.text(row, "what") == "miscible" ? FactKind::miscible : FactKind::solubility;
  fact.x1_dilute = fraction("w1_in_second_pct", 0);
  fact.x2_dilute = fraction("w2_in_first_pct", 1);
  return fact;
}

Fact limit(const FactTable& table, std::size_t row, std::size_t /*number*/, Fact fact) {
  fact.kind = FactKind::limiting_gamma;
  fact.value = table.number(row, "gamma").value();
  fact.source = limit_source;
  return fact;
}

Fact distribution(const FactTable& table, std::size_t row, std::size_t /*number*/, Fact fact) {
  fact.kind = FactKind::distribution;
  fact.value = table.number(row, "ratio_of_mass_fractions").value();
  fact.source = distribution_source;
  return fact;
}

Fact enthalpy(const FactTable& table, std::size_t row, std::size_t /*number*/, Fact fact) {
  fact.kind = FactKind::excess_enthalpy;
  fact.value = table.number(row, "hE_J_mol").value();
  const double x1 = table.number(row, "x1").value();
  fact.x = {x1, 1 - x1};
  fact.source = enthalpy_source;
  return fact;
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

// The tables, and of each fact its place in them and its substances; a fact is read when it is first asked
// for.
struct KnownFacts::Contents {
  using Substances = std::array<const SubstanceIdentity*, 3>;  // the last one null of a pair
  struct Place {
    std::size_t table, row, number;
    Substances substances;
  };

  Contents() : places(all_places()), facts(places.size()) {}

  const Fact& fact(std::size_t number) const {
    return facts.at(number, [&](std::size_t k) { return read(k); });
  }
  std::span<const Fact> all() const {
    return facts.all([&](std::size_t k) { return read(k); });
  }

  std::array<FactTable, 5> tables{
      {{jampot_known::known_azeotropes_csv(),
        "known_azeotropes.csv",
        {"first", "second", "third"},
        azeotrope},
       {jampot_known::known_liquids_csv(),
        "known_liquids.csv",
        {"first", "second"},
        of_liquids,
        {"upper_C", "lower_C"}},
       {jampot_known::known_limits_csv(), "known_limits.csv", {"solute", "solvent"}, limit},
       {jampot_known::known_distribution_csv(),
        "known_distribution.csv",
        {"solute", "raffinate", "extract"},
        distribution},
       {jampot_known::known_enthalpies_csv(), "known_enthalpies.csv", {"first", "second"}, enthalpy}}};
  std::vector<Place> places;
  MadeOnDemand<Fact> facts;

 private:
  // Rows with a substance that the bank has not are passed over.
  std::vector<Place> all_places() const {
    std::vector<Place> found;
    for (std::size_t t = 0; t < tables.size(); ++t) {
      const FactTable& table = tables[t];
      for (std::size_t row = 0; row < table.csv.rows(); ++row) {
        const auto substances = substances_of(table, row);
        if (!substances) continue;
        for (std::size_t k = 0; k < table.own.size(); ++k) {
          if (!table.text(row, table.own[k]).empty()) found.push_back({t, row, k, *substances});
        }
        found.push_back({t, row, table.own.size(), *substances});
      }
    }
    return found;
  }

  static std::optional<Substances> substances_of(const FactTable& table, std::size_t row) {
    Substances substances{};
    std::size_t count = 0;
    for (const std::size_t column : table.names) {
      const std::string_view name = table.csv.text(row, column);
      if (name.empty()) continue;
      substances[count] = Bank::built_in().identity(name);
      if (substances[count++] == nullptr) return std::nullopt;
    }
    return substances;
  }

  Fact read(std::size_t k) const {
    const Place& place = places[k];
    const FactTable& table = tables[place.table];
    Fact fact;
    for (const SubstanceIdentity* one : place.substances) {
      if (one != nullptr) fact.substances.push_back(one->name);
    }
    fact.grade = table.text(place.row, "grade").front();
    if (const auto T_C = table.number(place.row, "T_C")) fact.T_K = *T_C + celsius_zero;
    return table.make(table, place.row, place.number, std::move(fact));
  }
};

KnownFacts::KnownFacts() : contents_(std::make_shared<const Contents>()) {}

const KnownFacts& KnownFacts::built_in() {
  static const KnownFacts facts;
  return facts;
}

std::span<const Fact> KnownFacts::all() const {
  return contents_->all();
}

std::vector<const Fact*> KnownFacts::about(const std::string& first, const std::string& second) const {
  std::vector<const Fact*> found;
  for (const Fact* fact : among({first, second})) {
    if (fact->about(first, second)) found.push_back(fact);
  }
  return found;
}

std::vector<const Fact*> KnownFacts::among(const std::vector<std::string>& substances) const {
  std::vector<const SubstanceIdentity*> present{nullptr};  // which ends the list of a pair
  for (const std::string& name : substances) {
    const SubstanceIdentity* one = Bank::built_in().identity(name);
    if (one != nullptr && one->name == name) present.push_back(one);
  }
  std::vector<const Fact*> found;
  for (std::size_t k = 0; k < contents_->places.size(); ++k) {
    const auto& members = contents_->places[k].substances;
    const bool all = std::all_of(members.begin(), members.end(), [&](const SubstanceIdentity* one) {
      return std::find(present.begin(), present.end(), one) != present.end();
    });
    if (all) found.push_back(&contents_->fact(k));
  }
  std::stable_sort(found.begin(), found.end(),
                   [](const Fact* a, const Fact* b) { return a->substances.size() < b->substances.size(); });
  return found;
}

}  // namespace jampot
