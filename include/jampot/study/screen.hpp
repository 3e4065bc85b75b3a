#pragma once
// Which third substance helps to separate two: all candidates held side by side.
#include <map>
#include <optional>
#include <string>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/basis/progress.hpp"
#include "jampot/design/solvent.hpp"
#include "jampot/known/reactions.hpp"
#include "jampot/study/mixture_spec.hpp"

namespace jampot {

/// What a screening is asked for.
struct ScreenRequest {
  /// The two to be separated: of an extraction the solute and what it comes in, of an absorption what is
  /// taken out of the gas first. A liquid model that is named holds for every candidate; without one the best
  /// at hand is taken for each.
  MixtureSpec mixture{};
  SolventRole role = SolventRole::extraction;        ///< what the solvent is for
  std::vector<Substance> candidates{};               ///< empty: the whole built-in bank
  std::optional<std::array<double, 2>> boiling_K{};  ///< range of normal boiling points, K
  std::vector<std::string> families{};               ///< "ketones", "ethers"; empty: all
  double T_K = 298.15;                               ///< of an extraction or absorption, K
  double P_Pa = 101325;                              ///< of columns, Pa
  /// Weights of the terms of the score, by name; those not named keep their standard weight.
  std::map<std::string, double> weights{};
  Progress* progress = nullptr;  ///< told how far the work is; may be null
};

/// A part of the score: from 0, no help, to 1, as good as one can wish. The score is their geometric mean by
/// weight (a part below 0.01 counts as that): what is useless in one part is not saved by the others.
struct ScorePart {
  std::string name{};       ///< "distribution"
  double weight = 0;        ///< of all parts together 1
  double value = 0;         ///< 0 to 1
  std::string shortfall{};  ///< what is wrong, in words; empty where nothing is
};

/// An azeotrope that the candidate brings with it.
struct NewAzeotrope {
  std::vector<std::string> members{};  ///< names
  double T_K = 0;                      ///< temperature, K
  bool heterogeneous = false;          ///< true where two liquids boil
  bool from_handbook = false;          ///< false: of the model
};

/// One candidate with all that is known and predicted of it.
struct ScreenedSolvent {
  Substance substance{};                          ///< the pure substance
  std::string model{};                            ///< by which the liquids are described
  DiluteInSolvent dilute{};                       ///< at infinite dilution
  std::optional<ExtractionFigures> extraction{};  ///< of that role, where there are two liquids
  /// Of these: what the model predicts, where handbooks have the distribution coefficient or the mutual
  /// solubilities of carrier and solvent (grades A and B, within 15 K) and `extraction` has them from there.
  std::optional<ExtractionFigures> predicted{};
  bool handbook_distribution = false,                ///< the distribution coefficient is from handbooks
      handbook_solubility = false;                   ///< the mutual solubilities are
  std::optional<VolatilityFigures> volatility{};     ///< of an entrainer
  std::optional<AbsorptionFigures> absorption{};     ///< of an absorbent
  std::optional<double> density_difference_kg_m3{};  ///< solvent minus carrier, pure
  double boiling_gap_K = 0;                ///< between the solvent and what it must be parted from, at P_Pa
  std::vector<NewAzeotrope> azeotropes{};  ///< with either, or with both
  bool azeotropes_known = true;            ///< false where neither handbook nor model tells
  std::string map_class{};                 ///< what the residue curve map makes of it
  int facts = 0,                           ///< handbook facts about pairs with it
      facts_agreeing = 0,                  ///< of these the model agrees with
      facts_taken = 0;                     ///< of the others: taken from handbooks, so no doubt is left
  /// Of an extraction: a kin of it that handbooks have as miscible with the second substance
  /// (`miscible_kin`).
  std::string miscible_kin{};
  std::vector<Reaction> reactions{};  ///< with either of the two, the most ready first
  std::vector<ScorePart> parts{};     ///< of the score
  double score = 0;                   ///< 0 to 1
  bool on_front = false;  ///< no other without a `miscible_kin`, nor it, has more capacity and selectivity
  std::string verdict{};  ///< one sentence: what speaks for it or against it
  Notices notices{};      ///< what the reader must know of this one
};

/// A candidate of which no number can be given.
struct UnscreenedSolvent {
  std::string name{};    ///< of the substance
  std::string reason{};  ///< why
};

/// All candidates, best first.
struct ScreenStudy {
  std::vector<Substance> pair{};                          ///< the two to be separated
  SolventRole role = SolventRole::extraction;             ///< what the solvent is for
  double T_K = 0,                                         ///< temperature, K
      P_Pa = 0;                                           ///< pressure, Pa
  std::vector<std::pair<std::string, double>> weights{};  ///< of the parts of the score, together 1
  std::vector<ScreenedSolvent> solvents{};                ///< the highest score first
  std::vector<UnscreenedSolvent> left_out{};              ///< by reason
  Notices notices{};                                      ///< what the reader must know
};

/// The parts of the score of a role with their standard weights.
std::vector<std::pair<std::string, double>> score_weights(SolventRole role);

/// What the figure draws upwards: selectivity of an extraction (by mass) or absorption; of an entrainer the
/// relative volatility it makes, or its reciprocal where that is greater.
double selectivity_of(const ScreenedSolvent& solvent);
/// What it draws to the right: the distribution coefficient (by mass), the mole fraction dissolved at 1 kPa,
/// or the reciprocal of the smaller limiting activity coefficient.
double capacity_of(const ScreenedSolvent& solvent);

/// @throws RequestError for another number of substances, an unknown part of the score, a weight below zero
/// or a range without a candidate
ScreenStudy study(const ScreenRequest& request);

}  // namespace jampot
