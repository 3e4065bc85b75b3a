#pragma once
// What every model with fitted pair parameters shares: its terms, and the temperature it stands at.
#include "jampot/liquid/activity_model.hpp"
#include "jampot/liquid/pair_terms.hpp"

namespace jampot {

/// A model whose adjustable terms belong to pairs of components.
class PairModel : public ActivityModel {
 public:
  std::span<const ModelTerm> terms() const final { return terms_; }
  void set_coefficient(std::size_t term, Coefficient coefficient, double value) final;
  /// Differences, for user-defined models; every built-in model has its derivatives in closed form.
  void term_derivatives(std::span<const double> x, std::span<double> out) override;
  void gibbs_term_derivatives(std::span<const double> x, std::span<double> slope,
                              std::span<double> slope_dT) override;

 protected:
  /// With all terms, two or three for each pair.
  explicit PairModel(std::vector<ModelTerm> terms) : terms_(std::move(terms)) {}

  /// Moves to T_K. @returns whether what depends on temperature has to be computed anew: at another
  /// temperature, or when a coefficient was set since
  bool moves_to(double T_K);
  /// Temperature set last, K.
  double T_K() const { return T_K_; }
  bool with_log() const { return with_log_; }  ///< whether some term has a ln T

  /// Components of term t of a model whose terms come in pairs, ij and ji in turn, in the order the term
  /// reads them.
  struct Direction {
    std::size_t from,  ///< first component of the term
        to;            ///< second component
  };
  /// Which components a term is about.
  Direction direction(std::size_t t) const {
    return t % 2 == 0 ? Direction{terms_[t].i, terms_[t].j} : Direction{terms_[t].j, terms_[t].i};
  }

  std::vector<ModelTerm> terms_;  ///< pair after pair

 private:
  double T_K_ = 0;
  bool with_log_ = false;
  bool changed_ = true;  ///< a coefficient was set since the last move
};

}  // namespace jampot
