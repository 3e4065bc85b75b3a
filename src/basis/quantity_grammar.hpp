#pragma once
// What a quantity looks like: one number and one unit, by a grammar of our own. Only a unit that fits it is
// handed to the unit library, which would read "500 kg/h" as a unit too and multiply.
#include <string>
#include <string_view>

namespace jampot {

/// A quantity as it is written.
struct WrittenQuantity {
  double number = 0;
  std::string unit;  ///< empty where there is none
};

/// Takes "NUMBER UNIT" apart; blanks between them may be left out.
///
///   number = [sign] digits [. digits] [e [sign] digits], or [sign] . digits ...
///   unit   = factor { (blank | / | * | . | ·) factor }
///   factor = letters [exponent], where % ' ° µ count as letters, or one of the words with brackets "bar(g)",
///   "bar(a)" exponent = [^ | **] [sign] digit
///
/// @throws RequestError naming what the text may mean where it has two numbers in a row, thousands separated
/// by blanks, a decimal comma, or dots that are no range; `what` is the kind of quantity and `examples` are
/// its units
WrittenQuantity read_quantity(std::string_view text, std::string_view what, std::string_view examples);

/// Whether a text is a unit by the grammar above; the empty text is.
bool is_unit(std::string_view text);

/// Whether a comma in the text stands between two digits without a blank: in "1,013" a decimal comma or a
/// separator of thousands may be meant, in "1,2,4" a list.
bool has_close_comma(std::string_view text);

}  // namespace jampot
