#pragma once
// What comes in: amounts or flows of substances, by mole or mass.
#include <string_view>
#include <vector>

#include "jampot/phase/composition.hpp"

namespace jampot {

/// A batch or a stream.
struct Feed {
  std::vector<double> n;  ///< mol, mol/s where it flows, or mole fractions where no amount is known
  bool flows = false;     ///< true where amounts are per time
  bool sized = false;     ///< whether amounts were given: otherwise n sums to one mole

  /// Moles in all, mol or mol/s.
  double total() const;
  /// Mole fractions.
  std::vector<double> fractions() const;
};

/// Amounts in mol, or flows in mol/s. @throws RequestError for negative ones, or nothing at all
Feed feed_of_moles(std::vector<double> n, bool flows = false);

/// Amounts in kg, or flows in kg/s, of these substances. @throws RequestError as above, or where their
/// numbers differ
Feed feed_of_masses(const std::vector<double>& m_kg, const std::vector<Substance>& substances,
                    bool flows = false);

/// Reads "ethyl acetate=1000 kg/h, water=500 kg/h": amounts or flows, of moles or mass as the unit of each
/// says, all of them amounts or all flows. Fractions ("ethyl acetate=0.3") are a composition by `basis`;
/// `amount`, where given
/// ("1500 kg/h"), is then the whole.
/// @throws RequestError for a name outside the mixture, one named twice, amounts and flows mixed, negative
/// amounts, or a substance left out where amounts are given (an amount of zero must be said: "water=0 kg/h")
Feed parse_feed(std::string_view text, std::string_view amount, const std::vector<Substance>& substances,
                Basis basis);

}  // namespace jampot
