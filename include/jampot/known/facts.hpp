#pragma once
// What handbooks say of pairs and triples: azeotropes, miscibility, solubilities, limiting activity
// coefficients, distribution coefficients, excess enthalpies.
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace jampot {

enum class FactKind {
  azeotrope,          ///< of two or three substances at a pressure
  no_azeotrope,       ///< of two at a pressure
  miscible,           ///< in all proportions at a temperature
  solubility,         ///< two liquids at a temperature, with what is known of their compositions
  critical_solution,  ///< temperature at which two liquids become one
  limiting_gamma,     ///< activity coefficient of the first, infinitely dilute in the second
  distribution,       ///< of the first, dilute, between the second (raffinate) and the third (extract)
  excess_enthalpy     ///< of two liquids
};

/// "azeotrope", "no azeotrope", "miscible", "solubility", "critical solution", "limiting activity
/// coefficient", "distribution", "excess enthalpy"
std::string_view name_of(FactKind kind);

/// One fact in SI. Middle values of several printings: 1 K, 0.03 in mole fraction and a factor of 1.3 in
/// solubilities are their uncertainty.
struct Fact {
  FactKind kind = FactKind::azeotrope;    ///< what it is about
  std::vector<std::string> substances{};  ///< names of the bank
  double T_K = 0;                         ///< 0 of a pair without azeotrope
  double P_Pa = 0;                        ///< of an azeotrope or its absence
  std::vector<double> x{};                ///< of an azeotrope, where known; of an excess enthalpy
  bool heterogeneous = false;             ///< of an azeotrope: true where two liquids boil
  bool either = false;   ///< of an azeotrope near the binodal: homogeneous or heterogeneous, not to be judged
  bool maximum = false;  ///< boiling temperature of an azeotrope of two
  /// Of a solubility: mole fraction of the first in the liquid rich in the second, and of the second in the
  /// liquid rich in the first, each where known.
  std::optional<double> x1_dilute{},  ///< mole fraction of component 1 where it is the dilute one
      x2_dilute{};                    ///< mole fraction of component 2 where it is the dilute one
  bool upper = false;                 ///< of a critical solution temperature: two liquids below it
  /// Activity coefficient; ratio of mass fractions, extract over raffinate; J/mol.
  double value = 0;
  char grade = 'C';           ///< A and B count; one of grade C counts beside another fact
  std::string_view source{};  ///< where the values come from

  /// True where it is a fact of these two, in either order.
  bool about(std::string_view first, std::string_view second) const;
};

/// All facts about substances of the built-in bank; each is read when it is first asked for, and stays where
/// it is. Safe to share between threads.
class KnownFacts {
 public:
  /// The one collection of them.
  static const KnownFacts& built_in();

  /// All of them.
  std::span<const Fact> all() const;
  /// Facts that are about some of these substances and no other, pairs first.
  std::vector<const Fact*> among(const std::vector<std::string>& substances) const;
  /// Facts about a pair, whichever comes first in them.
  std::vector<const Fact*> about(const std::string& first, const std::string& second) const;

 private:
  struct Contents;
  KnownFacts();
  std::shared_ptr<const Contents> contents_;
};

}  // namespace jampot
