#pragma once
// What two substances do to each other beside mixing, as far as their functional groups tell.
#include <optional>
#include <string>
#include <string_view>

#include "jampot/substance/substance.hpp"

namespace jampot {

/// How fast two kinds of functional groups react where nothing else is added.
enum class Readiness {
  very_slow,   ///< over months in the cold, faster with an acid or a base: esters with water
  on_boiling,  ///< over hours of boiling: acids with alcohols
  at_once      ///< on mixing: acids with amines
};
/// "very-slow", "on-boiling", "at-once".
std::string_view name_of(Readiness readiness);

/// Two substances that react.
struct Reaction {
  std::string substance{},                      ///< name of the first
      with{};                                   ///< name of the other
  std::string products{};                       ///< "an ester and water"
  Readiness readiness = Readiness::on_boiling;  ///< how fast
  /// "ethanol forms an ester and water with acetic acid when boiled".
  std::string sentence() const;
};

/// The most ready reaction of two substances by their groups in the UNIFAC table; nothing where none of these
/// is between them: acids with amines and pyridines (a salt), acids with alcohols (an ester), aldehydes with
/// amines (an imine or enamine) and with alcohols (a hemiacetal), ketones with primary amines (an imine),
/// esters with amines (an amide) and with water (acid and alcohol). Source: J. Clayden, N. Greeves, S.
/// Warren, Organic Chemistry, 2nd ed., Oxford University Press 2012. Other reactions (oxidation,
/// polymerisation, what a strong acid or a catalyst does) are not looked at.
std::optional<Reaction> reaction_between(const Substance& substance, const Substance& other);

}  // namespace jampot
