#pragma once
// Facts of handbooks, and what models say of them, in the cells of a table and in JSON.
#include <optional>
#include <string>
#include <vector>

#include "jampot/known/held.hpp"
#include "jampot/report/answer.hpp"

namespace jampot {

/// What a fact or a model says in a cell: "78.2 degC, 0.894".
class FactCells {
 public:
  explicit FactCells(const DisplayUnits& units) : units_(units) {}

  std::string of_fact(const Fact& fact) const;
  std::string of_model(const HeldFact& held) const;
  /// At which pressure, temperature or composition.
  std::string where(const Fact& fact) const;

 private:
  std::string temperature(double T_K) const;
  std::string azeotrope(double T_K, const std::vector<double>& x, bool heterogeneous) const;

  DisplayUnits units_;
};

/// "acetone, water"
std::string together(const std::vector<std::string>& names);

/// "gamma of methanol, dilute", or the kind of fact.
std::string fact_name(const Fact& fact, const std::vector<Substance>& substances);

/// With its kind, what it is about, its values, source and grade.
Json to_json(const Fact& fact);

}  // namespace jampot
