#include "jampot/liquid/printed_form.hpp"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <string_view>

#include "jampot/basis/error.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {
namespace {

struct Piece {
  Coefficient coefficient;
  std::string_view basis;  // behind the number
};

// Longer ones first, so that "T ln T" is not read as "T".
constexpr std::array<Piece, 4> of_terms{{{Coefficient::inverse_T, "/T"},
                                         {Coefficient::log_T, " ln T"},
                                         {Coefficient::linear_T, " T"},
                                         {Coefficient::constant, ""}}};
constexpr std::array<Piece, 4> of_energies{{{Coefficient::log_T, " T ln T"},
                                            {Coefficient::linear_T, " T^2"},
                                            {Coefficient::constant, " T"},
                                            {Coefficient::inverse_T, ""}}};

const std::array<Piece, 4>& pieces_of(EnergyUnit unit) {
  return unit == EnergyUnit::dimensionless ? of_terms : of_energies;
}

// What a coefficient is multiplied with to be in the unit.
double factor_of(EnergyUnit unit) {
  return unit == EnergyUnit::dimensionless ? 1 : print_of_term({0, 1, 0, 0}, unit, 1);
}

}  // namespace

std::string printed_formula(const TemperatureFunction& term, EnergyUnit unit) {
  std::string text;
  const auto& pieces = pieces_of(unit);
  for (auto piece = pieces.rbegin(); piece != pieces.rend(); ++piece) {
    const double value = term[piece->coefficient] * factor_of(unit);
    if (value == 0) continue;
    if (text.empty())
      text = fmt::format("{:.10g}", value);
    else
      text += fmt::format(" {} {:.10g}", value < 0 ? '-' : '+', std::abs(value));
    text += piece->basis;
  }
  return text.empty() ? "0" : text;
}

TemperatureFunction parse_formula(const std::string& text, EnergyUnit unit) {
  TemperatureFunction term;
  std::string_view rest = trimmed(text);
  const auto fail = [&] {
    const bool energy = unit != EnergyUnit::dimensionless;
    throw RequestError(
        fmt::format("'{}' is not a formula of T; expected a sum as in \"{}\"", text,
                    energy ? "4573 - 9.98 T + 0.3 T ln T + 0.01 T^2" : "-1.2 + 550/T + 0.3 ln T + 0.01 T"));
  };
  bool first = true;
  while (!rest.empty()) {
    double sign = 1;
    if (rest.front() == '+' || rest.front() == '-') {
      sign = rest.front() == '-' ? -1 : 1;
      rest = trimmed(rest.substr(1));
    } else if (!first) {
      fail();
    }
    first = false;
    double number = 0;
    const auto [end, error] = std::from_chars(rest.data(), rest.data() + rest.size(), number);
    if (error != std::errc() || !std::isfinite(number)) fail();
    rest.remove_prefix(static_cast<std::size_t>(end - rest.data()));
    for (const Piece& piece : pieces_of(unit)) {
      if (!rest.starts_with(piece.basis)) continue;
      term[piece.coefficient] += sign * number / factor_of(unit);
      rest = trimmed(rest.substr(piece.basis.size()));
      break;
    }
  }
  if (first) fail();
  return term;
}

}  // namespace jampot
