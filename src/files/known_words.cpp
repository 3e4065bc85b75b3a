#include "jampot/files/known_words.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <optional>

#include "jampot/basis/demand.hpp"
#include "jampot/basis/error.hpp"
#include "jampot/basis/quantity.hpp"
#include "jampot/basis/text.hpp"

namespace jampot {

std::vector<Prior> read_priors(const std::vector<std::string>& texts) {
  std::vector<Prior> priors;
  for (const std::string& text : texts) {
    const std::size_t equals = text.find('='),
                      sign = text.find("+-", equals == std::string::npos ? 0 : equals);
    const auto number = [&](std::size_t from, std::size_t to) {
      return parse_number(std::string(trimmed(std::string_view(text).substr(from, to - from))));
    };
    const bool whole = equals != std::string::npos && sign != std::string::npos;
    const auto value = whole ? number(equals + 1, sign) : std::nullopt;
    const auto u = whole ? number(sign + 2, text.size()) : std::nullopt;
    if (!value || !u || !(*u > 0))
      throw RequestError(
          fmt::format("`prior` '{}': expected NAME=VALUE+-UNCERTAINTY, as in `prior` alpha=0.3+-0.1", text));
    priors.push_back({std::string(trimmed(std::string_view(text).substr(0, equals))), *value, *u});
  }
  return priors;
}

namespace {

constexpr const char* known_forms =
    "azeotrope x1=0.9+-0.01, T=78.2+-0.1 degC, P=101.325 kPa; critical T=320+-1 K (with x1=... where known); "
    "plait x1=0.3+-0.02, x2=0.2, T=298.15 K";

// The value and its uncertainty in SI; the unit stands behind both.
struct Stated {
  double value = 0;
  std::optional<double> u;
};

Stated read_stated(const std::string& text, Dimension dimension) {
  const std::size_t sign = text.find("+-");
  if (sign == std::string::npos) return {parse_quantity(text, dimension), std::nullopt};
  const std::string rest(trimmed(std::string_view(text).substr(sign + 2)));
  std::size_t end = rest.find_first_not_of("0123456789.eE+-");
  if (end == std::string::npos) end = rest.size();
  const auto value = parse_number(std::string(trimmed(std::string_view(text).substr(0, sign))));
  const auto u = parse_number(rest.substr(0, end));
  if (!value || !u || !(*u > 0)) throw RequestError(fmt::format("'{}' is not VALUE+-UNCERTAINTY UNIT", text));
  const std::string unit(trimmed(std::string_view(rest).substr(end)));
  const double si = to_si(*value, unit, dimension);
  return {si, difference_to_si(*u, unit, dimension)};
}

std::size_t substances_of(const std::vector<DataSet>& sets) {
  return sets.empty() ? 0 : with_common_substances(sets).front().substances.size();
}

KnownPoint read_known_point(const std::string& text, std::size_t n) {
  const std::size_t space = text.find(' ');
  KnownPoint point{.what = parse_special_point(text.substr(0, space))};
  std::vector<std::optional<double>> x(n);
  const std::string rest = space == std::string::npos ? "" : text.substr(space + 1);
  for (const std::string& piece : split(rest, ',')) {
    const std::size_t equals = piece.find('=');
    if (equals == std::string::npos) throw RequestError(fmt::format("'{}' is not NAME=VALUE", piece));
    const std::string name(trimmed(std::string_view(piece).substr(0, equals)));
    const std::string value(trimmed(std::string_view(piece).substr(equals + 1)));
    if (name == "T") {
      const Stated stated = read_stated(value, Dimension::temperature);
      constexpr double held = 0.01;  // of a temperature that is told without an uncertainty
      point.T_K = stated.value;
      point.u_T_K = stated.u.value_or(held);
    } else if (name == "P") {
      const Stated stated = read_stated(value, Dimension::pressure);
      constexpr double held = 1e-4;
      point.P_Pa = stated.value;
      point.u_P_Pa = stated.u.value_or(held * stated.value);
    } else {
      const auto number = name.starts_with('x') ? parse_number(name.substr(1)) : std::nullopt;
      if (!number || *number < 1 || *number > static_cast<double>(n))
        throw RequestError(fmt::format("'{}' is none of T, P, x1 to x{}", name, n));
      const Stated stated = read_stated(value, Dimension::fraction);
      x[static_cast<std::size_t>(*number) - 1] = stated.value;
      if (stated.u) point.u_x = std::max(point.u_x, *stated.u);
    }
  }
  if (point.T_K == 0) throw RequestError("its temperature is missing, T=...");
  if (point.what == SpecialPoint::azeotrope && point.P_Pa == 0)
    throw RequestError("its pressure is missing, P=...");
  const auto missing = std::count(x.begin(), x.end(), std::nullopt);
  if (missing == static_cast<std::ptrdiff_t>(n) && point.what == SpecialPoint::critical_solution)
    return point;
  if (missing > 1)
    throw RequestError("all fractions but one are needed, each 0 of a substance that is not there");
  double others = 0;
  for (const auto& fraction : x) others += fraction.value_or(0);
  for (const auto& fraction : x) point.x.push_back(fraction.value_or(1 - others));
  if (!(point.u_x > 0)) throw RequestError("the fractions need an uncertainty, as in x1=0.9+-0.01");
  return point;
}

}  // namespace

std::vector<KnownPoint> read_known(const std::vector<std::string>& texts, const std::vector<DataSet>& sets) {
  std::vector<KnownPoint> list;
  for (const std::string& text : texts) {
    try {
      list.push_back(read_known_point(text, substances_of(sets)));
      demand_known_point(list.back(), substances_of(sets));
    } catch (const RequestError& error) {
      throw RequestError(fmt::format("`known` '{}': {} (forms: {})", text, error.what(), known_forms));
    }
  }
  return list;
}

std::vector<Bound> read_bounds(const std::vector<std::string>& texts) {
  std::vector<Bound> bounds;
  for (const std::string& text : texts) {
    const std::size_t equals = text.find('='), dots = text.find("..");
    const bool whole = equals != std::string::npos && dots != std::string::npos && dots > equals;
    const auto number = [&](std::size_t from, std::size_t to) {
      return parse_number(std::string(trimmed(std::string_view(text).substr(from, to - from))));
    };
    const auto low = whole ? number(equals + 1, dots) : std::nullopt;
    const auto high = whole ? number(dots + 2, text.size()) : std::nullopt;
    if (!low || !high || !(*low < *high))
      throw RequestError(
          fmt::format("`bound` '{}': expected NAME=LOW..HIGH, as in `bound` alpha=0.2..0.47", text));
    bounds.push_back({std::string(trimmed(std::string_view(text).substr(0, equals))), *low, *high});
  }
  return bounds;
}

void read_offsets(const std::vector<std::string>& texts, FitOptions& options) {
  for (const std::string& text : texts) {
    const std::size_t equals = text.find('=');
    const std::string name(trimmed(std::string_view(text).substr(0, equals)));
    const std::string value(
        equals == std::string::npos ? "" : std::string(trimmed(std::string_view(text).substr(equals + 1))));
    if (name == "T" && !value.empty()) {
      try {
        options.u_offset_T_K = parse_difference(value, Dimension::temperature);
      } catch (const RequestError& error) {
        throw RequestError(fmt::format("`offset` '{}': {}", text, error.what()));
      }
    } else if (name == "P" && value.ends_with('%')) {
      options.u_offset_P = parse_quantity(value, Dimension::fraction);
    } else {
      throw RequestError(fmt::format("`offset` '{}': expected T=0.2 K or P=0.5 %", text));
    }
  }
}

std::map<std::string, double> read_holds(const std::vector<std::string>& texts) {
  std::map<std::string, double> held;
  for (const std::string& text : texts) {
    const std::size_t equals = text.find('=');
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(text.substr(equals + 1));
    if (!value)
      throw RequestError(fmt::format("`hold` '{}': expected NAME=VALUE, as in `hold` alpha=0.3", text));
    held[std::string(trimmed(std::string_view(text).substr(0, equals)))] = *value;
  }
  return held;
}

std::map<std::string, std::string> read_ties(const std::vector<std::string>& texts) {
  std::map<std::string, std::string> tied;
  for (const std::string& text : texts) {
    const std::vector<std::string> names = split(text, '=');
    if (names.empty() || names.size() > 2 || names.front().empty() || names.back().empty())
      throw RequestError(fmt::format(
          "`tie` '{}': expected TERM=TERM, as in `tie` tau_21=tau_12, or TERM alone: one value for all pairs",
          text));
    tied[names.front()] = names.back();
  }
  return tied;
}

std::vector<Coefficient> read_form(const std::string& text) {
  std::vector<std::string> names;
  for (const Coefficient coefficient : all_coefficients) names.emplace_back(name_of(coefficient));
  std::vector<Coefficient> form;
  for (const std::string& piece : split(text, ',')) {
    const auto found = std::find(names.begin(), names.end(), piece);
    if (found == names.end()) {
      throw RequestError(fmt::format("`form`: '{}' is not a coefficient; there are {}.{}", piece,
                                     joined(names, ", "), did_you_mean(piece, names)));
    }
    form.push_back(static_cast<Coefficient>(found - names.begin()));
    if (std::count(form.begin(), form.end(), form.back()) > 1) {
      throw RequestError(fmt::format("`form` names '{}' twice", piece));
    }
  }
  return form;
}

std::array<double, 2> read_ln_gamma_inf(const std::string& text, const std::vector<Substance>& pair,
                                        const Bank& bank) {
  demand_size(pair.size(), 2, "substances of a pair");
  std::array<double, 2> ln_gamma{NAN, NAN};
  for (const std::string& piece : split(text, ',')) {
    const std::size_t in = piece.find(" in "), equals = piece.rfind('=');
    const auto value = equals == std::string::npos ? std::nullopt : parse_number(piece.substr(equals + 1));
    if (in == std::string::npos || equals < in || !value || !(*value > 0)) {
      throw RequestError(
          fmt::format("`limits` '{}': expected \"SOLUTE in SOLVENT = GAMMA\", as in \"{} in {} = 3.2\"",
                      piece, pair[0].name, pair[1].name));
    }
    const std::string solute = bank.require(piece.substr(0, in)).name;
    const std::string solvent = bank.require(piece.substr(in + 4, equals - in - 4)).name;
    const bool first = solute == pair[0].name && solvent == pair[1].name;
    if (!first && !(solute == pair[1].name && solvent == pair[0].name)) {
      throw RequestError(
          fmt::format("`limits` '{}' is not about {} and {}", piece, pair[0].name, pair[1].name));
    }
    ln_gamma[first ? 0 : 1] = std::log(*value);
  }
  if (std::isnan(ln_gamma[0]) || std::isnan(ln_gamma[1])) {
    throw RequestError("`limits` needs both limits: each of the two in the other");
  }
  return ln_gamma;
}

}  // namespace jampot
