#pragma once
// Pair parameters as they travel: values, where they hold, where they come from.
#include <array>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "jampot/liquid/temperature_function.hpp"

namespace jampot {

/// One number of a pair that was fitted.
struct FittedCoefficient {
  std::string term;
  Coefficient coefficient = Coefficient::constant;
  double sign = 1;  ///< -1 where the set is read from the other side and the term is odd
};

/// The parameters of one model for one pair. Terms are named after the model's own symbols; "_12" reads "of
/// the first of `between` with the second".
struct PairParameters {
  std::string model;                   ///< "nrtl"
  std::array<std::string, 2> between;  ///< substance names
  std::map<std::string, TemperatureFunction> terms;
  std::optional<std::array<double, 2>> range_K;  ///< temperatures of the data behind the values
  std::string source;
  char grade = '-';        ///< of a published set, see data/README.md
  bool estimated = false;  ///< fitted to a prediction, not to measurements
  std::string vapour;      ///< vapour model beside which they were fitted; empty: ideal, or not said
  std::string fitted_to;   ///< "vle", "lle" or empty where it is not said

  /// The numbers that were fitted and their covariance, row by row; empty where it is not known.
  std::vector<FittedCoefficient> fitted;
  std::vector<double> covariance;
  /// Of pairs that were fitted together: the covariance of all their numbers, row by row, and the row at
  /// which the numbers of this pair begin. Shared by those pairs.
  std::shared_ptr<const std::vector<double>> joint_covariance;
  std::size_t joint_row = 0;

  /// What the values were fitted with, where it is stated: parameters mean nothing without it.
  std::optional<std::array<double, 2>> molar_volumes_m3_mol;  ///< Wilson
  /// Molecular sizes that a set of values was fitted with.
  struct Sizes {
    std::array<double, 2> r{}, q{}, q_residual{};
    bool operator==(const Sizes&) const = default;
  };
  std::optional<Sizes> sizes;  ///< UNIQUAC

  /// The same parameters seen from the other side: "_12" and "_21" change places.
  PairParameters swapped() const;

  bool same_values(const PairParameters& other) const;
};

/// Gives a pair the UNIQUAC sizes that other pairs of the same model state for its substances.
void take_sizes(PairParameters& pair, const std::vector<PairParameters>& others);

/// All pair parameters at hand, looked up by model and pair.
class ParameterCollection {
 public:
  /// @throws RequestError if the pair is already there for this model with other values.
  void add(PairParameters parameters);

  /// The pair's parameters with `first` as substance 1, or nothing.
  std::optional<PairParameters> find(const std::string& model, const std::string& first,
                                     const std::string& second) const;

  const std::vector<PairParameters>& all() const { return list_; }

 private:
  std::vector<PairParameters> list_;
};

}  // namespace jampot
