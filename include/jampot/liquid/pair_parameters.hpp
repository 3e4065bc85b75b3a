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
  std::string term;                                 ///< name of the term
  Coefficient coefficient = Coefficient::constant;  ///< which coefficient of its function of temperature
  double sign = 1;  ///< -1 where the set is read from the other side and the term is odd
};

/// The parameters of one model for one pair. Terms are named after the model's own symbols; "_12" reads "of
/// the first of `between` with the second".
struct PairParameters {
  std::string model;                                 ///< "nrtl"
  std::array<std::string, 2> between;                ///< substance names
  std::map<std::string, TemperatureFunction> terms;  ///< by name
  std::optional<std::array<double, 2>> T_range_K;    ///< temperatures of the data behind the values
  std::string source;                                ///< where the values come from
  char grade = '-';                                  ///< of a published set, see data/README.md
  bool estimated = false;                            ///< fitted to a prediction, not to measurements
  std::string vapour;     ///< vapour model beside which they were fitted; empty: ideal, or not said
  std::string fitted_to;  ///< "vle", "lle" or empty where it is not said

  /// The numbers that were fitted and their covariance, row by row; empty where it is not known.
  std::vector<FittedCoefficient> fitted;
  std::vector<double> covariance;  ///< of the fitted coefficients, by rows
  /// Of pairs that were fitted together: the covariance of all their numbers, row by row, and the row at
  /// which the numbers of this pair begin. Shared by those pairs.
  std::shared_ptr<const std::vector<double>> joint_covariance;
  std::size_t joint_row = 0;  ///< first row of this pair in the covariance of a joint fit

  /// What the values were fitted with, where it is stated: parameters mean nothing without it.
  std::optional<std::array<double, 2>> molar_volumes_m3_mol;  ///< Wilson
  /// Molecular sizes that a set of values was fitted with.
  struct Sizes {
    std::array<double, 2> r{},  ///< volumes
        q{},                    ///< surfaces
        q_residual{};           ///< surfaces of the residual part
    /// All the same.
    bool operator==(const Sizes&) const = default;
  };
  std::optional<Sizes> sizes;  ///< UNIQUAC

  /// The same parameters seen from the other side: "_12" and "_21" change places.
  PairParameters swapped() const;

  /// True where model, names and numbers are the same.
  bool same_values(const PairParameters& other) const;

  PairParameters();                                            ///< with nothing set
  PairParameters(const PairParameters& other);                 ///< copied member by member
  PairParameters(PairParameters&& other) noexcept;             ///< moved member by member
  PairParameters& operator=(const PairParameters& other);      ///< copied member by member
  PairParameters& operator=(PairParameters&& other) noexcept;  ///< moved member by member
  ~PairParameters();                                           ///< member by member
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

  /// In the order they were added.
  const std::vector<PairParameters>& all() const { return list_; }

 private:
  std::vector<PairParameters> list_;
};

}  // namespace jampot
