#pragma once
// Standard uncertainties taken where a source states none, and how that is said.
#include <string>
#include <string_view>
#include <vector>

#include "jampot/basis/notice.hpp"
#include "jampot/measured/data_kind.hpp"

namespace jampot {

/// Where the uncertainty of the fractions of two liquids is not stated, it is at most this part of a
/// fraction.
inline constexpr double assumed_relative_of_liquids = 0.05;

/// Collects what was assumed while data are read.
class AssumedUncertainties {
 public:
  /// What is assumed of a quantity, in SI: "T" 0.1 K, "P" 0.5 % of it, "x" and "w" 0.003, "y" 0.01. Of a
  /// value of a liquid its kind tells: "gamma" 5 % of it, "hE" 3 % of it and at least 5 J/mol.
  /// @param measured  the measured value in SI
  double take(std::string_view quantity, double measured);
  /// The same for the fractions of two liquids: 0.003, and at most `assumed_relative_of_liquids` of a
  /// fraction.
  double take_of_liquids();

  /// Says in one notice about a data set what was taken of that which weighs in data of its kind; nothing
  /// where nothing was.
  void add_notice(const std::string& file, DataKind kind, Notices& notices) const;

 private:
  struct Taken {
    std::string quantity, text;
  };
  void note(std::string quantity, std::string text);
  std::vector<Taken> taken_;  ///< each once
};

}  // namespace jampot
