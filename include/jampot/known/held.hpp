#pragma once
// Models held against what handbooks say.
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/known/facts.hpp"
#include "jampot/phase/mixture.hpp"

namespace jampot {

/// How a model does on a fact.
enum class Holding {
  agrees,     ///< within 1.5 K and 0.05 in mole fraction of an azeotrope, a factor of two of a solubility, a
              ///< limit or a distribution coefficient, 10 K of a critical solution temperature, 30 % or 100
              ///< J/mol of an excess enthalpy
  off,        ///< it is there, but elsewhere
  missing,    ///< the model has no such azeotrope, no two liquids
  invented,   ///< it has an azeotrope or two liquids that are known not to be
  not_judged  ///< the model cannot say, or the fact is too uncertain
};

std::string_view name_of(Holding holding);

/// A fact with what a model says there.
struct HeldFact {
  const Fact* fact = nullptr;             ///< the fact
  Holding holding = Holding::not_judged;  ///< how the model does
  double T_K = 0;                         ///< of the model's azeotrope, or its critical solution temperature
  std::vector<double> x{};                ///< of the model's azeotrope
  bool heterogeneous = false;             ///< azeotrope of the model: true where two liquids boil
  std::optional<double>
      x1_dilute{},    ///< mole fraction of component 1 where it is the dilute one, of the model
      x2_dilute{};    ///< mole fraction of component 2 where it is the dilute one, of the model
  double value = 0;   ///< activity coefficient, ratio or excess enthalpy
  double factor = 1;  ///< model over fact, where both are positive: the one further from 1
  std::string why{};  ///< why it was not judged

  /// True where the model answers at all.
  bool judged() const { return holding != Holding::not_judged; }
  /// True where it contradicts the fact.
  bool fails() const { return judged() && holding != Holding::agrees; }
  /// "handbooks have ...; unifac has ..."
  std::string sentence(const std::string& model) const;
};

/// A model on many facts.
struct OnFacts {
  int judged = 0,     ///< facts the model answers
      agreeing = 0;   ///< facts it agrees with
  double misses = 0;  ///< weighted: a fact of grade C counts half, what is invented or missing double

  /// Counts one more fact.
  void add(const HeldFact& held);
};

/// Whether a pair of a mixture was fitted to handbook facts: that it agrees with them is then no proof.
bool fitted_to_facts(const Mixture& mixture);

/// Holds one mixture against many facts: what several facts need of it is made once.
class FactJudge {
 public:
  /// Works on a copy.
  explicit FactJudge(const Mixture& mixture);
  FactJudge(const FactJudge&) = delete;
  FactJudge& operator=(const FactJudge&) = delete;
  ~FactJudge();

  /// @param fact  whose substances the mixture holds among others; where it does not, the fact is not judged
  HeldFact held(const Fact& fact);

 private:
  struct Parts;
  std::unique_ptr<Parts> parts_;
};

/// One fact; many at once are faster by `FactJudge`.
HeldFact held_against(const Mixture& mixture, const Fact& fact);

/// The fact alone in words: "an azeotrope of ethanol and water at 101.3 kPa: 78.2 degC, x(ethanol) = 0.894".
std::string in_words(const Fact& fact);

/// One sentence for each failure that counts: of a fact of grade A or B, or of grade C beside another of the
/// same substances that fails too. Notices `against-handbook`, the gravest first, six at most.
/// @param model  as it is called in the sentences
Notices failures(const std::vector<HeldFact>& held, const std::string& model);

/// Where an answer is used: only facts near it count.
struct UsedAt {
  double low_Pa = 0,  ///< lowest pressure used, Pa
      high_Pa = 0;    ///< azeotropes within a factor of 1.5 of these; 0: no vapour is part of the answer
  double low_K = 0,   ///< lowest temperature used, K
      high_K = 0;     ///< what is known of liquids within 20 K of these
};

/// How the model of a mixture does on the facts about its pairs and triples near these conditions: notices
/// `against-handbook`; of a predictive model the low notice `no-fact` where there is none to hold it against.
Notices against_handbooks(const Mixture& mixture, const UsedAt& used);

}  // namespace jampot
